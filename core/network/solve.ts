/**
 * The steady state of a circuit in one condition, sound or altered. Relay contacts follow their coils by
 * iteration with hysteresis, diodes by Newton's method in the voltages of their own ports.
 */
import { isClosed, type Network } from '../circuit/network';
import type { Condition } from '../format/circuitSchema';
import { type Elements, findIslands, LinearBase, solveSmall, TIE_SIEMENS } from './linear';

/** A change of one branch: another resistance (Infinity opens it), another source, a contact held. */
export interface BranchChange {
  readonly branch: number;
  readonly ohms?: number;
  readonly emfVolts?: number;
  /** Holds a contact whatever its switch, key or coil says. */
  readonly held?: 'open' | 'closed';
}

/** A branch that the circuit does not have: a short, a jumper, a lamp across two points. */
export interface Bridge {
  readonly a: number;
  readonly b: number;
  readonly ohms: number;
  readonly emfVolts?: number;
}

/** Faults and interventions alike: what differs from the sound circuit as drawn. */
export interface Alteration {
  readonly changes: readonly BranchChange[];
  readonly bridges: readonly Bridge[];
}

export const UNALTERED: Alteration = { changes: [], bridges: [] };

export function combineAlterations(...alterations: readonly Alteration[]): Alteration {
  return {
    changes: alterations.flatMap((one) => one.changes),
    bridges: alterations.flatMap((one) => one.bridges),
  };
}

export interface OperatingPoint {
  /** Volts of every node against the circuit's reference. */
  readonly volts: Float64Array;
  /** 1 where no conducting path joins the node to the reference. */
  readonly floating: Uint8Array;
  /** Ampere through every branch from `a` to `b`, then through every bridge. */
  readonly amps: Float64Array;
  /** 1 where the relay's coil holds its contact. */
  readonly energised: Uint8Array;
  /** Parts whose relays find no resting state; empty when the state is steady. */
  readonly oscillating: readonly string[];
}

/** Conductance that a junction keeps in reverse, siemens: what circuit simulators add to every junction. */
export const JUNCTION_GMIN = 1e-12;
/** Conductance that a junction has in the factored base; the iteration replaces it. */
const JUNCTION_BASE = 1;
const NEWTON_LIMIT = 200;
/** Below this pivot so many digits are lost that the update is refined. */
const LOST_DIGITS = 1e-2;
const NOTHING: readonly number[] = [];
/** Volts within which an iterated junction counts as settled. */
const NEWTON_TOLERANCE = 1e-10;
/** Volts below which a junction that no longer comes closer counts as settled too. */
const NEWTON_NOISE = 1e-6;
/** Kirchhoff's current law must hold to this fraction of the largest current, or the matrix is made anew. */
const RESIDUAL_TOLERANCE = 1e-9;

/** Current and conductance of a junction at a voltage (Shockley), linear above the largest exponent. */
export function junctionCurrent(
  volts: number,
  saturationAmps: number,
  thermalVolts: number,
): { amps: number; siemens: number } {
  const x = volts / thermalVolts;
  const e = Math.exp(Math.min(x, 80));
  const over = x > 80 ? x - 80 : 0;
  const siemens = (saturationAmps * e) / thermalVolts + JUNCTION_GMIN;
  const amps = saturationAmps * (e * (1 + over) - 1) + JUNCTION_GMIN * volts;
  return { amps, siemens };
}

/** Keeps a Newton step on an exponential from overshooting (the classical junction limit). */
function limitJunction(next: number, last: number, thermalVolts: number, critical: number): number {
  if (next > critical && Math.abs(next - last) > 2 * thermalVolts) {
    if (last > 0) {
      const argument = 1 + (next - last) / thermalVolts;
      return argument > 0 ? last + thermalVolts * Math.log(argument) : critical;
    }
    return thermalVolts * Math.log(Math.max(next / thermalVolts, 1e-6));
  }
  return next;
}

/** Solves one condition of a network as often as wanted; the factorization is made once. */
export class ConditionSolver {
  readonly base: LinearBase;
  private readonly baseRoots: Int32Array;
  private readonly branchCount: number;
  /** Branches and junctions; bridges come behind them. */
  private readonly elementCount: number;
  private readonly relayBranches: readonly number[];
  /** The sound condition with every relay contact open: what `elements` starts from. */
  private readonly template: { siemens: Float64Array; injected: Float64Array };
  private readonly roots: Int32Array;
  private readonly rests: Uint8Array;
  /** Volts across the junctions of the sound condition: a near start for every other state. */
  private readonly junctionStart: Float64Array;
  /** Reused by every solve; grown when more bridges come than ever before. */
  private work: Elements & { touched: number[] };

