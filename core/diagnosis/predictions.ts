/**
 * What every hypothesis predicts for every test: made once per circuit and complaint, read many times.
 * Volts are kept as mean and spread for judging a reading, and as chances of bins for choosing a test.
 */

import { guessTolerance, isUnknownLoad } from '../circuit/guesses';
import { faultAlteration, RESISTANCE_MODES } from '../faults/faults';
import type { TestRef } from '../format/readingsSchema';
import { withoutPart } from '../hands/attach';
import { GUESS_TOLERANCE } from '../limits/defaults';
import { METER_OHMS, normalBelow } from '../limits/instruments';
import { type Alteration, combineAlterations, UNALTERED } from '../network/alteration';
import type { CircuitModel } from '../network/model';
import type { OperatingPoint } from '../network/solve';
import type { Hypothesis } from './hypotheses';
import { NO_FAULT } from './hypotheses';
import { kindOf } from './kinds';
import { nodeIndex, type RefOf, type Supposed } from './kinds/kind';
import { RESISTANCE_TOLERANCE, voltsSpread } from './kinds/volts';

/** One reading in a hundred is wrong whatever was made sure of before. */
export const WRONG_READING = 0.01;
/** Standard deviation of the battery around its assumed value, as a fraction (12.2 to 12.8 V on 12 V). */
export const EMF_SPREAD = 0.015;
/** Spread of the ohms of a fault itself, on a logarithmic scale: its size is known to a factor of two. */
const FAULT_TOLERANCE = 0.7;
/** Spread of the volts at which a contact moves, coil and supply included, as a fraction. */
const PULL_SPREAD = 0.06;
/** A contact that is so unlikely to stand the other way is not followed. */
const SURE = 0.03;
/** Probe currents, ampere; the first that moves no contact is taken. Behind an input even a milliampere lifts volts. */
const PROBE_AMPS = [1e-3, 1e-6, 1e-8];

/** Edges between voltage bins for a 12 V system; other systems scale them. */
const BIN_EDGES_12V = [
  -0.3, 0.12, 0.35, 0.8, 1.6, 2.6, 4, 5.5, 7, 8.5, 9.7, 10.6, 11.2, 11.6, 11.9, 12.2, 12.5,
] as const;

/** How a hypothesis leaves the two points of a volts reading. */
export const JOINED = 0;
/** One of them hangs free, or only leakage decides its volts. */
export const FLOATS = 1;
/** What a meter shows on such a point: mostly nothing, or a little, or anything; shares and spreads in volts. */
export const FLOATING = {
  nothing: 0.6,
  nothingSpread: 0.03,
  little: 0.3,
  littleSpread: 0.5,
  anything: 0.1,
} as const;
/** The map cannot say. */
export const UNKNOWN = 2;

export interface VoltsColumn {
  readonly mean: Float64Array;
  readonly spread: Float64Array;
  readonly floating: Uint8Array;
  /** A contact near its threshold may stand the other way: with this chance, and then these volts. */
  readonly otherChance: Float64Array;
  readonly otherMean: Float64Array;
  readonly anySway: boolean;
}

export interface TestPrediction {
  readonly ref: TestRef;
  readonly outcomes: number;
  /** Chances, hypothesis by hypothesis, wrong readings included. */
  readonly chances: Float32Array;
  /** Chances without wrong readings, for judging a reading that was taken. */
  readonly clean: Float32Array;
  readonly volts: VoltsColumn | null;
  /** Clean chances of a test of states while a contact near its threshold stands the other way; null where none does. */
  readonly swayed: Float32Array | null;
  /** It asks what a part is like, not what the circuit does just now: a fault that is away shows all the same. */
  readonly ofLooseness: boolean;
  /** Whether any two hypotheses of the map predict clearly different results. */
  readonly tells: boolean;
}

/** How volts move with the unknown tolerances: volts per standard deviation, by branch; the last is the supply. */
export interface Sensitivity {
  readonly index: Int32Array;
  readonly volts: Float64Array;
}

