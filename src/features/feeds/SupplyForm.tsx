'use client';

import { readSupply, type TypedSupply } from '#core/feed';
import type { Slot } from '#core/format';
import { SUPPLY_FIELDS } from '#core/sizing';
import { Fold } from '@/ui/Fold';
import { LiveField } from '@/ui/LiveField';

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
        <LiveField
          rows={3}
          name={`${SUPPLY_FIELDS.parts.name}, one a line`}
          says={SUPPLY_FIELDS.parts.typical}
          value={typed.parts ?? ''}
          problem={problems.parts}
          onType={set('parts')}
        />
        <LiveField
          rows={3}
          name={`${SUPPLY_FIELDS.on.name}, one a line`}
          says={SUPPLY_FIELDS.on.typical}
          value={typed.on ?? ''}
          problem={problems.on}
          onType={set('on')}
        />
        <p className="text-sm text-soft">
          Or what was read with everything on it running: it counts instead of what is worked out.
        </p>
        <div className="grid grid-cols-2 gap-3 sm:grid-cols-3">
          <LiveField
            name="By clamp"
            says="12.4 A"
            value={typed.clamp ?? ''}
            problem={problems.clamp}
            onType={set('clamp')}
          />
          <LiveField
            name="Over a fuse before it"
            says="5.5 mV"
            value={typed.millivolts ?? ''}
            problem={problems.millivolts}
            onType={set('millivolts')}
          />
          <LiveField
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
