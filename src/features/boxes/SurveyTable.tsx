'use client';

import { type SurveyRow, surveyWords } from '#core/feed';
import { KEY_STATE_WORDS, KEY_STATES, type KeyState } from '#core/limits';
import { SideScroll } from '@/ui/SideScroll';
import { slotTitle } from './TriageView';

const STATE_SHORT: Readonly<Record<KeyState, string>> = {
  off: 'Off',
  'off-waited': 'Off, waited',
  accessory: 'Acc.',
  run: 'Run',
  crank: 'Crank',
  running: 'Engine',
  'function-on': 'In use',
};

const SIGNS = { live: '● live', weak: '◐ weak', dead: '○ dead' } as const;

/** Every slot in every state: what was read, the class that it makes, what would still tell. */
export function SurveyTable({
  rows,
  state,
  here,
  onChoose,
}: {
  rows: readonly SurveyRow[];
  state: KeyState;
  /** The slot that is read now. */
  here: string | null;
  onChoose: (slot: string) => void;
}) {
  return (
    <SideScroll label="Survey" className="order-3 lg:order-1">
      <table className="w-full min-w-[40rem] text-left" data-testid="survey">
        <thead>
          <tr className="border-b-2 border-ink">
            <th className="py-1">Slot</th>
            {KEY_STATES.map((one) => (
              <th key={one} className={`px-1 py-1 text-center ${one === state ? 'text-copper' : ''}`}>
                {STATE_SHORT[one]}
              </th>
            ))}
            <th className="py-1 pl-3">Feed</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr
              key={row.slot.id}
              className={`border-b border-line ${row.slot.id === here ? 'bg-copper-wash' : ''}`}
            >
              <th scope="row" className="max-w-56 py-1 pr-2 font-normal">
                <button
                  type="button"
                  onClick={() => onChoose(row.slot.id)}
                  className="min-h-11 text-left leading-tight"
                >
                  {slotTitle(row.slot)}
                </button>
              </th>
              {KEY_STATES.map((one) => {
                const stands = row.states[one];
                return (
                  <td
                    key={one}
                    className="px-1 text-center whitespace-nowrap"
                    aria-label={KEY_STATE_WORDS[one]}
                  >
                    {stands ? SIGNS[stands] : ''}
                  </td>
                );
              })}
              <td className="pl-3 text-sm">
                <FeedCell row={row} />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </SideScroll>
  );
}

function FeedCell({ row }: { row: SurveyRow }) {
  const { finding, twoFeeds, side } = row;
  const sure = finding.feed !== 'unknown' || twoFeeds;
  const still = finding.missing.length > 0 ? finding.missing : finding.unread;
  return (
    <>
      {sure ? (
        <strong className={twoFeeds ? 'text-bad' : ''}>{surveyWords(row)}</strong>
      ) : (
        <span className={finding.possible.length > 0 ? '' : 'text-soft'}>{surveyWords(row)}</span>
      )}
      {still.length > 0 && finding.possible.length > 0 ? (
        <span className="block text-soft">
          {sure ? 'not read' : 'still'}: {still.map((one) => STATE_SHORT[one].toLowerCase()).join(', ')}
        </span>
      ) : null}
      {side.end !== null ? (
        <span className="block text-soft">
          supply side: {side.end === 'first' ? 'upper or left' : 'lower or right'} hole
        </span>
      ) : null}
    </>
  );
}
