'use client';

import { useState } from 'react';
import type { CircuitFile, PlanGoal } from '#core/format';
import { KEY_STATE_WORDS, type KeyState } from '#core/limits';
import { Choice } from '@/ui/Choice';
import { Button, Field } from '@/ui/controls';
import { newId } from '@/ui/newId';
import { Select } from '@/ui/Select';

const STATES: readonly KeyState[] = ['off', 'off-waited', 'accessory', 'run', 'crank', 'running'];
const WISHES = [
  { id: 'on', name: 'on' },
  { id: 'off', name: 'off' },
  { id: 'any', name: 'either' },
];

/** What a function or a point is to do, state by state. */
export function GoalForm({ circuit, onAsk }: { circuit: CircuitFile; onAsk: (goal: PlanGoal) => void }) {
  const [of, setOf] = useState('');
  const [wishes, setWishes] = useState<Readonly<Partial<Record<KeyState, string>>>>({});
  const list = (wish: string) => STATES.filter((state) => wishes[state] === wish);
  return (
    <div className="grid gap-2">
      <Field label="Of what">
        <Select value={of} onChange={(event) => setOf(event.target.value)}>
          <option value="">Choose</option>
          <optgroup label="What a person sees">
            {circuit.functions.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </optgroup>
          <optgroup label="A point">
            {circuit.nodes.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </optgroup>
        </Select>
      </Field>
      {STATES.map((state) => (
        <Choice
          key={state}
          legend={KEY_STATE_WORDS[state]}
          shape="line"
          options={WISHES}
          chosen={wishes[state] ?? 'any'}
          onChoose={(wish) => setWishes({ ...wishes, [state]: wish })}
        />
      ))}
      <Button
        disabled={of === '' || list('on').length + list('off').length === 0}
        onClick={() => {
          onAsk({ id: newId(), of, on: list('on'), off: list('off') });
          setOf('');
          setWishes({});
        }}
      >
        Ask for it
      </Button>
    </div>
  );
}
