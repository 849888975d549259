/**
 * The steady state of a circuit in one condition, sound or altered.
 *
 * Nodal analysis (Ho, Ruehli and Brennan, "The modified nodal approach to network analysis", 1975); every
 * source has resistance, so nodal form suffices. The condition is factored once for each state of its sensors
 * that the sound circuit passes through (`factorization.ts`, `wholeMatrix.ts`). Faults, interventions and contacts
 * (`elements.ts`) are a few changed elements of one of these (`ports.ts`, `differences.ts`); junctions that leave
 * the point they were linearised at follow in their own ports alone (`bend.ts`); sensors step until they rest
 * (`sensors.ts`); Kirchhoff's law judges what came out (`completion.ts`, `kirchhoff.ts`).
 *
 * Nodes that nothing joins to the datum form islands (`shape.ts`). Each island is tied to the datum by one
 * conductance at one node; no current can flow through a tie, so the island's own voltages are exact.
 */
import type { Moment, Network } from '../circuit';
import { type Alteration, type BranchChange, UNALTERED } from './alteration';
import { Bases } from './bases';
import { BentJunctions, TOO_MANY } from './bend';
import { Completion } from './completion';
import { Differences } from './differences';
import { Elements } from './elements';
import type { Factorization } from './factorization';
import { join, rootOf } from './islands';
import { KirchhoffCheck } from './kirchhoff';
import type { Looked, OperatingPoint, ReusablePoint } from './point';
import { Ports } from './ports';
import { copyStates, equalStates, Sensors } from './sensors';
import { ShapeFinder } from './shape';
import { takeWatched, Watched } from './watched';
import { Way } from './way';
import { WholeMatrix } from './wholeMatrix';

/** Where the sensors came to rest, or go on moving; not settled where junctions found no volts. */
interface Run {
  readonly states: Uint8Array;
  readonly oscillating: readonly string[];
  readonly settled: boolean;
}

/** Below this pivot so many digits are lost that the matrix is made anew. */
const ANEW_BELOW = 1e-8;
const BENT_ANEW_BELOW = 1e-5;
/** Leakage of a power diode: currents up to this decide nothing that a meter would not change. */
const IDLE_AMPS = 1e-8;
/** With more junctions than these a rough look at the states on the way pays. By measurement. */
const FEW_JUNCTIONS = 0;
const NOT_STEADY: readonly string[] = [];

/** Solves one condition of a network as often as wanted; nothing of the condition is computed twice. */
export class ConditionSolver {
  private readonly elements: Elements;
  private readonly sensors: Sensors;
  private readonly ports = new Ports();
  private readonly bent: BentJunctions;
  private readonly shapes: ShapeFinder;
  private readonly differences: Differences;
  private readonly whole: WholeMatrix;
  private readonly completion: Completion;
  private readonly watched: Watched;
  private readonly bases: Bases;
  /** Whether a rough look at the states on the way pays: it does where many junctions have to be followed. */
  private readonly mayBeRough: boolean;

  private readonly acrossNow = (from: number, to: number) => this.across(from, to);

  // What one solve works on; reused by the next.
  /** The base that the present state is given by, null while `volts` hold it. */
  private base: Factorization | null = null;
  private readonly volts: Float64Array;
  private smallestPivot = 1;
  private anyReversed = false;

  constructor(
    readonly network: Network,
    readonly condition: Moment,
  ) {
    const { junctions, nodeCount, datum } = network;
    this.elements = new Elements(network, condition);
    const { branchCount } = this.elements;
    this.sensors = new Sensors(network, condition, this.elements);
    this.watched = new Watched(network);
    this.bent = new BentJunctions(
      branchCount,
      Float64Array.from(junctions, (junction) => junction.saturationAmps),
      Float64Array.from(junctions, (junction) => junction.thermalVolts),
      this.watched.sensorCount,
    );
    this.shapes = new ShapeFinder(this.elements, nodeCount, datum);
    this.differences = new Differences(this.elements, this.ports, this.bent, this.shapes, datum);
    this.whole = new WholeMatrix(network, this.elements, this.bent, this.shapes);
    this.bases = new Bases(network, this.elements, this.whole, this.shapes, this.watched);
    this.mayBeRough = junctions.length > FEW_JUNCTIONS;
    this.volts = new Float64Array(nodeCount);
    const kirchhoff = new KirchhoffCheck(network, this.elements, this.bent);
    this.completion = new Completion(this.ports, this.bent, kirchhoff, network.circuit.nominalVolts);
    // Factors every state that the sound circuit passes through on its way to rest.
    const { sensed } = this.solve(UNALTERED);
    this.elements.closeContacts(sensed);
    this.bases.markRest();
  }

