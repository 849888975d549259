'use client';

import { ASKED_STATES, WHEN, type Wish } from '#core/feed';
import type { Slot } from '#core/format';
import { KEY_STATE_WORDS } from '#core/limits';
import { Choice, Several } from '@/ui/Choice';
import { Fold } from '@/ui/Fold';
import { LiveField } from '@/ui/LiveField';
import { ownText, ownWishes, type ReadAsk, type TypedAsk } from './askAddress';

const WISHES = [
  { id: 'live', name: 'live' },
  { id: 'dead', name: 'dead' },
  { id: 'any', name: 'either' },
];

/** What is wanted of the feed, in a few taps. */
export function AskForm({
  typed,
  read,
  families,
  onType,
}: {
  typed: TypedAsk;
  read: ReadAsk;
  /** Families of taps that fit any slot of the vehicle. */
  families: readonly Slot['family'][];
  onType: (field: keyof TypedAsk, text: string) => void;
}) {
  const own = ownWishes(typed.own);
  const wish = (state: (typeof ASKED_STATES)[number], to: string) => {
    const { [state]: _before, ...rest } = own;
    onType('own', ownText(to === 'any' ? rest : { ...rest, [state]: to as Wish }));
  };
  return (
    <div className="grid gap-3">
      <div className="grid grid-cols-2 gap-3">
        <LiveField
          name="It draws"
          says="5 A, 60 W, 4 x 21 W"
          problem={read.problems.load}
          value={typed.load}
          onType={(text) => onType('load', text)}
        />
        <LiveField
          name="For"
          says="roof fan"
          value={typed.purpose}
          onType={(text) => onType('purpose', text)}
        />
      </div>
      <Choice
        legend="It has to be live"
        options={[...WHEN, { id: 'own', name: 'as I say' }]}
        chosen={typed.when}
        onChoose={(id) => onType('when', id)}
      />
      {typed.when === 'own' ? (
        <div className="grid gap-1.5">
          {ASKED_STATES.map((state) => (
            <Choice
              key={state}
              legend={KEY_STATE_WORDS[state]}
              shape="line"
              options={WISHES}
              chosen={own[state] ?? 'any'}
              onChoose={(to) => wish(state, to)}
            />
          ))}
          {read.problems.own ? <p className="text-sm font-semibold text-bad">{read.problems.own}</p> : null}
        </div>
      ) : null}
      {families.length === 0 ? null : (
        <Several
          legend="Taps at hand"
          options={families.map((id) => ({ id, name: id.replace(/-/g, ' ') }))}
          chosen={typed.taps === '' ? [] : typed.taps.split(',')}
          onChoose={(ids) => onType('taps', ids.join(','))}
        />
      )}
      <Fold title="Start, time on, place, way">
        <div className="mt-1 grid grid-cols-2 gap-3">
          <LiveField
            name="At the start"
            says="motor 3 to 6 times, A"
            problem={read.problems.start}
            value={typed.start}
            onType={(text) => onType('start', text)}
          />
          <LiveField
            name="Way to it, one way"
            says="3 m"
            problem={read.problems.metres}
            value={typed.metres}
            onType={(text) => onType('metres', text)}
          />
        </div>
        <div className="mt-3">
          <Choice
            legend="It is on"
            shape="line"
            options={[
              { id: 'for-good', name: 'for good' },
              { id: 'seconds', name: 'for seconds' },
            ]}
            chosen={typed.duty}
            onChoose={(id) => onType('duty', id)}
          />
        </div>
        <div className="mt-3">
          <Choice
            legend="The feed lies"
            shape="line"
            options={[
              { id: 'cool', name: 'cool: 80 %' },
              { id: 'hot', name: 'in a hot bay: 70 %' },
            ]}
            chosen={typed.place}
            onChoose={(id) => onType('place', id)}
          />
        </div>
      </Fold>
    </div>
  );
}
