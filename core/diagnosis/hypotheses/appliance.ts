/**
 * A portable appliance that was plugged in and took the fuse, or two of them: one cause for all that are open, and the
 * first thing to put aside. The wiring behind one fuse never opens another.
 */
import { faultAlteration } from '../../faults';
import { type CircuitModel, combineAlterations } from '../../network';
import { functionRuns } from '../run';
import type { Weighted } from './hypothesis';

/** What would be dealt with: the appliance itself. */
export const APPLIANCE = 'appliance';
/** Weight of the appliance against everything else together, by how many fuses went with it plugged in. */
const WEIGHT_OF_ONE = 0.4;
const WEIGHT_OF_MORE = 2;

export interface TookFuses {
  /** Fuses that went while it was plugged in. */
  readonly fusesTaken: number;
}

/** The appliance as a cause of the complaint; `total` is the weight of everything else. */
export function byAppliance(
  model: CircuitModel,
  complaint: { readonly function: string; readonly condition: string },
  { fusesTaken }: TookFuses,
  total: number,
): Weighted[] {
  if (fusesTaken === 0) return [];
  const { parts } = model.network;
  const runs = functionRuns(model, complaint.function, complaint.condition);
  const onTheWay = [...new Set(runs.flatMap((run) => run.stations.map((station) => station.part)))].filter(
    (id) => parts.get(id)?.kind === 'fuse',
  );
  const others = [...parts.values()].filter((part) => part.kind === 'fuse').map((part) => part.id);
  const sets = onTheWay.flatMap((id) => {
    const pairs = fusesTaken > 1 ? others.filter((other) => other !== id).map((other) => [id, other]) : [];
    return [[id], ...pairs];
  });
  // Two that were taken are on the map, or one of them is not, or one place took both: as likely each.
  const whole = total * (fusesTaken > 1 ? WEIGHT_OF_MORE : WEIGHT_OF_ONE);
  return sets.map((fuses): Weighted => {
    const faults = fuses.map((part) => ({ part, mode: 'open' as const }));
    return {
      id: `${APPLIANCE}:${fuses.join(':')}`,
      faults,
      unit: APPLIANCE,
      parts: fuses,
      alteration: combineAlterations(...faults.map((fault) => faultAlteration(model.network, fault))),
      blows: false,
      intermittent: false,
      lasting: null,
      words: `The appliance that was plugged in: took ${fuses.map((id) => parts.get(id)?.name ?? id).join(' and ')}`,
      weight: whole / sets.length,
    };
  });
}