  /** Numbers kept for this condition: what its memory grows with. */
  get storedNumbers(): number {
    return this.bases.storedNumbers;
  }

  /** An empty point of the right size, to be filled by `solveInto`. */
  emptyPoint(): ReusablePoint {
    return {
      volts: new Float64Array(this.network.nodeCount),
      floating: new Uint8Array(this.network.nodeCount),
      amps: new Float64Array(this.elements.branchCount),
      sensed: new Uint8Array(this.sensors.count),
      oscillating: NOT_STEADY,
    };
  }

  /**
   * The operating point with some branches altered. Sensors start at rest unless `start` gives the state of a
   * condition before. Never loops: a state met twice is reported as oscillating.
   */
  solve(alteration: Alteration, start?: Uint8Array): OperatingPoint {
    return this.solveInto(this.emptyPoint(), alteration, start);
  }

  /** The same, written into a point that exists already. */
  solveInto(point: ReusablePoint, alteration: Alteration, start?: Uint8Array): OperatingPoint {
    let found = this.run(alteration, start, false);
    // Where Kirchhoff's law does not hold closely enough the whole is done the slow way.
    if (found.settled && !this.complete(alteration)) found = this.runAnew(alteration, start);
    return this.finish(point, found.states, alteration, found.oscillating);
  }

  /** The same with the matrix factored anew for every state: the slow way that the quick one is judged by. */
  solveAnew(alteration: Alteration, start?: Uint8Array): OperatingPoint {
    const { states, oscillating } = this.runAnew(alteration, start);
    return this.finish(this.emptyPoint(), states, alteration, oscillating);
  }

  /**
   * The same for whoever wants to know little of it: volts, currents and what floats are then asked one by one, until
   * the next is solved.
   */
  look(alteration: Alteration, start?: Uint8Array): Looked {
    let found = this.run(alteration, start, false);
    if (found.settled && !this.completion.isSure(this.base, this.smallestPivot)) {
      if (this.complete(alteration)) this.base = null;
      else found = this.runAnew(alteration, start);
    }
    return { sensed: found.states, oscillating: found.oscillating };
  }

  /** Whether a node has no path to the reference, in the state that was looked at. */
  floats(node: number): boolean {
    const { roots } = this.shapes;
    return roots[node] !== roots[this.network.datum];
  }

  /**
   * Nodes that only junctions join to the reference which carry next to nothing, 1 for each: what stands there
   * is decided by leakage, and a meter's own ohms move it. For a point that was solved with this alteration.
   */
  hanging(alteration: Alteration, point: OperatingPoint): Uint8Array {
    const { network, elements } = this;
    const { a, b, branchCount, junctionCount } = elements;
    const hangs = new Uint8Array(network.nodeCount);
    if (junctionCount === 0) return hangs;
    this.takeAlteration(alteration);
    elements.closeContacts(point.sensed);
    this.shapes.begin();
    const { roots } = this.shapes;
    for (let e = 0; e < branchCount; e++) if (elements.siemens(e) > 0) join(roots, a[e]!, b[e]!);
    for (const bridge of alteration.bridges) {
      if (elements.bridgeSiemens(bridge) > 0) join(roots, bridge.a, bridge.b);
    }
    for (let j = 0; j < junctionCount; j++) {
      const from = a[branchCount + j]!;
      const to = b[branchCount + j]!;
      const amps = this.bent.amps(j, point.volts[from]! - point.volts[to]!);
      if (Math.abs(amps) > IDLE_AMPS) join(roots, from, to);
    }
    const main = rootOf(roots, network.datum);
    for (let node = 0; node < hangs.length; node++) {
      if (point.floating[node] === 0 && rootOf(roots, node) !== main) hangs[node] = 1;
    }
    return hangs;
  }

  /** Every contact that sensors move, held as it stands while these are on. */
  contactsWith(sensed: Uint8Array): BranchChange[] {
    const { elements } = this;
    elements.closeContacts(sensed);
    return Array.from(elements.moved, (branch, i) => ({
      branch,
      held: elements.closed[i] === 1 ? 'closed' : 'open',
    }));
  }

