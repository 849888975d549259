'use client';

import { readingAt } from '#core/hands';
import { KEY_STATE_WORDS, KEY_STATES, liveness } from '#core/limits';
import { useJob } from '@/job/JobProvider';

const ENDS = ['a', 'b'] as const;

/** Both ends of a wire in every state of the feeds, each answered by one tap. */
export function EndReadings({ wire, nominalVolts }: { wire: string; nominalVolts: number }) {
  const { job, record } = useJob();
  const readings = job.wireReadings.filter((one) => one.wire === wire);
  const tell = (end: 'a' | 'b', state: (typeof KEY_STATES)[number], lamp: 'lit' | 'off') =>
    record({
      kind: 'wire-reading',
      wire,
      end,
      value: { lamp },
      state,
      testerProved: job.testerProvedAt !== null,
    });
  return (
    <table className="mt-2 w-full">
      <thead>
        <tr>
          <th className="text-left">State</th>
          <th>End a</th>
          <th>End b</th>
        </tr>
      </thead>
      <tbody>
        {KEY_STATES.map((state) => (
          <tr key={state} className="border-b border-line">
            <th scope="row" className="max-w-36 py-1 text-left text-sm font-normal">
              {KEY_STATE_WORDS[state]}
            </th>
            {ENDS.map((end) => {
              const reading = readingAt(readings, end, state);
              const live = reading ? liveness(reading.value, nominalVolts) : null;
              return (
                <td key={end} className="px-0.5 py-1 text-center">
                  <span className="inline-flex gap-1">
                    {(['lit', 'off'] as const).map((lamp) => {
                      const on = live !== null && (live === 'dead') === (lamp === 'off');
                      return (
                        <button
                          key={lamp}
                          type="button"
                          aria-label={`End ${end}, ${KEY_STATE_WORDS[state]}: ${lamp === 'lit' ? 'live' : 'dead'}`}
                          aria-pressed={on}
                          onClick={() => tell(end, state, lamp)}
                          className={`min-h-11 min-w-13 rounded-md border-2 text-[0.95rem] whitespace-nowrap ${
                            on ? 'border-copper bg-copper-wash font-bold' : 'border-line'
                          }`}
                        >
                          {lamp === 'lit' ? '● live' : '○ dead'}
                        </button>
                      );
                    })}
                  </span>
                </td>
              );
            })}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