/** The other way a contact near its threshold may stand: its chance, and the supply that brings it there. */
interface Sway {
  readonly chance: number;
  readonly alteration: Alteration;
  readonly scale: number;
}

export class Predictions {
  readonly binEdges: readonly number[];
  /** Index of the sound circuit among the hypotheses. */
  readonly sound: number;
  private readonly points: OperatingPoint[][] = [];
  private readonly sways: (Sway | null)[][] = [];
  private readonly hangs: Map<string, Uint8Array>[] = [];
  private readonly conditionIndex: ReadonlyMap<string, number>;
  private readonly made = new Map<string, TestPrediction>();
  private readonly felt = new Map<string, (Sensitivity | null)[]>();
  private readonly tolerance: Float64Array;
  private readonly marginTolerance: number;
  private readonly sources: readonly number[];

  constructor(
    readonly model: CircuitModel,
    readonly hypotheses: readonly Hypothesis[],
  ) {
    const scale = model.circuit.nominalVolts / 12;
    this.binEdges = BIN_EDGES_12V.map((edge) => edge * scale);
    this.conditionIndex = new Map(model.conditions.map((one, index) => [one.id, index]));
    this.sound = hypotheses.findIndex((one) => one.id === NO_FAULT);
    const { branches } = model.network;
    this.tolerance = Float64Array.from(branches, (one) =>
      one.role === 'source'
        ? 0.5
        : (guessTolerance(model.network.parts.get(one.part)!, one.role) ?? RESISTANCE_TOLERANCE),
    );
    // The mean tolerance of what divides the supply: loads above all.
    this.marginTolerance = model.circuit.parts.some(isUnknownLoad)
      ? GUESS_TOLERANCE / 2
      : RESISTANCE_TOLERANCE;
    this.sources = [...branches.keys()].filter((index) => branches[index]!.emfVolts !== 0);
  }

  private conditionOf(id: string): number {
    const index = this.conditionIndex.get(id);
    if (index === undefined) throw new Error(`The circuit has no condition ${id}.`);
    return index;
  }

  /** The hypothesis that predicts for this one: the lasting form of a fault that comes and goes. */
  private rowOf(h: number): number {
    return this.hypotheses[h]!.lasting ?? h;
  }

  private alterationOf(h: number): Alteration {
    return this.hypotheses[h]!.alteration ?? UNALTERED;
  }

  /** The operating point of a hypothesis in a condition; solved when first asked for. */
  point(hypothesis: number, conditionId: string): OperatingPoint {
    const h = this.rowOf(hypothesis);
    const condition = this.conditionOf(conditionId);
    this.points[h] ??= [];
    const row = this.points[h]!;
    const known = row[condition];
    if (known) return known;
    const point = this.model.solve(conditionId, this.alterationOf(h));
    row[condition] = point;
    return point;
  }

  /** Prediction of one test; `id` is its `testId`. */
  of(id: string, ref: TestRef): TestPrediction {
    const known = this.made.get(id);
    if (known) return known;
    const made = ref.kind === 'volts' ? this.makeVolts(ref) : this.makeStates(ref);
    this.made.set(id, made);
    return made;
  }

  private supposed(h: number, sway: Sway | null): Supposed {
    const { model } = this;
    const hypothesis = this.hypotheses[h]!;
    const own = this.alterationOf(h);
    if (!sway) {
      return {
        model,
        hypothesis,
        altered: own,
        point: (condition) => this.point(h, condition),
        solve: (condition, extra) => model.solve(condition, combineAlterations(own, extra)),
        solveWith: (condition, faults) => model.solve(condition, alterationOf(model, faults)),
      };
    }
    const scaled = (point: OperatingPoint) => scaledPoint(point, 1 / sway.scale);
    const altered = combineAlterations(own, sway.alteration);
    return {
      model,
      hypothesis,
      altered,
      point: (condition) => scaled(model.solve(condition, altered)),
      solve: (condition, extra) => scaled(model.solve(condition, combineAlterations(altered, extra))),
      solveWith: (condition, faults) =>
        scaled(model.solve(condition, combineAlterations(alterationOf(model, faults), sway.alteration))),
    };
  }

