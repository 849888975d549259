'use client';

import type { FunctionStateName } from '#core/format/readingsSchema';

const ANSWERS = [
  { state: 'dead', word: 'Fails' },
  { state: 'works', word: 'Works' },
  { state: 'comes-and-goes', word: 'Comes and goes' },
] as const satisfies readonly { state: FunctionStateName; word: string }[];

/** Whether the symptom is there just now: readings while it works clear nothing that comes and goes. */
export function FailsNow({
  name,
  failing,
  asked,
  onSay,
}: {
  name: string;
  /** What "fails" means for this complaint. */
  failing: FunctionStateName;
  /** Something was touched since it was last looked at. */
  asked: boolean;
  onSay: (state: FunctionStateName) => void;
}) {
  return (
    <div
      className={`mb-3 flex flex-wrap items-center justify-between gap-x-4 gap-y-2 border-l-4 px-3 py-1.5 ${
        asked ? 'border-caution bg-caution-wash' : 'border-line'
      }`}
    >
      <p className={asked ? 'font-semibold' : 'text-soft'}>
        {asked ? `Does ${name.toLowerCase()} fail now?` : `If ${name.toLowerCase()} comes or goes, say so:`}
      </p>
      <div className="flex flex-wrap gap-2">
        {ANSWERS.map(({ state, word }) => (
          <button
            key={state}
            type="button"
            onClick={() => onSay(state === 'dead' ? failing : state)}
            className="min-h-11 rounded-md border-2 border-line bg-sheet px-3 font-semibold hover:border-ink"
          >
            {word}
          </button>
        ))}
      </div>
    </div>
  );
}