  constructor(
    readonly network: Network,
    readonly condition: Condition,
  ) {
    this.branchCount = network.branches.length;
    this.elementCount = this.branchCount + network.junctions.length;
    this.roots = new Int32Array(network.nodeCount);
    this.rests = new Uint8Array(network.relays.length);
    this.junctionStart = new Float64Array(network.junctions.length);
    this.relayBranches = network.branches.flatMap((branch, e) =>
      branch.control.kind === 'relay' ? [e] : [],
    );
    this.template = this.makeTemplate();
    this.work = this.makeWork(4);
    this.baseRoots = new Int32Array(network.nodeCount);
    this.base = this.factor(this.rests);
    const sound = this.solve(UNALTERED);
    // Factoring at the sound state keeps the later updates few.
    if (sound.energised.some((state) => state === 1)) this.base = this.factor(sound.energised);
    network.junctions.forEach(({ anode, cathode }, j) => {
      this.junctionStart[j] = sound.volts[anode]! - sound.volts[cathode]!;
    });
  }

  private factor(energised: Uint8Array): LinearBase {
    const elements = this.elements(UNALTERED, energised);
    findIslands(this.network.nodeCount, elements, this.baseRoots);
    return new LinearBase(this.network.nodeCount, this.network.datum, elements);
  }

  private makeTemplate(): { siemens: Float64Array; injected: Float64Array } {
    const siemens = new Float64Array(this.elementCount);
    const injected = new Float64Array(this.elementCount);
    this.network.branches.forEach((branch, e) => {
      if (branch.control.kind === 'relay' || !isClosed(this.network, branch, this.condition, this.rests))
        return;
      siemens[e] = 1 / branch.ohms;
      injected[e] = branch.emfVolts / branch.ohms;
    });
    siemens.fill(JUNCTION_BASE, this.branchCount);
    return { siemens, injected };
  }

  private makeWork(bridges: number): Elements & { touched: number[] } {
    const { network } = this;
    const room = this.elementCount + bridges;
    const a = new Int32Array(room);
    const b = new Int32Array(room);
    network.branches.forEach((branch, e) => {
      a[e] = branch.a;
      b[e] = branch.b;
    });
    network.junctions.forEach((junction, j) => {
      a[this.branchCount + j] = junction.anode;
      b[this.branchCount + j] = junction.cathode;
    });
    return {
      count: this.elementCount,
      a,
      b,
      siemens: new Float64Array(room),
      injected: new Float64Array(room),
      touched: [],
    };
  }

  /** Conductances and injections of every branch, junction and bridge in a relay state. */
  private elements(alteration: Alteration, energised: Uint8Array): Elements & { touched: number[] } {
    const { network } = this;
    const count = this.elementCount + alteration.bridges.length;
    if (count > this.work.a.length) this.work = this.makeWork(2 * alteration.bridges.length);
    const work = { ...this.work, count, touched: [] as number[] };
    const { a, b, siemens, injected, touched } = work;
    siemens.set(this.template.siemens);
    injected.set(this.template.injected);
    for (const e of this.relayBranches) {
      const branch = network.branches[e]!;
      if (isClosed(network, branch, this.condition, energised)) {
        siemens[e] = 1 / branch.ohms;
        injected[e] = branch.emfVolts / branch.ohms;
      }
      touched.push(e);
    }
    // Later changes of the same branch act on what earlier ones left.
    for (const change of alteration.changes) {
      const e = change.branch;
      const branch = network.branches[e]!;
      const emf = change.emfVolts ?? (siemens[e] ? injected[e]! / siemens[e]! : branch.emfVolts);
      let ohms = siemens[e] ? 1 / siemens[e]! : Number.POSITIVE_INFINITY;
      if (change.held === 'open') ohms = Number.POSITIVE_INFINITY;
      else if (change.held === 'closed') ohms = change.ohms ?? branch.ohms;
      else if (change.ohms !== undefined && Number.isFinite(ohms)) ohms = change.ohms;
      siemens[e] = Number.isFinite(ohms) ? 1 / ohms : 0;
      injected[e] = emf * siemens[e]!;
      if (!touched.includes(e)) touched.push(e);
    }
    for (let k = 0; k < alteration.bridges.length; k++) {
      const bridge = alteration.bridges[k]!;
      const e = this.elementCount + k;
      a[e] = bridge.a;
      b[e] = bridge.b;
      siemens[e] = Number.isFinite(bridge.ohms) ? 1 / bridge.ohms : 0;
      injected[e] = (bridge.emfVolts ?? 0) * siemens[e]!;
      touched.push(e);
    }
    return work;
  }

