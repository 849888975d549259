'use client';

import { useRouter } from 'next/navigation';
import { type FormEvent, useRef, useState } from 'react';
import type { PartOf } from '#core/format';
import { spokenWord } from '#core/limits';
import { readNumber } from '#core/quantity';
import { wasOf } from '@/features/vehicles';
import { postJson } from '@/sync/post';
import { requestFor, type Tried } from '@/sync/requestFor';
import { Button, INPUT, Problem } from '@/ui/controls';

const STATES: readonly NonNullable<PartOf<'wire'>['state']>[] = [
  'in-use',
  'unused',
  'insulated',
  'cut',
  'unknown',
];

/** How a wire stands in the loom: colour, size, state, both ends, joints. Saved as a new version of its circuits. */
export function WireForm({ vehicleId, wire }: { vehicleId: string; wire: PartOf<'wire'> }) {
  const router = useRouter();
  const [problem, setProblem] = useState<string | null>(null);
  const [said, setSaid] = useState<string | null>(null);
  const request = useRef<Tried | null>(null);
  const save = async (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = new FormData(event.currentTarget);
    const text = (name: string) => String(form.get(name) ?? '').trim();
    const fields: Record<string, unknown> = {};
    for (const name of ['colour', 'endA', 'endB'] as const) {
      const value = name === 'colour' ? text(name).toUpperCase() : text(name);
      if (value !== (wire[name] ?? '')) fields[name] = value === '' ? null : value;
    }
    if (text('state') !== (wire.state ?? 'in-use')) fields.state = text('state');
    const joints = text('joints')
      .split('\n')
      .map((one) => one.trim())
      .filter((one) => one !== '');
    if (joints.join('\n') !== (wire.joints ?? []).join('\n')) fields.joints = joints;
    for (const [name, most] of [
      ['sizeMm2', 240],
      ['lengthMetres', 200],
    ] as const) {
      if (text(name) === '') {
        if (wire[name] !== undefined) fields[name] = null;
        continue;
      }
      const read = readNumber(text(name), { above: 0, most });
      if (!read.ok) {
        setProblem(`${name === 'sizeMm2' ? 'Size' : 'Length'}: ${read.message}`);
        return;
      }
      if (read.value !== wire[name]) fields[name] = read.value;
    }
    setSaid(null);
    if (Object.keys(fields).length === 0) {
      setSaid('Nothing was changed.');
      return;
    }
    const fact = { part: wire.id, fields, was: wasOf(wire, fields) };
    request.current = requestFor(request.current, JSON.stringify(fact));
    const posted = await postJson<{ message?: string }>(`/api/vehicles/${vehicleId}/facts`, {
      id: request.current.id,
      ...fact,
    });
    if (posted.kind === 'away') return setProblem(posted.message);
    if (!posted.ok) return setProblem(posted.answer.message ?? 'It was not taken.');
    setProblem(null);
    setSaid('✓ Kept as a new version.');
    router.refresh();
  };
  const field = (name: 'colour' | 'endA' | 'endB' | 'sizeMm2' | 'lengthMetres', label: string) => (
    <label className="block">
      <span className="block text-sm font-semibold">{label}</span>
      <input name={name} maxLength={200} defaultValue={String(wire[name] ?? '')} className={INPUT} />
    </label>
  );
  return (
    <form onSubmit={save} key={wire.id} className="grid grid-cols-2 gap-3" data-testid="wire-form">
      {field('colour', 'Colour, base/tracer')}
      <label className="block">
        <span className="block text-sm font-semibold">State</span>
        <select name="state" defaultValue={wire.state ?? 'in-use'} className={INPUT}>
          {STATES.map((one) => (
            <option key={one} value={one}>
              {spokenWord(one)}
            </option>
          ))}
        </select>
      </label>
      {field('sizeMm2', 'Size, mm²')}
      {field('lengthMetres', 'Length, m')}
      <div className="col-span-2 grid gap-3">
        {field('endA', 'End a, in words')}
        {field('endB', 'End b, in words')}
        <label className="block">
          <span className="block text-sm font-semibold">Joints, one a line</span>
          <textarea name="joints" rows={2} defaultValue={(wire.joints ?? []).join('\n')} className={INPUT} />
        </label>
        {problem ? <Problem>{problem}</Problem> : null}
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
