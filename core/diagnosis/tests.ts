/** The tests a technician could do on a circuit: instrument, place, set-up, minutes. */
import type { CircuitModel } from '../circuit/model';
import type { CircuitPart } from '../format/circuitSchema';
import type { TestRef } from '../format/readingsSchema';
import { functionRuns } from './run';

export interface TestCandidate {
  readonly id: string;
  readonly ref: TestRef;
  /** Places from which it can be done, with the minutes it then takes. */
  readonly accesses: readonly {
    readonly place: string | null;
    readonly lead: string;
    readonly minutes: number;
  }[];
  /** Pulls, reseats or swaps something, and so may cure what it looks for. */
  readonly disturbs: boolean;
  /** What a common mistake would spoil together: instrument, condition, interventions. */
  readonly setUp: string;
  readonly spot: string;
}

/** Typical minutes for one test at an open place. */
export const TEST_MINUTES = {
  volts: 0.7,
  lamp: 0.6,
  function: 0.3,
  continuity: 1.5,
  'lamp-in-fuse': 2,
  substitute: 3,
  click: 0.4,
  look: 0.8,
  clamp: 1,
  bridge: 2.5,
} as const;
/** Minutes to go back and change key or switches from the positions of the complaint. */
export const SWITCHING_MINUTES = 0.3;
/** Minutes that disturbing evidence counts for, besides the work itself. */
export const DISTURBING_MINUTES = 1;

/** The same text for the same test, whoever builds the reference. */
export function testId(ref: TestRef): string {
  switch (ref.kind) {
    case 'volts':
      return `volts|${ref.node}|${ref.against}|${ref.condition}`;
    case 'lamp':
      return `lamp|${ref.node}|${ref.condition}`;
    case 'function':
      return `function|${ref.function}|${ref.condition}`;
    case 'continuity':
      return `continuity|${ref.part}|${ref.from}|${ref.to}`;
    case 'lamp-in-fuse':
      return `lamp-in-fuse|${ref.part}|${ref.condition}|${ref.unplugged ?? ''}`;
    case 'substitute':
      return `substitute|${ref.part}|${ref.function}|${ref.condition}`;
    case 'click':
    case 'clamp':
      return `${ref.kind}|${ref.part}|${ref.condition}`;
    case 'look':
      return `look|${ref.part}`;
    case 'bridge':
      return `bridge|${ref.part}|${ref.function}|${ref.condition}`;
  }
}

/** What two readings would share if a common mistake spoiled both. */
export function setUpOf(ref: TestRef): string {
  switch (ref.kind) {
    case 'volts':
    case 'lamp':
    case 'function':
      return `${ref.kind}|${ref.condition}`;
    case 'continuity':
      return 'continuity|removed';
    case 'lamp-in-fuse':
      return `lamp-in-fuse|${ref.condition}|${ref.unplugged ?? ''}`;
    case 'substitute':
      return `substitute|${ref.part}|${ref.condition}`;
    case 'click':
    case 'clamp':
      return `${ref.kind}|${ref.condition}`;
    case 'look':
      return 'look';
    case 'bridge':
      return `bridge|${ref.part}|${ref.condition}`;
  }
}

/** The point or part that a reading is taken at. */
export function spotOf(ref: TestRef): string {
  switch (ref.kind) {
    case 'volts':
    case 'lamp':
      return `node|${ref.node}`;
    case 'function':
      return `function|${ref.function}`;
    case 'continuity':
    case 'lamp-in-fuse':
    case 'substitute':
    case 'click':
    case 'look':
    case 'clamp':
    case 'bridge':
      return `part|${ref.part}`;
  }
}

/** Pins between which a part out of the circuit is measured, or none. */
export function continuityPins(part: CircuitPart): readonly (readonly [string, string])[] {
  if (part.fixed) return [];
  switch (part.kind) {
    case 'fuse':
      return [['in', 'out']];
    case 'relay':
      return [['86', '85']];
    case 'lamp':
    case 'heater':
      return [['plus', 'minus']];
    default:
      return [];
  }
}

/** A relay whose contact may be bridged for a test: it comes out, feeds no safety function, and has a 30 and an 87. */
export function bridgeable(part: CircuitPart): boolean {
  return part.kind === 'relay' && part.pins['87'] !== undefined && !part.fixed && !part.safetyCritical;
}

/** Nodes of a part between which a drop can be read at one place, in the direction of its current. */
function dropEnds(model: CircuitModel, part: CircuitPart): readonly [string, string] | null {
  const ends: Readonly<Partial<Record<CircuitPart['kind'], readonly [string, string]>>> = {
    fuse: ['in', 'out'],
    connector: ['a', 'b'],
    ground: ['lug', 'body'],
    relay: ['30', '87'],
    'key-contact': ['in', 'out'],
  };
  const pins = ends[part.kind];
  if (!pins) return null;
  const at = part.pins as Readonly<Record<string, string | undefined>>;
  const from = at[pins[0]];
  const to = at[pins[1]];
  if (from === undefined || to === undefined) return null;
  const allowed = [from, to].every(
    (id) => model.circuit.nodes.find((node) => node.id === id)?.probe !== 'do-not-probe',
  );
  return allowed ? [from, to] : null;
}

