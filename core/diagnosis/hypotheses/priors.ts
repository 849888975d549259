/** Prior weights: how often each fault is met, relative to one another, before anything is known of the job. */
import type { FaultMode } from '../../faults';
import type { PartKind } from '../../format';

type Table = { readonly [K in PartKind]: Readonly<Partial<Record<FaultMode, number>>> };

/** Starting table, from trade experience; only ratios matter. Shops will blend it with their own counts. */
const PRIOR_TABLE: Table = {
  battery: { weak: 0.6, flat: 0.4 },
  'charging-source': { open: 0.5, weak: 0.5, 'over-voltage': 0.1 },
  fuse: { open: 3, 'high-resistance': 0.3, 'not-fitted': 0.2, 'wrong-rating': 0.1 },
  'fusible-link': { open: 0.4, 'high-resistance': 0.1 },
  breaker: { open: 1, 'high-resistance': 0.2 },
  polyfuse: { open: 0.3, 'high-resistance': 0.3 },
  wire: { open: 0.6, 'high-resistance': 0.5, 'short-to-earth': 0.4, 'short-to-feed': 0.05 },
  connector: { open: 1.5, 'high-resistance': 1.5 },
  splice: { open: 0.5, 'high-resistance': 0.5 },
  ground: { open: 0.9, 'high-resistance': 1.5 },
  resistor: { open: 1, shorted: 0.05 },
  switch: { 'contact-open': 1, 'contact-stuck': 0.2, 'contact-resistance': 0.6, 'not-commanded': 0.1 },
  'key-contact': {
    'contact-open': 0.3,
    'contact-stuck': 0.1,
    'contact-resistance': 0.3,
    'not-commanded': 0.1,
  },
  relay: {
    'coil-open': 0.5,
    'coil-shorted': 0.1,
    'contact-open': 1,
    'contact-stuck': 0.4,
    'contact-resistance': 1,
    'wrong-part': 0.1,
    'not-fitted': 0.1,
  },
  'latching-relay': {
    'coil-open': 0.5,
    'coil-shorted': 0.1,
    'contact-open': 1,
    'contact-stuck': 0.4,
    'contact-resistance': 0.6,
  },
  solenoid: {
    'coil-open': 0.6,
    'coil-shorted': 0.1,
    'contact-open': 1,
    'contact-stuck': 0.3,
    'contact-resistance': 1,
  },
  flasher: { 'contact-open': 1, 'contact-stuck': 0.3, 'contact-resistance': 0.3 },
  'cut-off': { 'contact-open': 0.6, 'contact-stuck': 0.3, 'contact-resistance': 0.3 },
  'module-output': { 'contact-open': 0.6, 'contact-stuck': 0.2, 'contact-resistance': 0.2 },
  lamp: { open: 3, 'high-resistance': 0.2, shorted: 0.1 },
  led: { open: 1.5, 'high-resistance': 0.3, shorted: 0.2, reversed: 0.1 },
  motor: { open: 2, 'high-resistance': 0.4, shorted: 0.3, seized: 0.4 },
  pump: { open: 2, 'high-resistance': 0.4, shorted: 0.3, seized: 0.6 },
  horn: { open: 2, 'high-resistance': 0.2, shorted: 0.1 },
  heater: { open: 1.5, 'high-resistance': 0.3, shorted: 0.1 },
  module: { open: 1, 'high-resistance': 0.1, shorted: 0.2 },
  socket: { open: 0.6, 'high-resistance': 0.6, shorted: 0.4 },
  diode: { open: 0.3, shorted: 0.2, reversed: 0.1 },
};

/** Weights learned or set by a shop, by `kind|mode`; where it says nothing the starting table counts. */
export type PriorTable = Readonly<Record<string, number>>;

/** What a fault form weighs before any shop has counted; 0.1 where the table has no entry. */
export function startingWeight(kind: PartKind, mode: FaultMode): number {
  return PRIOR_TABLE[kind][mode] ?? 0.1;
}

function priorKey(kind: string, mode: string): string {
  return `${kind}|${mode}`;
}

/** Weight of one fault form. */
export function priorWeight(table: PriorTable, kind: PartKind, mode: FaultMode): number {
  return table[priorKey(kind, mode)] ?? startingWeight(kind, mode);
}

export interface LearnedWeight {
  readonly kind: PartKind;
  readonly mode: FaultMode;
  readonly starting: number;
  /** Proved jobs of this shop that ended with it. */
  readonly count: number;
  readonly blended: number;
}

/** Proved jobs that ended with one form of fault. */
export interface FaultCount {
  readonly kind: PartKind;
  readonly mode: FaultMode;
  readonly count: number;
}

/** The starting table counts as so many jobs. */
export const TABLE_COUNTS_AS = 50;

/**
 * The starting table blended with the shop's own proved jobs: the table stands for `TABLE_COUNTS_AS` jobs shared
 * out by its weights, each proved job adds one to its own form (Dirichlet prior and counts).
 */
export function learnWeights(counts: readonly FaultCount[]): LearnedWeight[] {
  const rows = Object.entries(PRIOR_TABLE).flatMap(([kind, modes]) =>
    Object.entries(modes).map(([mode, starting]) => ({
      kind: kind as PartKind,
      mode: mode as FaultMode,
      starting,
    })),
  );
  for (const { kind, mode } of counts) {
    if (!rows.some((row) => row.kind === kind && row.mode === mode)) {
      rows.push({ kind, mode, starting: startingWeight(kind, mode) });
    }
  }
  const total = rows.reduce((sum, row) => sum + row.starting, 0);
  return rows.map((row) => {
    const count = counts
      .filter((one) => one.kind === row.kind && one.mode === row.mode)
      .reduce((sum, one) => sum + one.count, 0);
    return { ...row, count, blended: row.starting + (count * total) / TABLE_COUNTS_AS };
  });
}

/** Learned weights as the engine takes them. */
export function priorTable(learned: readonly LearnedWeight[]): PriorTable {
  return Object.fromEntries(learned.map((one) => [priorKey(one.kind, one.mode), one.blended]));
}
