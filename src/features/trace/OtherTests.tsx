'use client';

import { useMemo, useState } from 'react';
import { type BarredTest, type Proposal, testCardWords, testMatches, testSearchWords } from '#core/diagnosis';
import type { CircuitFile } from '#core/format';
import { cellKey } from '#core/log';
import { wordsOf } from '#core/panel';
import { INPUT } from '@/ui/controls';
import type { PermittedTest } from '@/workers/diagnosisMessages';

/** So many are shown for a search; whoever wants another writes one more word. */
const SHOWN = 12;

/**
 * In the condition of the complaint, in another, and last a look at what should be off there: whoever asks for a function
 * wants to see it work.
 */
function away({ ref }: PermittedTest, condition: string, expected: Expected | undefined): number {
  if (ref.kind === 'function' && expected?.[cellKey(ref.function, ref.condition)] === 'dead') return 2;
  return 'condition' in ref && ref.condition !== condition ? 1 : 0;
}

/** How many of the words asked for its title has. */
function named({ titleWords }: { readonly titleWords: readonly string[] }, text: string): number {
  return wordsOf(text).filter((word) => testMatches(word, titleWords)).length;
}

type Expected = Readonly<Record<string, 'works' | 'weak' | 'dead'>>;

/** The proposed tests, and any other that no flag bars, found by its words. */
export function OtherTests({
  circuit,
  proposed,
  permitted,
  forbidden,
  condition,
  expected,
  onChoose,
}: {
  circuit: CircuitFile;
  proposed: readonly Proposal[];
  permitted: readonly PermittedTest[];
  /** Found by their words like the others, with the reason why they are not done. */
  forbidden: readonly BarredTest[];
  /** The condition of the complaint: what is read there comes first. */
  condition: string;
  /** What a sound circuit does, by `function|condition`. */
  expected: Expected | undefined;
  onChoose: (testId: string) => void;
}) {
  const [text, setText] = useState('');
  const all = useMemo(
    () =>
      [...permitted]
        .sort((one, other) => away(one, condition, expected) - away(other, condition, expected))
        .map(({ id, ref, place, lead }) => {
          const { title, settings } = testCardWords(circuit, ref, place, lead);
          const where = circuit.places.find((one) => one.id === place)?.name ?? 'nothing to open';
          const detail = `${settings.map(({ words }) => words).join(', ')} · ${where}`;
          const words = testSearchWords(circuit, ref, place, lead);
          return { id, title, detail, words, titleWords: wordsOf(title) };
        }),
    [circuit, permitted, condition, expected],
  );
  const closed = useMemo(
    () =>
      forbidden.map(({ id, ref, reasons }) => {
        const { title } = testCardWords(circuit, ref, null, '');
        return { id, title, reasons, words: testSearchWords(circuit, ref, null, '') };
      }),
    [circuit, forbidden],
  );
  const asked = text.trim() !== '';
  // What is named so comes before what is only set or reached so.
  const found = all
    .filter((one) => testMatches(text, one.words))
    .sort((one, other) => named(other, text) - named(one, text));
  const barred = asked ? closed.filter((one) => testMatches(text, one.words)) : [];
  const rows = asked
    ? found.slice(0, SHOWN)
    : proposed.map((one) => {
        const row = all.find((other) => other.id === one.id);
        return {
          id: one.id,
          title: row?.title ?? one.id,
          detail: `${row?.detail ?? ''} · ${one.minutes.toFixed(1)} min`,
        };
      });
  return (
    <div className="mt-3">
      <label className="block">
        <span className="mb-1 block font-semibold">Any other test, by a word of it</span>
        <input
          value={text}
          onChange={(event) => setText(event.target.value)}
          placeholder="relay 4, swap, continuity, voltage drop …"
          autoComplete="off"
          className={INPUT}
        />
      </label>
      <ul className="mt-3 divide-y divide-line">
        {rows.map((row) => (
          <li key={row.id}>
            <button
              type="button"
              className="min-h-14 w-full py-2 text-left hover:bg-sunk"
              onClick={() => onChoose(row.id)}
            >
              <span className="block font-semibold">{row.title}</span>
              <span className="block text-sm text-soft">{row.detail}</span>
            </button>
          </li>
        ))}
        {barred.slice(0, SHOWN).map(({ id, title, reasons }) => (
          <li key={id} className="min-h-14 py-2" data-testid="forbidden-test">
            <span className="block font-semibold text-soft line-through">{title}</span>
            <span className="block text-sm text-caution">▲ Not done here. {reasons.join(' ')}</span>
          </li>
        ))}
      </ul>
      {asked ? (
        <p className="mt-2 text-sm text-soft" role="status">
          {found.length === 0
            ? barred.length > 0
              ? 'Safety forbids what has these words.'
              : 'No test has these words.'
            : found.length > SHOWN
              ? `${found.length} tests; the first ${SHOWN} are shown.`
              : `${found.length} ${found.length === 1 ? 'test' : 'tests'}.`}
        </p>
      ) : null}
    </div>
  );
}
