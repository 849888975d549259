'use client';

import { ChevronLeft, ChevronRight } from 'lucide-react';
import { useEffect, useMemo, useRef, useState } from 'react';
import type { Panel, Slot } from '#core/format';
import { ratingsOf, spokenWord } from '#core/limits';
import { type Change, renumbered, slotRows } from '#core/panel';
import { formatNumber } from '#core/quantity';
import { Button, INPUT } from '@/ui/controls';
import { Pressed } from '@/ui/Pressed';
import { slotFill, slotName } from './PanelDrawing';

/** What an eye sees from the front; what wants a source is said at the slot itself. */
const SEEN: readonly Slot['state'][] = ['fitted', 'spare', 'empty', 'missing', 'unknown'];

/** One row of the box, large enough for a thumb: ratings by their colours, states for several at once, labels one after another. */
export function ThumbRow({
  panel,
  selected,
  onSelect,
  onChange,
}: {
  panel: Panel;
  selected: readonly string[];
  onSelect: (slots: readonly string[]) => void;
  onChange: (change: Change) => void;
}) {
  const rows = useMemo(() => slotRows(panel.slots, ({ type }) => type), [panel.slots]);
  const order = rows.flat();
  const [several, setSeveral] = useState(false);
  /** Labels are being typed one after another: the next slot's field takes over. */
  const [typing, setTyping] = useState(false);
  const at = rows.findIndex((row) => row.some(({ id }) => id === selected[0]));
  const [lastRow, setLastRow] = useState(0);
  if (at >= 0 && at !== lastRow) setLastRow(at);
  const rowAt = Math.min(at >= 0 ? at : lastRow, rows.length - 1);
  const row = rows[rowAt];
  const strip = useRef<HTMLDivElement>(null);
  const [first] = selected;
  useEffect(() => {
    const button = first ? strip.current?.querySelector<HTMLElement>(`[data-thumb="${first}"]`) : null;
    if (!button || !strip.current) return;
    const wanted = button.offsetLeft - (strip.current.clientWidth - button.offsetWidth) / 2;
    strip.current.scrollTo({ left: wanted });
  }, [first]);
  if (!row) return null;
  const chosen = order.filter(({ id }) => selected.includes(id));
  const [one] = chosen;
  const single = chosen.length === 1 ? one! : null;
  const family = (one ?? row[0]!).family;
  const goRow = (step: number) => {
    const next = rows[(rowAt + step + rows.length) % rows.length];
    if (next) onSelect([next[0]!.id]);
  };
  const advance = () => {
    if (!single || several) return;
    const next = order[order.findIndex(({ id }) => id === single.id) + 1];
    if (next) onSelect([next.id]);
  };
  const set = (fields: Partial<Omit<Slot, 'id'>>) => {
    onChange({ kind: 'set', slots: chosen.map(({ id }) => id), fields });
    advance();
  };
  const tap = (id: string) => {
    setTyping(false);
    if (!several) return onSelect([id]);
    onSelect(selected.includes(id) ? selected.filter((each) => each !== id) : [...selected, id]);
  };
  return (
    <section aria-label="A row at a time" className="mt-3 grid gap-2" data-testid="thumb-row">
      <div className="flex items-center justify-between gap-2">
        <Button aria-label="Row before" onClick={() => goRow(-1)}>
          <ChevronLeft aria-hidden="true" className="size-5" />
        </Button>
        <p className="text-sm">
          Row {rowAt + 1} of {rows.length}
          {chosen.length > 1 ? ` · ${chosen.length} chosen` : ''}
        </p>
        <Pressed pressed={several} onPressed={setSeveral}>
          {several ? '✓ Several' : 'Several'}
        </Pressed>
        <Button aria-label="Row after" onClick={() => goRow(1)}>
          <ChevronRight aria-hidden="true" className="size-5" />
        </Button>
      </div>
      <div ref={strip} className="relative flex gap-1.5 overflow-x-auto pb-1">
        {row.map((slot) => {
          const here = selected.includes(slot.id);
          const fill = slotFill(slot);
          return (
            <button
              key={slot.id}
              type="button"
              data-thumb={slot.id}
              aria-pressed={here}
              aria-label={slotName(slot)}
              onClick={() => tap(slot.id)}
              style={
                fill
                  ? { background: fill, color: slot.colour === 'black' ? '#ffffff' : '#14100d' }
                  : undefined
              }
              className={`flex h-[84px] w-[58px] shrink-0 flex-col items-center justify-center rounded-md border-4 leading-tight ${
                here ? 'border-copper' : 'border-line'
              } ${fill ? '' : 'bg-sheet'}`}
            >
              <span className="text-[18px] font-bold">{slot.number}</span>
              <span className="text-[13px]">
                {slot.ratingAmps === undefined ? '' : `${formatNumber(slot.ratingAmps)} A`}
              </span>
              <span className="max-w-full truncate text-[11px]">
                {slot.state === 'fitted' ? slot.label : spokenWord(slot.state)}
              </span>
            </button>
          );
        })}
      </div>
      {one ? (
        <>
          <fieldset className="grid min-w-0 grid-cols-7 gap-1.5">
            <legend className="sr-only">Rating</legend>
            {ratingsOf(family).map(({ amps, colour }) => (
              <button
                key={amps}
                type="button"
                aria-label={`${formatNumber(amps)} ampere, ${colour}`}
                onClick={() =>
                  set({
                    ratingAmps: amps,
                    colour,
                    // Whoever reads its rating sees that it is there.
                    ...(chosen.every(({ state }) => state === 'unknown') ? { state: 'fitted' as const } : {}),
                  })
                }
                style={{
                  background: slotFill({ colour, state: 'fitted' }) ?? undefined,
                  color: colour === 'black' ? '#ffffff' : '#14100d',
                }}
                className="h-[48px] rounded-md border-2 border-line text-[17px] font-bold"
              >
                {formatNumber(amps)}
              </button>
            ))}
          </fieldset>
          <fieldset className="grid min-w-0 grid-cols-5 gap-1.5">
            <legend className="sr-only">State</legend>
            {SEEN.map((state) => (
              <button
                key={state}
                type="button"
                aria-pressed={chosen.every((slot) => slot.state === state)}
                onClick={() => set({ state, stateEvidence: undefined })}
                className="h-[48px] rounded-md border-2 border-line bg-sheet text-[14px] font-semibold aria-pressed:border-copper aria-pressed:bg-copper-wash"
              >
                {spokenWord(state)}
              </button>
            ))}
          </fieldset>
          {single ? (
            <Words
              // What an undo took back is not in its fields either.
              key={`${single.id} ${single.label} ${single.number}`}
              slot={single}
              typing={typing}
              onLabel={(label) => set({ label })}
              onNext={(label) => {
                setTyping(true);
                set({ label });
              }}
              onNumber={(number) =>
                onChange({ kind: 'number', numbers: renumbered(order, single.id, number) })
              }
            />
          ) : null}
        </>
      ) : (
        <p className="text-soft">
          Tap a slot: rating, state and label are given here, and the next comes up.
        </p>
      )}
    </section>
  );
}

