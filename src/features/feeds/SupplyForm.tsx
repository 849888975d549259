'use client';

import { useId } from 'react';
import { readSupply, type TypedSupply } from '#core/feed';
import type { Slot } from '#core/format';
import { SUPPLY_FIELDS } from '#core/sizing';
import { INPUT } from '@/ui/controls';
import { Fold } from '@/ui/Fold';
import { Line } from './AskForm';

/** What hangs on a feed already and what feeds it, where the map does not say; or what was read instead. */
export function SupplyForm({
  slot,
  typed,
  nominalVolts,
  onType,
}: {
  slot: Slot;
  typed: TypedSupply;
  nominalVolts: number;
  onType: (typed: TypedSupply) => void;
}) {
  const { problems } = readSupply(typed, nominalVolts, slot.family);
  const set = (field: keyof TypedSupply) => (text: string) => onType({ ...typed, [field]: text });
  return (
    <Fold title="What feeds it, and what is on it already" first={Object.keys(problems).length > 0}>
      <div className="mt-1 grid gap-3">
        <Lines
          name={SUPPLY_FIELDS.parts.name}
          says={SUPPLY_FIELDS.parts.typical}
          value={typed.parts ?? ''}
          problem={problems.parts}
          onType={set('parts')}
        />
        <Lines
          name={SUPPLY_FIELDS.on.name}
          says={SUPPLY_FIELDS.on.typical}
          value={typed.on ?? ''}
          problem={problems.on}
          onType={set('on')}
        />
        <p className="text-sm text-soft">
          Or what was read with everything on it running: it counts instead of what is worked out.
        </p>
        <div className="grid grid-cols-2 gap-3 sm:grid-cols-3">
          <Line
            name="By clamp"
            says="12.4 A"
            value={typed.clamp ?? ''}
            problem={problems.clamp}
            onType={set('clamp')}
          />
          <Line
            name="Over a fuse before it"
            says="5.5 mV"
            value={typed.millivolts ?? ''}
            problem={problems.millivolts}
            onType={set('millivolts')}
          />
          <Line
            name="Rating of that fuse"
            says="30 A"
            value={typed.rating ?? ''}
            problem={problems.rating}
            onType={set('rating')}
          />
        </div>
      </div>
    </Fold>
  );
}

function Lines({
  name,
  says,
  value,
  problem,
  onType,
}: {
  name: string;
  says: string;
  value: string;
  problem: string | undefined;
  onType: (text: string) => void;
}) {
  const id = useId();
  return (
    <div>
      <label htmlFor={id} className="mb-0.5 block text-sm font-semibold">
        {name}, one a line
      </label>
      <textarea
        id={id}
        rows={3}
        value={value}
        aria-invalid={problem !== undefined}
        aria-describedby={`${id}-says`}
        onChange={(event) => onType(event.target.value)}
        className={`${INPUT} reading`}
      />
      <p id={`${id}-says`} className={`mt-0.5 text-sm ${problem ? 'font-semibold text-bad' : 'text-soft'}`}>
        {problem ?? says}
      </p>
    </div>
  );
}
