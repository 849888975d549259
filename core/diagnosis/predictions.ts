/**
 * What every hypothesis predicts for every test: made once per circuit and complaint, read many times.
 * Volts are kept as mean and spread for judging a reading, and as chances of bins for choosing a test.
 */
import type { CircuitModel } from '../circuit/model';
import { faultAlteration, OPEN_MODES } from '../faults/faults';
import type { Reading, TestRef } from '../format/readingsSchema';
import { bridgeRelay, lampInPlaceOf, testLampAt } from '../instruments/attach';
import {
  CLAMP_STATES,
  CLICK_STATES,
  CONTINUITY_STATES,
  clampChances,
  clampLimits,
  clickChances,
  FUNCTION_STATES,
  functionChances,
  LAMP_STATES,
  LOOK_STATES,
  lampChances,
  lookChances,
  METER_OHMS,
  normalBelow,
  voltmeterError,
} from '../instruments/instruments';
import { type Alteration, combineAlterations, UNALTERED } from '../network/alteration';
import type { OperatingPoint } from '../network/solve';
import type { Hypothesis } from './hypotheses';

/** One reading in a hundred is wrong; several in ten when the tester was not proved. */
export const WRONG_READING = 0.01;
export const WRONG_UNPROVED = 0.06;
/** Standard deviation of the battery around its assumed value, as a fraction (12.2 to 12.8 V on 12 V). */
export const EMF_SPREAD = 0.015;
/** Spread of a reading that leakage decides, as a fraction of the supply. */
const LEAKAGE_SPREAD = 0.1;
/** Relative tolerance of resistances. */
const RESISTANCE_TOLERANCE = 0.1;

/** Edges between voltage bins for a 12 V system; other systems scale them. */
const BIN_EDGES_12V = [
  -0.3, 0.12, 0.35, 0.8, 1.6, 2.6, 4, 5.5, 7, 8.5, 9.7, 10.6, 11.2, 11.6, 11.9, 12.2, 12.5,
] as const;

/** The answers that a test other than volts can have, in order. */
export const STATES_OF: Readonly<Record<Exclude<TestRef['kind'], 'volts'>, readonly string[]>> = {
  lamp: LAMP_STATES,
  'lamp-in-fuse': LAMP_STATES,
  function: FUNCTION_STATES,
  substitute: FUNCTION_STATES,
  bridge: FUNCTION_STATES,
  continuity: CONTINUITY_STATES,
  click: CLICK_STATES,
  look: LOOK_STATES,
  clamp: CLAMP_STATES,
};

export interface VoltsColumn {
  readonly mean: Float64Array;
  readonly spread: Float64Array;
  readonly floating: Uint8Array;
}

export interface TestPrediction {
  readonly ref: TestRef;
  readonly outcomes: number;
  /** Chances, hypothesis by hypothesis, wrong readings included. */
  readonly chances: Float32Array;
  /** Chances without wrong readings, for judging a reading that was taken. */
  readonly clean: Float32Array;
  readonly volts: VoltsColumn | null;
}

export class Predictions {
  readonly binEdges: readonly number[];
  private readonly points: OperatingPoint[][] = [];
  private readonly hangs: Map<string, Uint8Array>[] = [];
  private readonly conditionIndex: ReadonlyMap<string, number>;
  private readonly made = new Map<string, TestPrediction>();

  constructor(
    readonly model: CircuitModel,
    readonly hypotheses: readonly Hypothesis[],
  ) {
    const scale = model.circuit.nominalVolts / 12;
    this.binEdges = BIN_EDGES_12V.map((edge) => edge * scale);
    this.conditionIndex = new Map(model.conditions.map((one, index) => [one.id, index]));
  }

  /** The operating point of a hypothesis in a condition; solved when first asked for. */
  point(hypothesis: number, conditionId: string): OperatingPoint {
    const condition = this.conditionIndex.get(conditionId);
    if (condition === undefined) throw new Error(`The circuit has no condition ${conditionId}.`);
    this.points[hypothesis] ??= [];
    const row = this.points[hypothesis]!;
    const known = row[condition];
    if (known) return known;
    const alteration = this.hypotheses[hypothesis]?.alteration ?? UNALTERED;
    const point = this.model.solve(conditionId, alteration);
    row[condition] = point;
    return point;
  }

  /** Prediction of one test; `id` is its `testId`. */
  of(id: string, ref: TestRef): TestPrediction {
    const known = this.made.get(id);
    if (known) return known;
    const made = this.make(ref);
    this.made.set(id, made);
    return made;
  }

