'use client';

import { wantedAt } from '#core/repair';
import { availability } from '#core/stock';
import { useStockPlace } from '@/ui/useStockPlace';
import { useJob } from './JobProvider';

/** Whether the place that this phone takes parts from has the one that belongs in the place of a part; nothing where that is not known. */
export function InStock({ part }: { part: string }) {
  const { data, circuit } = useJob();
  const places = data.stock?.places ?? [];
  const [here] = useStockPlace(places);
  const wanted = circuit ? wantedAt(circuit, part) : null;
  const said =
    data.stock && wanted ? availability(data.stock, wanted, circuit?.nominalVolts ?? 12, here) : null;
  if (!said) return null;
  return (
    <p
      className={`mt-1 text-sm font-semibold ${said.here ? 'text-good' : 'text-caution'}`}
      data-testid="in-stock"
    >
      {said.here ? '✓' : '▲'} {said.words}
    </p>
  );
}
