/**
 * What every branch is in the present state of one condition: what its own control makes of it, what sensors
 * open and close, and what an alteration changes. Read branch by branch, in the innermost loops.
 */
import { conducts, type Moment, type Network, type Resolved, resolveControl } from '../circuit';
import type { Alteration, Bridge } from './alteration';

const BY_CONTROL = 0;
const HELD_OPEN = 1;
const HELD_CLOSED = 2;

export class Elements {
  readonly branchCount: number;
  readonly junctionCount: number;
  /** Ends of every branch, then anode and cathode of every junction. */
  readonly a: Int32Array;
  readonly b: Int32Array;
  /** Branches that sensors open and close, and the place of each among them (-1: none). */
  readonly moved: Int32Array;
  readonly movedAt: Int32Array;
  /** Of these: 1 where closed in the present state. */
  readonly closed: Uint8Array;
  /** Siemens of a branch while closed. */
  readonly closedSiemens: Float64Array;
  readonly emf: Float64Array;
  /** Altered branches: how many, and which. */
  alteredCount = 0;
  alteredBranch = new Int32Array(8);

  private readonly resolved: readonly Resolved[];
  /** The one sensor that moves a branch, -1 where several do; and the state in which it is closed. */
  private readonly bySensor: Int32Array;
  private readonly whenOn: Uint8Array;
  private alteredOhms = new Float64Array(8);
  private alteredEmf = new Float64Array(8);
  private alteredHeld = new Uint8Array(8);
  // Number of the altered entry by branch, valid where the stamp is the present one.
  private tick = 0;
  private readonly stamp: Int32Array;
  private readonly entryOf: Int32Array;

  constructor(
    private readonly network: Network,
    condition: Moment,
  ) {
    const { branches, junctions } = network;
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
    this.closed = new Uint8Array(this.moved.length);
    this.stamp = new Int32Array(this.branchCount);
    this.entryOf = new Int32Array(this.branchCount);
  }

  /** Collects what is altered, branch by branch; later changes act on what earlier ones left. */
  take({ changes }: Alteration): void {
    this.tick++;
    this.alteredCount = 0;
    if (changes.length > this.alteredBranch.length) this.grow(2 * changes.length);
    for (let c = 0; c < changes.length; c++) {
      const change = changes[c]!;
      const e = change.branch;
      if (this.stamp[e] !== this.tick) {
        const made = this.alteredCount++;
        this.stamp[e] = this.tick;
        this.entryOf[e] = made;
        this.alteredBranch[made] = e;
        this.alteredOhms[made] = this.network.branches[e]!.ohms;
        this.alteredEmf[made] = this.emf[e]!;
        this.alteredHeld[made] = BY_CONTROL;
      }
      const entry = this.entryOf[e]!;
      if (change.ohms !== undefined) this.alteredOhms[entry] = change.ohms;
      if (change.emfVolts !== undefined) this.alteredEmf[entry] = change.emfVolts;
      if (change.held !== undefined) {
        this.alteredHeld[entry] = change.held === 'open' ? HELD_OPEN : HELD_CLOSED;
      }
    }
  }

  private grow(room: number): void {
    this.alteredBranch = new Int32Array(room);
    this.alteredOhms = new Float64Array(room);
    this.alteredEmf = new Float64Array(room);
    this.alteredHeld = new Uint8Array(room);
  }

  /** Opens and closes what sensors move, 1 in `states` for a sensor that is on. */
  closeContacts(states: Uint8Array): void {
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

  isAltered(e: number): boolean {
    return this.stamp[e] === this.tick;
  }

  /** Siemens of a branch by its own control in the present state. */
  private ownSiemens(e: number): number {
    const at = this.movedAt[e]!;
    return at < 0 || this.closed[at] === 1 ? this.closedSiemens[e]! : 0;
  }

  /** Siemens of an altered branch in the present state, by its entry. */
  alteredSiemens(entry: number): number {
    const held = this.alteredHeld[entry]!;
    if (held === HELD_OPEN) return 0;
    if (held === BY_CONTROL && this.ownSiemens(this.alteredBranch[entry]!) === 0) return 0;
    const ohms = this.alteredOhms[entry]!;
    return ohms === Number.POSITIVE_INFINITY ? 0 : 1 / ohms;
  }

  alteredVolts(entry: number): number {
    return this.alteredEmf[entry]!;
  }

  /** Siemens of any branch in the present state. */
  siemens(e: number): number {
    return this.stamp[e] === this.tick ? this.alteredSiemens(this.entryOf[e]!) : this.ownSiemens(e);
  }

  /** Volts of the source in any branch. */
  emfVolts(e: number): number {
    return this.stamp[e] === this.tick ? this.alteredEmf[this.entryOf[e]!]! : this.emf[e]!;
  }

  bridgeSiemens(bridge: Bridge): number {
    if (bridge.ohms === Number.POSITIVE_INFINITY) return 0;
    if (bridge.follows !== undefined && this.ownSiemens(bridge.follows) === 0) return 0;
    return 1 / bridge.ohms;
  }
}