  private make(ref: TestRef): TestPrediction {
    if (ref.kind === 'volts') return this.makeVolts(ref);
    const outcomes = STATES_OF[ref.kind].length;
    const count = this.hypotheses.length;
    const clean = new Float32Array(count * outcomes);
    const chances = new Float32Array(count * outcomes);
    for (let h = 0; h < count; h++) {
      const predicted = this.hypotheses[h]!.alteration
        ? this.categorical(ref, h)
        : new Array<number>(outcomes).fill(1 / outcomes);
      for (let k = 0; k < outcomes; k++) {
        clean[h * outcomes + k] = predicted[k]!;
        chances[h * outcomes + k] = (1 - WRONG_READING) * predicted[k]! + WRONG_READING / outcomes;
      }
    }
    return { ref, outcomes, chances, clean, volts: null };
  }

  private categorical(ref: Exclude<TestRef, { kind: 'volts' }>, h: number): readonly number[] {
    const { model } = this;
    const hypothesis = this.hypotheses[h]!;
    const altered = hypothesis.alteration ?? UNALTERED;
    switch (ref.kind) {
      case 'lamp': {
        const node = this.node(ref.node);
        const point = this.point(h, ref.condition);
        // A dead floating point cannot light anything; no need to solve.
        if (point.floating[node]) return lampChances(0);
        const lit = model.solve(ref.condition, combineAlterations(altered, testLampAt(model.network, node)));
        return lampChances(Math.abs(lit.volts[node]!) / model.emfVolts);
      }
      case 'function': {
        const one = model.function(ref.function);
        return this.functionChances(one.load, this.point(h, ref.condition));
      }
      case 'substitute': {
        const one = model.function(ref.function);
        const shorted = hypothesis.unit.startsWith('short:');
        // A new fuse on a short opens again.
        const left = shorted
          ? hypothesis.faults
          : hypothesis.faults.filter((fault) => fault.part !== ref.part);
        if (left.length === hypothesis.faults.length) {
          return this.functionChances(one.load, this.point(h, ref.condition));
        }
        const mended = combineAlterations(...left.map((fault) => faultAlteration(model.network, fault)));
        return this.functionChances(one.load, model.solve(ref.condition, mended));
      }
      case 'continuity': {
        const open = hypothesis.faults.some((fault) => fault.part === ref.part && OPEN_MODES.has(fault.mode));
        return open ? [0.01, 0.99] : [0.99, 0.01];
      }
      case 'click': {
        const sensor = model.network.sensors.findIndex((one) => one.part === ref.part);
        return clickChances(this.point(h, ref.condition).sensed[sensor] === 1);
      }
      case 'look': {
        const broken = hypothesis.faults.some(
          (fault) => fault.part === ref.part && OPEN_MODES.has(fault.mode),
        );
        return lookChances(broken);
      }
      case 'clamp': {
        const amps = clampedAmps(model, ref.part, this.point(h, ref.condition));
        return clampChances(amps, clampedAmps(model, ref.part, model.sound(ref.condition)));
      }
      case 'bridge': {
        const one = model.function(ref.function);
        const bridged = combineAlterations(altered, bridgeRelay(model.network, ref.part));
        return this.functionChances(one.load, model.solve(ref.condition, bridged));
      }
      case 'lamp-in-fuse': {
        const { alteration, a, b } = lampInPlaceOf(model.network, ref.part, ref.unplugged);
        const point = model.solve(ref.condition, combineAlterations(altered, alteration));
        return lampChances(Math.abs(point.volts[a]! - point.volts[b]!) / model.emfVolts);
      }
    }
  }

  private functionChances(loadPart: string, point: OperatingPoint): [number, number, number] {
    const load = this.model.network.loads.get(loadPart)!;
    const fraction = Math.abs(point.amps[load.branch]!) / load.nominalAmps;
    return functionChances(fraction, load.weakBelow, load.deadBelow);
  }

  private node(id: string): number {
    const index = this.model.network.nodeIndex.get(id);
    if (index === undefined) throw new Error(`The circuit has no point ${id}.`);
    return index;
  }

  private makeVolts(ref: Extract<TestRef, { kind: 'volts' }>): TestPrediction {
    const count = this.hypotheses.length;
    const outcomes = this.binEdges.length + 1;
    const mean = new Float64Array(count);
    const spread = new Float64Array(count);
    const floating = new Uint8Array(count);
    const clean = new Float32Array(count * outcomes);
    const chances = new Float32Array(count * outcomes);
    const node = this.node(ref.node);
    const against = this.node(ref.against);
    const emf = this.model.emfVolts;
    const zeroBin = this.bin(0);
    for (let h = 0; h < count; h++) {
      if (this.hypotheses[h]!.alteration === null) {
        floating[h] = 2;
        for (let k = 0; k < outcomes; k++) clean[h * outcomes + k] = 1 / outcomes;
      } else {
        const point = this.point(h, ref.condition);
        if (point.floating[node] !== point.floating[against]) {
          floating[h] = 1;
          this.fillBins(clean, h * outcomes, 0, 0.15, 0.75);
          for (let k = 0; k < outcomes; k++) {
            clean[h * outcomes + k] = clean[h * outcomes + k]! + 0.25 / outcomes;
          }
        } else {
          // Where only leakage decides, the meter's own ohms do: what it shows is solved with it attached.
          const hangs = this.hanging(h, ref.condition, point);
          const decided = hangs[node] === 0 && hangs[against] === 0;
          const volts = decided
            ? point.volts[node]! - point.volts[against]!
            : this.metered(h, ref.condition, node, against);
          mean[h] = volts;
          spread[h] = Math.hypot(voltsSpread(volts, emf), decided ? 0 : LEAKAGE_SPREAD * emf);
          const withEmf = Math.hypot(spread[h]!, volts * EMF_SPREAD);
          this.fillBins(clean, h * outcomes, volts, withEmf, 1);
        }
      }
      for (let k = 0; k < outcomes; k++) {
        const wrong = 0.4 / outcomes + (k === zeroBin ? 0.6 : 0);
        chances[h * outcomes + k] = (1 - WRONG_READING) * clean[h * outcomes + k]! + WRONG_READING * wrong;
      }
    }
    return { ref, outcomes, chances, clean, volts: { mean, spread, floating } };
  }

