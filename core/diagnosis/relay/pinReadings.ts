/** What readings say of the pins of something that switches, and the verdict of one pin. */
import type { CircuitFile, TestRef } from '../../format';
import type { TakenReading } from '../evidence/readings';
import { AT_EARTH, type ContactDuty, FED } from './relayDuty';

export type Role = 'feed' | 'coil-feed' | 'coil-return' | 'output' | 'request' | 'earth';
/** `unloaded`: it reads right, and that proves nothing of what carries the current to it. */
type Standing = 'untested' | 'good' | 'unloaded' | 'watch' | 'bad';

export interface RoleVerdict {
  readonly role: Role;
  /** "Feed, 30". */
  readonly name: string;
  readonly pin: string;
  readonly standing: Standing;
  readonly sentence: string;
  /** The reading that would tell; null where the point may not be probed. */
  readonly test: TestRef | null;
}

export type Known = { readonly volts: number; readonly exact: boolean } | null;

/** What the standing readings say of a point in a condition; a lamp says lit, dim or off only. */
export function known(
  circuit: CircuitFile,
  readings: readonly TakenReading[],
  node: string,
  condition: string,
): Known {
  if (node === circuit.reference) return { volts: 0, exact: true };
  for (const { test, value, before } of readings.slice().reverse()) {
    if (before || !('condition' in test) || test.condition !== condition) continue;
    if (test.kind === 'volts' && test.node === node && test.against === circuit.reference && !test.pulled) {
      if ('volts' in value) return { volts: value.volts, exact: true };
    }
    if ((test.kind === 'lamp' || test.kind === 'led') && test.node === node && 'lamp' in value) {
      const share = { lit: 1, dim: 0.5, off: 0 }[value.lamp];
      return { volts: share * circuit.nominalVolts, exact: false };
    }
  }
  return null;
}

export function tester(circuit: CircuitFile, node: string, condition: string): TestRef | null {
  const at = circuit.nodes.find((one) => one.id === node);
  if (node === circuit.reference || !at?.access?.length) return null;
  return { kind: 'volts', node, against: circuit.reference, condition };
}

export const spoken = (volts: number) => `${volts.toFixed(Math.abs(volts) < 1 ? 2 : 1)} V`;

export type Judged = readonly [standing: Standing, sentence: string];

export const UNREAD: Judged = ['untested', 'Not read yet.'];

export const isFed = (at: Known, nominal: number) => at !== null && at.volts >= FED * nominal;
export const isEarthed = (at: Known, nominal: number) =>
  at !== null && Math.abs(at.volts) < AT_EARTH * nominal;
export const hasRail = (at: Known, { rail }: ContactDuty, nominal: number) =>
  rail === 'plus' ? isFed(at, nominal) : isEarthed(at, nominal);