/** The printed label, with the next slot behind it; and its number, from which the ones behind go on. */
function Words({
  slot,
  typing,
  onLabel,
  onNext,
  onNumber,
}: {
  slot: Slot;
  typing: boolean;
  onLabel: (label: string) => void;
  onNext: (label: string) => void;
  onNumber: (number: string) => void;
}) {
  const [label, setLabel] = useState(slot.label);
  const [number, setNumber] = useState(slot.number);
  const field = useRef<HTMLInputElement>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: once, as it comes
  useEffect(() => {
    if (typing) field.current?.focus();
  }, []);
  return (
    <div className="grid grid-cols-[minmax(0,1fr)_5.5rem] gap-2">
      <form
        className="flex gap-1"
        onSubmit={(event) => {
          event.preventDefault();
          onNext(label.trim());
        }}
      >
        <input
          ref={field}
          aria-label={`Printed at ${slot.type} ${slot.number}`}
          placeholder="printed label"
          value={label}
          maxLength={80}
          enterKeyHint="next"
          autoComplete="off"
          onChange={(event) => setLabel(event.target.value)}
          // Left for another slot it is kept all the same.
          onBlur={(event) => {
            if (label.trim() === slot.label || event.currentTarget.form?.contains(event.relatedTarget))
              return;
            onLabel(label.trim());
          }}
          className={`${INPUT} min-w-0 flex-1`}
        />
        <Button type="submit">Next</Button>
      </form>
      <input
        aria-label={`Number of ${slot.type} ${slot.number}, those behind it go on from it`}
        value={number}
        maxLength={12}
        inputMode="numeric"
        enterKeyHint="done"
        onChange={(event) => setNumber(event.target.value)}
        onKeyDown={(event) => {
          if (event.key === 'Enter') event.currentTarget.blur();
        }}
        onBlur={() => {
          if (number.trim() !== '' && number.trim() !== slot.number) onNumber(number.trim());
        }}
        className={INPUT}
      />
    </div>
  );
}
