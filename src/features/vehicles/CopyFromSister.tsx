'use client';

import { useCallback, useState } from 'react';
import { buttonClass } from '@/ui/controls';
import type { KnownVehicle } from './listVehicles';
import { VehicleChoice } from './VehicleChoice';

/** Brings the boxes of a sister vehicle to one that has none. */
export function CopyFromSister({
  vehicleId,
  sisters,
  more,
}: {
  vehicleId: string;
  sisters: readonly KnownVehicle[];
  more: boolean;
}) {
  const [from, setFrom] = useState(sisters[0]?.id ?? '');
  const choose = useCallback((id: string) => setFrom(id), []);
  return (
    <form
      method="post"
      action={`/api/vehicles/${vehicleId}/panels/copy`}
      className="mt-3 flex flex-wrap items-end gap-2"
    >
      <VehicleChoice
        label="Or copy the boxes of a sister vehicle"
        name="from"
        first={sisters}
        more={more}
        chosen={from}
        onChoose={choose}
        withBoxes
      />
      <button type="submit" className={buttonClass('plain')}>
        Copy, every fact unverified
      </button>
    </form>
  );
}
