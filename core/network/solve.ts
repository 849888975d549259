/**
 * The steady state of a circuit in one condition, sound or altered.
 *
 * Nodal analysis (Ho, Ruehli and Brennan, "The modified nodal approach to network analysis", 1975); every
 * source has resistance, so nodal form suffices. The condition is factored once for each state of its sensors
 * that the sound circuit passes through (`base.ts`). Faults, interventions and contacts are a few changed
 * elements of one of these (`ports.ts`); junctions that leave the point they were linearised at follow in
 * their own ports alone (`bend.ts`).
 *
 * Nodes that nothing joins to the datum form islands. Each island is tied to the datum by one conductance at
 * one node; no current can flow through a tie, so the island's own voltages are exact.
 */
import { conducts, type Moment, type Network, type Resolved, resolveControl } from '../circuit/network';
import { type Alteration, UNALTERED } from './alteration';
import { Base, type Shape } from './base';
import { BentJunctions } from './bend';
import { flatten, join, rootOf, separate } from './islands';
import { Ports } from './ports';
import { SparseFactor, SparsePattern } from './sparse';

export interface OperatingPoint {
  /** Volts of every node against the circuit's reference. */
  readonly volts: Float64Array;
  /** 1 where no path joins the node to the reference. */
  readonly floating: Uint8Array;
  /** Ampere through every branch from `a` to `b`, then through every bridge. */
  readonly amps: Float64Array;
  /** 1 where a sensor is on: a relay has pulled in, a breaker has tripped. */
  readonly sensed: Uint8Array;
  /** Parts that find no resting state; empty when the state is steady. */
  readonly oscillating: readonly string[];
}

/** A point that can be filled again and again, so that nothing is allocated in a loop. */
export interface ReusablePoint {
  volts: Float64Array;
  floating: Uint8Array;
  amps: Float64Array;
  sensed: Uint8Array;
  oscillating: readonly string[];
}

const TIE_SIEMENS = 1;
/** States of the sensors for which a condition keeps a factorization. */
const BASE_LIMIT = 12;
/** Sets of opened and joined elements whose islands a base remembers. */
const SHAPE_LIMIT = 1000;
const NEWTON_LIMIT = 120;
/** Volts within which an iterated junction counts as settled. */
const NEWTON_TOLERANCE = 1e-10;
/** Below this pivot so many digits are lost that the result is refined, or the matrix is made anew. */
const REFINE_BELOW = 1e-5;
/** Above this pivot, and with no more than so many times the nominal volts to cancel, nothing need be checked. */
const SURE_PIVOT = 1e-5;
const SURE_VOLTS = 1e3;
const ANEW_BELOW = 1e-8;
const BENT_ANEW_BELOW = 1e-5;
/** Kirchhoff's current law must hold to this fraction of the largest current, or the matrix is made anew. */
const RESIDUAL_TOLERANCE = 1e-10;
/** Share of the largest short-circuit current below which a current counts as none when the law is checked. */
const SMALL_SHARE = 1e-3;
const IDLE_VOLTS = 1e-9;
/** Leakage of a power diode: currents up to this decide nothing that a meter would not change. */
const IDLE_AMPS = 1e-8;
const IDLE_SIEMENS = 0.01;
/** With more junctions than these a rough look at the states on the way pays. By measurement. */
const FEW_JUNCTIONS = 2;
/** Volts, or the share of a tripping current, within which a rough look does not decide. */
const CLOSE_VOLTS = 0.05;
const CLOSE_AMPS_SHARE = 0.5;
const NOT_STEADY: readonly string[] = [];

/** A state being factored from nothing: its elements, and the volts that they give. */
class Workspace {
  readonly factor: SparseFactor;
  /** Branches, junctions as straight lines, then bridges. */
  readonly siemens: Float64Array;
  readonly injected: Float64Array;
  readonly ties: Float64Array;
  readonly junctionVolts: Float64Array;
  readonly wanted: Float64Array;
  readonly volts: Float64Array;
  readonly amps: Float64Array;
  readonly fixedAmps: Float64Array;

  constructor(pattern: SparsePattern, junctionCount: number) {
    this.factor = new SparseFactor(pattern);
    this.siemens = new Float64Array(pattern.elementCount);
    this.injected = new Float64Array(pattern.elementCount);
    this.ties = new Float64Array(pattern.nodeCount);
    this.junctionVolts = new Float64Array(junctionCount);
    this.wanted = new Float64Array(junctionCount);
    this.volts = new Float64Array(pattern.nodeCount);
    this.amps = new Float64Array(pattern.nodeCount);
    this.fixedAmps = new Float64Array(pattern.nodeCount);
  }
}

/** Solves one condition of a network as often as wanted; nothing of the condition is computed twice. */
export class ConditionSolver {
  private readonly branchCount: number;
  private readonly junctionCount: number;
  private readonly resolved: readonly Resolved[];
  /** Branches that sensors open and close, and the place of each among them. */
  private readonly moved: Int32Array;
  private readonly movedAt: Int32Array;
  /** The one sensor that moves a branch, -1 where several do; and the state in which it is closed. */
  private readonly bySensor: Int32Array;
  private readonly whenOn: Uint8Array;
  /** Siemens of a branch while closed. */
  private readonly closedSiemens: Float64Array;
  private readonly emf: Float64Array;
  /** Rounding alone leaves so much that no smaller current can be judged by it, ampere. */
  private readonly currentFloor: number;
  private readonly starts: Uint8Array;
  private readonly a: Int32Array;
  private readonly b: Int32Array;
  private readonly pattern: SparsePattern;
  private readonly bases: Base[] = [];

