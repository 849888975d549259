'use client';

import { standsNow } from '#core/log';
import { useDiagnosis, useJob } from '@/job/JobProvider';
import { entryTimeWords } from '@/workers/sheetHead';

/** A job that was handed over in the middle: how it stands, before a hand goes in. */
export function TakenOver() {
  const { job, circuit } = useJob();
  const diagnosis = useDiagnosis();
  return (
    <section
      aria-label="Handed over in the middle"
      className="mt-3 border-l-4 border-caution bg-caution-wash px-3 py-2"
      data-testid="taken-over"
    >
      <ul>
        {standsNow(job, circuit, diagnosis.card?.ref ?? null).map(({ words, by }, index) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: lines have no other identity, and never move
          <li key={index} className={index === 0 ? 'font-bold' : ''}>
            {words}
            {by ? (
              <span className="text-sm font-normal text-soft">
                {' '}
                ({by.person}, {entryTimeWords(by)})
              </span>
            ) : null}
          </li>
        ))}
      </ul>
    </section>
  );
}