  /** Islands of the elements; those of the base where nothing was opened or newly joined. */
  private islands(elements: Elements & { touched: number[] }): void {
    const { siemens } = this.base;
    const same = elements.touched.every(
      (e) => (elements.siemens[e] === 0) === (e >= siemens.length || siemens[e] === 0),
    );
    if (same) this.roots.set(this.baseRoots);
    else findIslands(this.network.nodeCount, elements, this.roots);
  }

  /**
   * The operating point with some branches altered. Relays start at rest unless `start` names the state of
   * a condition before. Never loops: a relay state met twice is reported as oscillating.
   */
  solve(alteration: Alteration, start?: Uint8Array): OperatingPoint {
    const { network } = this;
    let energised: Uint8Array = start ? start.slice() : this.rests.slice();
    const seen: string[] = [];
    for (;;) {
      const elements = this.elements(alteration, energised);
      const point = this.settle(elements, energised, alteration);
      if (network.relays.length === 0) return point;
      const next = energised.slice();
      for (let r = 0; r < network.relays.length; r++) {
        const relay = network.relays[r]!;
        const coil = network.branches[relay.coilBranch]!;
        const across = Math.abs(point.volts[coil.a]! - point.volts[coil.b]!);
        // An opened coil sees volts but carries nothing.
        const pulls = elements.siemens[relay.coilBranch] === 0 ? 0 : across;
        if (pulls >= relay.pullInVolts) next[r] = 1;
        else if (pulls < relay.dropOutVolts) next[r] = 0;
      }
      if (next.every((state, r) => state === energised[r])) return point;
      const key = energised.join('');
      const before = seen.indexOf(next.join(''));
      seen.push(key);
      if (before >= 0 || seen.length > 4 * network.relays.length + 8) {
        const loop = before >= 0 ? seen.slice(before) : seen.slice(-4);
        const oscillating = network.relays
          .filter((_, r) => loop.some((state) => state[r] !== loop[0]?.[r]))
          .map((relay) => relay.part);
        return { ...point, oscillating };
      }
      energised = next;
    }
  }

  private settle(
    elements: Elements & { touched: number[] },
    energised: Uint8Array,
    alteration: Alteration,
  ): OperatingPoint {
    this.islands(elements);
    const quick = this.update(this.base, elements, elements.touched);
    if (quick && this.residual(quick.volts, quick.amps, elements) <= RESIDUAL_TOLERANCE) {
      return this.finish(quick.volts, quick.amps, energised, alteration);
    }
    return this.anew(elements, energised, alteration);
  }

  /** The same point with the matrix factored anew: the slow way that the quick one is judged by. */
  private anew(elements: Elements, energised: Uint8Array, alteration: Alteration): OperatingPoint {
    const base = new LinearBase(this.network.nodeCount, this.network.datum, elements);
    const exact = this.update(base, elements, []);
    if (!exact) throw new Error('The network has no solution.');
    return this.finish(exact.volts, exact.amps, energised, alteration);
  }

  /** Solves by factoring anew at the relay state that `solve` found; for checking the updates. */
  solveAnew(alteration: Alteration, start?: Uint8Array): OperatingPoint {
    const { energised, oscillating } = this.solve(alteration, start);
    const elements = this.elements(alteration, energised);
    findIslands(this.network.nodeCount, elements, this.roots);
    return { ...this.anew(elements, energised, alteration), oscillating };
  }

