'use client';

import { memo } from 'react';
import type { Assessment } from '#core/diagnosis';
import type { CircuitFile } from '#core/format';
import { InStock } from '@/job/InStock';
import { Fold } from '@/ui/Fold';

function chanceWords(chance: number): string {
  if (chance > 0.995) return '> 99 %';
  if (chance < 0.01) return '< 1 %';
  return `${Math.round(chance * 100)} %`;
}

const STRENGTH_WORDS = { proved: 'Proved', supported: 'Supported', provisional: 'Provisional' } as const;

/** Suspects by chance, and what has been cleared by which reading. */
export const Suspects = memo(function Suspects({
  circuit,
  assessment,
  readingNames,
}: {
  circuit: CircuitFile;
  assessment: Assessment;
  readingNames: ReadonlyMap<string, string>;
}) {
  const partName = (id: string) => circuit.parts.find((one) => one.id === id)?.name ?? id;
  const cleared = assessment.parts.filter((part) => part.standing === 'cleared');
  const excluded = assessment.parts.filter((part) => part.standing === 'excluded');
  const partly = assessment.parts.filter((part) => part.standing === 'partly' && part.remaining.length > 0);
  const { verdict } = assessment;
  const shown = assessment.suspects.filter((one, index) => index < 3 || one.chance >= 0.01).slice(0, 9);
  const told = shown.map(({ chance, reason }) => (chance >= WORTH_WORDS ? reason : null));
  return (
    <div>
      <div
        className={`border-l-4 py-1 pl-3 ${verdict.strength === 'proved' ? 'border-good' : 'border-copper'}`}
        aria-live="polite"
        data-testid="verdict"
      >
        {verdict.strength ? <p className="text-lg font-bold">{STRENGTH_WORDS[verdict.strength]}</p> : null}
        <p>{verdict.sentence}</p>
        {assessment.beforePurchase.length > 0 ? (
          <p className="mt-1" data-testid="before-purchase">
            Before anything is bought: {assessment.beforePurchase.join('; ')}.
          </p>
        ) : null}
        {shown[0] && shown[0].chance >= WORTH_FETCHING && shown[0].parts[0] ? (
          <InStock part={shown[0].parts[0]} />
        ) : null}
        {assessment.contradiction ? (
          <p className="mt-2 font-semibold text-bad" data-testid="contradiction">
            ⚠ {assessment.contradiction.sentence}
          </p>
        ) : null}
        {assessment.lookConflicts.map(({ reading, sentence }) => (
          <p key={reading} className="mt-2 font-semibold text-bad" data-testid="look-conflict">
            ⚠ {sentence}
          </p>
        ))}
        {verdict.evidence.length > 0 ? (
          <ul className="mt-1 text-sm text-soft">
            {verdict.evidence.map((id) => (
              <li key={id}>· {readingNames.get(id) ?? 'a reading'}</li>
            ))}
          </ul>
        ) : null}
      </div>
      <ol className="mt-4 space-y-3" data-testid="suspects">
        {shown.map((suspect, index) => (
          <li key={suspect.id}>
            <div className="flex items-baseline justify-between gap-3">
              <span>
                <strong>{suspect.title}</strong>
                {suspect.forms[0] && suspect.chance >= WORTH_WORDS && !suspect.title.startsWith('No') ? (
                  <span className="text-sm text-soft"> · {formOnly(suspect.forms[0].words)}</span>
                ) : null}
              </span>
              <span className="whitespace-nowrap font-bold tabular-nums">{chanceWords(suspect.chance)}</span>
            </div>
            <div aria-hidden="true" className="mt-1 h-2.5 bg-sunk">
              <div className="h-full bg-ink" style={{ width: `${Math.max(suspect.chance * 100, 0.5)}%` }} />
            </div>
            <Reason told={told} index={index} />
          </li>
        ))}
      </ol>
      <Fold title={`Cleared: ${cleared.length} of ${assessment.parts.length} parts`} className="mt-5">
        <ul className="space-y-1 text-[0.95rem]" data-testid="cleared">
          {cleared.map((part) => (
            <li key={part.part}>
              <span className="text-good">✓</span> {partName(part.part)}{' '}
              <span className="text-soft">
                — {readingNames.get(part.clearedBy ?? '') ?? 'the readings together'}
              </span>
            </li>
          ))}
        </ul>
        {excluded.length > 0 ? (
          <>
            <h3 className="mt-3 font-bold">Not the cause, and not proved: no current flowed through it</h3>
            <p className="text-[0.95rem]" data-testid="excluded">
              {excluded.map((part) => partName(part.part)).join(', ')}
            </p>
          </>
        ) : null}
        {partly.length > 0 ? (
          <>
            <h3 className="mt-3 font-bold">Cleared in part; still possible</h3>
            <ul className="space-y-1 text-[0.95rem]">
              {partly.map((part) => (
                <li key={part.part}>{part.remaining.slice(0, 2).join('; ')}</li>
              ))}
            </ul>
          </>
        ) : null}
      </Fold>
    </div>
  );
});

/** From this chance on it is worth a look whether the part is there. */
const WORTH_FETCHING = 0.5;

/** Below this a suspect has no sentence of its own. */
const WORTH_WORDS = 0.03;

/** The sentence of a suspect, or of all those in a row that share it, under the last of them. */
function Reason({ told, index }: { told: readonly (string | null)[]; index: number }) {
  const reason = told[index];
  if (!reason || told[index + 1] === reason) return null;
  let first = index;
  while (told[first - 1] === reason) first -= 1;
  const count = index - first + 1;
  return (
    <p className="mt-0.5 text-sm text-soft">
      {count > 1
        ? `${count === 2 ? 'Both' : `All ${count}`}: ${reason[0]?.toLowerCase()}${reason.slice(1)}`
        : reason}
    </p>
  );
}

function formOnly(words: string): string {
  const at = words.indexOf(': ');
  const form = at >= 0 ? words.slice(at + 2) : words;
  return `${form[0]?.toUpperCase() ?? ''}${form.slice(1)}`;
}