  private makeStates(ref: TestRef): TestPrediction {
    const kind = kindOf(ref);
    const outcomes = kind.results.length;
    const count = this.hypotheses.length;
    const clean = new Float32Array(count * outcomes);
    const mixed = new Float32Array(count * outcomes);
    let swayed: Float32Array | null = null;
    for (let h = 0; h < count; h++) {
      const { alteration, lasting } = this.hypotheses[h]!;
      const at = h * outcomes;
      if (alteration === null) {
        clean.set(kind.unmapped ?? new Array<number>(outcomes).fill(1 / outcomes), at);
      } else if (lasting !== null && !kind.ofLooseness) {
        clean.copyWithin(at, lasting * outcomes, (lasting + 1) * outcomes);
        mixed.copyWithin(at, lasting * outcomes, (lasting + 1) * outcomes);
        continue;
      } else clean.set(kind.chances(this.supposed(h, null), ref), at);
      const sway = alteration !== null && 'condition' in ref ? this.sway(h, ref.condition) : null;
      if (!sway) mixed.set(clean.subarray(at, at + outcomes), at);
      else {
        const other = kind.chances(this.supposed(h, sway), ref);
        swayed ??= new Float32Array(count * outcomes);
        swayed.set(other, at);
        for (let k = 0; k < outcomes; k++) {
          mixed[at + k] = (1 - sway.chance) * clean[at + k]! + sway.chance * other[k]!;
        }
      }
    }
    const chances = mixed.map((chance) => (1 - WRONG_READING) * chance + WRONG_READING / outcomes);
    const tells = this.statesTell(mixed, outcomes);
    return {
      ref,
      outcomes,
      chances,
      clean,
      volts: null,
      swayed,
      ofLooseness: kind.ofLooseness ?? false,
      tells,
    };
  }

  /** Chance that a contact near its threshold stands the other way in a condition; 0 where none is near. */
  swayChance(h: number, conditionId: string): number {
    return this.hypotheses[h]!.alteration === null ? 0 : (this.sway(h, conditionId)?.chance ?? 0);
  }

  private statesTell(clean: Float32Array, outcomes: number): boolean {
    for (let k = 0; k < outcomes; k++) {
      let low = 1;
      let high = 0;
      for (let h = 0; h < this.hypotheses.length; h++) {
        if (this.hypotheses[h]!.alteration === null) continue;
        low = Math.min(low, clean[h * outcomes + k]!);
        high = Math.max(high, clean[h * outcomes + k]!);
      }
      if (high - low > 0.05) return true;
    }
    return false;
  }

  /**
   * Where a coil stands so near its threshold that supply and coil ohms decide: the other way it may stand. Only
   * the closest coil is followed.
   */
  private sway(hypothesis: number, conditionId: string): Sway | null {
    const h = this.rowOf(hypothesis);
    const condition = this.conditionOf(conditionId);
    this.sways[h] ??= [];
    const row = this.sways[h]!;
    const known = row[condition];
    if (known !== undefined) return known;
    const found = this.findSway(h, conditionId);
    row[condition] = found;
    return found;
  }