  /** Applies every difference between base and elements, junctions included, as one low-rank change. */
  private update(
    base: LinearBase,
    elements: Elements,
    touched: readonly number[],
  ): { volts: Float64Array; amps: Float64Array } | null {
    const { network, branchCount } = this;
    const n = network.nodeCount;
    const z = base.impedance;
    const baseCount = base.siemens.length;
    const portA: number[] = [];
    const portB: number[] = [];
    const delta: number[] = [];
    const inject: number[] = [];
    for (let j = 0; j < network.junctions.length; j++) {
      const e = branchCount + j;
      portA.push(elements.a[e]!);
      portB.push(elements.b[e]!);
      delta.push(0);
      inject.push(0);
    }
    for (const e of touched) {
      const before = e < baseCount ? base.siemens[e]! : 0;
      const injectedBefore = e < baseCount ? base.injected[e]! : 0;
      const d = elements.siemens[e]! - before;
      const i = elements.injected[e]! - injectedBefore;
      if (d !== 0 || i !== 0) {
        portA.push(elements.a[e]!);
        portB.push(elements.b[e]!);
        delta.push(d);
        inject.push(i);
      }
    }
    const mainRoot = this.roots[network.datum];
    for (let node = 0; node < n; node++) {
      const tiedNow = this.roots[node] === node && mainRoot !== node ? 1 : 0;
      if (tiedNow !== base.tied[node]) {
        portA.push(node);
        portB.push(network.datum);
        delta.push(tiedNow ? TIE_SIEMENS : -TIE_SIEMENS);
        inject.push(0);
      }
    }
    const k = portA.length;
    const volts = base.volts.slice();
    const junctionAmps = new Float64Array(network.junctions.length);
    if (k > 0) {
      const open = new Float64Array(k);
      const mutual = new Float64Array(k * k);
      for (let p = 0; p < k; p++) {
        const a = portA[p]! * n;
        const b = portB[p]! * n;
        open[p] = volts[portA[p]!]! - volts[portB[p]!]!;
        for (let q = 0; q < k; q++) {
          const c = portA[q]!;
          const d = portB[q]!;
          mutual[p * k + q] = z[a + c]! - z[a + d]! - z[b + c]! + z[b + d]!;
        }
      }
      /** Adds to node voltages what currents into the ports raise. */
      const spread = (into: Float64Array, source: ArrayLike<number>, sunk: Float64Array) => {
        for (let p = 0; p < k; p++) {
          const amps = (source[p] ?? 0) - sunk[p]!;
          if (amps === 0) continue;
          const a = portA[p]! * n;
          const b = portB[p]! * n;
          for (let i = 0; i < n; i++) into[i] = into[i]! + amps * (z[a + i]! - z[b + i]!);
        }
      };
      const system = new Float64Array(k * k);
      const drawn = new Float64Array(k);
      const junctions = network.junctions;
      const at = this.junctionStart.slice();
      let smallest = 1;
      let lastMoved = Number.POSITIVE_INFINITY;
      for (let round = 0; round < NEWTON_LIMIT; round++) {
        for (let j = 0; j < junctions.length; j++) {
          const { saturationAmps, thermalVolts } = junctions[j]!;
          const { amps, siemens } = junctionCurrent(at[j]!, saturationAmps, thermalVolts);
          junctionAmps[j] = amps;
          delta[j] = siemens - JUNCTION_BASE;
          inject[j] = -(amps - siemens * at[j]!);
        }
        // (1 + D·M) y = D (open + M·inject); ports then stand at open + M (inject - y).
        for (let p = 0; p < k; p++) {
          let raised = open[p]!;
          for (let q = 0; q < k; q++) {
            raised += mutual[p * k + q]! * inject[q]!;
            system[p * k + q] = delta[p]! * mutual[p * k + q]! + (p === q ? 1 : 0);
          }
          drawn[p] = delta[p]! * raised;
        }
        smallest = solveSmall(system, drawn, k);
        if (smallest === 0) return null;
        let moved = 0;
        for (let j = 0; j < junctions.length; j++) {
          const { saturationAmps, thermalVolts } = junctions[j]!;
          let next = open[j]!;
          for (let q = 0; q < k; q++) next += mutual[j * k + q]! * (inject[q]! - drawn[q]!);
          const critical = thermalVolts * Math.log(thermalVolts / (Math.SQRT2 * saturationAmps));
          const limited = limitJunction(next, at[j]!, thermalVolts, critical);
          moved = Math.max(moved, Math.abs(limited - at[j]!));
          at[j] = limited;
        }
        if (moved <= NEWTON_TOLERANCE) break;
        // Behind a blocking junction rounding alone moves the voltage; more rounds would not settle it further.
        if (moved <= NEWTON_NOISE && moved >= lastMoved / 2) break;
        lastMoved = moved;
        if (round === NEWTON_LIMIT - 1) return null;
      }
      spread(volts, inject, drawn);
      if (smallest < LOST_DIGITS) {
        // Iterative refinement: what Kirchhoff's law still lacks is put in once more.
        const lacking = this.lackingAmps(volts, junctionAmps, elements);
        const correction = new Float64Array(n);
        for (let node = 0; node < n; node++) {
          const amps = lacking[node]!;
          if (amps === 0) continue;
          const row = node * n;
          for (let i = 0; i < n; i++) correction[i] = correction[i]! + amps * z[row + i]!;
        }
        for (let p = 0; p < k; p++) {
          for (let q = 0; q < k; q++) {
            system[p * k + q] = delta[p]! * mutual[p * k + q]! + (p === q ? 1 : 0);
          }
          drawn[p] = delta[p]! * (correction[portA[p]!]! - correction[portB[p]!]!);
        }
        if (solveSmall(system, drawn, k) === 0) return null;
        spread(correction, NOTHING, drawn);
        for (let i = 0; i < n; i++) volts[i] = volts[i]! + correction[i]!;
      }
    }
    const amps = new Float64Array(elements.count);
    const { siemens: g, injected: source, a: from, b: to } = elements;
    for (let e = 0; e < elements.count; e++) {
      amps[e] =
        e >= branchCount && e < this.elementCount
          ? junctionAmps[e - branchCount]!
          : g[e]! * (volts[from[e]!]! - volts[to[e]!]!) - source[e]!;
    }
    return { volts, amps };
  }

