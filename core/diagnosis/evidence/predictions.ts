/**
 * What every hypothesis predicts for every test: made once per circuit and complaint, read many times.
 * Volts are kept as mean and spread for judging a reading, and as chances of bins for choosing a test.
 */

import { isUnknownLoad } from '../../circuit';
import { faultAlteration } from '../../faults';
import type { TestRef } from '../../format';
import { withoutPart } from '../../hands';
import { GUESS_TOLERANCE, LIMIT_DEVIATIONS, METER_OHMS, RETURN_MAY_LOSE_VOLTS } from '../../limits';
import {
  type Alteration,
  type CircuitModel,
  combineAlterations,
  type OperatingPoint,
  type SeenPoint,
  seenPoint,
  seenVolts,
  UNALTERED,
} from '../../network';
import { NO_FAULT } from '../hypotheses/hypotheses';
import type { Hypothesis } from '../hypotheses/hypothesis';
import { kindOf } from '../kinds';
import { carries, nodeIndex, type RefOf, type Supposed } from '../kinds/kind';
import { RESISTANCE_TOLERANCE, voltsSpread } from '../kinds/volts';
import {
  type Column,
  copyRow,
  type KeptPredictions,
  KeptRows,
  type KeptTest,
  unlessZero,
} from './keptPredictions';
import { WRONG_READING } from './readings';
import { DUTY_SPREAD, type Sensitivity, sensitivityOf, supplySpread, swayOfDuty } from './sensitivity';
import { findSway, type Sway, scaledPoint } from './sway';
import type { TestPrediction, VoltsColumn } from './testPrediction';
import { tolerances } from './tolerances';
import { BIN_EDGES_12V, FLOATS, JOINED, UNKNOWN, VoltsPrediction } from './voltsPrediction';

/** What the joints of a way may lose and be sound, one standard deviation, where each by itself is not followed. */
const JOINTS_SPREAD_VOLTS = RETURN_MAY_LOSE_VOLTS / LIMIT_DEVIATIONS;

export class Predictions {
  readonly binEdges: readonly number[];
  /** Index of the sound circuit among the hypotheses. */
  readonly sound: number;
  private readonly points: SeenPoint[][] = [];
  private readonly sways: (Sway | null)[][] = [];
  private readonly hangs: Map<string, Uint8Array>[] = [];
  private readonly conditionIndex: ReadonlyMap<string, number>;
  private readonly made = new Map<string, TestPrediction>();
  /** Chances of tests of states with contacts near their thresholds standing either way, by test. */
  private readonly mixed = new Map<string, Float32Array>();
  private readonly plain: Supposition[] = [];
  private readonly hung = new Map<string, number[]>();
  private readonly felt = new Map<string, (Sensitivity | null)[]>();
  private readonly tolerance: Float64Array;
  private readonly marginTolerance: number;
  private readonly sources: readonly number[];

  /** What was worked out before, or elsewhere. */
  readonly before: KeptRows;
  /** Whether anything was worked out that was not kept from before. */
  private fresh = false;

  /** `kept`: what was worked out before of the same circuit by the same program, the likeliest to hold it first. */
  constructor(
    readonly model: CircuitModel,
    readonly hypotheses: readonly Hypothesis[],
    kept: readonly KeptPredictions[] = [],
  ) {
    this.before = new KeptRows(kept, hypotheses);
    const scale = model.circuit.nominalVolts / 12;
    this.binEdges = BIN_EDGES_12V.map((edge) => edge * scale);
    this.conditionIndex = new Map(model.conditions.map((one, index) => [one.id, index]));
    this.sound = hypotheses.findIndex((one) => one.id === NO_FAULT);
    const { branches } = model.network;
    this.tolerance = tolerances(model);
    // The mean tolerance of what divides the supply: loads above all.
    this.marginTolerance = model.circuit.parts.some(isUnknownLoad)
      ? GUESS_TOLERANCE / 2
      : RESISTANCE_TOLERANCE;
    this.sources = [...branches.keys()].filter((index) => branches[index]!.emfVolts !== 0);
  }

