'use client';

import { useState } from 'react';
import { branchDrain, tellsCurrent, WITHOUT_WAKING } from '#core/feed';
import type { Slot } from '#core/format';
import { slotSentence, turnPanel } from '#core/panel';
import { isSafetySlot, SAFETY_SLOT } from '#core/safety';
import { ampsField, figure, millivoltsField } from '#core/sizing';
import { useTurns } from '@/features/panels';
import { useJob } from '@/job/JobProvider';
import { readDraft, writeDraft } from '@/sync/drafts';
import { Button, ButtonLink, Caution, INPUT, Problem } from '@/ui/controls';
import { Fold } from '@/ui/Fold';
import { type BoxViewProps, slotTitle } from './TriageView';

/** Which branch draws while everything sleeps: millivolts fuse by fuse, none taken out, the largest first. */
export function DrainView({ panel, first }: BoxViewProps) {
  const { data, job, record } = useJob();
  const [turns] = useTurns(data.vehicle.id, panel.id);
  const drain = branchDrain(panel, job.slotDrops);
  const [chosen, setChosen] = useState<string | null>(first);
  const slot = panel.slots.find(({ id }) => id === chosen) ?? drain.next;
  const last = job.slotDrops.filter((one) => one.panel === panel.id).at(-1);
  const draws = drain.branches.filter((one) => one.amps !== null);
  const sum = draws
    .map(({ slot: each, amps }) =>
      [each.type, each.number, each.meaning ?? each.label, figure(amps!, 'A')].join(' '),
    )
    .join('\n');
  return (
    <div className="mt-2 grid grid-cols-[minmax(0,1fr)] gap-3 lg:grid-cols-[minmax(0,1fr)_24rem] lg:gap-5">
      <div className="order-2 min-w-0 lg:order-1">
        <p
          className="border-l-4 border-copper pl-3 text-lg font-semibold"
          data-testid="drain-sentence"
          aria-live="polite"
        >
          {drain.sentence}
        </p>
        {draws.length > 0 ? (
          <ButtonLink
            className="mt-2"
            href={`/jobs/${data.id}/sums?sum=drain&draws=${encodeURIComponent(sum)}`}
          >
            How long the battery stands it
          </ButtonLink>
        ) : null}
        <ul className="mt-3" data-testid="drain-branches">
          {drain.branches.map((one) => (
            <li key={one.slot.id} className="border-b border-line">
              <button
                type="button"
                aria-current={one.slot.id === slot?.id ? 'true' : undefined}
                onClick={() => setChosen(one.slot.id)}
                className="grid min-h-11 w-full grid-cols-[1fr_auto] items-center gap-3 text-left hover:bg-sunk"
              >
                <span>
                  {slotTitle(one.slot)}
                  {one.amps === null ? null : (
                    <span
                      aria-hidden="true"
                      className="mt-1 block h-1.5 bg-copper"
                      style={{ width: `${Math.max(2, (100 * one.amps) / Math.max(drain.totalAmps, 1e-9))}%` }}
                    />
                  )}
                </span>
                <span
                  className={`text-right text-sm ${one.amps === null ? 'max-w-44 text-soft' : 'reading'}`}
                >
                  {one.words}
                </span>
              </button>
            </li>
          ))}
        </ul>
        {drain.read > 0 ? <WithoutWaking /> : null}
      </div>
      <article className="order-1 self-start rounded-lg border-2 border-copper bg-sheet p-3 lg:sticky lg:top-36 lg:order-2 lg:p-4">
        <p className="text-sm text-soft">
          Key off, asleep · {drain.read} of {drain.of} read
        </p>
        {slot ? (
          <>
            <h2 className="text-xl leading-tight lg:text-2xl" data-testid="slot-title">
              {slotTitle(slot)}
            </h2>
            <p className="mt-1 leading-tight">{slotSentence(turnPanel(panel, turns), slot.id)}</p>
            {isSafetySlot(slot) ? (
              <div className="mt-2">
                <Caution>{SAFETY_SLOT}</Caution>
              </div>
            ) : tellsCurrent(slot) ? null : (
              <div className="mt-2">
                <Caution>
                  The millivolts of this family tell no current here: use a clamp on its wire, or the maker’s
                  figure.
                </Caution>
              </div>
            )}
            {isSafetySlot(slot) ? null : (
              <Millivolts
                key={slot.id}
                slot={slot}
                keep={`drop ${data.id} ${panel.id} ${slot.id}`}
                onTell={(volts, ratingAmps) => {
                  const taken = record({
                    kind: 'slot-drop',
                    panel: panel.id,
                    slot: slot.id,
                    volts,
                    ratingAmps,
                    family: slot.family,
                  });
                  if (taken.ok) setChosen(null);
                  return taken.ok ? null : taken.message;
                }}
              />
            )}
          </>
        ) : (
          <h2 className="text-2xl">Every fuse is read</h2>
        )}
        <Button
          className="mt-2"
          disabled={!last}
          onClick={() => {
            if (!last) return;
            record({ kind: 'correction', of: last.id, reason: 'taken back' });
            setChosen(last.slot);
          }}
        >
          Undo
        </Button>
        {drain.read === 0 ? <WithoutWaking first /> : null}
      </article>
    </div>
  );
}

