'use client';

import { useRef, useState } from 'react';
import { DISAGREEMENTS, INSTRUMENT_WORDS } from '#core/diagnosis';
import { type Hand, INSTRUMENT_NAMES, USUAL_HAND } from '#core/format';
import { postJson } from '@/sync/post';
import { requestFor, type Tried } from '@/sync/requestFor';
import { askWhoAgain } from '@/sync/who';
import { Choice, Several } from '@/ui/Choice';
import { Button, Problem } from '@/ui/controls';

/** What may be set instead of our side; what is not safe, or proves nothing, cannot be set. */
const SETTINGS = {
  fuses: [
    { id: 'probe', name: 'Probe in place' },
    { id: 'pull', name: 'Pull first' },
  ],
  tester: [
    { id: 'either', name: 'As it serves' },
    { id: 'lamp', name: 'Lamp first' },
    { id: 'meter', name: 'Meter first' },
  ],
  exchange: [
    { id: 'early', name: 'Early' },
    { id: 'last', name: 'Last' },
  ],
  isolation: [
    { id: 'by-task', name: 'By the task' },
    { id: 'always', name: 'Always off first' },
  ],
} as const;

const LAMPS = [6, 12, 24] as const;

/** One person's instruments and habits. The proposals count minutes as this hand works, and say what a habit costs. */
export function HandForm({ person, hand: kept }: { person: string; hand: Hand }) {
  const [hand, setHand] = useState(kept);
  const [said, setSaid] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const tried = useRef<Tried | null>(null);
  const keep = async (next: Hand) => {
    setHand(next);
    setSaid(null);
    tried.current = requestFor(tried.current, JSON.stringify(next));
    const posted = await postJson<{ message?: string }>('/api/me', { id: tried.current.id, hand: next });
    if (posted.kind === 'away') return setProblem(posted.message);
    if (!posted.ok) return setProblem(posted.answer.message ?? 'It was not taken.');
    setProblem(null);
    setSaid('Kept. The next card follows it.');
    await askWhoAgain();
  };
  return (
    <section aria-labelledby="hand" className="mt-8" data-testid="hand-form">
      <h2 id="hand" className="border-b-2 border-line pb-2 text-xl">
        How {person} works
      </h2>
      <p className="mt-3 max-w-prose">
        What is not at hand is never proposed. A habit is honoured where it is safe: tests then count the
        minutes they take in that hand, and a card says when the habit cost a better test.
      </p>
      <div className="mt-3 grid gap-3">
        <Several
          legend="At hand"
          options={INSTRUMENT_NAMES.map((id) => ({ id, name: INSTRUMENT_WORDS[id] }))}
          chosen={INSTRUMENT_NAMES.filter((one) => !hand.without.includes(one))}
          onChoose={(there) =>
            void keep({ ...hand, without: INSTRUMENT_NAMES.filter((one) => !there.includes(one)) })
          }
        />
        <Several
          legend="Lamps for"
          options={LAMPS.map((volts) => ({ id: String(volts), name: `${volts} V` }))}
          chosen={hand.lampVolts.map(String)}
          onChoose={(volts) =>
            void keep({ ...hand, lampVolts: LAMPS.filter((one) => volts.includes(String(one))) })
          }
        />
      </div>
      <ul className="mt-4 divide-y divide-line">
        {DISAGREEMENTS.map(({ question, side, setting }) => (
          <li key={question} className="grid gap-x-6 gap-y-2 py-3 lg:grid-cols-[1fr_22rem]">
            <div>
              <p className="font-semibold">{question}</p>
              <p className="text-soft">{side}</p>
            </div>
            {setting ? (
              <Choice
                legend={question}
                quiet
                options={SETTINGS[setting]}
                chosen={hand[setting]}
                onChoose={(id) => void keep({ ...hand, [setting]: id } as Hand)}
              />
            ) : (
              <p className="text-sm text-soft">
                Nothing else can be set: it would not be safe, or prove nothing.
              </p>
            )}
          </li>
        ))}
      </ul>
      {problem ? <Problem>{problem}</Problem> : null}
      <p role="status" className="mt-2 min-h-6 text-good">
        {said}
      </p>
      <Button onClick={() => void keep(USUAL_HAND)}>All as usual</Button>
    </section>
  );
}
