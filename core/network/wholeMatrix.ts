/**
 * A state factored from nothing: the whole matrix, its junctions iterated by Newton's method. The slow way, by
 * which a base is made and which answers where a few changed elements of a base would lose digits.
 */
import type { Network } from '../circuit';
import type { Alteration } from './alteration';
import type { BentJunctions } from './bend';
import type { Elements } from './elements';
import type { Factorization } from './factorization';
import type { Ports } from './ports';
import type { ShapeFinder } from './shape';
import { SparseFactor, SparsePattern, type Varying } from './sparse';

const NEWTON_LIMIT = 120;
/** Volts within which an iterated junction counts as settled. */
const NEWTON_TOLERANCE = 1e-10;
/** The same in a rough look. */
const ROUGH_STEP = 1e-3;
const IDLE_VOLTS = 1e-9;
const IDLE_SIEMENS = 0.01;
/** Sets of bridges whose order of elimination is kept. */
const KEPT_WORK = 48;

/** Elements of a state, and the volts that they give. */
export class Workspace {
  readonly factor: SparseFactor;
  /** Branches, junctions as straight lines, then bridges. */
  readonly siemens: Float64Array;
  readonly injected: Float64Array;
  readonly ties: Float64Array;
  readonly junctionVolts: Float64Array;
  /** 1 for a junction that carries nothing and is held by a conductance which is not its own. */
  readonly heldIdle: Uint8Array;
  readonly wanted: Float64Array;
  readonly volts: Float64Array;
  /** Ampere into the nodes: of the junctions, and of all else. */
  readonly amps: Float64Array;
  readonly fixedAmps: Float64Array;

  constructor(pattern: SparsePattern, junctionCount: number) {
    this.factor = new SparseFactor(pattern);
    this.siemens = new Float64Array(pattern.elementCount);
    this.injected = new Float64Array(pattern.elementCount);
    this.ties = new Float64Array(pattern.nodeCount);
    this.junctionVolts = new Float64Array(junctionCount);
    this.heldIdle = new Uint8Array(junctionCount);
    this.wanted = new Float64Array(junctionCount);
    this.volts = new Float64Array(pattern.nodeCount);
    this.amps = new Float64Array(pattern.nodeCount);
    this.fixedAmps = new Float64Array(pattern.nodeCount);
  }
}

export class WholeMatrix {
  private readonly pattern: SparsePattern;
  /** By the ends of the bridges; written over by the next state with the same. */
  private readonly kept = new Map<string, Workspace>();

  constructor(
    private readonly network: Network,
    private readonly elements: Elements,
    private readonly bent: BentJunctions,
    private readonly shapes: ShapeFinder,
  ) {
    const { a, b } = elements;
    this.pattern = new SparsePattern(network.nodeCount, network.datum, a, b, a.length, this.varying);
  }

  /**
   * The present state factored from nothing, started at the junctions of `near`, in a workspace of its own. Null when
   * they do not settle. For states without bridges.
   */
  factor(near: Factorization | null): Workspace | null {
    const work = new Workspace(this.pattern, this.elements.junctionCount);
    return this.fill(work, [], near) ? work : null;
  }

  /** Volts of the present state from nothing; null when its junctions do not settle. To be copied before the next. */
  volts({ bridges }: Alteration, near: Factorization | null): Float64Array | null {
    const conducting = bridges.filter((bridge) => this.elements.bridgeSiemens(bridge) > 0);
    const work = this.workFor(conducting);
    return this.fill(work, conducting, near) ? work.volts : null;
  }

  private fill(work: Workspace, bridges: Alteration['bridges'], near: Factorization | null): boolean {
    const { elements, shapes } = this;
    const { branchCount, junctionCount } = elements;
    const first = branchCount + junctionCount;
    shapes.begin();
    for (let e = 0; e < branchCount; e++) {
      work.siemens[e] = elements.siemens(e);
      work.injected[e] = work.siemens[e]! * elements.emfVolts(e);
      if (work.siemens[e]! > 0) shapes.join(elements.a[e]!, elements.b[e]!);
    }
    bridges.forEach((bridge, k) => {
      work.siemens[first + k] = elements.bridgeSiemens(bridge);
      work.injected[first + k] = work.siemens[first + k]! * (bridge.emfVolts ?? 0);
      shapes.join(bridge.a, bridge.b);
    });
    shapes.finish(work.ties);
    if (near) work.junctionVolts.set(near.junctionVolts);
    else work.junctionVolts.fill(0);
    return this.newton(work, NEWTON_TOLERANCE);
  }

  private workFor(bridges: Alteration['bridges']): Workspace {
    const key = bridges.map(({ a, b }) => `${a}/${b}`).join(' ');
    let work = this.kept.get(key);
    if (!work) {
      if (this.kept.size >= KEPT_WORK) this.kept.delete(this.kept.keys().next().value!);
      work = new Workspace(this.patternWith(bridges), this.elements.junctionCount);
      this.kept.set(key, work);
    }
    return work;
  }

