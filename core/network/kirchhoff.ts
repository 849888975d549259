/** Kirchhoff's current law as the judge of volts that were found: what they leave unbalanced, and one step to mend it. */
import type { Network } from '../circuit';
import type { Alteration } from './alteration';
import type { BentJunctions } from './bend';
import type { Elements } from './elements';
import type { Factorization } from './factorization';
import type { Ports } from './ports';
import { spread } from './spread';

/** Share of the largest short-circuit current below which a current counts as none when the law is checked. */
const SMALL_SHARE = 1e-3;

export class KirchhoffCheck {
  /** Current that each node lacks, ampere. */
  private readonly lacking: Float64Array;
  private readonly correction: Float64Array;
  /** Rounding alone leaves so much that no smaller current can be judged by it, ampere. */
  private readonly currentFloor: number;

  constructor(
    private readonly network: Network,
    private readonly elements: Elements,
    private readonly bent: BentJunctions,
  ) {
    this.lacking = new Float64Array(network.nodeCount);
    this.correction = new Float64Array(network.nodeCount);
    this.currentFloor = network.branches.reduce(
      (floor, { emfVolts, ohms }) => Math.max(floor, (SMALL_SHARE * Math.abs(emfVolts)) / ohms),
      1e-3,
    );
  }

  /** Largest breach of the law, as a fraction of the largest current; NaN where volts are. */
  residual(volts: Float64Array, alteration: Alteration): number {
    const largest = this.lackingAmps(volts, alteration);
    let worst = 0;
    for (let node = 0; node < this.lacking.length; node++) {
      const size = Math.abs(this.lacking[node]!);
      if (!(size <= worst)) worst = size;
    }
    return worst / largest;
  }

  /** Puts in once more what the law still lacks (iterative refinement). */
  refine(volts: Float64Array, base: Factorization, ports: Ports, alteration: Alteration): void {
    const { correction } = this;
    this.lackingAmps(volts, alteration);
    base.raise(this.lacking, correction);
    for (let p = 0; p < ports.count; p++) {
      ports.drawn[p] = ports.delta[p]! * (correction[ports.a[p]!]! - correction[ports.b[p]!]!);
    }
    if (ports.count > 0) ports.system.solve(ports.drawn);
    for (let node = 0; node < volts.length; node++) volts[node] = volts[node]! + correction[node]!;
    const columns = ports.columns.slice(0, ports.count).map((column) => column.volts);
    spread(volts, columns, ports.drawn, ports.count, volts);
  }

  /** Fills `lacking`, the datum aside. Gives the largest current met, ampere; NaN where volts are. */
  private lackingAmps(volts: Float64Array, { bridges }: Alteration): number {
    const { lacking, elements } = this;
    const { branchCount, junctionCount, a, b, emf, movedAt, closedSiemens } = elements;
    let largest = this.currentFloor;
    lacking.fill(0);
    for (let e = 0; e < branchCount; e++) {
      const plain = movedAt[e]! < 0 && !elements.isAltered(e);
      const siemens = plain ? closedSiemens[e]! : elements.siemens(e);
      if (siemens === 0) continue;
      const from = a[e]!;
      const to = b[e]!;
      const amps = siemens * (volts[from]! - volts[to]! - (plain ? emf[e]! : elements.emfVolts(e)));
      lacking[from] = lacking[from]! - amps;
      lacking[to] = lacking[to]! + amps;
      const size = amps < 0 ? -amps : amps;
      if (!(size <= largest)) largest = size;
    }
    for (let j = 0; j < junctionCount; j++) {
      const from = a[branchCount + j]!;
      const to = b[branchCount + j]!;
      const amps = this.bent.amps(j, volts[from]! - volts[to]!);
      lacking[from] = lacking[from]! - amps;
      lacking[to] = lacking[to]! + amps;
    }
    for (let k = 0; k < bridges.length; k++) {
      const { a: from, b: to, emfVolts = 0 } = bridges[k]!;
      const amps = elements.bridgeSiemens(bridges[k]!) * (volts[from]! - volts[to]! - emfVolts);
      lacking[from] = lacking[from]! - amps;
      lacking[to] = lacking[to]! + amps;
      if (!(Math.abs(amps) <= largest)) largest = Math.abs(amps);
    }
    lacking[this.network.datum] = 0;
    return largest;
  }
}
