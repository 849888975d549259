'use client';

import { type FormEvent, useRef, useState } from 'react';
import { unknownOf } from '#core/circuit';
import type { CircuitFile, CircuitPart, PanelSetFile } from '#core/format';
import { readNumber } from '#core/quantity';
import { useJob } from '@/features/jobs';
import { wasOf } from '@/features/vehicles';
import { postJson } from '@/sync/post';
import { requestFor, type Tried } from '@/sync/requestFor';
import { Button, INPUT, Problem } from '@/ui/controls';

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
  const { data, record, refresh } = useJob();
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const request = useRef<Tried | null>(null);
  const part = circuit.parts.find((one) => one.id === partId);
  if (!part) return null;
  const fields = part as unknown as Readonly<Record<string, unknown>>;
  const slots = (panelSet?.panels ?? []).flatMap((panel) =>
    panel.slots
      .filter((slot) => slot.type === (part.kind === 'relay' ? 'relay' : 'fuse'))
      .map((slot) => ({ id: `${panel.id}/${slot.id}`, name: `${panel.name}, ${slot.type} ${slot.number}` })),
  );
  const hasSlot = (part.kind === 'fuse' || part.kind === 'relay') && slots.length > 0;
  const save = async (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = new FormData(event.currentTarget);
    const text = (name: string) => String(form.get(name) ?? '').trim();
    const learned: Record<string, unknown> = {};
    const said: string[] = [];
    if (text('name') !== '' && text('name') !== part.name) {
      learned.name = text('name');
      said.push(`is “${text('name')}”`);
    }
    for (const { field, label, most } of amountsOf(part)) {
      if (text(field) === '') continue;
      const read = readNumber(text(field), { above: 0, most });
      if (!read.ok) return setProblem(`${label}: ${read.message}`);
      if (read.value !== fields[field]) {
        learned[field] = read.value;
        said.push(`${label.split(',')[0]!.toLowerCase()} ${read.value}${label.split(',')[1] ?? ''}`);
      }
    }
    if (part.kind === 'wire' && text('colour') !== '' && text('colour').toUpperCase() !== part.colour) {
      learned.colour = text('colour').toUpperCase();
      said.push(`is ${learned.colour as string}`);
    }
    if (text('slot') !== '') {
      const [panel = '', slot = ''] = text('slot').split('/');
      learned.slot = { panel, slot };
      said.push(`sits in ${slots.find((one) => one.id === text('slot'))?.name ?? slot}`);
    }
    if (said.length === 0) return onDone();
    setBusy(true);
    setProblem(null);
    const fact = { part: part.id, fields: learned, was: wasOf(part, learned) };
    request.current = requestFor(request.current, JSON.stringify(fact));
    const posted = await postJson<{ message?: string; stays?: string | null }>(`/api/jobs/${data.id}/facts`, {
      id: request.current.id,
      ...fact,
    });
    setBusy(false);
    if (posted.kind === 'away') return setProblem(posted.message);
    if (!posted.ok) return setProblem(posted.answer.message ?? 'It was not taken.');
    record({ kind: 'note', words: `Map: ${part.name} ${said.join(', ')}.` });
    refresh();
    if (posted.answer.stays) setProblem(posted.answer.stays);
    else onDone();
  };
  const unknown = unknownOf(part);
  return (
    <form onSubmit={save} className="grid gap-3 sm:grid-cols-2" data-testid="fact-form">
      <p className="sm:col-span-2">
        <strong>{part.name}</strong>
        {unknown ? `: ${unknown} not known yet.` : ''} What you enter stays with the vehicle.
      </p>
      <label className="block sm:col-span-2">
        <span className="block text-sm font-semibold">Its name</span>
        <input name="name" maxLength={160} defaultValue={part.name} className={INPUT} />
      </label>
      {amountsOf(part).map(({ field, label }) => (
        <label key={field} className="block">
          <span className="block text-sm font-semibold">{label}</span>
          <input
            name={field}
            inputMode="decimal"
            defaultValue={fields[field] === undefined ? '' : String(fields[field])}
            className={INPUT}
          />
        </label>
      ))}
      {part.kind === 'wire' ? (
        <label className="block">
          <span className="block text-sm font-semibold">Colour, base/tracer</span>
          <input name="colour" maxLength={20} defaultValue={part.colour ?? ''} className={INPUT} />
        </label>
      ) : null}
      {hasSlot ? (
        <label className="block">
          <span className="block text-sm font-semibold">Its slot</span>
          <select
            name="slot"
            defaultValue={part.slot ? `${part.slot.panel}/${part.slot.slot}` : ''}
            className={INPUT}
          >
            <option value="">not known</option>
            {slots.map((one) => (
              <option key={one.id} value={one.id}>
                {one.name}
              </option>
            ))}
          </select>
        </label>
      ) : null}
      {problem ? (
        <div className="sm:col-span-2">
          <Problem>{problem}</Problem>
        </div>
      ) : null}
      <div className="flex gap-2 sm:col-span-2">
        <Button look="primary" type="submit" disabled={busy}>
          Keep it
        </Button>
        <Button onClick={onDone}>Leave it</Button>
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
