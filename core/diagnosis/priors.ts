/** Prior weights: how often each fault is met, relative to one another, before anything is known of the job. */
import type { FaultMode } from '../faults/faults';
import type { PartKind } from '../format/circuitSchema';

type Table = Readonly<Partial<Record<PartKind, Readonly<Partial<Record<FaultMode, number>>>>>>;

/** Starting table, from trade experience; only ratios matter. Shops will blend it with their own counts. */
export const PRIOR_TABLE: Table = {
  battery: { weak: 1 },
  fuse: { open: 3 },
  'fusible-link': { open: 0.4 },
  wire: { open: 0.6, 'high-resistance': 0.5, 'short-to-earth': 0.4 },
  connector: { open: 1.5, 'high-resistance': 1.5 },
  splice: { open: 0.5, 'high-resistance': 0.5 },
  ground: { open: 0.9, 'high-resistance': 1.5 },
  switch: { 'contact-open': 1, 'contact-stuck': 0.2, 'contact-resistance': 0.6 },
  'key-contact': { 'contact-open': 0.3, 'contact-stuck': 0.1, 'contact-resistance': 0.3 },
  relay: { 'coil-open': 0.5, 'contact-open': 1, 'contact-stuck': 0.4, 'contact-resistance': 1 },
  lamp: { open: 3, 'short-to-earth': 0.1 },
  motor: { open: 2, 'short-to-earth': 0.5 },
  heater: { open: 1.5, 'short-to-earth': 0.1 },
  module: { open: 1, 'short-to-earth': 0.2 },
  diode: { open: 0.3 },
};

/** Weight of one fault form; 0.1 where the table has no entry. */
export function priorWeight(kind: PartKind, mode: FaultMode): number {
  return PRIOR_TABLE[kind]?.[mode] ?? 0.1;
}
