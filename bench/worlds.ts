/** Worlds that differ from the engine's map in more than numbers: a part nobody drew, a fault that comes and goes. */

import { complaintOf } from '../core/diagnosis';
import { breakCircuit, type Fault, type FaultyCircuit } from '../core/faults';
import type { CircuitFile, CircuitPart, ReadingValue, TestRef } from '../core/format';
import { CircuitModel } from '../core/network';
import { handReading, realWorld } from './examiner';

/** In-line parts that a map may lack without looking wrong. */
const FORGOTTEN: readonly CircuitPart['kind'][] = ['wire', 'connector', 'splice', 'ground'];

/**
 * The map without a part: its two ends drawn as one point, reached where its first end is. Null where the part
 * has not two ends that may be joined.
 */
export function mapWithout(circuit: CircuitFile, partId: string): CircuitFile | null {
  const part = circuit.parts.find((one) => one.id === partId);
  if (!part || !FORGOTTEN.includes(part.kind)) return null;
  const [kept, gone] = Object.values(part.pins) as string[];
  if (kept === undefined || gone === undefined || Object.keys(part.pins).length !== 2) return null;
  const reference = circuit.reference;
  const [stays, leaves] = gone === reference ? [gone, kept] : [kept, gone];
  const rename = (node: string) => (node === leaves ? stays : node);
  return {
    ...circuit,
    nodes: circuit.nodes.filter((node) => node.id !== leaves),
    parts: circuit.parts
      .filter((one) => one.id !== partId)
      .map(
        (one) =>
          ({
            ...one,
            pins: Object.fromEntries(
              Object.entries(one.pins).map(([pin, node]) => [pin, rename(node as string)]),
            ),
          }) as CircuitPart,
      ),
  };
}

/** Parts of the map that touch the point into which the forgotten part was drawn together. */
export function besideForgotten(circuit: CircuitFile, map: CircuitFile, partId: string): ReadonlySet<string> {
  const ends = Object.values(circuit.parts.find((one) => one.id === partId)!.pins) as string[];
  return new Set(
    map.parts
      .filter((one) => (Object.values(one.pins) as string[]).some((node) => ends.includes(node)))
      .map((one) => one.id),
  );
}

/** Parts that touch a point, or one that plugs and splices alone join to it: to a meter it is the same point. */
export function onNet(circuit: CircuitFile, node: string): ReadonlySet<string> {
  const nodes = new Set([node]);
  // A set grows while it is walked.
  for (const here of nodes) {
    for (const part of circuit.parts) {
      const pins = Object.values(part.pins) as string[];
      if ((part.kind === 'connector' || part.kind === 'splice') && pins.includes(here)) {
        for (const pin of pins) nodes.add(pin);
      }
    }
  }
  return new Set(
    circuit.parts
      .filter((part) => (Object.values(part.pins) as string[]).some((pin) => nodes.has(pin)))
      .map((part) => part.id),
  );
}

/** A branch that nobody drew: from a node that carries current, a chafed wire to earth. */
export function unmappedShort(circuit: CircuitFile, node: string, random: () => number) {
  const extra: CircuitPart = {
    id: 'unmapped',
    kind: 'wire',
    name: 'A wire nobody drew',
    pins: { a: node, b: circuit.reference },
    ohms: 0.05,
  };
  const model = realWorld({ ...circuit, parts: [...circuit.parts, extra] }, random);
  const broken = breakCircuit(model, []);
  const complaint = worse(broken, new CircuitModel(circuit));
  return complaint ? { broken, complaint } : null;
}

/** The first function that does less than the drawn circuit would make it do. */
function worse(broken: FaultyCircuit, drawn: CircuitModel) {
  for (const condition of drawn.conditions) {
    for (const one of drawn.circuit.functions) {
      const is = broken.model.outcome(one, broken.model.solve(condition.id, broken.alteration));
      if (is === 'dead' && drawn.outcome(one, drawn.sound(condition.id)) === 'works') {
        return { function: one.id, condition: condition.id, state: is };
      }
    }
  }
  return null;
}

/** A fault that is there in one episode and away in the next. */
export class ComesAndGoes {
  present = true;
  private readonly sound: FaultyCircuit;
  readonly broken: FaultyCircuit;
  readonly complaint: ReturnType<typeof complaintOf>;

  constructor(
    circuit: CircuitFile,
    readonly fault: Fault,
    private readonly random: () => number,
  ) {
    const model = realWorld(circuit, random);
    this.broken = breakCircuit(model, [fault]);
    this.sound = breakCircuit(model, []);
    this.complaint = complaintOf(this.broken);
  }

  /** May change by itself before the next test; gives true when it did. */
  stir(): boolean {
    if (this.random() > 0.25) return false;
    this.present = !this.present;
    return true;
  }

  read(ref: TestRef): ReadingValue {
    if (ref.kind === 'wiggle') {
      const own = ref.part === this.fault.part;
      const answers = this.random() < (own ? 0.5 : 0.02);
      if (answers) this.present = !this.present;
      return { wiggle: answers ? 'changes' : 'no change' };
    }
    return handReading(this.present ? this.broken : this.sound, ref, this.random, { meter: true });
  }
}
