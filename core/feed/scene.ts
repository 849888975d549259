/** What a search for feeds rests on: boxes, readings, circuits, and what somebody said; where the circuits have each slot. */
import { PROTECTORS } from '../circuit';
import type { CircuitFile, Panel, Slot } from '../format';
import type { KeyState, Liveness, SlotReading } from '../limits';
import type { CircuitModel } from '../network';
import { type Present, presentIn } from './present';
import { feedPoint, type Simulated, simulate } from './simulated';

/** What a person says of a slot’s supply, besides what the map has. */
export interface SaidOfSupply {
  /** Parts before the slot with their ratings. */
  readonly parts: readonly { readonly name: string; readonly ratingAmps: number | null }[];
  /** Everything on it at once, ampere; null where nobody has said it. */
  readonly onAmps: number | null;
  /** Read with a clamp or over a fuse, everything on; instead of what is worked out. */
  readonly measured: { readonly amps: number; readonly how: 'clamp' | 'fuse drop' } | null;
}

export interface FeedScene {
  /** Boxes as they stand, states and safety answers in. */
  readonly panels: readonly Panel[];
  readonly readings: readonly SlotReading[];
  /** Circuits that share nothing but the supply, each as its own model. */
  readonly models: readonly CircuitModel[];
  readonly nominalVolts: number;
  /** By `panel/slot`. */
  readonly said: Readonly<Record<string, SaidOfSupply>>;
}

export interface StateOfFeed {
  readonly state: KeyState;
  readonly read: Liveness | null;
  readonly simulated: Liveness | null;
  /** What counts: the reading, else the circuit; null where neither says. */
  readonly stands: Liveness | null;
  /** What the feed that stands on the map would be there: it counts for the order only, and is no reading. */
  readonly mapped: Liveness | null;
  readonly differs: boolean;
}

export const feedKey = (panel: string, slot: string) => `${panel}/${slot}`;

/** Where in the circuits a slot is. */
export interface InCircuits {
  readonly model: CircuitModel;
  readonly node: string;
  readonly partId: string;
}

export const NOWHERE: readonly InCircuits[] = [];
export const NO_READINGS: readonly SlotReading[] = [];

/** Where the circuits have the slots of a scene, found once for all of them. */
export interface Drawn {
  readonly at: ReadonlyMap<string, readonly InCircuits[]>;
  /** Slots that any circuit has a part in. */
  readonly slots: ReadonlySet<string>;
  /** Fuses in use that no circuit has, by box. */
  readonly undeclared: ReadonlyMap<string, number>;
  readonly readings: ReadonlyMap<string, readonly SlotReading[]>;
}

export function drawnIn({ models, panels, readings: all }: FeedScene): Drawn {
  const readings = new Map<string, SlotReading[]>();
  for (const one of all) {
    const key = feedKey(one.panel, one.slot);
    const own = readings.get(key);
    if (own) own.push(one);
    else readings.set(key, [one]);
  }
  const at = new Map<string, InCircuits[]>();
  const slots = new Set<string>();
  for (const model of models) {
    for (const { slot } of model.circuit.parts) {
      if (!slot) continue;
      const key = feedKey(slot.panel, slot.slot);
      slots.add(key);
      const point = feedPoint(model.circuit, slot.panel, slot.slot);
      if (point) at.set(key, [...(at.get(key) ?? []), { model, node: point.node, partId: point.part.id }]);
    }
  }
  const undeclared = new Map(
    panels.map((panel) => [
      panel.id,
      panel.slots.filter((slot) => isUsed(slot) && !slots.has(feedKey(panel.id, slot.id))).length,
    ]),
  );
  return { at, slots, undeclared, readings };
}

/** The same question about a scene asked with other wishes finds the circuits’ part of it again. */
const known = new WeakMap<
  CircuitModel,
  { simulated: Map<string, Simulated>; present: Map<string, Present> }
>();

function memory(model: CircuitModel) {
  const found = known.get(model) ?? { simulated: new Map(), present: new Map() };
  known.set(model, found);
  return found;
}

export function simulatedAt(model: CircuitModel, node: string): Simulated {
  const { simulated } = memory(model);
  const found = simulated.get(node) ?? simulate(model, node);
  simulated.set(node, found);
  return found;
}

export function presentOver(model: CircuitModel, states: readonly KeyState[]): Present {
  const { present } = memory(model);
  const key = states.join();
  const found = present.get(key) ?? presentIn(model, states);
  present.set(key, found);
  return found;
}

/** A fuse that carries something. */
export const isUsed = ({ type, state }: Slot) =>
  type === 'fuse' && (state === 'fitted' || state === 'tapped');

/** Circuits of a vehicle in groups that share nothing but their supply: what two of them switch or use is in one group. */
export function groupsOf(circuits: readonly CircuitFile[]): readonly (readonly CircuitFile[])[] {
  const own = (circuit: CircuitFile) =>
    new Set(circuit.parts.flatMap(({ id, kind }) => (SUPPLY.includes(kind) ? [] : [id])));
  const groups: { files: CircuitFile[]; parts: Set<string> }[] = [];
  for (const circuit of circuits) {
    const parts = own(circuit);
    const meets = groups.filter((group) => [...parts].some((id) => group.parts.has(id)));
    const joined = { files: [circuit], parts };
    for (const group of meets) {
      joined.files.unshift(...group.files);
      for (const id of group.parts) joined.parts.add(id);
      groups.splice(groups.indexOf(group), 1);
    }
    groups.push(joined);
  }
  return groups.map(({ files }) => files);
}

/** What circuits may have in common and still be apart: what carries current and is not switched by hand. */
const SUPPLY: readonly CircuitFile['parts'][number]['kind'][] = [
  'battery',
  'charging-source',
  ...PROTECTORS,
  'wire',
  'connector',
  'splice',
  'ground',
  'key-contact',
];
