'use client';

import type { FunctionStateName } from '#core/format';

interface Answer {
  readonly state: FunctionStateName;
  readonly word: string;
}

const COMES_AND_GOES: Answer = { state: 'comes-and-goes', word: 'Comes and goes' };

/** What can be said of a symptom: of what should work that it fails, of what should be off that it is on. */
function answersTo(failing: FunctionStateName): readonly Answer[] {
  return failing === 'on-when-off'
    ? [{ state: failing, word: 'On' }, { state: 'dead', word: 'Off' }, COMES_AND_GOES]
    : [{ state: failing, word: 'Fails' }, { state: 'works', word: 'Works' }, COMES_AND_GOES];
}

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
        {!asked
          ? `If ${name.toLowerCase()} comes or goes, say so:`
          : failing === 'on-when-off'
            ? `Is ${name.toLowerCase()} on now?`
            : `Does ${name.toLowerCase()} fail now?`}
      </p>
      <div className="flex flex-wrap gap-2">
        {answersTo(failing).map(({ state, word }) => (
          <button
            key={state}
            type="button"
            onClick={() => onSay(state)}
            className="min-h-11 rounded-md border-2 border-line bg-sheet px-3 font-semibold hover:border-ink"
          >
            {word}
          </button>
        ))}
      </div>
    </div>
  );
}