  /** Junctions are what varies from round to round. */
  private get varying(): Varying {
    const { branchCount, junctionCount } = this.elements;
    return { from: branchCount, to: branchCount + junctionCount };
  }

  private patternWith(bridges: Alteration['bridges']): SparsePattern {
    if (bridges.length === 0) return this.pattern;
    const { nodeCount, datum } = this.network;
    const first = this.elements.a.length;
    const a = new Int32Array(first + bridges.length);
    const b = new Int32Array(first + bridges.length);
    a.set(this.elements.a);
    b.set(this.elements.b);
    bridges.forEach((bridge, k) => {
      a[first + k] = bridge.a;
      b[first + k] = bridge.b;
    });
    return new SparsePattern(nodeCount, datum, a, b, a.length, this.varying);
  }

  /**
   * Volts everywhere, started where the ports of a base left off; `across` gives these volts. In a rough look they
   * are good to a few millivolts. Null when they do not settle. For states without bridges.
   */
  polish(
    base: Factorization,
    ports: Ports,
    across: (from: number, to: number) => number,
    rough: boolean,
  ): Float64Array | null {
    const { elements, bent } = this;
    const { branchCount, junctionCount, a, b } = elements;
    const work = this.workFor([]);
    for (let j = 0; j < junctionCount; j++) {
      const e = branchCount + j;
      work.junctionVolts[j] = bent.cut[j] === 1 ? 0 : across(a[e]!, b[e]!);
    }
    for (let i = 0; i < bent.count; i++) work.junctionVolts[bent.junction[i]!] = bent.volts[i]!;
    work.siemens.set(base.siemens);
    work.injected.set(base.injected);
    for (let p = 0; p < ports.count; p++) {
      const e = ports.element[p]!;
      if (e < 0 || e >= branchCount) continue;
      work.siemens[e] = elements.siemens(e);
      work.injected[e] = work.siemens[e]! * elements.emfVolts(e);
    }
    this.shapes.tieIslands(work.ties);
    if (!this.newton(work, rough ? ROUGH_STEP : NEWTON_TOLERANCE)) return null;
    bent.remember(work.junctionVolts);
    return work.volts;
  }

  /**
   * A junction without any volts carries nothing, whatever conductance stands for it. A middling one keeps the
   * ohms that the network shows it within what can be computed with.
   */
  holdIdle(work: Workspace): void {
    const { branchCount, junctionCount, a, b } = this.elements;
    let idle = false;
    for (let j = 0; j < junctionCount; j++) {
      if (Math.abs(work.junctionVolts[j]!) > IDLE_VOLTS) continue;
      // The line goes on passing through the point that was found.
      const e = branchCount + j;
      const across = work.volts[a[e]!]! - work.volts[b[e]!]!;
      const flows = work.siemens[e]! * across - work.injected[e]!;
      work.siemens[e] = IDLE_SIEMENS;
      work.injected[e] = IDLE_SIEMENS * across - flows;
      work.heldIdle[j] = 1;
      idle = true;
    }
    if (idle) work.factor.factor(work.siemens);
  }

  /** Iterates the junctions of a workspace until they settle; its factor and volts then belong together. */
  private newton(work: Workspace, tolerance: number): boolean {
    const { bent } = this;
    const { branchCount, junctionCount } = this.elements;
    const { factor, siemens, injected, junctionVolts, wanted, volts, amps, fixedAmps } = work;
    const { a, b, elementCount } = factor.pattern;
    const end = branchCount + junctionCount;
    factor.assemble(siemens, work.ties);
    fixedAmps.fill(0);
    for (let e = 0; e < elementCount; e++) {
      if (e >= branchCount && e < end) continue;
      fixedAmps[a[e]!] = fixedAmps[a[e]!]! + injected[e]!;
      fixedAmps[b[e]!] = fixedAmps[b[e]!]! - injected[e]!;
    }
    factor.begin(fixedAmps);
    for (let round = 0; round < NEWTON_LIMIT; round++) {
      for (let e = branchCount; e < end; e++) {
        amps[a[e]!] = 0;
        amps[b[e]!] = 0;
      }
      for (let j = 0; j < junctionCount; j++) {
        const at = junctionVolts[j]!;
        const e = branchCount + j;
        const flows = bent.amps(j, at);
        siemens[e] = bent.siemens(j, at, flows);
        injected[e] = siemens[e]! * at - flows;
        amps[a[e]!] = amps[a[e]!]! + injected[e]!;
        amps[b[e]!] = amps[b[e]!]! - injected[e]!;
      }
      if (!factor.factor(siemens)) return false;
      factor.solveVarying(amps, volts);
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
      if (largest <= tolerance) {
        factor.complete(volts);
        return true;
      }
      junctionVolts.set(wanted);
    }
    return false;
  }
}
