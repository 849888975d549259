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
      className={`mb-2 flex items-center justify-between gap-x-2 border-l-4 py-0.5 pl-3 text-[15px] leading-tight ${
        asked ? 'border-caution bg-caution-wash' : 'border-line'
      }`}
    >
      <p className={asked ? 'font-semibold' : 'text-soft'}>
        <span className="sr-only">{name}: </span>
        {!asked ? 'If it comes or goes:' : failing === 'on-when-off' ? 'On now?' : 'Fails now?'}
      </p>
      <div className="flex shrink-0 gap-1">
        {answersTo(failing).map(({ state, word }) => (
          <button
            key={state}
            type="button"
            onClick={() => onSay(state)}
            className="min-h-11 max-w-24 rounded-md border-2 border-line bg-sheet px-2 font-semibold hover:border-ink"
          >
            {word}
          </button>
        ))}
      </div>
    </div>
  );
}
