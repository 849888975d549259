/**
 * The examiner of the diagnosis: faults from a table of its own, in circuits whose values the engine does not
 * know, read with instruments that err. Nothing here is shared with the engine's own fault list.
 */

import { loadOhms } from '../core/circuit';
import { complaintOf, readingOf } from '../core/diagnosis';
import { breakCircuit, type Fault, type FaultMode, type FaultyCircuit } from '../core/faults';
import type { CircuitFile, CircuitPart, PartKind, ReadingValue, TestRef } from '../core/format';
import { fuseColdOhms, UNKNOWN_FUSE_AMPS, wireOhms } from '../core/limits';
import { CircuitModel } from '../core/network';

/** What the examiner breaks, and how: sizes that the engine's bins do not hold. */
const TABLE: Readonly<Partial<Record<PartKind, readonly (readonly [FaultMode, ohmsAtOneAmp?: number])[]>>> = {
  battery: [['weak']],
  fuse: [['open']],
  'fusible-link': [['open']],
  wire: [['open'], ['high-resistance', 7], ['high-resistance', 40], ['short-to-earth', 0.05]],
  connector: [['open'], ['high-resistance', 5], ['high-resistance', 150]],
  ground: [['open'], ['high-resistance', 9]],
  switch: [['contact-open'], ['contact-resistance', 11]],
  relay: [['coil-open'], ['contact-open'], ['contact-stuck'], ['contact-resistance', 14]],
  lamp: [['open']],
  led: [['open']],
  motor: [['open'], ['seized']],
  pump: [['open'], ['seized']],
  heater: [['open']],
  module: [['open']],
  diode: [['open']],
};

const CONTACT_KINDS: readonly PartKind[] = ['switch', 'relay'];

/** Every fault that the examiner can put into a circuit, its sizes scaled by the current of the part. */
export function examinersFaults(model: CircuitModel): Fault[] {
  const largest = (part: CircuitPart) => {
    const branches = (model.network.branchesOfPart.get(part.id) ?? []).filter(
      (index) => !CONTACT_KINDS.includes(part.kind) || model.network.branches[index]!.role === 'contact',
    );
    return Math.max(
      ...model.conditions.flatMap((one) =>
        branches.map((index) => Math.abs(model.sound(one.id).amps[index]!)),
      ),
    );
  };
  return model.circuit.parts.flatMap((part) =>
    (TABLE[part.kind] ?? []).flatMap(([mode, ohmsAtOneAmp]): Fault[] => {
      if (ohmsAtOneAmp === undefined) return [{ part: part.id, mode }];
      if (mode === 'short-to-earth') return [{ part: part.id, mode, ohms: ohmsAtOneAmp }];
      const amps = largest(part);
      return amps < 0.01 ? [] : [{ part: part.id, mode, ohms: ohmsAtOneAmp / amps }];
    }),
  );
}

/** The same circuit as it really is: every resistance within 10 %, the battery between 12.2 and 12.8 V. */
export function realWorld(circuit: CircuitFile, random: () => number): CircuitModel {
  const near = (value: number) => value * (0.9 + 0.2 * random());
  const parts = circuit.parts.map((part): CircuitPart => {
    switch (part.kind) {
      case 'battery':
        return { ...part, emfVolts: ((12.2 + 0.6 * random()) * circuit.nominalVolts) / 12 };
      case 'wire':
        return { ...part, ohms: near(part.ohms ?? wireOhms(part.lengthMetres ?? 3, part.sizeMm2 ?? 1.5)) };
      case 'fuse':
        return { ...part, ohms: near(part.ohms ?? fuseColdOhms(part.ratingAmps ?? UNKNOWN_FUSE_AMPS)) };
      case 'relay':
        return { ...part, coilOhms: near(part.coilOhms ?? 85 * (circuit.nominalVolts / 12) ** 2) };
      case 'lamp':
      case 'motor':
      case 'pump':
      case 'horn':
      case 'heater':
      case 'module': {
        const { watts: _watts, amps: _amps, ...rest } = part;
        return { ...rest, ohms: near(loadOhms(part, circuit.nominalVolts)) };
      }
      default:
        return part;
    }
  });
  return new CircuitModel({ ...circuit, parts });
}

/** Standard normal number (Box and Muller, 1958). */
function normal(random: () => number): number {
  return Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
}

export interface Errors {
  /** Meter error, and one reading in a hundred misplaced. */
  readonly meter: boolean;
}

/** What a hand reads: the truth, the meter's error, and one in a hundred taken beside the point. */
export function handReading(
  broken: FaultyCircuit,
  ref: TestRef,
  random: () => number,
  { meter }: Errors,
): ReadingValue {
  const value = readingOf(broken, ref);
  if (!meter) return value;
  if (random() < 0.01) return misplaced(broken, ref, value, random);
  if ('volts' in value) {
    const volts = value.volts * (1 + 0.005 * normal(random)) + 0.01 * normal(random);
    return { volts: Math.round(volts * 100) / 100 };
  }
  if ('amps' in value) {
    const amps = value.amps * (1 + 0.02 * normal(random)) + 0.1 * normal(random);
    return { amps: Math.round(amps * 10) / 10 };
  }
  return value;
}

/** A probe that slipped: no contact, or the neighbour. */
function misplaced(
  broken: FaultyCircuit,
  ref: TestRef,
  value: ReadingValue,
  random: () => number,
): ReadingValue {
  if (ref.kind === 'volts') {
    if (random() < 0.6) return { volts: 0 };
    const nodes = broken.model.circuit.nodes;
    const at = nodes.findIndex((node) => node.id === ref.node);
    return readingOf(broken, { ...ref, node: nodes[(at + 1) % nodes.length]!.id });
  }
  if ('ohms' in value || 'overLimit' in value) return { overLimit: true };
  if ('lamp' in value) return { lamp: 'off' };
  if ('amps' in value) return { amps: 0 };
  if ('click' in value) return { click: value.click === 'clicks' ? 'silent' : 'clicks' };
  if ('look' in value) return { look: value.look === 'whole' ? 'broken' : 'whole' };
  return value;
}

/** A broken real world and what its owner complains of; null when nothing shows. */
export function brokenWorld(circuit: CircuitFile, fault: Fault, random: () => number) {
  const broken = breakCircuit(realWorld(circuit, random), [fault]);
  const complaint = complaintOf(broken);
  return complaint ? { broken, complaint } : null;
}
