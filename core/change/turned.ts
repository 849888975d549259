/**
 * One circuit in many settings. A condition is factored once for each position of key, engine and plugs; switches are turned
 * as contacts that are held in it, which takes a small part of the time and gives the same volts.
 */
import type { CircuitPart } from '../format';
import { conditionOf, type Dial } from '../live';
import { type BranchChange, type CircuitModel, type OperatingPoint, UNALTERED } from '../network';
import type { At } from './settings';

/** So many switches are turned in the condition itself: what is held has then less to change. */
const IN_CONDITION = 2;

export class Turned {
  /** Dials that this circuit has. */
  private readonly own: readonly Dial[];
  /** Switches that are held instead of turned. */
  private readonly held: ReadonlyMap<string, CircuitPart & { readonly kind: 'switch' }>;

  constructor(
    private readonly model: CircuitModel,
    dials: readonly Dial[],
  ) {
    const parts = new Map(model.circuit.parts.map((part) => [part.id, part]));
    this.own = dials.filter(({ id }) => id === 'key' || id === 'engine' || parts.has(id));
    const switches = this.own.flatMap(({ id }) => {
      const part = parts.get(id);
      return part?.kind === 'switch' ? [part] : [];
    });
    this.held = new Map(switches.slice(IN_CONDITION).map((part) => [part.id, part]));
  }

  /** The operating point where everything stands so; what is not named stands at rest. */
  at(at: At): OperatingPoint {
    const turned = Object.fromEntries(Object.entries(at).filter(([id]) => !this.held.has(id)));
    const changes: BranchChange[] = [];
    for (const [id, part] of this.held) {
      const position = at[id] ?? part.rest;
      if (position === part.rest) continue;
      const branches = this.model.network.branchesOfPart.get(id) ?? [];
      for (const [index, { closedIn }] of part.contacts.entries()) {
        const closed = closedIn.includes(position);
        if (closed !== closedIn.includes(part.rest))
          changes.push({ branch: branches[index]!, held: closed ? 'closed' : 'open' });
      }
    }
    const condition = this.model.adopt(conditionOf(this.own, turned));
    return this.model.solve(condition, changes.length === 0 ? UNALTERED : { changes, bridges: [] });
  }
}