  private findSway(h: number, conditionId: string): Sway | null {
    const { network } = this.model;
    const point = this.point(h, conditionId);
    let nearest: { distance: number; threshold: number; felt: number; sensor: number } | null = null;
    network.sensors.forEach((sensor, s) => {
      if (sensor.senses !== 'volts') return;
      const felt = Math.abs(point.volts[sensor.a]! - point.volts[sensor.b]!);
      const threshold = point.sensed[s] === 1 ? sensor.offBelow : sensor.onAbove;
      if (felt < 0.05 || threshold <= 0) return;
      // A coil at rest pulls in or does not; one that holds was pulled in first, and so had to reach that.
      const decides = sensor.onAbove > 0 ? sensor.onAbove : threshold;
      const distance = Math.abs(Math.log(felt / decides));
      if (distance < 2 * PULL_SPREAD && (!nearest || distance < nearest.distance)) {
        nearest = { distance, threshold: decides, felt, sensor: s };
      }
    });
    if (!nearest) return null;
    const { distance, threshold, felt, sensor } = nearest as {
      distance: number;
      threshold: number;
      felt: number;
      sensor: number;
    };
    const chance = normalBelow(-distance / PULL_SPREAD);
    if (chance < SURE) return null;
    const scale = (threshold / felt) * (felt >= threshold ? 0.98 : 1.02);
    const changes = this.sources.map((branch) => ({
      branch,
      emfVolts: network.branches[branch]!.emfVolts * scale,
    }));
    const alteration = { changes, bridges: [] };
    const other = this.model.solve(conditionId, combineAlterations(this.alterationOf(h), alteration));
    return other.sensed[sensor] === point.sensed[sensor] ? null : { chance, alteration, scale };
  }

  private makeVolts(ref: RefOf<'volts'>): TestPrediction {
    const count = this.hypotheses.length;
    const mean = new Float64Array(count);
    const spread = new Float64Array(count);
    const floating = new Uint8Array(count);
    const otherChance = new Float64Array(count);
    const otherMean = new Float64Array(count);
    const node = nodeIndex(this.model, ref.node);
    const against = nodeIndex(this.model, ref.against);
    const emf = this.model.emfVolts;
    /** What the meter shows where points hang, by the volts that leakage leaves there: most faults are elsewhere. */
    const metered = new Map<string, { volts: number; together: boolean }>();
    for (let h = 0; h < count; h++) {
      const { alteration, lasting } = this.hypotheses[h]!;
      if (alteration === null) {
        floating[h] = UNKNOWN;
        continue;
      }
      if (lasting !== null) {
        for (const column of [mean, spread, floating, otherChance, otherMean]) column[h] = column[lasting]!;
        continue;
      }
      const point = this.pointFor(h, ref);
      if (point.floating[node] !== point.floating[against]) {
        floating[h] = FLOATS;
        continue;
      }
      const hangs = this.hanging(h, ref, point);
      if (hangs[node] === 0 && hangs[against] === 0) mean[h] = point.volts[node]! - point.volts[against]!;
      else {
        // Where only leakage decides, the meter's own ohms do: what it shows is solved with it attached.
        const key = `${point.volts[node]!.toFixed(6)} ${point.volts[against]!.toFixed(6)} ${hangs[node]} ${hangs[against]}`;
        const shown = metered.get(key) ?? this.metered(h, ref, node, against);
        metered.set(key, shown);
        mean[h] = shown.volts;
        // Between two points that hang together there is no leakage to speak of.
        if (!shown.together) {
          floating[h] = FLOATS;
          continue;
        }
      }
      const volts = mean[h]!;
      spread[h] = voltsSpread(volts, emf, this.marginTolerance);
      const sway = this.sway(h, ref.condition);
      if (sway) {
        const altered = combineAlterations(this.altered(h, ref), sway.alteration);
        const other = this.model.solve(ref.condition, altered);
        otherChance[h] = sway.chance;
        otherMean[h] = (other.volts[node]! - other.volts[against]!) / sway.scale;
      }
    }
    const anySway = otherChance.some((chance) => chance > 0);
    const column: VoltsColumn = { mean, spread, floating, otherChance, otherMean, anySway };
    return new VoltsPrediction(ref, this.binEdges, column);
  }

  /** Faults of a hypothesis, and what the test itself changes. */
  private altered(h: number, ref: RefOf<'volts'>): Alteration {
    const own = this.alterationOf(h);
    return ref.pulled ? combineAlterations(own, withoutPart(this.model.network, ref.pulled)) : own;
  }

  private pointFor(h: number, ref: RefOf<'volts'>): OperatingPoint {
    return ref.pulled ? this.model.solve(ref.condition, this.altered(h, ref)) : this.point(h, ref.condition);
  }

