'use client';

import { useState } from 'react';
import { littleCircuit } from '#core/change';
import { type CircuitFile, FUSE_FAMILIES, type PlanFile } from '#core/format';
import { readNumber } from '#core/quantity';
import { readKept, writeDraft } from '@/sync/drafts';
import { Choice } from '@/ui/Choice';
import { Button, Field } from '@/ui/controls';
import { LiveField } from '@/ui/LiveField';
import { newId } from '@/ui/newId';
import { Select } from '@/ui/Select';
import { emptyPlan } from './usePlan';

const EMPTY = {
  load: '',
  count: '1',
  amps: '',
  fuse: '',
  fuseAmps: '',
  family: '',
  supplyAmps: '',
  supplySource: '',
  wire: '',
  metres: '',
  mm2: '',
  endA: '',
  endB: '',
  live: 'always',
};
type Typed = typeof EMPTY;
const KEPT = 'little change';

/** Where nothing of the vehicle is drawn: what the change touches, and no more. */
export function LittleForm({
  nominalVolts,
  asked,
  onState,
}: {
  nominalVolts: number;
  /** What a link has answered already. */
  asked: URLSearchParams;
  onState: (plan: PlanFile) => void;
}) {
  const [typed, setTyped] = useState<Typed>(() => ({
    ...EMPTY,
    ...readKept<Typed>(KEPT),
    ...Object.fromEntries(
      Object.keys(EMPTY).flatMap((field) => (asked.get(field) ? [[field, asked.get(field)!]] : [])),
    ),
  }));
  const [problems, setProblems] = useState<Partial<Record<keyof Typed, string>>>({});
  const set = (field: keyof Typed) => (value: string) => {
    const next = { ...typed, [field]: value };
    setTyped(next);
    setProblems({});
    writeDraft(KEPT, JSON.stringify(next));
  };
  const field = (name: keyof Typed, label: string, says: string, unit?: string) => (
    <LiveField
      name={label}
      says={says}
      unit={unit}
      value={typed[name]}
      problem={problems[name] ?? null}
      decimal={unit !== undefined}
      onType={set(name)}
    />
  );
  const state = () => {
    const found: Partial<Record<keyof Typed, string>> = {};
    const number = (name: keyof Typed, unit: string, whole = false): number | null => {
      if (typed[name].trim() === '') return null;
      const read = readNumber(typed[name], { above: 0, most: 10_000, unit, ...(whole ? { whole } : {}) });
      if (read.ok) return read.value;
      found[name] = read.message;
      return null;
    };
    const said = {
      nominalVolts: nominalVolts as CircuitFile['nominalVolts'],
      load: typed.load.trim(),
      count: Math.min(20, number('count', '', true) ?? 1),
      amps: number('amps', 'A'),
      fuse: typed.fuse.trim(),
      fuseAmps: number('fuseAmps', 'A'),
      family: FUSE_FAMILIES.find((one) => one === typed.family) ?? null,
      supplyAmps: number('supplyAmps', 'A'),
      supplySource: typed.supplySource.trim(),
      wire: typed.wire.trim() || `Wire to ${typed.load.trim()}`,
      metres: number('metres', 'm'),
      mm2: number('mm2', 'mm²'),
      endA: typed.endA.trim(),
      endB: typed.endB.trim(),
      live: typed.live as 'always' | 'accessory' | 'run',
    };
    if (said.load === '') found.load = 'Say what hangs on it.';
    if (said.fuse === '') found.fuse = 'Say which fuse it hangs on, by its place or number.';
    setProblems(found);
    if (Object.keys(found).length > 0) return;
    const { circuit, unknown } = littleCircuit(said, `little-${newId()}`);
    writeDraft(KEPT, null);
    onState({ ...emptyPlan(), name: `Change of ${said.load}`.slice(0, 160), circuit, unknown: [...unknown] });
  };
  return (
    <section aria-labelledby="little">
      <h2 id="little" className="text-2xl">
        What does the change touch?
      </h2>
      <p className="mt-1 max-w-prose text-lg text-soft">
        Nothing of this vehicle is drawn. Say what this change touches; what is left open is listed as unknown
        and never assumed.
      </p>
      <div className="mt-3 grid grid-cols-2 gap-3">
        {field('load', 'What hangs on it', 'roof fan')}
        {field('count', 'How many', '1')}
        {field('amps', 'Each draws', '4 A', 'A')}
        {field('fuse', 'Its fuse', 'fuse 12, box under the bunk')}
        {field('fuseAmps', 'Rated', 'as printed on it', 'A')}
        <Field label="Family">
          <Select value={typed.family} onChange={({ target }) => set('family')(target.value)}>
            <option value="">not known</option>
            {FUSE_FAMILIES.map((one) => (
              <option key={one} value={one}>
                {one.replace(/-/g, ' ')}
              </option>
            ))}
          </Select>
        </Field>
        {field('supplyAmps', 'The supply before it gives', 'main fuse, relay, cable', 'A')}
        {field('supplySource', 'Who says so', 'printed on the main fuse')}
        {field('wire', 'The wire that brings it', 'red, from the box to the roof')}
        {field('metres', 'Its length', '3 m', 'm')}
        {field('mm2', 'Its size', '1.5 mm²', 'mm²')}
        {field('endA', 'Its end at the box', 'load side of fuse 12')}
        {field('endB', 'Its far end', 'plug at the fan')}
      </div>
      <div className="mt-3">
        <Choice
          legend="The fuse is live"
          options={[
            { id: 'always', name: 'always' },
            { id: 'accessory', name: 'at accessory and run' },
            { id: 'run', name: 'with the key at run' },
          ]}
          chosen={typed.live}
          onChoose={set('live')}
        />
      </div>
      <Button look="primary" className="mt-4 min-h-14 w-full text-lg" onClick={state}>
        State the change
      </Button>
    </section>
  );
}