/** Said before the first fuse, and at hand afterwards. */
function WithoutWaking({ first = false }: { first?: boolean }) {
  return (
    <Fold title="Without waking anything" first={first} className="mt-2">
      <ol className="list-decimal space-y-1 pl-5 text-[0.95rem]">
        {WITHOUT_WAKING.map((words) => (
          <li key={words}>{words}</li>
        ))}
      </ol>
    </Fold>
  );
}

/** Millivolts of one fuse, read as readings are; its rating where the map does not have it. */
function Millivolts({
  slot,
  keep,
  onTell,
}: {
  slot: Slot;
  keep: string;
  /** Says why it was not taken; null where it was. */
  onTell: (volts: number, ratingAmps: number) => string | null;
}) {
  const [text, setText] = useState(() => readDraft(keep) ?? '');
  const [rating, setRating] = useState(() => readDraft(`${keep} rating`) ?? '');
  const [problem, setProblem] = useState<string | null>(null);
  const known = slot.found?.ratingAmps ?? slot.ratingAmps;
  const tell = (typed: string) => {
    const read = millivoltsField({ name: 'Millivolts', typical: '' }).read(typed);
    const amps = known ?? null;
    const said = amps === null ? ampsField({ name: 'Its rating', typical: '' }).read(rating) : null;
    if (!read.ok) return setProblem(read.message);
    if (said && !said.ok) return setProblem(said.message);
    const wrong = onTell(read.value / 1000, amps ?? (said?.ok ? said.value : 0));
    setProblem(wrong);
    if (wrong === null) {
      writeDraft(keep, null);
      writeDraft(`${keep} rating`, null);
    }
  };
  return (
    <form
      className="mt-3"
      onSubmit={(event) => {
        event.preventDefault();
        tell(text);
      }}
    >
      <div className="flex flex-wrap items-end gap-2">
        <label className="block min-w-32 flex-1">
          <span className="block text-sm font-semibold">Across the fuse, mV</span>
          <input
            value={text}
            inputMode="decimal"
            autoComplete="off"
            onChange={(event) => {
              setText(event.target.value);
              writeDraft(keep, event.target.value);
            }}
            className={`${INPUT} reading h-14 text-xl`}
          />
        </label>
        {known === undefined ? (
          <label className="block w-24">
            <span className="block text-sm font-semibold">Its rating, A</span>
            <input
              value={rating}
              inputMode="decimal"
              autoComplete="off"
              onChange={(event) => {
                setRating(event.target.value);
                writeDraft(`${keep} rating`, event.target.value);
              }}
              className={`${INPUT} reading h-14 text-xl`}
            />
          </label>
        ) : null}
        <Button className="h-14" onClick={() => tell('0')}>
          0.0 mV
        </Button>
        <Button look="primary" type="submit" className="h-14 basis-full">
          Record
        </Button>
      </div>
      {problem ? (
        <div className="mt-2">
          <Problem>{problem}</Problem>
        </div>
      ) : null}
    </form>
  );
}