  /** Volts between two nodes in the present state. */
  across(from: number, to: number): number {
    const { base } = this;
    if (!base) return this.volts[from]! - this.volts[to]!;
    return this.ports.across(base.volts, from, to) - this.bent.taking(from, to);
  }

  /** Ampere through a branch in the present state. */
  branchAmps(e: number): number {
    const { elements } = this;
    const siemens = elements.siemens(e);
    if (siemens === 0) return 0;
    return siemens * (this.across(elements.a[e]!, elements.b[e]!) - elements.emfVolts(e));
  }

  private runAnew(alteration: Alteration, start: Uint8Array | undefined): Run {
    const found = this.run(alteration, start, true);
    if (found.settled) this.complete(alteration);
    return found;
  }

  private run(alteration: Alteration, start: Uint8Array | undefined, anew: boolean): Run {
    const { sensors } = this;
    this.takeAlteration(alteration);
    this.bent.forget();
    sensors.begin(start);
    let way = null as Way<Factorization> | null;
    for (let step = 0; ; step++) {
      const states = sensors.at(step);
      this.elements.closeContacts(states);
      const next = sensors.at(step + 1);
      copyStates(states, next);
      const base: Factorization | null = anew ? null : (way?.to ?? this.bases.choose(alteration));
      if (way) way.to = base;
      // Where the sound circuit came to rest the altered one mostly does too: no rough look first.
      const rough = base !== null && this.mayBeRough && !base.isRest;
      if (base) this.takeDifferences(base, alteration);
      way = base?.way ?? null;
      if (base && way && this.keepsWay(base, way, states, alteration)) {
        copyStates(way.next, next);
        if (sensors.metAt(next, step) < 0 && step < sensors.stepLimit) continue;
        copyStates(states, next);
      }
      way = null;
      let settled = anew ? this.anew(alteration, null) : this.settle(base, alteration, rough);
      if (settled) this.sense(alteration, next);
      if (base && alteration === UNALTERED && !equalStates(next, states)) this.learnWay(base, states, next);
      if (rough && !this.bent.isExact && (!settled || sensors.closeCall || equalStates(next, states))) {
        copyStates(states, next);
        settled = this.settleAgain(base, alteration);
        if (settled) this.sense(alteration, next);
      }
      if (!settled) return { states, oscillating: this.junctionParts(), settled };
      let oscillating = NOT_STEADY;
      if (!equalStates(next, states)) {
        const before = sensors.metAt(next, step);
        if (before < 0 && step < sensors.stepLimit) continue;
        oscillating = sensors.loopParts(Math.max(before, step - 3), step + 1);
        if (rough && !this.bent.isExact) settled = this.settleAgain(base, alteration);
      }
      return { states, oscillating, settled: true };
    }
  }

  /** Whether an altered circuit goes on as the sound one does from a state that both come to. */
  private keepsWay(
    base: Factorization,
    way: Way<Factorization>,
    states: Uint8Array,
    alteration: Alteration,
  ): boolean {
    if (alteration === UNALTERED || this.anyReversed || this.differences.anyCut) return false;
    if (alteration.sensing && alteration.sensing.length > 0) return false;
    if (this.smallestPivot < BENT_ANEW_BELOW || !equalStates(states, way.states)) return false;
    return way.isKept(base, this.ports);
  }

  /** Keeps how the sound circuit goes on from the present state, which is that of a base. */
  private learnWay(base: Factorization, states: Uint8Array, next: Uint8Array): void {
    const { sensors, bent, ports } = this;
    if (base.way || ports.count > 0 || bent.count > 0 || this.base !== base) return;
    const bands = [...sensors.bands(states), ...Array.from(base.junctionVolts, (_, j) => bent.band(base, j))];
    base.way = new Way(states.slice(), next.slice(), bands, sensors.feltBranches);
  }

  /** Moves the sensors by what they feel in the present state. */
  private sense(alteration: Alteration, states: Uint8Array): void {
    const { base, sensors, ports, bent } = this;
    const { felt } = sensors;
    if (base) {
      for (let i = 0; i < felt.length; i++) felt[i] = base.watchedVolts[i]!;
      takeWatched(felt, ports.columns, ports.drawn, ports.count);
      takeWatched(felt, bent.columns, bent.excess, bent.count);
    } else this.watched.read(this.volts, felt);
    sensors.sense(alteration, states, this.acrossNow);
  }

  private junctionParts(): readonly string[] {
    return [...new Set(this.network.junctions.map((junction) => junction.part))];
  }

