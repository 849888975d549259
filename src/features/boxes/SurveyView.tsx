'use client';

import { useMemo, useState } from 'react';
import { classifyFeed } from '#core/feed';
import type { Slot } from '#core/format';
import { KEY_STATE_WORDS, KEY_STATES, type KeyState, latest, liveness } from '#core/limits';
import { triageOrder, withKnownEnds } from '#core/panel';
import { useJob } from '@/features/jobs';
import { Button } from '@/ui/controls';
import { SideScroll } from '@/ui/SideScroll';
import { type BoxViewProps, slotTitle } from './TriageView';

const ANSWERS = [
  { key: '1', word: 'Live', value: { lamp: 'lit' } },
  { key: '2', word: 'Dead', value: { lamp: 'off' } },
] as const;

const SHORT: Readonly<Record<(typeof KEY_STATES)[number], string>> = {
  off: 'Off',
  'off-waited': 'Off, waited',
  accessory: 'Acc.',
  run: 'Run',
  crank: 'Crank',
  running: 'Engine',
  'function-on': 'In use',
};

/** The feed side of every slot in every state of the key; the next state is prompted when one is through. */
export function SurveyView({ panel, readings, state, onState, nominalVolts }: BoxViewProps) {
  const { job, record } = useJob();
  const order = useMemo(() => triageOrder(panel.slots), [panel]);
  const [chosen, setChosen] = useState<string | null>(null);
  const of = (slot: Slot) =>
    withKnownEnds(
      slot,
      readings.filter((one) => one.slot === slot.id),
      nominalVolts,
    ).readings;
  const readIn = (slot: Slot, at: typeof state) => latest(of(slot), 'feed', { fuseOut: false, state: at });
  // Switching on what a slot serves tells a load side from a dead feed; nothing else needs it.
  const due = (entry: Slot, at: KeyState) =>
    !readIn(entry, at) &&
    (at !== 'function-on' || classifyFeed(of(entry), nominalVolts).missing.includes(at));
  const open = order.filter((slot) => due(slot, state));
  const slot = order.find((one) => one.id === chosen && !readIn(one, state)) ?? open[0];
  const nextState = KEY_STATES.find((one) => one !== state && order.some((entry) => due(entry, one)));
  const tell = (value: (typeof ANSWERS)[number]['value']) => {
    if (!slot) return;
    record({
      kind: 'slot-reading',
      panel: panel.id,
      slot: slot.id,
      ends: [{ end: 'feed', value }],
      state,
      fuseOut: false,
      testerProved: job.testerProvedAt !== null,
    });
    setChosen(null);
  };
  const last = readings.at(-1);
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: catches the digit keys of the buttons inside it
    <div
      className="mt-2 grid gap-5 lg:grid-cols-[minmax(0,1fr)_22rem]"
      onKeyDown={(event) => {
        const found = ANSWERS.find((one) => one.key === event.key);
        if (found && !event.ctrlKey && !event.metaKey && !event.altKey) tell(found.value);
      }}
    >
      <SideScroll label="Survey" className="order-2 lg:order-1">
        <table className="w-full min-w-[40rem] text-left" data-testid="survey">
          <thead>
            <tr className="border-b-2 border-ink">
              <th className="py-1">Slot</th>
              {KEY_STATES.map((one) => (
                <th key={one} className={`px-1 py-1 text-center ${one === state ? 'text-copper' : ''}`}>
                  {SHORT[one]}
                </th>
              ))}
              <th className="py-1 pl-3">Feed</th>
            </tr>
          </thead>
          <tbody>
            {order.map((entry) => {
              const finding = classifyFeed(of(entry), nominalVolts);
              return (
                <tr
                  key={entry.id}
                  className={`border-b border-line ${entry.id === slot?.id ? 'bg-copper-wash' : ''}`}
                >
                  <th scope="row" className="max-w-56 py-1 pr-2 font-normal">
                    <button
                      type="button"
                      onClick={() => setChosen(entry.id)}
                      className="min-h-11 text-left leading-tight"
                    >
                      {slotTitle(entry)}
                    </button>
                  </th>
                  {KEY_STATES.map((one) => {
                    const reading = readIn(entry, one);
                    const live = reading ? liveness(reading.value, nominalVolts) : null;
                    return (
                      <td
                        key={one}
                        className="px-1 text-center whitespace-nowrap"
                        aria-label={KEY_STATE_WORDS[one]}
                      >
                        {live === null
                          ? ''
                          : live === 'live'
                            ? '● live'
                            : live === 'weak'
                              ? '◐ weak'
                              : '○ dead'}
                      </td>
                    );
                  })}
                  <td className="pl-3 text-sm">
                    {finding.feed !== 'unknown' ? (
                      <strong>{finding.feed}</strong>
                    ) : finding.possible.length > 0 ? (
                      <>
                        {finding.possible.join(' / ')}?
                        <span className="block text-soft">
                          still: {finding.missing.map((one) => SHORT[one].toLowerCase()).join(', ')}
                        </span>
                      </>
                    ) : (
                      <span className="text-soft">{finding.sentence}</span>
                    )}
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </SideScroll>
      <article className="order-1 self-start rounded-lg border-2 border-copper bg-sheet p-4 lg:sticky lg:top-36 lg:order-2">
        <p className="text-sm text-soft" data-testid="survey-state">
          {KEY_STATE_WORDS[state]} · {order.length - open.length} of {order.length} read
        </p>
        {slot ? (
          <>
            <h2 className="text-2xl" data-testid="slot-title">
              {slotTitle(slot)}, feed side
            </h2>
            <div className="mt-3 grid gap-2">
              {ANSWERS.map((one) => (
                <button
                  key={one.word}
                  type="button"
                  onClick={() => tell(one.value)}
                  className="flex min-h-14 items-center justify-between rounded-md border-2 border-ink bg-sheet px-4 text-xl font-bold active:bg-copper-wash"
                >
                  {one.word}
                  <kbd className="reading hidden text-base font-normal text-soft lg:inline">{one.key}</kbd>
                </button>
              ))}
            </div>
          </>
        ) : nextState ? (
          <>
            <h2 className="text-2xl">{KEY_STATE_WORDS[state]}: every slot is read</h2>
            <p className="mt-2">
              {nextState === 'off-waited'
                ? 'Leave the key off and wait until the modules sleep, 10 to 60 minutes.'
                : nextState === 'crank'
                  ? 'Somebody cranks, out of gear, hands clear; read only what can be read in a few seconds.'
                  : `Say to the person at the key: ${KEY_STATE_WORDS[nextState].toLowerCase()}.`}
            </p>
            <Button look="primary" className="mt-3 h-14 w-full text-lg" onClick={() => onState(nextState)}>
              {KEY_STATE_WORDS[nextState]}: go on
            </Button>
          </>
        ) : (
          <h2 className="text-2xl">Every slot is read in every state</h2>
        )}
        <Button
          className="mt-3"
          disabled={!last}
          onClick={() => last && record({ kind: 'correction', of: last.id, reason: 'taken back' })}
        >
          Undo
        </Button>
      </article>
    </div>
  );
}