  // What one solve works on; reused by the next.
  private readonly closed: Uint8Array;
  private readonly states: Uint8Array[] = [];
  private readonly ports = new Ports();
  private readonly bent: BentJunctions;
  /** Whether a rough look at the states on the way pays: it does where many junctions have to be followed. */
  private readonly mayBeRough: boolean;
  /** A sensor felt something so near its threshold that a rough look does not decide. */
  private closeCall = false;
  private smallestPivot = 1;
  private workspace: Workspace | null = null;
  /** The base that the present state is given by, null while `volts` hold it. */
  private base: Base | null = null;
  private readonly volts: Float64Array;
  private readonly roots: Int32Array;
  private readonly correction: Float64Array;
  private readonly lacking: Float64Array;
  private readonly islandSum: Float64Array;
  private readonly islandCount: Float64Array;
  private readonly marked: Uint8Array;
  /** Islands are those of the base. */
  private sameShape = false;
  private anyCut = false;
  private anyReversed = false;
  private readonly joining: Int32Array;
  private readonly drawColumns: Float64Array[] = [];
  private drawAmps = new Float64Array(32);
  // Altered branches: number of the entry by branch, valid where the stamp is the present one.
  private tick = 0;
  private readonly stamp: Int32Array;
  private readonly entryOf: Int32Array;
  private altered = 0;
  private alteredBranch = new Int32Array(8);
  private alteredOhms = new Float64Array(8);
  private alteredEmf = new Float64Array(8);
  private alteredHeld = new Uint8Array(8);

  constructor(
    readonly network: Network,
    readonly condition: Moment,
  ) {
    const { branches, junctions, sensors, nodeCount } = network;
    this.branchCount = branches.length;
    this.junctionCount = junctions.length;
    this.resolved = branches.map((branch) => resolveControl(network, branch.control, condition));
    this.moved = Int32Array.from(branches.keys()).filter((e) => typeof this.resolved[e] !== 'string');
    this.movedAt = new Int32Array(branches.length).fill(-1);
    this.moved.forEach((e, i) => {
      this.movedAt[e] = i;
    });
    const single = Array.from(this.moved, (e) => {
      const lines = this.resolved[e]!;
      return typeof lines !== 'string' && lines.length === 1 && lines[0]!.length === 1 ? lines[0]![0]! : null;
    });
    this.bySensor = Int32Array.from(single, (term) => term?.sensor ?? -1);
    this.whenOn = Uint8Array.from(single, (term) => (term?.on ? 1 : 0));
    this.closedSiemens = Float64Array.from(branches, (branch, e) =>
      this.resolved[e] === 'open' ? 0 : 1 / branch.ohms,
    );
    this.emf = Float64Array.from(branches, (branch) => branch.emfVolts);
    this.currentFloor = branches.reduce(
      (floor, { emfVolts, ohms }) => Math.max(floor, (SMALL_SHARE * Math.abs(emfVolts)) / ohms),
      1e-3,
    );
    this.starts = Uint8Array.from(sensors, (sensor) => sensor.starts);
    const elements = this.branchCount + this.junctionCount;
    this.a = new Int32Array(elements);
    this.b = new Int32Array(elements);
    branches.forEach((branch, e) => {
      this.a[e] = branch.a;
      this.b[e] = branch.b;
    });
    junctions.forEach((junction, j) => {
      this.a[this.branchCount + j] = junction.anode;
      this.b[this.branchCount + j] = junction.cathode;
    });
    this.bent = new BentJunctions(
      this.branchCount,
      this.a,
      this.b,
      Float64Array.from(junctions, (junction) => junction.saturationAmps),
      Float64Array.from(junctions, (junction) => junction.thermalVolts),
    );
    this.pattern = new SparsePattern(nodeCount, network.datum, this.a, this.b, elements);
    this.mayBeRough = this.junctionCount > FEW_JUNCTIONS;
    this.closed = new Uint8Array(this.moved.length);
    this.volts = new Float64Array(nodeCount);
    this.roots = new Int32Array(nodeCount);
    this.correction = new Float64Array(nodeCount);
    this.lacking = new Float64Array(nodeCount);
    this.islandSum = new Float64Array(nodeCount);
    this.islandCount = new Float64Array(nodeCount);
    this.marked = new Uint8Array(nodeCount);
    this.joining = new Int32Array(this.junctionCount);
    this.stamp = new Int32Array(this.branchCount);
    this.entryOf = new Int32Array(this.branchCount);
    // Factors every state that the sound circuit passes through on its way to rest.
    const { sensed } = this.solve(UNALTERED);
    this.closeContacts(sensed);
    const rest = this.bases.find((base) => base.closed.every((state, m) => state === this.closed[m]));
    if (rest) rest.isRest = true;
  }

  /** Numbers kept for this condition: what its memory grows with. */
  get storedNumbers(): number {
    return this.bases.reduce((sum, base) => sum + base.storedNumbers, 0);
  }