  private hanging(h: number, ref: RefOf<'volts'>, point: OperatingPoint): Uint8Array {
    this.hangs[h] ??= new Map();
    const row = this.hangs[h]!;
    const key = `${ref.condition}|${ref.pulled ?? ''}`;
    const known = row.get(key);
    if (known) return known;
    const found = this.model.solver(ref.condition).hanging(this.altered(h, ref), point);
    row.set(key, found);
    return found;
  }

  private metered(h: number, ref: RefOf<'volts'>, a: number, b: number) {
    const meter = { changes: [], bridges: [{ a, b, ohms: METER_OHMS }] };
    const point = this.model.solve(ref.condition, combineAlterations(this.altered(h, ref), meter));
    const volts = point.volts[a]! - point.volts[b]!;
    // Joined by conductors, they stay equal under the tiny current of the meter.
    const together = Math.abs(volts) < 1e-6 && this.hanging(h, ref, this.pointFor(h, ref))[b] === 1;
    return { volts, together };
  }

  /**
   * How the volts of a test move with the tolerances of every resistance, of the fault's own size and of the
   * supply, under one hypothesis; null where the points float or hang. By reciprocity: a small current put
   * through the points flows through every resistance in proportion to what that resistance matters
   * (Director and Rohrer, "The generalized adjoint network", 1969).
   */
  sensitivity(id: string, ref: RefOf<'volts'>, hypothesis: number): Sensitivity | null {
    const h = this.rowOf(hypothesis);
    const row = this.felt.get(id) ?? [];
    this.felt.set(id, row);
    const known = row[h];
    if (known !== undefined) return known;
    const found = this.feel(h, ref, this.of(id, ref).volts!);
    row[h] = found;
    return found;
  }

  /** The state with a current put through two points that moves no contact; null where every current moves one. */
  private probe(h: number, ref: RefOf<'volts'>, a: number, b: number, still: OperatingPoint) {
    for (const amps of PROBE_AMPS) {
      const bridges = [{ a, b, ohms: METER_OHMS, emfVolts: amps * METER_OHMS }];
      const altered = combineAlterations(this.altered(h, ref), { changes: [], bridges });
      const point = this.model.solve(ref.condition, altered);
      if (point.sensed.every((state, sensor) => state === still.sensed[sensor])) return { amps, point };
    }
    return null;
  }

  private feel(h: number, ref: RefOf<'volts'>, { mean, floating }: VoltsColumn): Sensitivity | null {
    if (floating[h] !== JOINED) return null;
    const { network } = this.model;
    const a = nodeIndex(this.model, ref.node);
    const b = nodeIndex(this.model, ref.against);
    const point = this.pointFor(h, ref);
    const hangs = this.hanging(h, ref, point);
    if (hangs[a] !== 0 || hangs[b] !== 0) return null;
    const probed = this.probe(h, ref, a, b, point);
    if (!probed) return null;
    const index: number[] = [];
    const volts: number[] = [];
    const faulty = new Map<number, number>();
    for (const fault of this.hypotheses[h]!.faults) {
      if (!RESISTANCE_MODES.has(fault.mode) || fault.ohms === undefined) continue;
      for (const { branch } of faultAlteration(network, fault).changes) faulty.set(branch, fault.ohms);
    }
    network.branches.forEach((branch, k) => {
      const amps = point.amps[k]!;
      if (amps === 0) return;
      const through = (probed.point.amps[k]! - amps) / probed.amps;
      const ohms = faulty.get(k);
      const sigma = ohms === undefined ? this.tolerance[k]! * branch.ohms : FAULT_TOLERANCE * ohms;
      const moved = sigma * amps * through;
      if (Math.abs(moved) > 1e-3) {
        index.push(k);
        volts.push(moved);
      }
    });
    index.push(network.branches.length);
    volts.push(mean[h]! * EMF_SPREAD);
    return { index: Int32Array.from(index), volts: Float64Array.from(volts) };
  }

  /** The bin a voltage falls into. */
  bin(volts: number): number {
    let k = 0;
    while (k < this.binEdges.length && volts >= this.binEdges[k]!) k++;
    return k;
  }
}