  /** Current that each node still lacks for Kirchhoff's law, ampere; ties and the datum aside. */
  private lackingAmps(volts: Float64Array, junctionAmps: Float64Array, elements: Elements): Float64Array {
    const { count, a, b, siemens, injected } = elements;
    const lacking = new Float64Array(volts.length);
    for (let e = 0; e < count; e++) {
      const from = a[e]!;
      const to = b[e]!;
      const amps =
        e >= this.branchCount && e < this.elementCount
          ? junctionAmps[e - this.branchCount]!
          : siemens[e]! * (volts[from]! - volts[to]!) - injected[e]!;
      lacking[from] = lacking[from]! - amps;
      lacking[to] = lacking[to]! + amps;
    }
    lacking[this.network.datum] = 0;
    return lacking;
  }

  /** Largest breach of Kirchhoff's current law, as a fraction of the largest current. */
  private residual(volts: Float64Array, amps: Float64Array, elements: Elements): number {
    const sums = new Float64Array(volts.length);
    let largest = 1e-3;
    for (let e = 0; e < elements.count; e++) {
      const current = amps[e]!;
      if (!Number.isFinite(current)) return Number.POSITIVE_INFINITY;
      largest = Math.max(largest, Math.abs(current), elements.injected[e]! * 1e-3);
      sums[elements.a[e]!] = sums[elements.a[e]!]! + current;
      sums[elements.b[e]!] = sums[elements.b[e]!]! - current;
    }
    let worst = 0;
    for (let node = 0; node < sums.length; node++) {
      if (node !== this.network.datum) worst = Math.max(worst, Math.abs(sums[node]!));
    }
    return worst / largest;
  }

  private finish(
    volts: Float64Array,
    elementAmps: Float64Array,
    energised: Uint8Array,
    alteration: Alteration,
  ): OperatingPoint {
    const { network, roots } = this;
    const floating = new Uint8Array(network.nodeCount);
    const main = roots[network.datum];
    let anyFloating = false;
    for (let node = 0; node < network.nodeCount; node++) {
      if (roots[node] !== main) {
        floating[node] = 1;
        anyFloating = true;
      }
    }
    if (anyFloating) this.centreIslands(volts);
    const amps = new Float64Array(this.branchCount + alteration.bridges.length);
    amps.set(elementAmps.subarray(0, this.branchCount));
    amps.set(
      elementAmps.subarray(this.elementCount, this.elementCount + alteration.bridges.length),
      this.branchCount,
    );
    return { volts, floating, amps, energised, oscillating: [] };
  }

  /** An island leaks equally from every node, so that its nodes average to zero. */
  private centreIslands(volts: Float64Array): void {
    const { roots } = this;
    const main = roots[this.network.datum]!;
    const sums = new Map<number, { sum: number; count: number }>();
    for (let node = 0; node < volts.length; node++) {
      const root = roots[node]!;
      if (root === main) continue;
      const entry = sums.get(root) ?? { sum: 0, count: 0 };
      entry.sum += volts[node]!;
      entry.count++;
      sums.set(root, entry);
    }
    for (let node = 0; node < volts.length; node++) {
      const entry = sums.get(roots[node]!);
      if (entry) volts[node] = volts[node]! - entry.sum / entry.count;
    }
  }
}
