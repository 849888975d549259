'use client';

import { Choice } from '@/ui/Choice';
import { Button } from '@/ui/controls';
import type { Clashes } from './useClashes';

/** Words for fields that somebody typed and that give way. */
const FIELD_WORDS: Readonly<Record<string, string>> = {
  ratingAmps: 'amps',
  sizeMm2: 'size',
  lengthMetres: 'length',
  slot: 'place in the box',
};

/** Parts of a new circuit that the vehicle has under the same id: the same part, or another one. */
export function SameParts({ clashes: { asked, open, say } }: { clashes: Clashes }) {
  if (asked.length === 0) return null;
  const free = asked.filter(({ apart }) => apart === null).map(({ id }) => id);
  return (
    <section
      aria-labelledby="same-title"
      className="mt-3 border-l-4 border-caution pl-3"
      data-testid="same-parts"
    >
      <h2 id="same-title" className="text-lg">
        {asked.length === 1 ? 'A part' : `${asked.length} parts`} of this vehicle
        {asked.length === 1 ? ' has this id' : ' have these ids'} already
      </h2>
      <p className="text-soft">
        The same part is as the vehicle has it, wherever it hangs there. Another part gets another id; to
        choose it yourself, write it in the text.
      </p>
      {open > 1 ? (
        <div className="mt-2 flex flex-wrap gap-2">
          <Button onClick={() => say(free, 'another')}>All are other parts</Button>
          <Button onClick={() => say(free, 'same')}>All are the same</Button>
        </div>
      ) : null}
      <ul className="mt-2 grid gap-3 lg:grid-cols-2">
        {asked.map(({ id, name, theirs, circuit, proposal, givesWay, apart, answer }) => (
          <li key={id}>
            {apart ? (
              <p>
                <strong>{id}</strong>: {apart} What is drawn here becomes {proposal}.
              </p>
            ) : (
              <Choice
                legend={`${id}: ${name}${name === theirs ? `, as in ${circuit}` : `; in ${circuit} it is ${theirs}`}`}
                options={[
                  { id: 'same', name: 'The same part' },
                  { id: 'another', name: `Another: ${proposal}` },
                ]}
                chosen={answer}
                onChoose={(next) => say([id], next === 'same' ? 'same' : 'another')}
              />
            )}
            {answer === 'same' && givesWay.length > 0 ? (
              <p className="text-sm">
                As it is in {circuit}, not as written here:{' '}
                {givesWay.map((field) => FIELD_WORDS[field] ?? field).join(', ')}.
              </p>
            ) : null}
          </li>
        ))}
      </ul>
    </section>
  );
}
