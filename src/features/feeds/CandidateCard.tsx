'use client';

import type { ReactNode } from 'react';
import { type Candidate, type FeedAsk, feedTitle } from '#core/feed';
import type { Panel } from '#core/format';
import { KEY_STATE_WORDS, type KeyState } from '#core/limits';
import { formatNumber } from '#core/quantity';
import { carrierWords } from '#core/sizing';
import { PanelDrawing } from '@/features/panels';
import { Caution } from '@/ui/controls';
import { Fold } from '@/ui/Fold';

const SIGNS = { live: '●', weak: '◐', dead: '○' } as const;

const SHORT: Readonly<Record<KeyState, string>> = {
  off: 'off',
  'off-waited': 'waited',
  accessory: 'acc.',
  run: 'run',
  crank: 'crank',
  running: 'engine',
  'function-on': 'in use',
};

const VERDICT = {
  fits: ['✓', 'Fits', 'text-good'],
  'to-read': ['?', 'Not sure yet', 'text-caution'],
  refused: ['✗', 'Refused', 'text-bad'],
} as const;

/** Where it is live: read, by the circuit, or as the map says; a dash where nobody knows. */
function States({ candidate, ask }: { candidate: Candidate; ask: FeedAsk }) {
  const shown = candidate.states.filter(
    ({ state, stands }) => state !== 'function-on' || stands !== null || ask.wanted[state] !== undefined,
  );
  return (
    <dl className="mt-2 grid max-w-md auto-cols-fr grid-flow-col gap-x-1" data-testid="feed-states">
      {shown.map(({ state, stands, read, differs, mapped }) => {
        const wish = ask.wanted[state];
        const wrong = stands !== null && wish !== undefined && stands !== wish;
        return (
          <div
            key={state}
            className={`min-w-0 border-t-4 text-center ${wrong ? 'border-bad' : stands === null ? 'border-dashed border-line' : 'border-good'}`}
          >
            <dt className="text-sm text-soft">
              <span className="sr-only">{KEY_STATE_WORDS[state]}</span>
              <span aria-hidden="true">{SHORT[state]}</span>
            </dt>
            <dd className="text-sm leading-tight">
              <span className="font-semibold">{stands === null ? '–' : `${SIGNS[stands]} ${stands}`}</span>
              <span className="block text-soft">
                {differs
                  ? 'read; map differs'
                  : read !== null
                    ? 'read'
                    : stands !== null
                      ? 'circuit'
                      : mapped !== null
                        ? `map: ${mapped}`
                        : 'not read'}
              </span>
            </dd>
          </div>
        );
      })}
    </dl>
  );
}

/** One slot as a feed: how it stands, what is still to be read with the way to it, what it can give and which part limits. */
export function CandidateCard({
  candidate,
  ask,
  panel,
  toRead,
  supply,
  deeds,
}: {
  candidate: Candidate;
  ask: FeedAsk;
  panel: Panel;
  /** A button that leads into the survey, at this slot and state. */
  toRead: (state: KeyState, holes: boolean) => ReactNode;
  supply: ReactNode;
  deeds: ReactNode;
}) {
  const [sign, word, look] = VERDICT[candidate.verdict];
  const { slot, headroom } = candidate;
  return (
    <article
      className="rounded-lg border-2 border-line bg-sheet p-3"
      aria-labelledby={`feed-${panel.id}-${slot.id}`}
      data-feed={`${panel.id}/${slot.id}`}
    >
      <div className="flex items-baseline justify-between gap-3">
        <h3 id={`feed-${panel.id}-${slot.id}`} className="text-xl leading-tight">
          {capital(feedTitle(candidate))}
        </h3>
        <p className={`shrink-0 font-bold ${look}`}>
          <span aria-hidden="true">{sign} </span>
          {word}
        </p>
      </div>
      <p className="mt-1">{candidate.sentence}</p>
      <States candidate={candidate} ask={ask} />
      {candidate.against.map(({ id, words, refuses }) =>
        refuses ? null : (
          <div key={id} className="mt-2">
            <Caution>{words}</Caution>
          </div>
        ),
      )}
      {candidate.unread.length > 0 ? (
        <div className="mt-2 flex flex-wrap items-center gap-2">
          <span className="text-sm font-semibold">Still to be read:</span>
          {candidate.unread.map((state) => (
            <span key={state}>{toRead(state, false)}</span>
          ))}
        </div>
      ) : null}
      {candidate.side.stands === 'proved' ? (
        <p className="mt-2 text-sm text-soft">{candidate.side.sentence}</p>
      ) : slot.family === 'stud' ? null : (
        <div className="mt-2 flex flex-wrap items-center gap-2">
          <span className="max-w-prose text-sm">{candidate.side.sentence}</span>
          {toRead(candidate.side.missing[0] ?? 'run', true)}
        </div>
      )}
      <p className="mt-2 border-l-4 border-copper pl-3 font-semibold">{candidate.roomWords}</p>
      {headroom.parts.length > 0 ? (
        <ul className="mt-1 text-[0.95rem]" data-testid="feed-carriers">
          {headroom.parts.map((part) => (
            <li key={part.name} className="border-b border-line py-1">
              {part.name}: <span className="reading">{carrierWords(part, ask.amps, headroom.factor)}</span>
              {part === headroom.limiting ? <strong> · limits</strong> : null}
            </li>
          ))}
        </ul>
      ) : null}
      {candidate.addedFuse === null ? null : (
        <p className="mt-1 text-[0.95rem]">
          Fuse for what is added: <strong>{formatNumber(candidate.addedFuse)} A</strong>
          {slot.ratingAmps === undefined ? '' : `; the slot’s own stays ${formatNumber(slot.ratingAmps)} A`}.
        </p>
      )}
      {supply}
      <Fold title="Where it is">
        <p className="mt-1">{candidate.where}</p>
        <PanelDrawing panel={panel} turns={0} wanted={slot.id} className="mt-2 max-w-xl" />
      </Fold>
      <div className="mt-2 flex flex-wrap gap-2">{deeds}</div>
    </article>
  );
}

export function capital(words: string): string {
  return `${words[0]?.toUpperCase() ?? ''}${words.slice(1)}`;
}