  /** Hypotheses that have numbers of their own and were not worked out before, by id. */
  missing(): string[] {
    return this.hypotheses
      .filter(
        ({ alteration, lasting }, h) => alteration !== null && lasting === null && !this.before.holds(h),
      )
      .map(({ id }) => id);
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
  point(hypothesis: number, conditionId: string): SeenPoint {
    const h = this.rowOf(hypothesis);
    const condition = this.conditionOf(conditionId);
    this.points[h] ??= [];
    const row = this.points[h]!;
    const known = row[condition];
    if (known) return known;
    const point = seenPoint(this.model, conditionId, this.alterationOf(h));
    row[condition] = point;
    return point;
  }

  /** Prediction of one test; `id` is its `testId`. */
  of(id: string, ref: TestRef): TestPrediction {
    const known = this.made.get(id);
    if (known) return known;
    const made = ref.kind === 'volts' ? this.makeVolts(id, ref) : this.makeStates(id, ref);
    this.made.set(id, made);
    return made;
  }

  /** Everything that was asked for so far, to be kept; null where all of it was kept before. */
  toKeep(): KeptPredictions | null {
    if (!this.fresh) return null;
    const tests = [...this.made].map(([id, { outcomes, clean, volts, swayed }]): [string, KeptTest] => {
      const columns: Partial<Record<Column, Float64Array | Float32Array | Uint8Array | undefined>> = volts
        ? {
            mean: unlessZero(volts.mean),
            spread: unlessZero(volts.spread),
            swing: unlessZero(volts.swing),
            floating: unlessZero(volts.floating),
            otherChance: unlessZero(volts.otherChance),
            otherMean: unlessZero(volts.otherMean),
          }
        : { clean, mixed: this.mixed.get(id), swayed: swayed ?? undefined };
      const said = Object.fromEntries(Object.entries(columns).filter(([, numbers]) => numbers));
      return [id, { id, outcomes: volts ? 1 : outcomes, columns: said }];
    });
    return { rows: this.hypotheses.map(({ id }) => id), tests: new Map(tests) };
  }

  private supposed(h: number, sway: Sway | null): Supposed {
    if (sway) return new Supposition(this, h, this.alterationOf(h), sway);
    this.plain[h] ??= new Supposition(this, h, this.alterationOf(h), null);
    return this.plain[h];
  }

  private makeStates(id: string, ref: TestRef): TestPrediction {
    const kind = kindOf(ref);
    const outcomes = kind.results.length;
    const count = this.hypotheses.length;
    const whole = this.before.whole(id);
    const clean = (whole?.columns.clean as Float32Array | undefined) ?? new Float32Array(count * outcomes);
    const mixed = (whole?.columns.mixed as Float32Array | undefined) ?? new Float32Array(count * outcomes);
    let swayed = (whole?.columns.swayed as Float32Array | undefined) ?? null;
    for (let h = whole ? count : 0; h < count; h++) {
      const { alteration, lasting } = this.hypotheses[h]!;
      const at = h * outcomes;
      const kept = this.before.find(id, h);
      if (kept && kept.test.outcomes === outcomes) {
        if (kept.test.columns.swayed) swayed ??= new Float32Array(count * outcomes);
        copyRow(kept, { clean, mixed, ...(swayed ? { swayed } : {}) }, h);
        continue;
      }
      this.fresh = true;
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
    this.mixed.set(id, mixed);
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
    const point = this.point(h, conditionId);
    const found = point.swing
      ? null
      : findSway(this.model, conditionId, this.alterationOf(h), point, this.sources);
    row[condition] = found;
    return found;
  }

  private makeVolts(id: string, ref: RefOf<'volts'>): TestPrediction {
    const count = this.hypotheses.length;
    const whole = this.before.whole(id);
    const volts = (name: 'mean' | 'spread' | 'swing' | 'otherChance' | 'otherMean') =>
      (whole?.columns[name] as Float64Array | undefined) ?? new Float64Array(count);
    const mean = volts('mean');
    const spread = volts('spread');
    const swing = volts('swing');
    const supply = Float64Array.from(this.hypotheses, supplySpread);
    const floating = (whole?.columns.floating as Uint8Array | undefined) ?? new Uint8Array(count);
    const otherChance = volts('otherChance');
    const otherMean = volts('otherMean');
    const node = nodeIndex(this.model, ref.node);
    const against = nodeIndex(this.model, ref.against);
    const emf = this.model.emfVolts;
    /** What the meter shows where points hang, by the volts that leakage leaves there: most faults are elsewhere. */
    const metered = new Map<string, { volts: number; together: boolean }>();
    const hangKey = `${ref.condition}|${ref.pulled ?? ''}`;
    for (let h = whole ? count : 0; h < count; h++) {
      const { alteration, lasting } = this.hypotheses[h]!;
      const kept = this.before.find(id, h);
      if (kept) {
        copyRow(kept, { mean, spread, swing, floating, otherChance, otherMean }, h);
        continue;
      }
      this.fresh = true;
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
      const hangs = this.hangs[h]?.get(hangKey) ?? this.hanging(h, ref, point);
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
      const shows = mean[h]!;
      swing[h] = swingOf(point, node, against);
      const joints = carries(this.model, point.amps, ref.node) ? JOINTS_SPREAD_VOLTS : 0;
      spread[h] = Math.hypot(voltsSpread(shows, emf, this.marginTolerance), DUTY_SPREAD * swing[h]!, joints);
      // Where it chatters there is no other way to stand.
      if (point.swing) continue;
      const sway = this.sway(h, ref.condition);
      if (sway) {
        const altered = combineAlterations(this.altered(h, ref), sway.alteration);
        otherChance[h] = sway.chance;
        otherMean[h] = this.model.look(ref.condition, altered).across(node, against) / sway.scale;
      }
    }
    const anySway = otherChance.some((chance) => chance > 0);
    const column: VoltsColumn = { mean, spread, swing, supply, floating, otherChance, otherMean, anySway };
    return new VoltsPrediction(ref, this.binEdges, column);
  }

  /** Faults of a hypothesis, and what the test itself changes. */
  private altered(h: number, ref: RefOf<'volts'>): Alteration {
    const own = this.alterationOf(h);
    return ref.pulled ? combineAlterations(own, withoutPart(this.model.network, ref.pulled)) : own;
  }

  private pointFor(h: number, ref: RefOf<'volts'>): SeenPoint {
    return ref.pulled
      ? seenPoint(this.model, ref.condition, this.altered(h, ref))
      : this.point(h, ref.condition);
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
    const volts = this.model
      .look(ref.condition, combineAlterations(this.altered(h, ref), meter))
      .across(a, b);
    // Joined by conductors, they stay equal under the tiny current of the meter.
    const together = Math.abs(volts) < 1e-6 && this.hanging(h, ref, this.pointFor(h, ref))[b] === 1;
    return { volts, together };
  }

  /**
   * What a meter shows on points that hang free, volts: leakage of diodes brings it what stands beyond them, which a
   * choice need not know and a reading does.
   */
  shownHanging(id: string, ref: RefOf<'volts'>, hypothesis: number): number {
    const h = this.rowOf(hypothesis);
    const { mean } = this.of(id, ref).volts!;
    if (this.model.network.junctions.length === 0) return mean[h]!;
    const row = this.hung.get(id) ?? [];
    this.hung.set(id, row);
    row[h] ??= this.metered(
      h,
      ref,
      nodeIndex(this.model, ref.node),
      nodeIndex(this.model, ref.against),
    ).volts;
    return row[h];
  }

  /** How the volts of a test move under one hypothesis; null where the points float or hang. */
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

  private feel(h: number, ref: RefOf<'volts'>, { mean, swing, floating }: VoltsColumn): Sensitivity | null {
    if (floating[h] !== JOINED) return null;
    const point = this.pointFor(h, ref);
    if (point.swing) return swayOfDuty(this.model, this.hypotheses[h]!, mean[h]!, swing[h]!);
    const state = {
      hypothesis: this.hypotheses[h]!,
      altered: this.altered(h, ref),
      point,
      hangs: this.hanging(h, ref, point),
    };
    return sensitivityOf(this.model, ref, state, mean[h]!, this.tolerance);
  }

  /** The bin a voltage falls into. */
  bin(volts: number): number {
    let k = 0;
    while (k < this.binEdges.length && volts >= this.binEdges[k]!) k++;
    return k;
  }
}

/** A hypothesis that tests ask; with a sway, as it is while a contact near its threshold stands the other way. */
class Supposition implements Supposed {
  readonly model: CircuitModel;
  readonly hypothesis: Hypothesis;
  readonly altered: Alteration;

  constructor(
    private readonly predictions: Predictions,
    private readonly h: number,
    own: Alteration,
    private readonly sway: Sway | null,
  ) {
    this.model = predictions.model;
    this.hypothesis = predictions.hypotheses[h]!;
    this.altered = sway ? combineAlterations(own, sway.alteration) : own;
  }

  // Kinds take them out by name.
  readonly point = (condition: string): OperatingPoint =>
    this.sway ? this.seen(condition, this.altered) : this.predictions.point(this.h, condition);

  readonly solve = (condition: string, extra: Alteration): OperatingPoint =>
    this.seen(condition, combineAlterations(this.altered, extra));

  readonly volts = (condition: string, extra: Alteration, a: number, b: number): number =>
    seenVolts(this.model, condition, combineAlterations(this.altered, extra), a, b) / (this.sway?.scale ?? 1);

  readonly solveWith = (condition: string, faults: Hypothesis['faults']): OperatingPoint => {
    const other = alterationOf(this.model, faults);
    return this.seen(condition, this.sway ? combineAlterations(other, this.sway.alteration) : other);
  };

  private seen(condition: string, altered: Alteration): OperatingPoint {
    const { model, sway } = this;
    return sway
      ? scaledPoint(model.solve(condition, altered), 1 / sway.scale)
      : seenPoint(model, condition, altered);
  }
}

/** Volts that two points of a circuit that chatters go to and fro between; 0 where it rests. */
function swingOf({ swing }: SeenPoint, node: number, against: number): number {
  return swing ? swing[node]! - swing[against]! : 0;
}

/** Combined alteration of several faults. */
function alterationOf(model: CircuitModel, faults: Hypothesis['faults']): Alteration {
  return combineAlterations(...faults.map((fault) => faultAlteration(model.network, fault)));
}
