/** What earlier entries of the evidence say of a later one: the same contacts, the same test, the same point that hangs. */
import type { RefOf } from '../kinds/kind';
import { fittedKey } from './fitted';
import type { JudgedReading } from './judgedReading';
import { FLOATS } from './voltsPrediction';

type Entries = readonly JudgedReading[];

/** The last entry before a place that was taken in the same condition of the same circuit: it knows how contacts stand. */
export function lastInCondition(entries: Entries, index: number): JudgedReading | null {
  const { reading, from } = entries[index]!;
  const { test } = reading;
  if (!('condition' in test)) return null;
  for (let at = index - 1; at >= 0; at--) {
    const earlier = entries[at]!;
    const other = earlier.reading.test;
    if (earlier.from === from && 'condition' in other && other.condition === test.condition) return earlier;
  }
  return null;
}

/** What the same point showed before in the same set-up of this episode; null at the first time. */
export function sameReading(entries: Entries, index: number): number | null {
  const { id, episode, from } = entries[index]!;
  const earlier = entries[index - 1];
  if (!earlier || earlier.from !== from || earlier.episode !== episode) return null;
  if (earlier.id !== id) return null;
  return 'volts' in earlier.reading.value ? earlier.reading.value.volts : null;
}

/**
 * What two points showed before while a hypothesis had them hang, whatever the set-up was; null at the first time.
 * What hangs does so in all readings together: one hidden state, which the first reading has shown.
 */
export function floatedBefore(entries: Entries, index: number, h: number): number | null {
  const { test } = entries[index]!.reading;
  return test.kind === 'volts' ? shownBefore(entries, test, index, h) : null;
}

/** The same for a reading that is not taken yet, among the entries before `until`. */
export function shownBefore(entries: Entries, test: RefOf<'volts'>, until: number, h: number): number | null {
  for (let at = until - 1; at >= 0; at--) {
    const { reading, prediction } = entries[at]!;
    const { test: other, value } = reading;
    if (other.kind !== 'volts' || !('volts' in value) || !prediction.volts) continue;
    if (other.node !== test.node || other.against !== test.against) continue;
    if (prediction.volts.floating[h] === FLOATS) return value.volts;
  }
  return null;
}

/** The last result of the same test before a place, parts fitted alike, in whatever episode; null at the first time. */
export function lastOutcome(entries: Entries, index: number): number | null {
  const { id, reading } = entries[index]!;
  const fitted = fittedKey(reading.fitted);
  for (let at = index - 1; at >= 0; at--) {
    const { id: other, outcome, reading: earlier } = entries[at]!;
    if (outcome >= 0 && other === id && fittedKey(earlier.fitted) === fitted) return outcome;
  }
  return null;
}
