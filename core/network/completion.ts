/** From what the ports draw to the volts of every node, as exact as they have to be. */
import type { Alteration } from './alteration';
import type { BentJunctions } from './bend';
import type { Factorization } from './factorization';
import type { KirchhoffCheck } from './kirchhoff';
import type { Ports } from './ports';
import { spread } from './spread';
import type { Column } from './watched';

/** Below this pivot so many digits are lost that the result is refined. */
const REFINE_BELOW = 1e-5;
/** Above this pivot, and with no more than so many times the nominal volts to cancel, nothing need be checked. */
const SURE_PIVOT = 1e-5;
const SURE_VOLTS = 1e3;
/** Of so many columns the branches are spread as the nodes are. By measurement. */
const FEW_COLUMNS = 4;
/** Kirchhoff's current law must hold to this fraction of the largest current. */
const RESIDUAL_TOLERANCE = 1e-10;

export class Completion {
  /** What flows through which columns, of ports and of junctions, in the state that was completed last. */
  private readonly columns: Column[] = [];
  private readonly volts: Float64Array[] = [];
  private readonly branchAmps: Float64Array[] = [];
  private amps = new Float64Array(32);
  private count = 0;
  private refined = false;

  constructor(
    private readonly ports: Ports,
    private readonly bent: BentJunctions,
    private readonly kirchhoff: KirchhoffCheck,
    private readonly nominalVolts: number,
  ) {}

  /** Whether the volts that the ports of a base give need no check; `smallestPivot` is theirs. */
  isSure(base: Factorization | null, smallestPivot: number): boolean {
    const { ports, bent } = this;
    if (!base || smallestPivot <= SURE_PIVOT) return false;
    // Large volts that cancel one another lose digits.
    const most = SURE_VOLTS * this.nominalVolts;
    for (let p = 0; p < ports.count; p++) {
      const column = ports.columns[p]!.volts;
      if (Math.abs(ports.drawn[p]! * (column[ports.a[p]!]! - column[ports.b[p]!]!)) >= most) return false;
    }
    for (let i = 0; i < bent.count; i++) {
      if (Math.abs(bent.excess[i]! * bent.ownOhms(i)) >= most) return false;
    }
    return true;
  }

  /** Volts everywhere, in `volts`; without a base they are there already. False where Kirchhoff's law does not hold. */
  fill(
    volts: Float64Array,
    base: Factorization | null,
    smallestPivot: number,
    alteration: Alteration,
  ): boolean {
    const { ports, bent, kirchhoff } = this;
    if (!base) return kirchhoff.residual(volts, alteration) <= RESIDUAL_TOLERANCE;
    const needed = ports.count + bent.count;
    if (this.amps.length < needed) this.amps = new Float64Array(2 * needed);
    this.count = 0;
    for (let p = 0; p < ports.count; p++) this.flow(ports.columns[p]!, ports.drawn[p]!);
    for (let i = 0; i < bent.count; i++) this.flow(bent.columns[i]!, bent.excess[i]!);
    spread(base.volts, this.volts, this.amps, this.count, volts);
    this.refined = smallestPivot < REFINE_BELOW && bent.count === 0;
    if (this.refined) kirchhoff.refine(volts, base, ports, alteration);
    return this.isSure(base, smallestPivot) || kirchhoff.residual(volts, alteration) <= RESIDUAL_TOLERANCE;
  }

  private flow(column: Column, amps: number): void {
    this.columns[this.count] = column;
    this.volts[this.count] = column.volts;
    this.amps[this.count++] = amps;
  }

  /**
   * Ampere through every branch of the base, in the state that was completed last; what its ports changed aside. By the
   * columns where they are few, else from the volts.
   */
  fillAmps(base: Factorization, volts: Float64Array, into: Float64Array): void {
    const { count, columns, branchAmps } = this;
    if (count > FEW_COLUMNS || this.refined) {
      base.branchAmps(volts, into);
      return;
    }
    for (let i = 0; i < count; i++) {
      const column = columns[i]!;
      column.amps ??= base.ampsOf(column.volts);
      branchAmps[i] = column.amps;
    }
    spread(base.amps, branchAmps, this.amps, count, into);
  }
}
