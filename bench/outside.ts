/**
 * Cases from outside: looms, faults, sizes, supplies and slips that share nothing with the engine's lists. A supply has
 * any level and any inner resistance; a short may be what opened a fuse; joints and contacts are worn to any degree.
 */
import { type Assessment, type DiagnosisSession, endsRight, leadToEnd, readingOf } from '../core/diagnosis';
import { breakCircuit, type Fault, type FaultMode, type FaultyCircuit } from '../core/faults';
import type { CircuitFile, CircuitPart, ReadingValue, TestRef } from '../core/format';
import { CircuitModel, seenPoint } from '../core/network';

export type Class = 'supply' | 'short' | 'leak' | 'joint' | 'contact' | 'open' | 'load' | 'relay' | 'chatter';

export interface Case {
  readonly of: Class;
  readonly fault: Fault;
  readonly broken: FaultyCircuit;
  readonly complaint: { function: string; condition: string; state: 'works' | 'weak' | 'dead' };
}

/** From low to high, as many in each decade. */
const between = (random: () => number, low: number, high: number) => low * (high / low) ** random();

interface Supply {
  readonly emfVolts: number;
  readonly innerOhms: number;
}

/** The loom as it is built: lengths, powers and windings off by up to a sixth, on a supply of its own. */
function built(map: CircuitFile, random: () => number, supply: Supply): CircuitFile {
  const off = () => 6 ** ((random() - 0.5) / 6);
  const parts = map.parts.map((part): CircuitPart => {
    if (part.kind === 'battery') return { ...part, ...supply };
    if (part.kind === 'wire') return { ...part, lengthMetres: (part.lengthMetres ?? 2) * off() };
    if (part.kind === 'relay') return { ...part, coilOhms: 90 * off() };
    return 'watts' in part && part.watts !== undefined ? { ...part, watts: part.watts * off() } : part;
  });
  return { ...map, parts };
}

const CONTACTS: readonly CircuitPart['kind'][] = ['switch', 'relay'];
const JOINTS: readonly CircuitPart['kind'][] = ['wire', 'connector', 'ground', 'fusible-link'];
const LOADS: readonly CircuitPart['kind'][] = ['lamp', 'motor', 'heater', 'pump', 'module'];

/** Faults of one part, each with its class; `amps` is the most that it carries when all is well. */
function faultsOf(part: CircuitPart, amps: number, random: () => number): [Class, Fault][] {
  const fault = (mode: FaultMode, ohms?: number): Fault =>
    ohms === undefined ? { part: part.id, mode } : { part: part.id, mode, ohms };
  const found: [Class, Fault][] = [];
  /** In series with 12 V a tenth to nine tenths of them are lost over it. */
  const worn = () => {
    const share = 0.12 + 0.8 * random();
    return ((12 / Math.max(amps, 0.05)) * share) / (1 - share);
  };
  if (JOINTS.includes(part.kind) && amps > 0.02) found.push(['joint', fault('high-resistance', worn())]);
  if (['wire', 'connector', 'ground', 'fuse'].includes(part.kind)) found.push(['open', fault('open')]);
  if (LOADS.includes(part.kind)) found.push(['load', fault('open')]);
  if (part.kind === 'wire') {
    found.push(['short', fault('short-to-earth', between(random, 0.01, 0.25))]);
    if (random() < 0.3) found.push(['leak', fault('short-to-earth', between(random, 1.5, 20))]);
  }
  if (LOADS.includes(part.kind)) found.push(['short', fault('shorted', between(random, 0.02, 0.2))]);
  if (CONTACTS.includes(part.kind) && amps > 0.02) {
    found.push(['contact', fault('contact-open')], ['contact', fault('contact-resistance', worn())]);
  }
  if (part.kind === 'relay') found.push(['relay', fault('coil-open')], ['relay', fault('contact-stuck')]);
  return found;
}

/** Where two worlds of the same loom do not do the same: what the owner complains of. */
function complaintBetween(sound: CircuitModel, broken: FaultyCircuit): Case['complaint'] | null {
  for (const condition of sound.conditions) {
    for (const one of sound.circuit.functions) {
      const should = sound.outcome(one, sound.sound(condition.id));
      const state = broken.model.outcome(one, seenPoint(broken.model, condition.id, broken.alteration));
      if (state !== should && !(state === 'works' && should === 'weak')) {
        return { function: one.id, condition: condition.id, state };
      }
    }
  }
  return null;
}

/** Whether a world does what is complained of. */
function shows({ model, alteration }: FaultyCircuit, { function: id, condition, state }: Case['complaint']) {
  return model.outcome(model.function(id), seenPoint(model, condition, alteration)) === state;
}