  private takeAlteration(alteration: Alteration): void {
    this.elements.take(alteration);
    const { reversed } = alteration;
    if (this.anyReversed) this.bent.sign.fill(1);
    this.anyReversed = false;
    for (let i = 0; reversed && i < reversed.length; i++) {
      this.bent.sign[reversed[i]!] = -1;
      this.anyReversed = true;
    }
  }

  /** What the present state changes of a base, and what the ports then draw while everything is a straight line. */
  private takeDifferences(base: Factorization, alteration: Alteration): void {
    this.differences.gather(base, alteration);
    this.smallestPivot = this.ports.solve(base.volts);
  }

  /** Exactly, after a rough look. */
  private settleAgain(base: Factorization | null, alteration: Alteration): boolean {
    if (base) this.takeDifferences(base, alteration);
    return this.settle(base, alteration, false);
  }

  /**
   * Finds the present state, by the quick way where it is exact, from the differences that were taken. A rough look is
   * good to a few millivolts: enough to see which way sensors go on the way to rest. False when nothing settles.
   */
  private settle(base: Factorization | null, alteration: Alteration, rough: boolean): boolean {
    const { ports, bent } = this;
    if (!base) return this.anew(alteration, null);
    this.base = base;
    if (this.smallestPivot < ANEW_BELOW) return this.anew(alteration, base);
    if (this.elements.junctionCount === 0) return true;
    const pivot = bent.follow(base, ports, rough);
    if (pivot === 0) return this.anew(alteration, base);
    const lacksDigits = bent.count > 0 && Math.min(pivot, this.smallestPivot) < BENT_ANEW_BELOW;
    if (lacksDigits && rough) bent.isExact = false;
    if (pivot !== TOO_MANY && (rough || !lacksDigits)) return true;
    return (alteration.bridges.length === 0 && this.polish(base, rough)) || this.anew(alteration, base);
  }

  private polish(base: Factorization, rough: boolean): boolean {
    const volts = this.whole.polish(base, this.ports, this.acrossNow, rough);
    if (!volts) return false;
    this.volts.set(volts);
    this.base = null;
    return true;
  }

  private anew(alteration: Alteration, near: Factorization | null): boolean {
    const { whole } = this;
    const found = whole.volts(alteration, near ?? this.bases.first) ?? whole.volts(alteration, null);
    this.base = null;
    if (found) this.volts.set(found);
    else this.volts.fill(0);
    return found !== null;
  }

  /** Volts everywhere in the state that was found; false where Kirchhoff's law does not hold. */
  private complete(alteration: Alteration): boolean {
    return this.completion.fill(this.volts, this.base, this.smallestPivot, alteration);
  }

  private finish(
    point: ReusablePoint,
    states: Uint8Array,
    alteration: Alteration,
    oscillating: readonly string[],
  ): OperatingPoint {
    const { base, elements, shapes } = this;
    const { branchCount } = elements;
    const { bridges } = alteration;
    const count = branchCount + bridges.length;
    if (point.amps.length !== count) point.amps = new Float64Array(count);
    if (base) this.ampsFromBase(base, point.amps);
    else for (let e = 0; e < branchCount; e++) point.amps[e] = this.branchAmps(e);
    for (let k = 0; k < bridges.length; k++) {
      const { a, b, emfVolts = 0 } = bridges[k]!;
      const amps = elements.bridgeSiemens(bridges[k]!) * (this.volts[a]! - this.volts[b]! - emfVolts);
      point.amps[branchCount + k] = amps;
    }
    let anyFloating: boolean;
    if (base !== null && this.differences.sameShape) {
      point.floating.set(base.floating);
      anyFloating = base.anyFloating;
    } else anyFloating = shapes.markFloating(point.floating);
    if (anyFloating) shapes.centre(this.volts);
    point.volts.set(this.volts);
    copyStates(states, point.sensed);
    point.oscillating = oscillating;
    return point;
  }

  /** Current of every branch, at the present volts: as in the base where the ports changed nothing. */
  private ampsFromBase(base: Factorization, amps: Float64Array): void {
    const { volts, ports, elements } = this;
    const { a, b, branchCount } = elements;
    this.completion.fillAmps(base, volts, amps);
    for (let p = 0; p < ports.count; p++) {
      const e = ports.element[p]!;
      if (e < 0 || e >= branchCount) continue;
      const now = elements.siemens(e);
      amps[e] = now === 0 ? 0 : now * (volts[a[e]!]! - volts[b[e]!]! - elements.emfVolts(e));
    }
  }
}