  private hanging(h: number, condition: string, point: OperatingPoint): Uint8Array {
    const alteration = this.hypotheses[h]!.alteration ?? UNALTERED;
    this.hangs[h] ??= new Map();
    const row = this.hangs[h]!;
    const known = row.get(condition);
    if (known) return known;
    const found = this.model.solver(condition).hanging(alteration, point);
    row.set(condition, found);
    return found;
  }

  private metered(h: number, condition: string, a: number, b: number): number {
    const meter = { changes: [], bridges: [{ a, b, ohms: METER_OHMS }] };
    const altered = this.hypotheses[h]!.alteration ?? UNALTERED;
    const point = this.model.solve(condition, combineAlterations(altered, meter));
    return point.volts[a]! - point.volts[b]!;
  }

  private fillBins(into: Float32Array, at: number, mean: number, spread: number, share: number): void {
    let below = 0;
    for (let k = 0; k < this.binEdges.length; k++) {
      const next = normalBelow((this.binEdges[k]! - mean) / spread);
      into[at + k] = share * (next - below);
      below = next;
    }
    into[at + this.binEdges.length] = share * (1 - below);
  }

  /** The bin a voltage falls into. */
  bin(volts: number): number {
    let k = 0;
    while (k < this.binEdges.length && volts >= this.binEdges[k]!) k++;
    return k;
  }
}

/**
 * Spread of a predicted voltage: the meter, and the tolerance of the resistances that divide the supply. A
 * divider that leaves the fraction x moves by about x(1-x) times the tolerance of its two halves.
 */
export function voltsSpread(volts: number, emfVolts: number): number {
  const x = Math.min(1, Math.abs(volts) / emfVolts);
  return Math.hypot(voltmeterError(volts), RESISTANCE_TOLERANCE * Math.SQRT2 * emfVolts * x * (1 - x));
}

/** Ohms of the sound part between the pins of a continuity test. */
function soundOhms(model: CircuitModel, part: string): number {
  const branches = (model.network.branchesOfPart.get(part) ?? []).map(
    (index) => model.network.branches[index]!,
  );
  return branches.find((branch) => branch.role !== 'contact')?.ohms ?? 0;
}

/** Ampere through the wire of a part at a point. */
export function clampedAmps(model: CircuitModel, part: string, point: OperatingPoint): number {
  const [branch] = model.network.branchesOfPart.get(part) ?? [];
  return branch === undefined ? 0 : Math.abs(point.amps[branch]!);
}

/** Index of a recorded value among the outcomes of its test; null where it says nothing about them. */
export function outcomeIndex(model: CircuitModel, { test: ref, value }: Reading): number | null {
  if (ref.kind === 'continuity') {
    if ('overLimit' in value) return 1;
    if ('ohms' in value) return value.ohms <= Math.max(10, soundOhms(model, ref.part) * 5) ? 0 : 1;
    return null;
  }
  if ('lamp' in value) return LAMP_STATES.indexOf(value.lamp);
  if ('click' in value) return CLICK_STATES.indexOf(value.click);
  if ('look' in value) return LOOK_STATES.indexOf(value.look);
  if ('amps' in value && ref.kind === 'clamp') {
    const expected = clampedAmps(model, ref.part, model.sound(ref.condition));
    return clampLimits(expected).filter((limit) => Math.abs(value.amps) >= limit).length;
  }
  if ('state' in value) {
    if (value.state === 'on-when-off') return 0;
    const index = (FUNCTION_STATES as readonly string[]).indexOf(value.state);
    return index < 0 ? null : index;
  }
  return null;
}

/** Combined alteration of several faults; exported for tests that inject faults by hand. */
export function alterationOf(model: CircuitModel, faults: Hypothesis['faults']): Alteration {
  return combineAlterations(...faults.map((fault) => faultAlteration(model.network, fault)));
}
