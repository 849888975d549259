/** From what the ports draw to the volts of every node, as exact as they have to be. */
import type { Alteration } from './alteration';
import type { BentJunctions } from './bend';
import type { Factorization } from './factorization';
import type { KirchhoffCheck } from './kirchhoff';
import { type Ports, spread } from './ports';
import type { Column } from './watched';

/** Below this pivot so many digits are lost that the result is refined. */
const REFINE_BELOW = 1e-5;
/** Above this pivot, and with no more than so many times the nominal volts to cancel, nothing need be checked. */
const SURE_PIVOT = 1e-5;
const SURE_VOLTS = 1e3;
/** Kirchhoff's current law must hold to this fraction of the largest current. */
const RESIDUAL_TOLERANCE = 1e-10;

export class Completion {
  private readonly columns: Column[] = [];
  private amps = new Float64Array(32);

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
    const { ports, bent, kirchhoff, columns } = this;
    if (!base) return kirchhoff.residual(volts, alteration) <= RESIDUAL_TOLERANCE;
    const needed = ports.count + bent.count;
    if (this.amps.length < needed) this.amps = new Float64Array(2 * needed);
    const { amps } = this;
    let count = 0;
    for (let p = 0; p < ports.count; p++) {
      columns[count] = ports.columns[p]!;
      amps[count++] = ports.drawn[p]!;
    }
    for (let i = 0; i < bent.count; i++) {
      columns[count] = bent.columns[i]!;
      amps[count++] = bent.excess[i]!;
    }
    spread(base.volts, columns, amps, count, volts);
    if (smallestPivot < REFINE_BELOW && bent.count === 0) kirchhoff.refine(volts, base, ports, alteration);
    return this.isSure(base, smallestPivot) || kirchhoff.residual(volts, alteration) <= RESIDUAL_TOLERANCE;
  }
}
