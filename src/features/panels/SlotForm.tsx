'use client';

import type { ReactNode } from 'react';
import type { Slot } from '#core/format/panelSchema';
import { colourOf } from '#core/panel/audit';
import { SLOT_FAMILIES, SLOT_FEEDS, SLOT_STATES, SLOT_TYPES, spokenWord } from '#core/panel/slotWords';
import { INPUT } from '@/ui/controls';

const SOURCES: readonly NonNullable<Slot['source']>[] = ['lid', 'manual', 'measured', 'sibling-vehicle'];
/** Everything that is known of one slot; each field is a step of its own when it is left. */
export function SlotForm({
  slot,
  onChange,
}: {
  slot: Slot;
  onChange: (fields: Partial<Omit<Slot, 'id'>>) => void;
}) {
  const text = (name: 'number' | 'label' | 'meaning' | 'colour' | 'applies') => (
    <Labelled name={name}>
      <input
        defaultValue={slot[name] ?? ''}
        onBlur={(event) => {
          const value = event.target.value.trim();
          if (value === (slot[name] ?? '')) return;
          if (name === 'label') onChange({ label: value });
          else if (name === 'number') {
            if (value !== '') onChange({ number: value });
          } else onChange({ [name]: value === '' ? undefined : value });
        }}
        className={INPUT}
      />
    </Labelled>
  );
  const choice = <K extends 'type' | 'family' | 'state' | 'feed' | 'source' | 'confidence'>(
    name: K,
    options: readonly NonNullable<Slot[K]>[],
  ) => (
    <Labelled name={name}>
      <select
        value={slot[name] ?? ''}
        onChange={(event) => onChange({ [name]: event.target.value || undefined } as Partial<Slot>)}
        className={INPUT}
      >
        {name === 'feed' || name === 'source' || name === 'confidence' ? (
          <option value="">not said</option>
        ) : null}
        {options.map((one) => (
          <option key={one} value={one}>
            {spokenWord(one)}
          </option>
        ))}
      </select>
    </Labelled>
  );
  const list = (name: 'functions' | 'synonyms') => (
    <Labelled name={name === 'functions' ? 'serves, one a line' : 'also called, one a line'}>
      <textarea
        rows={2}
        defaultValue={(slot[name] ?? []).join('\n')}
        onBlur={(event) => {
          const values = event.target.value
            .split('\n')
            .map((one) => one.trim())
            .filter((one) => one !== '');
          if (values.join('\n') !== (slot[name] ?? []).join('\n')) {
            onChange({ [name]: values.length > 0 ? values : undefined });
          }
        }}
        className={INPUT}
      />
    </Labelled>
  );
  return (
    <section aria-label={`${slot.type} ${slot.number}`} data-testid="slot-form">
      <h2 className="mb-2 border-b-2 border-line pb-1 text-lg">
        {slot.type} {slot.number}
      </h2>
      <div className="grid grid-cols-2 gap-3">
        {choice('type', SLOT_TYPES)}
        {text('number')}
        {text('label')}
        {text('meaning')}
        <Labelled name="rating, ampere">
          <input
            key={slot.ratingAmps}
            inputMode="decimal"
            defaultValue={slot.ratingAmps ?? ''}
            onBlur={(event) => {
              const value = event.target.value.trim().replace(',', '.');
              const rating = value === '' ? undefined : Number(value);
              if (rating !== undefined && !(rating > 0 && rating <= 1000)) return;
              if (rating === slot.ratingAmps) return;
              const colour = rating === undefined ? null : colourOf(slot.family, rating);
              onChange({ ratingAmps: rating, ...(colour ? { colour } : {}) });
            }}
            className={INPUT}
          />
        </Labelled>
        {text('colour')}
        {choice('family', SLOT_FAMILIES)}
        {choice('state', SLOT_STATES)}
        {choice('feed', SLOT_FEEDS)}
        {choice('source', SOURCES)}
        {choice('confidence', ['sure', 'likely', 'doubtful'])}
        <div className="col-span-2">{list('functions')}</div>
        <div className="col-span-2">{list('synonyms')}</div>
        {(['width', 'height', 'x', 'y'] as const).map((name) => (
          <Labelled
            key={name}
            name={name === 'x' ? 'from the left, mm' : name === 'y' ? 'from the top, mm' : `${name}, mm`}
          >
            <input
              key={slot[name]}
              inputMode="decimal"
              defaultValue={slot[name]}
              onBlur={(event) => {
                const value = Number(event.target.value.replace(',', '.'));
                const least = name === 'x' || name === 'y' ? 0 : 0.5;
                if (value >= least && value <= 500 && value !== slot[name]) onChange({ [name]: value });
              }}
              className={INPUT}
            />
          </Labelled>
        ))}
        <div className="col-span-2">
          <Labelled name="another source says, one a line as source: words">
            <textarea
              rows={2}
              defaultValue={(slot.disputed ?? []).map((one) => `${one.source}: ${one.says}`).join('\n')}
              onBlur={(event) => {
                const disputed = event.target.value.split('\n').flatMap((line) => {
                  const at = line.indexOf(':');
                  const source = line.slice(0, at).trim();
                  const says = line.slice(at + 1).trim();
                  return at > 0 && source !== '' && says !== '' ? [{ source, says }] : [];
                });
                if (JSON.stringify(disputed) !== JSON.stringify(slot.disputed ?? [])) {
                  onChange({ disputed: disputed.length > 0 ? disputed : undefined });
                }
              }}
              className={INPUT}
            />
          </Labelled>
        </div>
        {text('applies')}
        <label className="flex min-h-11 items-center gap-3 self-end">
          <input
            type="checkbox"
            checked={slot.confirmed ?? false}
            onChange={(event) => onChange({ confirmed: event.target.checked })}
            className="size-6 accent-(--copper)"
          />
          Proved here, by effect or by trace
        </label>
      </div>
    </section>
  );
}

function Labelled({ name, children }: { name: string; children: ReactNode }) {
  return (
    // biome-ignore lint/a11y/noLabelWithoutControl: the control is the child
    <label className="block">
      <span className="mb-0.5 block text-sm font-semibold">{`${name[0]?.toUpperCase() ?? ''}${name.slice(1)}`}</span>
      {children}
    </label>
  );
}