/** At most so many cases of a loom, as many supplies among them as one in ten. */
export function casesOf(map: CircuitFile, random: () => number, most: number): Case[] {
  const healthy = (): Supply => ({ emfVolts: 12 + 0.9 * random(), innerOhms: between(random, 0.006, 0.03) });
  const sound = new CircuitModel(built(map, random, healthy()));
  const largest = (part: CircuitPart) =>
    Math.max(
      0,
      ...sound.conditions.flatMap((one) =>
        (sound.network.branchesOfPart.get(part.id) ?? [])
          .filter((index) => part.kind !== 'relay' || sound.network.branches[index]!.role === 'contact')
          .map((index) => Math.abs(sound.sound(one.id).amps[index]!)),
      ),
    );
  const all = map.parts.flatMap((part) => faultsOf(part, largest(part), random));
  const chosen = all.filter(() => random() < most / all.length);
  const cases = chosen.flatMap(([of, fault]): Case[] => {
    const world = new CircuitModel(built(map, random, healthy()));
    const broken = breakCircuit(world, [fault]);
    const complaint = complaintBetween(sound, broken);
    // What the same vehicle does without the fault is not what the fault does.
    if (!complaint || shows(breakCircuit(world, []), complaint)) return [];
    const moves = broken.model.solve(complaint.condition, broken.alteration).oscillating.length > 0;
    return [{ of: moves ? 'chatter' : of, fault, broken, complaint }];
  });
  for (let index = 0; index < Math.ceil(most / 10); index++) {
    const worn: Supply =
      random() < 0.5
        ? { emfVolts: 3 + 8.2 * random(), innerOhms: between(random, 0.01, 0.1) }
        : { emfVolts: 11.8 + random(), innerOhms: between(random, 0.15, 3) };
    const broken = breakCircuit(new CircuitModel(built(map, random, worn)), []);
    const complaint = complaintBetween(sound, broken);
    const fault: Fault = { part: 'battery', mode: 'weak' };
    if (complaint) cases.push({ of: 'supply', fault, broken, complaint });
  }
  return cases;
}

/** What the hand reads: an error of the meter, one in a hundred on nothing, one in a hundred on the pin beside. */
export function handRead(broken: FaultyCircuit, ref: TestRef, random: () => number): ReadingValue {
  const slip = random();
  const value = readingOf(broken, ref);
  if (ref.kind === 'volts' && slip < 0.02) {
    if (slip < 0.01) return { volts: Math.round(20 * random()) / 100 };
    const nodes = broken.model.circuit.nodes;
    const at = nodes.findIndex((one) => one.id === ref.node);
    return readingOf(broken, { ...ref, node: nodes[(at + nodes.length - 1) % nodes.length]!.id });
  }
  const error = 2 * random() - 1;
  if ('volts' in value) {
    return { volts: Math.round((value.volts * (1 + 0.008 * error) + 0.02 * error) * 100) / 100 };
  }
  if ('amps' in value) {
    return { amps: Math.round(Math.abs(value.amps * (1 + 0.03 * error) + 0.08 * error) * 10) / 10 };
  }
  return 'ohms' in value ? { ohms: value.ohms * (1 + 0.03 * error) } : value;
}

export interface OutsidePlay {
  readonly of: Class;
  /** The leading form names the part at fault; behind an opened fuse what opened it, not the fuse. */
  readonly name: boolean;
  /** The part at fault is in the leading group. */
  readonly group: boolean;
  readonly chance: number;
  readonly proved: boolean;
  /** The part at fault was called cleared at some step. */
  readonly cleared: boolean;
  readonly tests: number;
  readonly minutes: number;
}

export function playOutside(
  session: DiagnosisSession,
  { of, fault, broken, complaint }: Case,
  random: () => number,
): OutsidePlay {
  let cleared = false;
  const watched: DiagnosisSession = Object.create(session);
  watched.assess = (input) => {
    const assessment = session.assess(input);
    cleared ||= assessment.parts.some(
      (one) => one.part === fault.part && (one.standing === 'cleared' || one.standing === 'excluded'),
    );
    return assessment;
  };
  const { assessment, tests, minutes } = leadToEnd(watched, complaint, (ref) =>
    handRead(broken, ref, random),
  );
  const [lead] = assessment.suspects;
  return {
    of,
    name: lead?.forms[0]?.fault?.part === fault.part,
    group: endsRight(assessment, fault, broken.blown.length > 0) || includes(assessment, fault.part),
    chance: lead?.chance ?? 0,
    proved: assessment.verdict.strength === 'proved',
    cleared,
    tests,
    minutes,
  };
}

const includes = ({ suspects }: Assessment, part: string) => suspects[0]?.parts.includes(part) ?? false;
