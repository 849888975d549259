/**
 * What a hand instrument would show in any condition with any faults and interventions: the operating point with
 * the instrument attached, so that its own ohms count.
 */
import { type Fault, faultAlteration } from '../faults';
import type { CircuitFile } from '../format';
import {
  clampError,
  fuseDropAmps,
  LAMP_DIM,
  LAMP_LIT,
  LED_DIM,
  LED_LIT,
  ledTesterOhms,
  METER_OHMS,
  OHMMETER_LEADS,
  OHMMETER_LIMIT,
  testLampOhms,
  voltmeterError,
} from '../limits';
import { type Alteration, CircuitModel, combineAlterations, UNALTERED } from '../network';

/** The circuit that is measured: condition, and everything that is different from the drawing. */
export interface Measured {
  readonly model: CircuitModel;
  readonly condition: string;
  readonly alteration: Alteration;
}

export interface VoltsShown {
  readonly volts: number;
  /** Nothing but leakage decides the value: a real meter wanders between millivolts and volts here. */
  readonly floating: boolean;
  /** One standard deviation of the meter. */
  readonly errorVolts: number;
}

export type LampShown = 'lit' | 'dim' | 'off';

function nodeOf(model: CircuitModel, id: string): number {
  const node = model.network.nodeIndex.get(id);
  if (node === undefined) throw new Error(`There is no point ${id} in this circuit.`);
  return node;
}

/** Volts across an instrument of so many ohms between two nodes; the mean over pulses where there are any. */
function voltsAcross({ model, condition, alteration }: Measured, a: number, b: number, ohms: number) {
  const attached = combineAlterations(alteration, { changes: [], bridges: [{ a, b, ohms }] });
  const point = model.solve(condition, attached);
  const on = point.volts[a]! - point.volts[b]!;
  const between = model.solveBetweenPulses(condition, attached);
  if (!between || model.duty === null) return { volts: on, effective: on };
  const off = between.volts[a]! - between.volts[b]!;
  const mean = model.duty * on + (1 - model.duty) * off;
  // A filament follows the heat: the root of the mean square.
  return { volts: mean, effective: Math.sqrt(model.duty * on * on + (1 - model.duty) * off * off) };
}

/** A 10 megohm meter on DC volts, red on `at`, black on `against`. */
export function voltmeterShows(measured: Measured, at: string, against: string): VoltsShown {
  const { model, condition, alteration } = measured;
  const a = nodeOf(model, at);
  const b = nodeOf(model, against);
  const { volts } = voltsAcross(measured, a, b, METER_OHMS);
  const point = model.solve(condition, alteration);
  const hanging = model.solver(condition).hanging(alteration, point);
  const free = (node: number) => point.floating[node] === 1 || hanging[node] === 1;
  return { volts, floating: free(a) || free(b), errorVolts: voltmeterError(volts) };
}

/** A 4 W filament test lamp between two points. */
export function testLampShows(measured: Measured, at: string, against: string): LampShown {
  const { model } = measured;
  const ohms = testLampOhms(model.circuit.nominalVolts);
  const { effective } = voltsAcross(measured, nodeOf(model, at), nodeOf(model, against), ohms);
  return brightness(Math.abs(effective) / model.emfVolts, LAMP_LIT, LAMP_DIM);
}

/** A tester of light-emitting diodes: hardly loads, so that a bad joint looks good to it. */
export function ledTesterShows(measured: Measured, at: string, against: string): LampShown {
  const { model } = measured;
  const ohms = ledTesterOhms(model.circuit.nominalVolts);
  const { volts } = voltsAcross(measured, nodeOf(model, at), nodeOf(model, against), ohms);
  return brightness(Math.abs(volts) / model.emfVolts, LED_LIT, LED_DIM);
}

function brightness(share: number, lit: number, dim: number): LampShown {
  return share >= lit ? 'lit' : share >= dim ? 'dim' : 'off';
}

export type OhmsShown =
  | { readonly ohms: number }
  | { readonly overLimit: true }
  /** The circuit is not dead: the meter would be misled, or harmed. */
  | { readonly liveVolts: number };

/** Volts between the points from which ohms are not to be measured. */
const LIVE_VOLTS = 0.02;
/** What the meter puts on the points: too little to open a junction. */
const PROBE_VOLTS = 0.2;
const PROBE_OHMS = 1000;

/**
 * A meter on ohms between two points of the circuit as it stands, every parallel path included. Filaments read
 * cold and motors at rest; leads add 0.3 ohm.
 */
