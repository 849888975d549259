'use client';

import { useState } from 'react';
import type { PartOf } from '#core/format';
import { spokenWord } from '#core/limits';
import { readNumber } from '#core/quantity';
import { usePartFact } from '@/features/vehicles';
import { textOf, useKeptForm } from '@/sync/useKeptForm';
import { Button, INPUT, Problem } from '@/ui/controls';
import { readList } from '@/ui/ReadField';
import { Select } from '@/ui/Select';

const STATES: readonly NonNullable<PartOf<'wire'>['state']>[] = [
  'in-use',
  'unused',
  'insulated',
  'cut',
  'unknown',
];

interface WireWords {
  colour: string;
  endA: string;
  endB: string;
  sizeMm2: string;
  lengthMetres: string;
  state: string;
  joints: string;
}

export function wordsOf(wire: PartOf<'wire'>): WireWords {
  const word = (value: string | number | undefined) => String(value ?? '');
  return {
    colour: word(wire.colour),
    endA: word(wire.endA),
    endB: word(wire.endB),
    sizeMm2: word(wire.sizeMm2),
    lengthMetres: word(wire.lengthMetres),
    state: wire.state ?? 'in-use',
    joints: (wire.joints ?? []).join('\n'),
  };
}

const NUMBERS = [
  ['sizeMm2', 'Size', 240],
  ['lengthMetres', 'Length', 200],
] as const;

/** Fields that say something else than the wire has; null takes one away. */
export function changedFields(
  wire: PartOf<'wire'>,
  values: WireWords,
): { ok: true; fields: Record<string, unknown> } | { ok: false; message: string; field: string } {
  const fields: Record<string, unknown> = {};
  for (const name of ['colour', 'endA', 'endB'] as const) {
    const value = name === 'colour' ? textOf(values.colour).toUpperCase() : textOf(values[name]);
    if (value !== (wire[name] ?? '')) fields[name] = value === '' ? null : value;
  }
  if (values.state !== (wire.state ?? 'in-use')) fields.state = values.state;
  const joints = readList(values.joints).value;
  if (joints.join('\n') !== (wire.joints ?? []).join('\n')) fields.joints = joints;
  for (const [name, said, most] of NUMBERS) {
    const text = textOf(values[name]);
    if (text === '') {
      if (wire[name] !== undefined) fields[name] = null;
      continue;
    }
    const read = readNumber(text, { above: 0, most });
    if (!read.ok) return { ok: false, message: `${said}: ${read.message}`, field: name };
    if (read.value !== wire[name]) fields[name] = read.value;
  }
  return { ok: true, fields };
}

/** How a wire stands in the loom: colour, size, state, both ends, joints. Saved as a new version of its circuits. */
export function WireForm({ vehicleId, wire }: { vehicleId: string; wire: PartOf<'wire'> }) {
  const keep = usePartFact(vehicleId);
  const [said, setSaid] = useState<string | null>(null);
  const form = useKeptForm<WireWords>({
    keep: `wire ${vehicleId} ${wire.id}`,
    first: wordsOf(wire),
    stays: true,
    take: async (values) => {
      setSaid(null);
      const read = changedFields(wire, values);
      if (!read.ok) return read;
      const { fields } = read;
      if (Object.keys(fields).length === 0) {
        setSaid('Nothing was changed.');
        return { ok: true };
      }
      const kept = await keep(wire, fields);
      if (!kept.ok) return kept;
      setSaid('✓ Kept as a new version.');
      return { ok: true };
    },
  });
  const field = (name: Exclude<keyof WireWords, 'state' | 'joints'>, label: string) => (
    <label className="block">
      <span className="block text-sm font-semibold">{label}</span>
      <input {...form.register(name)} maxLength={200} className={INPUT} />
    </label>
  );
  return (
    <form onSubmit={form.submit} key={wire.id} className="grid grid-cols-2 gap-3" data-testid="wire-form">
      {field('colour', 'Colour, base/tracer')}
      <label className="block">
        <span className="block text-sm font-semibold">State</span>
        <Select {...form.register('state')}>
          {STATES.map((one) => (
            <option key={one} value={one}>
              {spokenWord(one)}
            </option>
          ))}
        </Select>
      </label>
      {field('sizeMm2', 'Size, mm²')}
      {field('lengthMetres', 'Length, m')}
      <div className="col-span-2 grid gap-3">
        {field('endA', 'End a, in words')}
        {field('endB', 'End b, in words')}
        <label className="block">
          <span className="block text-sm font-semibold">Joints, one a line</span>
          <textarea {...form.register('joints')} rows={2} className={INPUT} />
        </label>
        {form.problem ? <Problem>{form.problem}</Problem> : null}
        <div className="flex items-center gap-3">
          <Button look="primary" type="submit">
            Keep it
          </Button>
          {said ? <span role="status">{said}</span> : null}
        </div>
      </div>
    </form>
  );
}
