/** The headroom of a slot: present and added in every part that will carry it, from circuits, words and what was read. */
import type { Panel, Slot } from '../format';
import { type KeyState, terminalAmps } from '../limits';
import { type Carrier, type Headroom, headroom } from '../sizing';
import { ASKED_STATES, type FeedAsk, shareFor } from './ask';
import {
  type Drawn,
  type FeedScene,
  feedKey,
  type InCircuits,
  isUsed,
  presentOver,
  type SaidOfSupply,
  type StateOfFeed,
} from './scene';
import { type Carrying, carrying, ratingOf } from './simulated';

/** What a slot can still give: over every part that would carry the current, and what is not known of them. */
export function headroomAt(
  scene: FeedScene,
  drawn: Drawn,
  ask: FeedAsk,
  panel: Panel,
  slot: Slot,
  inCircuits: readonly InCircuits[],
  states: readonly StateOfFeed[],
): Headroom {
  const said = scene.said[feedKey(panel.id, slot.id)];
  const hot = ask.place === 'hot';
  const factor = shareFor(ask);
  // The device may run in every state that is not asked to be dead.
  const on = ASKED_STATES.filter((state) => ask.wanted[state] !== 'dead');
  const live = on.filter((state) => states.find((one) => one.state === state)?.simulated === 'live');
  const measured = said?.measured ?? null;
  const carriers: Carrier[] = [];
  for (const { model, branch, part, share } of carryingIn(inCircuits, live, ask.amps)) {
    const ratingAmps = ratingOf(part, hot);
    if (ratingAmps === undefined) continue;
    const flows = inAll(scene, part.id, model.network.branches[branch]!.label, on);
    const presentAmps = measured?.amps ?? flows + (said?.onAmps ?? 0);
    carriers.push({ name: named(part.name, measured), ratingAmps, presentAmps, share });
  }
  for (const part of said?.parts ?? []) {
    carriers.push({
      ...part,
      name: named(part.name, measured),
      presentAmps: measured?.amps ?? said?.onAmps ?? null,
      share: 1,
    });
  }
  const terminal = terminalAmps(slot.family);
  if (terminal !== null && slot.family !== 'none') {
    const flows = inCircuits[0]
      ? inAll(scene, inCircuits[0].partId, null, on)
      : ownAmps(slot, said?.onAmps ?? null);
    carriers.push({
      name: `the terminal of ${slot.type} ${slot.number}`,
      ratingAmps: terminal,
      presentAmps: flows,
      share: 1,
    });
  }
  const declared = measured !== null || (said?.onAmps !== undefined && said.onAmps !== null);
  // What draws in the same box hangs on the same supply, as far as anybody knows.
  const own = isUsed(slot) && !drawn.slots.has(feedKey(panel.id, slot.id)) ? 1 : 0;
  const others = declared ? 0 : drawn.undeclared.get(panel.id)! - own;
  const upstream = live.length > 0 || (said?.parts.length ?? 0) > 0;
  const room = headroom(carriers, ask.amps, factor, others > 0);
  const missing = [
    ...room.missing.filter((words) => words !== 'whether anything else hangs on it'),
    ...(others > 0
      ? [`what ${others === 1 ? 'the other fuse' : `the ${others} other fuses`} of the box draw`]
      : []),
    ...(upstream ? [] : ['which fuse, wire and contact feed it']),
  ];
  return {
    ...room,
    missing,
    verdict: room.verdict === 'none' ? 'none' : missing.length > 0 ? 'incomplete' : room.verdict,
  };
}

/** A part with what was read in place of what is worked out. */
function named(name: string, measured: SaidOfSupply['measured']): string {
  return measured === null ? name : `${name} (${measured.how === 'clamp' ? 'clamp' : 'over a fuse'})`;
}

/**
 * Nothing flows behind an empty hole. What an unmapped fuse draws nobody knows; it is no more than all that is on its supply,
 * where that was said, and than its own rating.
 */
function ownAmps(slot: Slot, onSupply: number | null): number | null {
  if (slot.state === 'empty' || slot.state === 'not-ordered' || slot.state === 'missing') return 0;
  return onSupply === null ? null : Math.min(onSupply, slot.ratingAmps ?? onSupply);
}

/** Parts that carry the added current in any state in which it may flow, each with its largest share. */
function carryingIn(
  inCircuits: readonly InCircuits[],
  states: readonly KeyState[],
  addedAmps: number,
): (Carrying & Pick<InCircuits, 'model'>)[] {
  const found = new Map<string, Carrying & Pick<InCircuits, 'model'>>();
  for (const { model, node } of inCircuits) {
    for (const state of states) {
      for (const one of carrying(model, node, state, addedAmps)) {
        const key = `${one.part.id} ${model.network.branches[one.branch]!.label}`;
        const before = found.get(key);
        if (!before || one.share > before.share)
          found.set(key, { ...one, model: before?.model ?? model, branch: before?.branch ?? one.branch });
      }
    }
  }
  return [...found.values()];
}

/**
 * The largest current in a part over all circuits that have it: each at its own worst, added up. Circuits that share
 * nothing but the supply add up; loads that two of them have in common are in one model.
 */
function inAll(
  { models }: FeedScene,
  partId: string,
  label: string | null,
  states: readonly KeyState[],
): number {
  let sum = 0;
  for (const model of models) {
    const branches = model.network.branchesOfPart.get(partId) ?? [];
    const own = branches.filter(
      (branch) => label === null || model.network.branches[branch]!.label === label,
    );
    if (own.length === 0) continue;
    const { amps } = presentOver(model, states);
    sum += Math.max(...own.map((branch) => amps[branch]!));
  }
  return sum;
}
