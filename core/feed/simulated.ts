/** What the circuits say of a feed: where it is live, who decides it, and which parts would carry what is added to it. */

import { isProtector } from '../circuit';
import { type ByKind, byKind, type CircuitFile, type CircuitPart, type Condition } from '../format';
import { deratedAmpacity, KEY_STATES, type KeyState, type Liveness, liveness } from '../limits';
import { dialsOf } from '../live';
import { type CircuitModel, UNALTERED } from '../network';

/** Smallest share of the added current by which a part counts as carrying it; less is what other loads lose. */
const CARRIES_SHARE = 0.05;

/** The state of key and engine as a condition; off just after run, off after a long wait. */
export function conditionIn(model: CircuitModel, state: KeyState): Omit<Condition, 'id' | 'name'> {
  switch (state) {
    case 'off':
      return { key: 'off', after: model.adopt({ key: 'run' }), secondsIn: 1 };
    case 'off-waited':
      return { key: 'off' };
    case 'running':
      return { key: 'run', engineRunning: true };
    case 'function-on':
      return { key: 'run' };
    default:
      return { key: state };
  }
}

/** The point that a fuse or stud in a slot is fed from, and its part; null where no circuit has it. */
export function feedPoint(
  circuit: CircuitFile,
  panel: string,
  slot: string,
): { readonly part: CircuitPart; readonly node: string } | null {
  const part = circuit.parts.find((one) => one.slot?.panel === panel && one.slot.slot === slot);
  if (!part || !isProtector(part)) return null;
  return { part, node: part.pins.in };
}

/** A lamp of four watts on it tells a feed from what only reads as one. */
const LAMP_WATTS = 4;

function stands(
  model: CircuitModel,
  node: number,
  condition: Omit<Condition, 'id' | 'name'>,
  alteration = UNALTERED,
): Liveness {
  const nominal = model.circuit.nominalVolts;
  const lamp = { a: node, b: model.network.datum, ohms: (nominal * nominal) / LAMP_WATTS };
  const point = model.solve(model.adopt(condition), {
    ...alteration,
    bridges: [...alteration.bridges, lamp],
  });
  return liveness({ volts: point.volts[node]! }, nominal);
}

export interface Simulated {
  readonly states: ReadonlyMap<KeyState, Liveness>;
  /** A module’s output that decides it, by name; null where none does. */
  readonly module: string | null;
  /** A module pulses it. */
  readonly pulsed: boolean;
}

/** Live or dead in every state by the circuit, nothing being switched on but the key. */
export function simulate(model: CircuitModel, node: string): Simulated {
  const at = model.network.nodeIndex.get(node)!;
  const states = new Map<KeyState, Liveness>();
  for (const state of KEY_STATES) {
    if (state !== 'function-on') states.set(state, stands(model, at, conditionIn(model, state)));
  }
  // What stays dead with nothing switched may be a load side: live once something is.
  if ([...states.values()].every((one) => one === 'dead'))
    states.set('function-on', livesWithSomething(model, at));
  const live = [...states].find(([, one]) => one === 'live')?.[0];
  const decides =
    live === undefined
      ? undefined
      : model.circuit.parts.find(
          (part) =>
            part.kind === 'module-output' &&
            stands(model, at, conditionIn(model, live), without(model, part.id)) === 'dead',
        );
  return {
    states,
    module: decides?.name ?? null,
    pulsed: decides?.kind === 'module-output' && decides.duty !== undefined,
  };
}

function without(model: CircuitModel, part: string) {
  const changes = (model.network.branchesOfPart.get(part) ?? []).map((branch) => ({
    branch,
    held: 'open' as const,
  }));
  return { changes, bridges: [] };
}

/** Live where any one switch is turned, with the key at run. */
function livesWithSomething(model: CircuitModel, node: number): Liveness {
  for (const dial of dialsOf(model.circuit)) {
    if (dial.id === 'key' || dial.id === 'engine' || dial.positions[0] === 'nothing') continue;
    for (const position of dial.positions.slice(1)) {
      if (stands(model, node, { key: 'run', switches: { [dial.id]: position } }) === 'live') return 'live';
    }
  }
  return 'dead';
}

export interface Carrying {
  readonly branch: number;
  readonly part: CircuitPart;
  /** Of the added current, 0 to 1. */
  readonly share: number;
}

/** Parts that would carry what is drawn from a point in a state, with their share; nothing where it is not live there. */
export function carrying(model: CircuitModel, node: string, state: KeyState, addedAmps: number): Carrying[] {
  const { network } = model;
  const at = network.nodeIndex.get(node)!;
  const condition = model.adopt(conditionIn(model, state));
  const before = model.sound(condition);
  if (liveness({ volts: before.volts[at]! }, model.circuit.nominalVolts) !== 'live') return [];
  const ohms = model.circuit.nominalVolts / addedAmps;
  const after = model.solve(condition, { changes: [], bridges: [{ a: at, b: network.datum, ohms }] });
  const drawn = after.volts[at]! / ohms;
  return network.branches.flatMap((branch, index) => {
    const part = network.parts.get(branch.part);
    if (!part || part.kind === 'battery' || part.kind === 'charging-source') return [];
    const share = Math.abs(after.amps[index]! - before.amps[index]!) / drawn;
    return share < CARRIES_SHARE ? [] : [{ branch: index, part, share: Math.min(1, share) }];
  });
}

type Rating = number | null | undefined;
const noLimit = (): Rating => undefined;
const unsaid = (): Rating => null;
const carries = ({ carriesAmps }: { readonly carriesAmps?: number }): Rating => carriesAmps ?? null;
const ofContact = ({ contactRatingAmps }: { readonly contactRatingAmps?: number }): Rating =>
  contactRatingAmps ?? null;

/** What each kind carries for good. */
const RATINGS: ByKind<Rating, [hot: boolean]> = {
  battery: noLimit,
  'charging-source': noLimit,
  fuse: ({ ratingAmps }) => ratingAmps ?? null,
  'fusible-link': ({ ratingAmps }) => ratingAmps,
  breaker: ({ ratingAmps }) => ratingAmps,
  polyfuse: ({ ratingAmps }) => ratingAmps,
  wire: ({ sizeMm2 }, hot) => (sizeMm2 === undefined ? null : deratedAmpacity(sizeMm2, { bundled: hot })),
  connector: carries,
  splice: noLimit,
  ground: noLimit,
  switch: carries,
  'key-contact': carries,
  relay: ofContact,
  'latching-relay': ofContact,
  solenoid: ofContact,
  flasher: ({ carriesAmps }) => carriesAmps,
  'cut-off': carries,
  'module-output': unsaid,
  lamp: noLimit,
  led: noLimit,
  motor: noLimit,
  pump: noLimit,
  horn: noLimit,
  heater: noLimit,
  module: noLimit,
  resistor: noLimit,
  socket: ({ carriesAmps }) => carriesAmps,
  diode: carries,
};

/** What a part carries for good, ampere; null where nobody has said it, undefined where it is no limit. */
export function ratingOf(part: CircuitPart, hot: boolean): Rating {
  return byKind(RATINGS, part, hot);
}
