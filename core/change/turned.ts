/**
 * One circuit in many settings. A condition is factored once for each position of key, engine and plugs; switches are turned
 * as contacts that are held in it, which takes a small part of the time and gives the same volts.
 */
import type { PartOf } from '../format';
import { conditionOf, type Dial } from '../live';
import { type BranchChange, type CircuitModel, type OperatingPoint, UNALTERED } from '../network';
import type { At } from './at';

/** So many switches are turned in the condition itself: what is held has then less to change. */
const IN_CONDITION = 2;

export class Turned {
  /** Dials that this circuit has. */
  private readonly own: readonly Dial[];
  /** Those of them that are turned in the condition. */
  private readonly turned: readonly Dial[];
  /** Switches that are held instead. */
  private readonly held: readonly { readonly part: PartOf<'switch'>; readonly branches: readonly number[] }[];
  private latest: { readonly name: string; readonly condition: string } | null = null;

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
    const held = switches.slice(IN_CONDITION);
    this.held = held.map((part) => ({ part, branches: model.network.branchesOfPart.get(part.id) ?? [] }));
    this.turned = this.own.filter(({ id }) => !held.some((part) => part.id === id));
  }

  /** The operating point where everything stands so; what is not named stands at rest. */
  at(at: At): OperatingPoint {
    const changes: BranchChange[] = [];
    for (const { part, branches } of this.held) {
      const position = at[part.id] ?? part.rest;
      if (position === part.rest) continue;
      for (const [index, { closedIn }] of part.contacts.entries()) {
        const closed = closedIn.includes(position);
        if (closed !== closedIn.includes(part.rest))
          changes.push({ branch: branches[index]!, held: closed ? 'closed' : 'open' });
      }
    }
    return this.model.solve(this.condition(at), changes.length === 0 ? UNALTERED : { changes, bridges: [] });
  }

  /** The condition of all that is turned in it; settings that follow each other mostly share it. */
  private condition(at: At): string {
    const name = this.turned.map(({ id }) => at[id] ?? '').join('|');
    if (this.latest?.name !== name) {
      const turned = Object.fromEntries(
        this.turned.flatMap(({ id }) => (at[id] === undefined ? [] : [[id, at[id]]])),
      );
      this.latest = { name, condition: this.model.adopt(conditionOf(this.own, turned)) };
    }
    return this.latest.condition;
  }
}
