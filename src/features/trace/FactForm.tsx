'use client';

import { unknownOf } from '#core/circuit';
import type { CircuitFile, CircuitPart, PanelSetFile } from '#core/format';
import { slotChoices, slotKey } from '#core/panel';
import { readNumber } from '#core/quantity';
import { useJob } from '@/job/JobProvider';
import { textOf, useKeptForm } from '@/sync/useKeptForm';
import { Button, INPUT, Problem } from '@/ui/controls';
import { Select } from '@/ui/Select';
import { useLearn } from './useLearn';

interface Amount {
  readonly field: string;
  readonly label: string;
  readonly most: number;
}

const WATTS: Amount = { field: 'watts', label: 'Power, W', most: 50000 };
/** Numbers that are learned of a kind. */
function amountsOf(part: CircuitPart): readonly Amount[] {
  if (part.kind === 'fuse') return [{ field: 'ratingAmps', label: 'Rating, A', most: 5000 }];
  if (part.kind === 'wire') {
    return [
      { field: 'lengthMetres', label: 'Length, m', most: 200 },
      { field: 'sizeMm2', label: 'Size, mm²', most: 240 },
    ];
  }
  return ['lamp', 'led', 'motor', 'pump', 'horn', 'heater', 'module'].includes(part.kind) ? [WATTS] : [];
}

/** What was found out about a part while tracing: kept in the map for the next job on this vehicle. */
export function FactForm({
  circuit,
  panelSet,
  partId,
  onDone,
}: {
  circuit: CircuitFile;
  panelSet: PanelSetFile | null;
  partId: string;
  onDone: () => void;
}) {
  const part = circuit.parts.find((one) => one.id === partId);
  return part ? <FactOf key={partId} part={part} panelSet={panelSet} onDone={onDone} /> : null;
}

interface FactWords {
  name: string;
  colour: string;
  slot: string;
  amounts: Record<string, string>;
}

/** What was written that the map does not say: fields to be learned, and each in words. */
export function learnedFrom(
  part: CircuitPart,
  values: FactWords,
  slotName: (id: string) => string,
):
  | { ok: true; learned: Record<string, unknown>; said: string[] }
  | { ok: false; message: string; field: string } {
  const fields = part as unknown as Readonly<Record<string, unknown>>;
  const learned: Record<string, unknown> = {};
  const said: string[] = [];
  const name = textOf(values.name);
  if (name !== '' && name !== part.name) {
    learned.name = name;
    said.push(`is “${name}”`);
  }
  for (const { field, label, most } of amountsOf(part)) {
    const text = textOf(values.amounts[field]);
    if (text === '') continue;
    const read = readNumber(text, { above: 0, most });
    if (!read.ok) return { ok: false, message: `${label}: ${read.message}`, field: `amounts.${field}` };
    if (read.value !== fields[field]) {
      learned[field] = read.value;
      said.push(`${label.split(',')[0]!.toLowerCase()} ${read.value}${label.split(',')[1] ?? ''}`);
    }
  }
  const colour = textOf(values.colour).toUpperCase();
  if (part.kind === 'wire' && colour !== '' && colour !== part.colour) {
    learned.colour = colour;
    said.push(`is ${colour}`);
  }
  if (textOf(values.slot) !== '' && values.slot !== slotKey(part.slot)) {
    const [panel = '', slot = ''] = values.slot.split('/');
    learned.slot = { panel, slot };
    said.push(`sits in ${slotName(values.slot)}`);
  }
  return { ok: true, learned, said };
}

function FactOf({
  part,
  panelSet,
  onDone,
}: {
  part: CircuitPart;
  panelSet: PanelSetFile | null;
  onDone: () => void;
}) {
  const { data } = useJob();
  const learn = useLearn();
  const fields = part as unknown as Readonly<Record<string, unknown>>;
  const slots = slotChoices(panelSet?.panels ?? [], part.kind);
  const hasSlot = slots.length > 0;
  const form = useKeptForm<FactWords>({
    keep: `fact ${data.id} ${part.id}`,
    stays: true,
    first: {
      name: part.name,
      colour: part.kind === 'wire' ? (part.colour ?? '') : '',
      slot: hasSlot ? slotKey(part.slot) : '',
      amounts: Object.fromEntries(amountsOf(part).map(({ field }) => [field, String(fields[field] ?? '')])),
    },
    take: async (values) => {
      const read = learnedFrom(part, values, (id) => slots.find((one) => one.id === id)?.name ?? id);
      if (!read.ok) return read;
      const { learned, said } = read;
      if (said.length > 0) {
        const answer = await learn(part, learned, said.join(', '));
        if (!answer.ok) return answer;
      }
      onDone();
      return { ok: true };
    },
  });
  const unknown = unknownOf(part);
  return (
    <form onSubmit={form.submit} className="grid gap-3 sm:grid-cols-2" data-testid="fact-form">
      <p className="sm:col-span-2">
        <strong>{part.name}</strong>
        {unknown ? `: ${unknown} not known yet.` : ''} What you enter stays with the vehicle.
      </p>
      <label className="block sm:col-span-2">
        <span className="block text-sm font-semibold">Its name</span>
        <input {...form.register('name')} maxLength={160} className={INPUT} />
      </label>
      {amountsOf(part).map(({ field, label }) => (
        <label key={field} className="block">
          <span className="block text-sm font-semibold">{label}</span>
          <input {...form.register(`amounts.${field}`)} inputMode="decimal" className={INPUT} />
        </label>
      ))}
      {part.kind === 'wire' ? (
        <label className="block">
          <span className="block text-sm font-semibold">Colour, base/tracer</span>
          <input {...form.register('colour')} maxLength={20} className={INPUT} />
        </label>
      ) : null}
      {hasSlot ? (
        <label className="block">
          <span className="block text-sm font-semibold">Its slot</span>
          <Select {...form.register('slot')}>
            <option value="">not known</option>
            {slots.map((one) => (
              <option key={one.id} value={one.id}>
                {one.name}
              </option>
            ))}
          </Select>
        </label>
      ) : null}
      {form.problem ? (
        <div className="sm:col-span-2">
          <Problem>{form.problem}</Problem>
        </div>
      ) : null}
      <div className="flex gap-2 sm:col-span-2">
        <Button look="primary" type="submit" disabled={form.busy}>
          Keep it
        </Button>
        <Button
          onClick={() => {
            form.forget();
            onDone();
          }}
        >
          Leave it
        </Button>
      </div>
    </form>
  );
}

/** One number is asked for, and only because it would change the next test. */
export function WouldHelp({
  circuit,
  parts,
  onAnswer,
}: {
  circuit: CircuitFile;
  parts: readonly string[];
  onAnswer: (part: string) => void;
}) {
  const [part] = circuit.parts.filter((one) => parts.includes(one.id));
  const unknown = part ? unknownOf(part) : null;
  if (!part || !unknown) return null;
  return (
    <p
      className="mt-3 flex flex-wrap items-center justify-between gap-2 border-l-4 border-line pl-3"
      data-testid="would-help"
    >
      <span>
        The {unknown} of {part.name} is not known, and it decides which test comes next.
      </span>
      <Button onClick={() => onAnswer(part.id)}>I know it</Button>
    </p>
  );
}
