/** What a person's habit costs where it puts another test first. */
import { kindOf } from '../kinds';
import type { Names } from '../kinds/kind';
import type { TestCandidate } from '../tests';
import { type ChoiceContext, type InPlay, type Offered, rankTests, type TestWorth } from './next';

/** A test that tells less than this share of another tells less. */
const ABOUT_AS_MUCH = 0.9;

/**
 * In words; null where the habit changes nothing. `usual` has the tests as they are without the habits, null where there
 * are none.
 */
export function habitCost(
  first: TestWorth | undefined,
  open: readonly Offered[],
  usual: ReadonlyMap<string, TestCandidate> | null,
  inPlay: InPlay,
  context: ChoiceContext,
  given: (test: TestCandidate, rows: Int32Array) => Float32Array,
  names: Names,
): string | null {
  if (!usual || !first) return null;
  const plain = open.map(({ test, prediction }) => ({ test: usual.get(test.id) ?? test, prediction }));
  const [best] = rankTests(plain, inPlay, context, given);
  if (!best || best.test.id === first.test.id) return null;
  const tells = first.gainBits < ABOUT_AS_MUCH * best.gainBits ? 'tells more' : 'tells about as much';
  const other = kindOf(best.test.ref).inSentence(names, best.test.ref);
  return `By your habit this comes first. Otherwise it would be ${other}: ${best.minutes.toFixed(1)} min, and it ${tells}.`;
}