/** Places from which both ends of a drop are reached, with the lead for the second end. */
function commonAccess(model: CircuitModel, from: string, to: string): TestCandidate['accesses'] {
  const accessOf = (id: string) => model.circuit.nodes.find((node) => node.id === id)?.access ?? [];
  return accessOf(from).flatMap((one) => {
    const other = accessOf(to).find((access) => access.place === one.place);
    if (!other) return [];
    const minutes = (one.minutes ?? 0) + (other.minutes ?? 0) + TEST_MINUTES.volts;
    return [{ place: one.place, lead: one.lead, minutes }];
  });
}

function substitutable(part: CircuitPart): boolean {
  return (
    (part.kind === 'relay' || part.kind === 'fuse' || part.kind === 'lamp') &&
    !part.fixed &&
    !part.safetyCritical
  );
}

/**
 * Every test that no flag bars, for a complaint about one function in one condition. Volts and functions
 * are offered everywhere; what loads, pulls or swaps something only along the runs of what failed.
 */
export function candidateTests(
  model: CircuitModel,
  complaint: { function: string; condition: string },
): TestCandidate[] {
  const { circuit } = model;
  const runs = functionRuns(model, complaint.function, complaint.condition);
  const onRun = new Set(
    runs.flatMap((run) => [...run.stops, ...run.stations.map((station) => station.part)]),
  );
  // A function that should be off there has no run of its own; then nothing narrows the choice.
  const concerned = (id: string) => onRun.size === 0 || onRun.has(id);
  const tests: TestCandidate[] = [];
  const add = (ref: TestRef, accesses: TestCandidate['accesses'], disturbs = false) => {
    if (accesses.length > 0) {
      const switching = 'condition' in ref && ref.condition !== complaint.condition ? SWITCHING_MINUTES : 0;
      const timed = accesses.map((access) => ({ ...access, minutes: access.minutes + switching }));
      tests.push({ id: testId(ref), ref, accesses: timed, disturbs, setUp: setUpOf(ref), spot: spotOf(ref) });
    }
  };
  for (const node of circuit.nodes) {
    if (node.probe === 'do-not-probe') continue;
    const accesses = (kind: 'volts' | 'lamp') =>
      (node.access ?? []).map((access) => ({
        place: access.place,
        lead: access.lead,
        minutes: (access.minutes ?? 0) + TEST_MINUTES[kind],
      }));
    if (node.id !== circuit.reference) {
      for (const condition of circuit.conditions) {
        add(
          { kind: 'volts', node: node.id, against: circuit.reference, condition: condition.id },
          accesses('volts'),
        );
      }
      if (node.probe !== 'no-load' && concerned(node.id)) {
        add({ kind: 'lamp', node: node.id, condition: complaint.condition }, accesses('lamp'));
      }
    }
  }
  for (const one of circuit.functions) {
    for (const condition of circuit.conditions) {
      add({ kind: 'function', function: one.id, condition: condition.id }, [
        { place: null, lead: one.name, minutes: one.minutes ?? TEST_MINUTES.function },
      ]);
    }
  }
  for (const part of circuit.parts) {
    if (!concerned(part.id)) continue;
    const place = part.place ?? null;
    const { condition } = complaint;
    const drop = dropEnds(model, part);
    // Against the reference it is the plain reading at the other end.
    if (drop && !drop.includes(circuit.reference)) {
      add({ kind: 'volts', node: drop[0], against: drop[1], condition }, commonAccess(model, ...drop));
    }
    const hand = (kind: 'click' | 'look' | 'clamp' | 'bridge') => [
      { place, lead: part.name, minutes: TEST_MINUTES[kind] },
    ];
    if (part.kind === 'relay' || part.kind === 'solenoid') {
      add({ kind: 'click', part: part.id, condition }, hand('click'));
    }
    if (part.kind === 'fuse' && !part.fixed) add({ kind: 'look', part: part.id }, hand('look'));
    if (part.kind === 'fuse' && part.place) {
      add({ kind: 'clamp', part: part.id, condition }, hand('clamp'));
    }
    if (bridgeable(part)) {
      add({ kind: 'bridge', part: part.id, function: complaint.function, condition }, hand('bridge'), true);
    }
    for (const [from, to] of continuityPins(part)) {
      add(
        { kind: 'continuity', part: part.id, from, to },
        [{ place, lead: part.name, minutes: TEST_MINUTES.continuity }],
        true,
      );
    }
    if (part.kind === 'fuse' && !part.safetyCritical) {
      const unplugs = [undefined, ...circuit.parts.filter((p) => p.kind === 'connector').map((p) => p.id)];
      for (const unplugged of unplugs) {
        const plug = circuit.parts.find((one) => one.id === unplugged);
        add(
          {
            kind: 'lamp-in-fuse',
            part: part.id,
            condition: complaint.condition,
            ...(unplugged ? { unplugged } : {}),
          },
          [
            {
              place: plug?.place ?? place,
              lead: part.name,
              minutes: TEST_MINUTES['lamp-in-fuse'] + (unplugged ? 1.5 : 0),
            },
          ],
          true,
        );
      }
    }
    if (substitutable(part)) {
      add(
        { kind: 'substitute', part: part.id, function: complaint.function, condition: complaint.condition },
        [{ place, lead: part.name, minutes: TEST_MINUTES.substitute }],
        true,
      );
    }
  }
  return tests;
}