/** Volts as chances of bins, filled when a test is first weighed against others. */
class VoltsPrediction implements TestPrediction {
  readonly outcomes: number;
  readonly tells: boolean;
  readonly swayed = null;
  readonly ofLooseness = false;
  private filled: { clean: Float32Array; chances: Float32Array } | null = null;

  constructor(
    readonly ref: TestRef,
    private readonly edges: readonly number[],
    readonly volts: VoltsColumn,
  ) {
    this.outcomes = edges.length + 1;
    this.tells = this.differs();
  }

  get clean(): Float32Array {
    this.filled ??= this.fill();
    return this.filled.clean;
  }

  get chances(): Float32Array {
    this.filled ??= this.fill();
    return this.filled.chances;
  }

  private differs(): boolean {
    const { mean, spread, floating, otherChance } = this.volts;
    let low = Number.POSITIVE_INFINITY;
    let high = Number.NEGATIVE_INFINITY;
    let finest = Number.POSITIVE_INFINITY;
    let joined = 0;
    let floats = 0;
    for (let h = 0; h < mean.length; h++) {
      if (floating[h] === UNKNOWN) continue;
      if (floating[h] === FLOATS) {
        floats += 1;
        continue;
      }
      joined += 1;
      if (otherChance[h]! > 0) return true;
      low = Math.min(low, mean[h]!);
      high = Math.max(high, mean[h]!);
      finest = Math.min(finest, spread[h]!);
    }
    return (floats > 0 && joined > 0) || high - low > finest;
  }

  private fill(): { clean: Float32Array; chances: Float32Array } {
    const { mean, spread, floating, otherChance, otherMean } = this.volts;
    const { outcomes, edges } = this;
    const clean = new Float32Array(mean.length * outcomes);
    const zeroBin = edges.filter((edge) => edge <= 0).length;
    for (let h = 0; h < mean.length; h++) {
      const at = h * outcomes;
      if (floating[h] === UNKNOWN) clean.fill(1 / outcomes, at, at + outcomes);
      else if (floating[h] === FLOATS) {
        clean.fill(FLOATING.anything / outcomes, at, at + outcomes);
        this.addBins(clean, at, mean[h]!, FLOATING.nothingSpread, FLOATING.nothing);
        this.addBins(clean, at, mean[h]!, FLOATING.littleSpread, FLOATING.little);
      } else {
        const wide = (volts: number) => Math.hypot(spread[h]!, volts * EMF_SPREAD);
        const other = otherChance[h]!;
        this.addBins(clean, at, mean[h]!, wide(mean[h]!), 1 - other);
        if (other > 0) this.addBins(clean, at, otherMean[h]!, wide(otherMean[h]!), other);
      }
    }
    const chances = clean.map((chance, index) => {
      const wrong = 0.4 / outcomes + (index % outcomes === zeroBin ? 0.6 : 0);
      return (1 - WRONG_READING) * chance + WRONG_READING * wrong;
    });
    return { clean, chances };
  }

  private addBins(into: Float32Array, at: number, mean: number, spread: number, share: number): void {
    let below = 0;
    for (let k = 0; k < this.edges.length; k++) {
      const z = (this.edges[k]! - mean) / spread;
      const next = z > 6 ? 1 : z < -6 ? 0 : normalBelow(z);
      into[at + k] = into[at + k]! + share * (next - below);
      below = next;
    }
    into[at + this.edges.length] = into[at + this.edges.length]! + share * (1 - below);
  }
}

function scaledPoint(point: OperatingPoint, factor: number): OperatingPoint {
  return {
    ...point,
    volts: point.volts.map((one) => one * factor),
    amps: point.amps.map((one) => one * factor),
  };
}

/** Combined alteration of several faults. */
export function alterationOf(model: CircuitModel, faults: Hypothesis['faults']): Alteration {
  return combineAlterations(...faults.map((fault) => faultAlteration(model.network, fault)));
}
