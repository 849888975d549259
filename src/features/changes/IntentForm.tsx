'use client';

import { useState } from 'react';
import { type Answers, INTENTS, type IntentField, type Stated, state } from '#core/change';
import type { CircuitFile } from '#core/format';
import { readKept, writeDraft } from '@/sync/drafts';
import { Choice } from '@/ui/Choice';
import { Button } from '@/ui/controls';
import { LiveField } from '@/ui/LiveField';
import { Select } from '@/ui/Select';

/** What is wanted, in a few taps; it becomes sentences of the plan. `asked`: what a link has answered already. */
export function IntentForm({
  circuit,
  taken,
  asked,
  onState,
}: {
  circuit: CircuitFile;
  taken: readonly string[];
  asked: URLSearchParams;
  onState: (name: string, stated: Stated) => void;
}) {
  const kept = `intent ${circuit.id}`;
  const [answers, setAnswers] = useState<Answers>(() => {
    const linked = Object.fromEntries(asked);
    return { ...readKept<Record<string, string>>(kept), ...(asked.has('intent') ? linked : {}) } as Answers;
  });
  const [problem, setProblem] = useState<{ field: string; message: string } | null>(null);
  const intent = INTENTS.find(({ id }) => id === answers.intent) ?? null;
  const set = (field: string, value: string) => {
    const next = { ...answers, [field]: value };
    setAnswers(next);
    setProblem(null);
    writeDraft(kept, JSON.stringify(next));
  };
  const take = () => {
    if (!intent) return;
    const stated = state(intent, circuit, answers, taken);
    if (!stated.ok) {
      setProblem(stated);
      document.getElementById(`intent-${stated.field}`)?.focus();
      return;
    }
    writeDraft(kept, null);
    setAnswers({});
    onState(nameFor(intent.name, circuit, answers), stated);
  };
  const preview = intent ? state(intent, circuit, answers, taken) : null;
  return (
    <div className="grid gap-3">
      {intent ? (
        <div className="flex items-center justify-between gap-2">
          <h2 className="text-xl">{intent.name}</h2>
          <Button onClick={() => set('intent', '')}>Another</Button>
        </div>
      ) : (
        <>
          <h2 className="text-xl">What is to be changed?</h2>
          <ul className="grid gap-2 sm:grid-cols-2">
            {INTENTS.map(({ id, name }) => (
              <li key={id}>
                <button
                  type="button"
                  onClick={() => set('intent', id)}
                  className="min-h-12 w-full rounded-md border-2 border-line bg-sheet px-3 text-left text-lg hover:border-ink"
                >
                  {name}
                </button>
              </li>
            ))}
          </ul>
        </>
      )}
      {intent?.fields.map((field) => (
        <IntentInput
          key={`${intent.id} ${field.id}`}
          field={field}
          circuit={circuit}
          value={answers[field.id] ?? ''}
          problem={problem?.field === field.id ? problem.message : null}
          onType={(value) => set(field.id, value)}
        />
      ))}
      {intent ? (
        <>
          {preview?.ok ? (
            <ul className="border-l-4 border-copper pl-3 text-[0.95rem]" data-testid="worked">
              {preview.worked.map((words) => (
                <li key={words}>{words}</li>
              ))}
            </ul>
          ) : null}
          <Button look="primary" className="min-h-14 text-lg" onClick={take}>
            Into the plan
          </Button>
        </>
      ) : null}
    </div>
  );
}

/** A name for a plan that has none: what is wanted, and of what. */
function nameFor(name: string, circuit: CircuitFile, answers: Answers): string {
  const of =
    answers.name?.trim() ||
    circuit.parts.find(({ id }) => id === (answers.wire || answers.unit || answers.part))?.name ||
    '';
  return (of ? `${name}: ${of}` : name).slice(0, 160);
}

function IntentInput({
  field,
  circuit,
  value,
  problem,
  onType,
}: {
  field: IntentField;
  circuit: CircuitFile;
  value: string;
  problem: string | null;
  onType: (value: string) => void;
}) {
  const { id, label, kind, unit, hint, choices = [], optional } = field;
  if (kind === 'choice') {
    return (
      <div>
        <Choice
          legend={label}
          options={choices.map(([one, name]) => ({ id: one, name }))}
          chosen={value || (choices[0]?.[0] ?? null)}
          onChoose={onType}
        />
        {problem ? <p className="text-sm font-semibold text-bad">{problem}</p> : null}
      </div>
    );
  }
  const options =
    kind === 'part'
      ? circuit.parts.filter((part) => field.fits?.(part, circuit) ?? true)
      : kind === 'point'
        ? circuit.nodes
        : [];
  return (
    <LiveField
      id={`intent-${id}`}
      name={label}
      unit={unit}
      says={hint ?? (optional ? 'may stay open' : '')}
      value={value}
      problem={problem}
      decimal={kind === 'number'}
      onType={onType}
    >
      {kind === 'part' || kind === 'point'
        ? (shared) => (
            <Select {...shared} value={value} onChange={({ target }) => onType(target.value)}>
              <option value="">{optional ? 'Nothing' : 'Choose'}</option>
              {options.map((one) => (
                <option key={one.id} value={one.id}>
                  {one.name} · {one.id}
                </option>
              ))}
            </Select>
          )
        : undefined}
    </LiveField>
  );
}