export function ohmmeterShows(measured: Measured, from: string, to: string): OhmsShown {
  const { model, condition, alteration } = measured;
  const { network } = model;
  const a = nodeOf(model, from);
  const b = nodeOf(model, to);
  const solver = model.solver(condition);
  const { sensed } = solver.look(alteration, model.start(condition, alteration));
  const live = solver.floats(a) || solver.floats(b) ? 0 : solver.across(a, b);
  if (Math.abs(live) > LIVE_VOLTS) return { liveVolts: live };
  const held = solver.contactsWith(sensed).filter(({ branch }) => network.branches[branch]!.role !== 'load');
  const silent = alteration.changes.map(({ emfVolts: _, ...change }) => change);
  const probe = { a, b, ohms: PROBE_OHMS, emfVolts: PROBE_VOLTS };
  const asleep: Alteration = {
    ...alteration,
    changes: [...held, ...silent],
    bridges: [...alteration.bridges.map((bridge) => ({ ...bridge, emfVolts: 0 })), probe],
  };
  const asleepSolver = model.asleepSolver(condition);
  asleepSolver.look(asleep);
  const amps = Math.abs(asleepSolver.across(a, b) - PROBE_VOLTS) / PROBE_OHMS;
  const ohms = PROBE_VOLTS / amps - PROBE_OHMS + OHMMETER_LEADS;
  return amps > 0 && ohms < OHMMETER_LIMIT ? { ohms: Math.max(OHMMETER_LEADS, ohms) } : { overLimit: true };
}

/** A meter on ohms between two pins of a part in the hand, with its faults. */
export function ohmmeterShowsOfPart(
  model: CircuitModel,
  partId: string,
  fromPin: string,
  toPin: string,
  faults: readonly Fault[],
): OhmsShown {
  const part = model.network.parts.get(partId);
  if (!part) throw new Error(`There is no part ${partId} in this circuit.`);
  const pins: Readonly<Record<string, string>> = part.pins;
  const from = pins[fromPin];
  const to = pins[toPin];
  if (from === undefined || to === undefined) {
    throw new Error(`${part.name} has no pin ${from === undefined ? fromPin : toPin}.`);
  }
  const ids = [...new Set(Object.values(pins))];
  const alone: CircuitFile = {
    ...model.circuit,
    reference: ids[0]!,
    parts: [part],
    nodes: ids.map((id) => ({ id, name: id })),
    functions: [],
    conditions: [{ id: 'hand', name: 'In the hand', key: 'off' }],
  };
  const bench = new CircuitModel(alone);
  const own = faults.filter((fault) => fault.part === partId && fault.mode !== 'short-to-feed');
  const alteration = combineAlterations(...own.map((fault) => faultAlteration(bench.network, fault)));
  return ohmmeterShows({ model: bench, condition: 'hand', alteration }, from, to);
}

/** A clamp around a part: ampere through its branch (its first where none is named), with its error. */
export function clampShows(
  { model, condition, alteration }: Measured,
  part: string,
  label?: string,
): { readonly amps: number; readonly errorAmps: number } {
  const branch = branchOf(model, part, label);
  const on = Math.abs(model.solve(condition, alteration).amps[branch]!);
  const between = model.solveBetweenPulses(condition, alteration);
  const amps =
    between && model.duty !== null
      ? model.duty * on + (1 - model.duty) * Math.abs(between.amps[branch]!)
      : on;
  return { amps, errorAmps: clampError(amps) };
}

function branchOf(model: CircuitModel, part: string, label?: string): number {
  const found = (model.network.branchesOfPart.get(part) ?? []).find(
    (index) => label === undefined || model.network.branches[index]!.label === label,
  );
  if (found === undefined) throw new Error(`There is no branch ${label ?? ''} of ${part} in this circuit.`);
  return found;
}

/** Volts across a fuse's own ends, and what current that means; null volts where the fuse is out. */
export function fuseDropShows(
  { model, condition, alteration }: Measured,
  fuse: string,
): { readonly volts: number; readonly amps: ReturnType<typeof fuseDropAmps> } {
  const part = model.network.parts.get(fuse);
  if (part?.kind !== 'fuse') throw new Error(`${fuse} is not a fuse of this circuit.`);
  const { a, b } = model.network.branches[branchOf(model, fuse)]!;
  const { volts } = voltsAcross({ model, condition, alteration }, a, b, METER_OHMS);
  const rating = alteration.ratings?.find((one) => model.network.branches[one.branch]?.part === fuse)?.amps;
  const amps = rating ?? part.ratingAmps;
  // Without its rating nobody knows its resistance.
  return {
    volts,
    amps: fuseDropAmps(Math.abs(volts), amps ?? 0, amps === undefined ? 'unknown' : part.family),
  };
}

/** The sound circuit in a condition, for asking what an instrument should show. */
export function sound(model: CircuitModel, condition: string): Measured {
  return { model, condition, alteration: UNALTERED };
}