  /** An empty point of the right size, to be filled by `solveInto`. */
  emptyPoint(): ReusablePoint {
    return {
      volts: new Float64Array(this.network.nodeCount),
      floating: new Uint8Array(this.network.nodeCount),
      amps: new Float64Array(this.branchCount),
      sensed: new Uint8Array(this.starts.length),
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
    // Where Kirchhoff's law does not hold closely enough the whole is done the slow way.
    return this.run(point, alteration, start, false) ?? this.run(point, alteration, start, true)!;
  }

  /** The same with the matrix factored anew for every state: the slow way that the quick one is judged by. */
  solveAnew(alteration: Alteration, start?: Uint8Array): OperatingPoint {
    return this.run(this.emptyPoint(), alteration, start, true)!;
  }

  /**
   * Nodes that only junctions join to the reference which carry next to nothing, 1 for each: what stands there
   * is decided by leakage, and a meter's own ohms move it. For a point that was solved with this alteration.
   */
  hanging(alteration: Alteration, point: OperatingPoint): Uint8Array {
    const { network, roots, a, b, branchCount } = this;
    const hangs = new Uint8Array(network.nodeCount);
    if (this.junctionCount === 0) return hangs;
    this.takeAlteration(alteration);
    this.closeContacts(point.sensed);
    separate(roots);
    for (let e = 0; e < branchCount; e++) if (this.branchSiemens(e) > 0) join(roots, a[e]!, b[e]!);
    for (const bridge of alteration.bridges) {
      if (this.bridgeSiemens(bridge) > 0) join(roots, bridge.a, bridge.b);
    }
    for (let j = 0; j < this.junctionCount; j++) {
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

  private run(
    point: ReusablePoint,
    alteration: Alteration,
    start: Uint8Array | undefined,
    anew: boolean,
  ): OperatingPoint | null {
    this.takeAlteration(alteration);
    const limit = 4 * this.starts.length + 8;
    this.stateAt(0).set(start ?? this.starts);
    for (let step = 0; ; step++) {
      const states = this.stateAt(step);
      this.closeContacts(states);
      const next = this.stateAt(step + 1);
      next.set(states);
      const base = anew ? null : this.chooseBase(alteration);
      // Where the sound circuit came to rest the altered one mostly does too: no rough look first.
      const rough = base !== null && this.mayBeRough && !base.isRest;
      let settled = anew ? this.anew(alteration, null) : this.settle(base, alteration, rough);
      if (settled) this.sense(alteration, next);
      if (rough && (!settled || this.closeCall || equalStates(next, states))) {
        next.set(states);
        settled = this.settle(base, alteration, false);
        if (settled) this.sense(alteration, next);
      }
      if (!settled) return this.finish(point, states, alteration, this.junctionParts());
      let oscillating = NOT_STEADY;
      if (!equalStates(next, states)) {
        let before = step - 1;
        while (before >= 0 && !equalStates(this.stateAt(before), next)) before--;
        if (before < 0 && step < limit) continue;
        oscillating = this.loopParts(Math.max(before, step - 3), step + 1);
        if (rough) settled = this.settle(base, alteration, false);
      }
      if (!this.complete(alteration) && !anew) return null;
      return this.finish(point, states, alteration, oscillating);
    }
  }

  private stateAt(step: number): Uint8Array {
    const known = this.states[step];
    if (known) return known;
    const made = new Uint8Array(this.starts.length);
    this.states[step] = made;
    return made;
  }

  /** Parts whose sensors changed between two steps of a loop. */
  private loopParts(from: number, to: number): readonly string[] {
    const found = new Set<string>();
    for (let step = from; step < to; step++) {
      const one = this.stateAt(step);
      const other = this.stateAt(step + 1);
      one.forEach((state, s) => {
        if (state !== other[s]) found.add(this.network.sensors[s]!.part);
      });
    }
    return [...found];
  }

  private junctionParts(): readonly string[] {
    return [...new Set(this.network.junctions.map((junction) => junction.part))];
  }

  /** Collects what is altered, branch by branch; later changes act on what earlier ones left. */
  private takeAlteration(alteration: Alteration): void {
    this.tick++;
    this.altered = 0;
    const { changes, reversed } = alteration;
    if (changes.length > this.alteredBranch.length) this.growAltered(2 * changes.length);
    for (let c = 0; c < changes.length; c++) {
      const change = changes[c]!;
      const e = change.branch;
      if (this.stamp[e] !== this.tick) {
        this.stamp[e] = this.tick;
        this.entryOf[e] = this.altered;
        this.alteredBranch[this.altered] = e;
        this.alteredOhms[this.altered] = this.network.branches[e]!.ohms;
        this.alteredEmf[this.altered] = this.emf[e]!;
        this.alteredHeld[this.altered] = 0;
        this.altered++;
      }
      const entry = this.entryOf[e]!;
      if (change.ohms !== undefined) this.alteredOhms[entry] = change.ohms;
      if (change.emfVolts !== undefined) this.alteredEmf[entry] = change.emfVolts;
      if (change.held !== undefined) this.alteredHeld[entry] = change.held === 'open' ? 1 : 2;
    }
    if (this.anyReversed) this.bent.sign.fill(1);
    this.anyReversed = false;
    for (let i = 0; reversed && i < reversed.length; i++) {
      this.bent.sign[reversed[i]!] = -1;
      this.anyReversed = true;
    }
  }

  private growAltered(room: number): void {
    this.alteredBranch = new Int32Array(room);
    this.alteredOhms = new Float64Array(room);
    this.alteredEmf = new Float64Array(room);
    this.alteredHeld = new Uint8Array(room);
  }

  private closeContacts(states: Uint8Array): void {
    const { closed, bySensor, whenOn } = this;
    for (let i = 0; i < closed.length; i++) {
      const sensor = bySensor[i]!;
      closed[i] =
        sensor >= 0
          ? 1 - (states[sensor]! ^ whenOn[i]!)
          : conducts(this.resolved[this.moved[i]!]!, states)
            ? 1
            : 0;
    }
  }

  /** Siemens of a branch by its own control in the present state. */
  private ownSiemens(e: number): number {
    const at = this.movedAt[e]!;
    return at < 0 || this.closed[at] === 1 ? this.closedSiemens[e]! : 0;
  }

  /** Siemens of an altered branch in the present state. */
  private alteredSiemens(entry: number): number {
    const held = this.alteredHeld[entry]!;
    if (held === 1) return 0;
    if (held === 0 && this.ownSiemens(this.alteredBranch[entry]!) === 0) return 0;
    const ohms = this.alteredOhms[entry]!;
    return ohms === Number.POSITIVE_INFINITY ? 0 : 1 / ohms;
  }

  private bridgeSiemens(bridge: Alteration['bridges'][number]): number {
    if (bridge.ohms === Number.POSITIVE_INFINITY) return 0;
    if (bridge.follows !== undefined && this.ownSiemens(bridge.follows) === 0) return 0;
    return 1 / bridge.ohms;
  }

  /** Siemens of any branch in the present state. */
  private branchSiemens(e: number): number {
    return this.stamp[e] === this.tick ? this.alteredSiemens(this.entryOf[e]!) : this.ownSiemens(e);
  }

  private branchEmf(e: number): number {
    return this.stamp[e] === this.tick ? this.alteredEmf[this.entryOf[e]!]! : this.emf[e]!;
  }

  /**
   * Finds the present state, by the quick way where it is exact. A rough look is good to a few millivolts: enough
   * to see which way sensors go on the way to rest. False when nothing settles.
   */
  private settle(base: Base | null, alteration: Alteration, rough: boolean): boolean {
    const { ports, bent } = this;
    if (!base) return this.anew(alteration, null);
    this.base = base;
    this.gatherPorts(base, alteration);
    this.smallestPivot = ports.solve(base.volts);
    if (this.smallestPivot < ANEW_BELOW) return this.anew(alteration, base);
    if (this.junctionCount === 0) return true;
    const pivot = bent.follow(base, ports, rough, !rough && this.mayBeRough);
    if (pivot === 0) return this.anew(alteration, base);
    if (bent.count > 0 && Math.min(pivot, this.smallestPivot) < BENT_ANEW_BELOW) {
      return (alteration.bridges.length === 0 && this.polish(base)) || this.anew(alteration, base);
    }
    return true;
  }

  /** From junction volts that lack digits to exact ones: the whole matrix, started where the ports left off. */
  private polish(base: Base): boolean {
    const { network, roots, ports, bent } = this;
    this.workspace ??= new Workspace(this.pattern, this.junctionCount);
    const work = this.workspace;
    for (let j = 0; j < this.junctionCount; j++) {
      const e = this.branchCount + j;
      work.junctionVolts[j] = bent.cut[j] === 1 ? 0 : this.across(this.a[e]!, this.b[e]!);
    }
    for (let i = 0; i < bent.count; i++) work.junctionVolts[bent.junction[i]!] = bent.volts[i]!;
    work.siemens.set(base.siemens);
    work.injected.set(base.injected);
    for (let p = 0; p < ports.count; p++) {
      const e = ports.element[p]!;
      if (e < 0 || e >= this.branchCount) continue;
      work.siemens[e] = this.branchSiemens(e);
      work.injected[e] = work.siemens[e]! * this.branchEmf(e);
    }
    const main = roots[network.datum]!;
    for (let node = 0; node < roots.length; node++) {
      work.ties[node] = roots[node] === node && node !== main ? TIE_SIEMENS : 0;
    }
    if (!this.newton(work)) return false;
    this.volts.set(work.volts);
    this.base = null;
    return true;
  }

  /** The base of the present state, or the one that the fewest contacts tell from it. */
  private chooseBase(alteration: Alteration): Base | null {
    let best: Base | null = null;
    let fewest = Number.POSITIVE_INFINITY;
    for (let i = 0; i < this.bases.length; i++) {
      const base = this.bases[i]!;
      let differing = 0;
      for (let m = 0; m < this.closed.length; m++) if (base.closed[m] !== this.closed[m]) differing++;
      if (differing === 0) return base;
      if (differing < fewest) {
        fewest = differing;
        best = base;
      }
    }
    if (best && (alteration !== UNALTERED || this.bases.length >= BASE_LIMIT)) return best;
    if (alteration !== UNALTERED) return null;
    const near = this.bases[this.bases.length - 1] ?? null;
    const found = this.factorAnew(UNALTERED, near) ?? this.factorAnew(UNALTERED, null);
    if (!found) return best;
    this.holdIdle(found);
    const state = { ...found, roots: this.roots.slice(), closed: this.closed.slice() };
    const made = new Base(state, this.a, this.b, this.branchCount, this.network.datum);
    this.bases.push(made);
    return made;
  }

  /**
   * A junction without any volts carries nothing, whatever conductance stands for it. A middling one keeps the
   * ohms that the network shows it within what can be computed with.
   */
  private holdIdle(work: Workspace): void {
    let idle = false;
    for (let j = 0; j < this.junctionCount; j++) {
      if (Math.abs(work.junctionVolts[j]!) > IDLE_VOLTS) continue;
      // The line goes on passing through the point that was found.
      const e = this.branchCount + j;
      const across = work.volts[this.a[e]!]! - work.volts[this.b[e]!]!;
      const flows = work.siemens[e]! * across - work.injected[e]!;
      work.siemens[e] = IDLE_SIEMENS;
      work.injected[e] = IDLE_SIEMENS * across - flows;
      idle = true;
    }
    const end = this.branchCount + this.junctionCount;
    if (idle) work.factor.factor(work.siemens, this.branchCount, end);
  }

  /** Every difference between the base and the present state, ties of islands included. */
  private gatherPorts(base: Base, alteration: Alteration): void {
    const { ports, moved, closed } = this;
    ports.clear();
    let opened = -1;
    let openings = 0;
    let joins = false;
    let shape = '';
    for (let i = 0; i < this.altered + closed.length; i++) {
      let e: number;
      let siemens: number;
      let emf: number;
      if (i < this.altered) {
        e = this.alteredBranch[i]!;
        siemens = this.alteredSiemens(i);
        emf = this.alteredEmf[i]!;
      } else {
        const m = i - this.altered;
        if (closed[m] === base.closed[m]) continue;
        e = moved[m]!;
        if (this.stamp[e] === this.tick) continue;
        siemens = closed[m] === 1 ? this.closedSiemens[e]! : 0;
        emf = this.emf[e]!;
      }
      const delta = siemens - base.siemens[e]!;
      const inject = siemens * emf - base.injected[e]!;
      if (delta === 0 && inject === 0) continue;
      if (siemens === 0) {
        opened = e;
        openings++;
        shape += `-${e}`;
      } else if (base.siemens[e] === 0) {
        joins = true;
        shape += `+${e}`;
      }
      ports.add(this.a[e]!, this.b[e]!, delta, inject, e, base.column(e));
    }
    const { bridges } = alteration;
    for (let k = 0; k < bridges.length; k++) {
      const bridge = bridges[k]!;
      const siemens = this.bridgeSiemens(bridge);
      if (siemens === 0) continue;
      if (base.roots[bridge.a] !== base.roots[bridge.b] || openings > 0) {
        joins = true;
        shape += `+${bridge.a}/${bridge.b}`;
      }
      const inject = siemens * (bridge.emfVolts ?? 0);
      ports.add(bridge.a, bridge.b, siemens, inject, -1, base.columnBetween(bridge.a, bridge.b));
    }
    if (this.anyCut) this.bent.cut.fill(0);
    this.anyCut = false;
    const opening = openings === 0 ? 'nothing' : openings === 1 ? base.opening(opened) : 'look';
    this.sameShape = !joins && opening === 'nothing';
    if (joins || opening === 'look') this.takeShape(base, shape);
    else {
      this.roots.set(base.roots);
      if (opening === 'cuts') this.addTie(base, base.cutOff(opened, this.roots), TIE_SIEMENS);
    }
  }

  private addTie(base: Base, node: number, siemens: number): void {
    const { datum } = this.network;
    this.ports.add(node, datum, siemens, 0, -1, base.tieColumn(node, datum));
  }

  /** Ports that cut off junctions and move the ties, where elements were opened or joined. */
  private takeShape(base: Base, key: string): void {
    let shape = base.shapes.get(key);
    if (!shape) {
      shape = this.reshape(base);
      if (base.shapes.size >= SHAPE_LIMIT) base.shapes.clear();
      base.shapes.set(key, shape);
    }
    const { ports, roots, a, b } = this;
    roots.set(shape.roots);
    for (const j of shape.cut) {
      const e = this.branchCount + j;
      this.bent.cut[j] = 1;
      this.anyCut = true;
      ports.add(a[e]!, b[e]!, TIE_SIEMENS - base.siemens[e]!, -base.injected[e]!, e, base.column(e));
    }
    for (const node of shape.untied) this.addTie(base, node, -TIE_SIEMENS);
    for (const node of shape.tied) this.addTie(base, node, TIE_SIEMENS);
  }

  /** Islands of the present state from nothing. */
  private reshape(base: Base): Shape {
    const { roots, ports, a, b } = this;
    separate(roots);
    for (let p = 0; p < ports.count; p++) {
      const e = ports.element[p]!;
      const conductsNow = e < 0 || base.siemens[e]! + ports.delta[p]! > 0;
      if (conductsNow) join(roots, ports.a[p]!, ports.b[p]!);
    }
    const { conducting } = base;
    for (let i = 0; i < conducting.length; i++) {
      const e = conducting[i]!;
      const at = this.movedAt[e]!;
      const changed = this.stamp[e] === this.tick || (at >= 0 && this.closed[at] !== base.closed[at]);
      if (!changed || this.branchSiemens(e) > 0) join(roots, a[e]!, b[e]!);
    }
    const cut = this.joinByJunctions(base);
    flatten(roots);
    return { roots: roots.slice(), cut, ...this.movedTies(base) };
  }

  /** Joins what only junctions join; one that nothing leads around can carry no current, and is cut off. */
  private joinByJunctions(base: Base | null): number[] {
    const { joining, roots, a, b } = this;
    const cut: number[] = [];
    let count = 0;
    for (let j = 0; j < this.junctionCount; j++) {
      const e = this.branchCount + j;
      if (rootOf(roots, a[e]!) !== rootOf(roots, b[e]!)) joining[count++] = j;
    }
    for (let i = 0; i < count && base; i++) {
      const j = joining[i]!;
      // One that carried nothing before, and is led around by nothing now, still carries nothing.
      if (Math.abs(base.junctionVolts[j]!) > NEWTON_TOLERANCE && !this.ledAround(i, count)) cut.push(j);
    }
    for (let i = 0; i < count; i++) {
      const e = this.branchCount + joining[i]!;
      join(roots, a[e]!, b[e]!);
    }
    return cut;
  }

  /** Whether the other joining junctions lead from one end of a junction to its other end. */
  private ledAround(except: number, count: number): boolean {
    const { joining, marked: reached, roots, a, b, branchCount } = this;
    const from = branchCount + joining[except]!;
    const goal = rootOf(roots, b[from]!);
    reached.fill(0);
    reached[rootOf(roots, a[from]!)] = 1;
    for (let grown = true; grown; ) {
      grown = false;
      for (let i = 0; i < count; i++) {
        if (i === except) continue;
        const e = branchCount + joining[i]!;
        const one = rootOf(roots, a[e]!);
        const other = rootOf(roots, b[e]!);
        if (reached[one] === reached[other]) continue;
        reached[one] = 1;
        reached[other] = 1;
        grown = true;
      }
      if (reached[goal] === 1) return true;
    }
    return false;
  }

  private movedTies(base: Base): { untied: number[]; tied: number[] } {
    const { roots, marked, network } = this;
    const main = roots[network.datum]!;
    const untied: number[] = [];
    const tied: number[] = [];
    marked.fill(0);
    for (let node = 0; node < roots.length; node++) {
      if (base.ties[node] === 0) continue;
      const root = roots[node]!;
      if (root !== main && marked[root] === 0) marked[root] = 1;
      else untied.push(node);
    }
    for (let node = 0; node < roots.length; node++) {
      if (roots[node] === node && node !== main && marked[node] === 0) tied.push(node);
    }
    return { untied, tied };
  }

  /** Volts between two nodes in the present state. */
  private across(from: number, to: number): number {
    const { base } = this;
    if (!base) return this.volts[from]! - this.volts[to]!;
    return this.ports.across(base.volts, from, to) - this.bent.taking(from, to);
  }

  /** Volts everywhere in the state that was found; false where Kirchhoff's law does not hold. */
  private complete(alteration: Alteration): boolean {
    const { base, ports, bent, volts } = this;
    if (!base) return this.residual(alteration) <= RESIDUAL_TOLERANCE;
    const columns = this.drawColumns;
    const needed = ports.count + bent.count;
    if (this.drawAmps.length < needed) this.drawAmps = new Float64Array(2 * needed);
    const amps = this.drawAmps;
    let count = 0;
    // Large volts that cancel one another lose digits.
    let largest = 0;
    for (let p = 0; p < ports.count; p++) {
      const column = ports.columns[p]!;
      columns[count] = column;
      amps[count++] = ports.drawn[p]!;
      largest = Math.max(largest, Math.abs(ports.drawn[p]! * (column[ports.a[p]!]! - column[ports.b[p]!]!)));
    }
    for (let i = 0; i < bent.count; i++) {
      columns[count] = bent.columns[i]!;
      amps[count++] = bent.excess[i]!;
      largest = Math.max(largest, Math.abs(bent.excess[i]! * bent.ownOhms(i)));
    }
    spread(base.volts, columns, amps, count, volts);
    if (this.smallestPivot < REFINE_BELOW && bent.count === 0) this.refine(base, alteration);
    const sure = this.smallestPivot > SURE_PIVOT && largest < SURE_VOLTS * this.network.circuit.nominalVolts;
    return sure || this.residual(alteration) <= RESIDUAL_TOLERANCE;
  }

  /** Puts in once more what Kirchhoff's law still lacks (iterative refinement). */
  private refine(base: Base, alteration: Alteration): void {
    const { ports, correction, volts } = this;
    this.lackingAmps(alteration);
    base.raise(this.lacking, correction);
    for (let p = 0; p < ports.count; p++) {
      ports.drawn[p] = ports.delta[p]! * (correction[ports.a[p]!]! - correction[ports.b[p]!]!);
    }
    if (ports.count > 0) ports.system.solve(ports.drawn);
    for (let node = 0; node < volts.length; node++) volts[node] = volts[node]! + correction[node]!;
    spread(volts, ports.columns, ports.drawn, ports.count, volts);
  }

  /**
   * Current that each node still lacks for Kirchhoff's law, ampere, the datum aside. Gives the largest current
   * met, NaN where volts are.
   */
  private lackingAmps(alteration: Alteration): number {
    const { lacking, volts, branchCount, a, b, emf, stamp, tick, movedAt, closedSiemens } = this;
    const { bridges } = alteration;
    let largest = this.currentFloor;
    lacking.fill(0);
    for (let e = 0; e < branchCount; e++) {
      const plain = stamp[e] !== tick && movedAt[e]! < 0;
      const siemens = plain ? closedSiemens[e]! : this.branchSiemens(e);
      if (siemens === 0) continue;
      const from = a[e]!;
      const to = b[e]!;
      const amps = siemens * (volts[from]! - volts[to]! - (plain ? emf[e]! : this.branchEmf(e)));
      lacking[from] = lacking[from]! - amps;
      lacking[to] = lacking[to]! + amps;
      const size = amps < 0 ? -amps : amps;
      if (!(size <= largest)) largest = size;
    }
    for (let j = 0; j < this.junctionCount; j++) {
      const from = a[branchCount + j]!;
      const to = b[branchCount + j]!;
      const amps = this.bent.amps(j, volts[from]! - volts[to]!);
      lacking[from] = lacking[from]! - amps;
      lacking[to] = lacking[to]! + amps;
    }
    for (let k = 0; k < bridges.length; k++) {
      const { a: from, b: to, emfVolts = 0 } = bridges[k]!;
      const amps = this.bridgeSiemens(bridges[k]!) * (volts[from]! - volts[to]! - emfVolts);
      lacking[from] = lacking[from]! - amps;
      lacking[to] = lacking[to]! + amps;
      if (!(Math.abs(amps) <= largest)) largest = Math.abs(amps);
    }
    lacking[this.network.datum] = 0;
    return largest;
  }

  /** Largest breach of Kirchhoff's current law, as a fraction of the largest current; NaN where volts are. */
  private residual(alteration: Alteration): number {
    const largest = this.lackingAmps(alteration);
    let worst = 0;
    for (let node = 0; node < this.lacking.length; node++) {
      const size = Math.abs(this.lacking[node]!);
      if (!(size <= worst)) worst = size;
    }
    return worst / largest;
  }

  /** Factors the present state from nothing, junctions iterated. Null when they do not settle. */
  private factorAnew(alteration: Alteration, near: Base | null): Workspace | null {
    const { network, branchCount, junctionCount, roots } = this;
    const bridges = alteration.bridges.filter((bridge) => this.bridgeSiemens(bridge) > 0);
    const count = branchCount + junctionCount + bridges.length;
    const a = new Int32Array(count);
    const b = new Int32Array(count);
    a.set(this.a);
    b.set(this.b);
    bridges.forEach((bridge, k) => {
      a[branchCount + junctionCount + k] = bridge.a;
      b[branchCount + junctionCount + k] = bridge.b;
    });
    const { nodeCount, datum } = network;
    const pattern = bridges.length === 0 ? this.pattern : new SparsePattern(nodeCount, datum, a, b, count);
    const work = new Workspace(pattern, junctionCount);
    separate(roots);
    for (let e = 0; e < branchCount; e++) {
      work.siemens[e] = this.branchSiemens(e);
      work.injected[e] = work.siemens[e]! * this.branchEmf(e);
      if (work.siemens[e]! > 0) join(roots, a[e]!, b[e]!);
    }
    bridges.forEach((bridge, k) => {
      const e = branchCount + junctionCount + k;
      work.siemens[e] = this.bridgeSiemens(bridge);
      work.injected[e] = work.siemens[e]! * (bridge.emfVolts ?? 0);
      join(roots, bridge.a, bridge.b);
    });
    this.joinByJunctions(null);
    flatten(roots);
    for (let node = 0; node < nodeCount; node++) {
      if (roots[node] === node && node !== roots[datum]) work.ties[node] = TIE_SIEMENS;
    }
    if (near) work.junctionVolts.set(near.junctionVolts);
    return this.newton(work) ? work : null;
  }

  /** Iterates the junctions of a workspace until they settle; its factor and volts then belong together. */
  private newton(work: Workspace): boolean {
    const { branchCount, junctionCount, bent } = this;
    const { factor, siemens, injected, junctionVolts, wanted, volts, amps, fixedAmps } = work;
    const { a, b, elementCount } = factor.pattern;
    const end = branchCount + junctionCount;
    factor.assemble(siemens, work.ties, branchCount, end);
    fixedAmps.fill(0);
    for (let e = 0; e < elementCount; e++) {
      if (e >= branchCount && e < end) continue;
      fixedAmps[a[e]!] = fixedAmps[a[e]!]! + injected[e]!;
      fixedAmps[b[e]!] = fixedAmps[b[e]!]! - injected[e]!;
    }
    for (let round = 0; round < NEWTON_LIMIT; round++) {
      amps.set(fixedAmps);
      for (let j = 0; j < junctionCount; j++) {
        const at = junctionVolts[j]!;
        const e = branchCount + j;
        const flows = bent.amps(j, at);
        siemens[e] = bent.siemens(j, at, flows);
        injected[e] = siemens[e]! * at - flows;
        amps[a[e]!] = amps[a[e]!]! + injected[e]!;
        amps[b[e]!] = amps[b[e]!]! - injected[e]!;
      }
      if (!factor.factor(siemens, branchCount, end)) return false;
      factor.solve(amps, volts);
      let largest = 0;
      for (let j = 0; j < junctionCount; j++) {
        const e = branchCount + j;
        const at = junctionVolts[j]!;
        const flows = siemens[e]! * at - injected[e]!;
        const across = volts[a[e]!]! - volts[b[e]!]!;
        wanted[j] = bent.next(j, at, across, flows, siemens[e]!);
        // What is wanted counts, not what the limit allowed: a limited step may be none at all.
        const size = Math.abs(across - at);
        if (!(size <= largest)) largest = size;
      }
      if (!(largest < Number.POSITIVE_INFINITY)) return false;
      if (largest <= NEWTON_TOLERANCE) return true;
      junctionVolts.set(wanted);
    }
    return false;
  }

  private anew(alteration: Alteration, near: Base | null): boolean {
    const found =
      this.factorAnew(alteration, near ?? this.bases[0] ?? null) ?? this.factorAnew(alteration, null);
    this.base = null;
    if (found) this.volts.set(found.volts);
    else this.volts.fill(0);
    return found !== null;
  }

  /** Moves every sensor by what it feels in the present state. */
  private sense(alteration: Alteration, states: Uint8Array): void {
    const { sensors } = this.network;
    this.closeCall = false;
    for (let s = 0; s < sensors.length; s++) {
      const sensor = sensors[s]!;
      if (sensor.senses === 'latch') {
        const set = states[sensor.set] === 1;
        const reset = states[sensor.reset] === 1;
        if (set !== reset) states[s] = set ? 1 : 0;
        continue;
      }
      const felt = sensor.senses === 'amps' ? this.branchAmps(sensor.branch) : this.feltVolts(alteration, s);
      const size = sensor.signed ? felt : Math.abs(felt);
      const close = sensor.senses === 'amps' ? CLOSE_AMPS_SHARE * sensor.onAbove : CLOSE_VOLTS;
      const threshold = states[s] === 1 ? sensor.offBelow : sensor.onAbove;
      if (Math.abs(size - threshold) < close) this.closeCall = true;
      if (size >= sensor.onAbove) states[s] = 1;
      else if (size < sensor.offBelow && !this.stillHeld(sensor.holdsSeconds)) states[s] = 0;
    }
  }

  private branchAmps(e: number): number {
    const siemens = this.branchSiemens(e);
    return siemens === 0 ? 0 : siemens * (this.across(this.a[e]!, this.b[e]!) - this.branchEmf(e));
  }

  private stillHeld(holdsSeconds: number): boolean {
    return holdsSeconds > 0 && (this.condition.secondsIn ?? Number.POSITIVE_INFINITY) < holdsSeconds;
  }

  private feltVolts(alteration: Alteration, s: number): number {
    const sensor = this.network.sensors[s]!;
    const { sensing } = alteration;
    for (let i = 0; sensing && i < sensing.length; i++) {
      const moved = sensing[i]!;
      if (moved.sensor === s) return this.across(moved.a, moved.b);
    }
    // An opened coil sees volts but carries nothing.
    if (sensor.branch >= 0 && this.branchSiemens(sensor.branch) === 0) return 0;
    return this.across(sensor.a, sensor.b);
  }

  private finish(
    point: ReusablePoint,
    states: Uint8Array,
    alteration: Alteration,
    oscillating: readonly string[],
  ): OperatingPoint {
    const { roots, network, base } = this;
    const { bridges } = alteration;
    const count = this.branchCount + bridges.length;
    if (point.amps.length !== count) point.amps = new Float64Array(count);
    if (base) this.ampsFromBase(base, point.amps);
    else for (let e = 0; e < this.branchCount; e++) point.amps[e] = this.branchAmps(e);
    for (let k = 0; k < bridges.length; k++) {
      const { a, b, emfVolts = 0 } = bridges[k]!;
      const amps = this.bridgeSiemens(bridges[k]!) * (this.volts[a]! - this.volts[b]! - emfVolts);
      point.amps[this.branchCount + k] = amps;
    }
    let anyFloating = base !== null && this.sameShape && base.anyFloating;
    if (base !== null && this.sameShape) point.floating.set(base.floating);
    else {
      const main = roots[network.datum]!;
      for (let node = 0; node < roots.length; node++) {
        const floats = roots[node] !== main;
        point.floating[node] = floats ? 1 : 0;
        if (floats) anyFloating = true;
      }
    }
    if (anyFloating) this.centreIslands();
    point.volts.set(this.volts);
    point.sensed.set(states);
    point.oscillating = oscillating;
    return point;
  }

  /** Current of every branch, at the present volts: as in the base where the ports changed nothing. */
  private ampsFromBase(base: Base, amps: Float64Array): void {
    const { a, b, volts, branchCount, ports } = this;
    const { siemens, injected } = base;
    for (let e = 0; e < branchCount; e++) {
      amps[e] = siemens[e]! * (volts[a[e]!]! - volts[b[e]!]!) - injected[e]!;
    }
    for (let p = 0; p < ports.count; p++) {
      const e = ports.element[p]!;
      if (e < 0 || e >= branchCount) continue;
      const now = this.branchSiemens(e);
      amps[e] = now === 0 ? 0 : now * (volts[a[e]!]! - volts[b[e]!]! - this.branchEmf(e));
    }
  }

  /** An island leaks equally from every node, so that its nodes average to zero. */
  private centreIslands(): void {
    const { roots, volts, islandSum, islandCount } = this;
    const main = roots[this.network.datum]!;
    islandSum.fill(0);
    islandCount.fill(0);
    for (let node = 0; node < volts.length; node++) {
      const root = roots[node]!;
      islandSum[root] = islandSum[root]! + volts[node]!;
      islandCount[root] = islandCount[root]! + 1;
    }
    for (let node = 0; node < volts.length; node++) {
      const root = roots[node]!;
      if (root !== main) volts[node] = volts[node]! - islandSum[root]! / islandCount[root]!;
    }
  }
}

/** Volts of the base less what currents of so many ampere through columns take; four columns at a time. */
function spread(
  from: Float64Array,
  columns: readonly Float64Array[],
  amps: Float64Array,
  count: number,
  into: Float64Array,
): void {
  const n = into.length;
  let source = from;
  let i = 0;
  for (; i + 3 < count; i += 4) {
    const c0 = columns[i]!;
    const c1 = columns[i + 1]!;
    const c2 = columns[i + 2]!;
    const c3 = columns[i + 3]!;
    const a0 = amps[i]!;
    const a1 = amps[i + 1]!;
    const a2 = amps[i + 2]!;
    const a3 = amps[i + 3]!;
    for (let k = 0; k < n; k++) {
      into[k] = source[k]! - a0 * c0[k]! - a1 * c1[k]! - a2 * c2[k]! - a3 * c3[k]!;
    }
    source = into;
  }
  for (; i < count; i++) {
    const c = columns[i]!;
    const a = amps[i]!;
    for (let k = 0; k < n; k++) into[k] = source[k]! - a * c[k]!;
    source = into;
  }
  if (source !== into) into.set(source);
}

function equalStates(one: Uint8Array, other: Uint8Array): boolean {
  for (let s = 0; s < one.length; s++) if (one[s] !== other[s]) return false;
  return true;
}
