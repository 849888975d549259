/** What differs from the sound circuit as drawn: faults and interventions alike. */

/** A change of one branch: another resistance (Infinity opens it), another source, a contact held. */
export interface BranchChange {
  readonly branch: number;
  readonly ohms?: number;
  readonly emfVolts?: number;
  /** Holds a contact whatever its switch, key or coil says. */
  readonly held?: 'open' | 'closed';
}

/** A branch that the circuit does not have: a short, a jumper, a lamp across two points. */
export interface Bridge {
  readonly a: number;
  readonly b: number;
  readonly ohms: number;
  readonly emfVolts?: number;
  /** Rating of the fuse in it, ampere, where there is one. */
  readonly fuseAmps?: number;
  /** Opens and closes as this branch would by its own control. */
  readonly follows?: number;
}

export interface Alteration {
  readonly changes: readonly BranchChange[];
  readonly bridges: readonly Bridge[];
  /** Junctions fitted the wrong way round. */
  readonly reversed?: readonly number[] | undefined;
  /** Sensors that feel the volts between other nodes than drawn, whatever their coil; equal nodes feel nothing. */
  readonly sensing?:
    | readonly { readonly sensor: number; readonly a: number; readonly b: number }[]
    | undefined;
  /** Fuses of another rating than drawn, ampere by branch; they open by it. */
  readonly ratings?: readonly { readonly branch: number; readonly amps: number }[] | undefined;
}

export const UNALTERED: Alteration = { changes: [], bridges: [] };

/** All of them at once; where two change one branch, the later acts on what the earlier left. */
export function combineAlterations(...alterations: readonly Alteration[]): Alteration {
  const changes: BranchChange[] = [];
  const bridges: Bridge[] = [];
  let reversed: Alteration['reversed'];
  let sensing: Alteration['sensing'];
  let ratings: Alteration['ratings'];
  for (const one of alterations) {
    changes.push(...one.changes);
    bridges.push(...one.bridges);
    if (one.reversed) reversed = [...(reversed ?? []), ...one.reversed];
    if (one.sensing) sensing = [...(sensing ?? []), ...one.sensing];
    if (one.ratings) ratings = [...(ratings ?? []), ...one.ratings];
  }
  return { changes, bridges, reversed, sensing, ratings };
}
