/** What is usual where nobody has said it: functions, conditions, and where a probe gets at a point. */
import { PROTECTORS } from '../circuit';
import type { CircuitFile, CircuitPart, Condition, PartKind } from '../format';
import { pinWords } from './pinWords';
import { LOADS } from './words';

/** Every load is a function, under its own name. */
export function usualFunctions(parts: readonly CircuitPart[]): CircuitFile['functions'] {
  return parts.flatMap((part) => {
    if (LOADS.includes(part.kind)) return [{ id: part.id.toLowerCase(), name: part.name, load: part.id }];
    if (part.kind !== 'socket') return [];
    return part.appliances.map((one) => ({
      id: `${part.id}-${one.id}`.toLowerCase(),
      name: `${one.name} in ${part.name}`,
      load: `${part.id}:${one.id}`,
    }));
  });
}

/** All off; then the key on with each switch by itself, in each of its positions; then everything on. */
export function usualConditions(parts: readonly CircuitPart[]): Condition[] {
  const switches = parts.filter((part) => part.kind === 'switch');
  const sockets = parts.filter((part) => part.kind === 'socket');
  const keyed = parts.some((part) => part.kind === 'key-contact' || part.kind === 'module-output');
  const key: Condition['key'] = keyed ? 'run' : 'off';
  const keyWords = keyed ? 'Key on' : 'Key off';
  const plugged = Object.fromEntries(
    sockets.flatMap((part) => (part.appliances[0] ? [[part.id, part.appliances[0].id]] : [])),
  );
  const withPlugs = Object.keys(plugged).length > 0 ? { pluggedIn: plugged } : {};
  const pluggedWords = sockets.length > 0 ? ', plugged in' : '';
  const conditions: Condition[] = [{ id: 'all-off', name: 'Key off, everything off', key: 'off' }];
  if (switches.length === 0) {
    conditions.push({ id: 'on', name: `${keyWords}${pluggedWords}`, key, ...withPlugs });
    return conditions;
  }
  for (const one of switches) {
    for (const position of one.positions.filter((each) => each !== one.rest)) {
      conditions.push({
        id: `${one.id}-${position}`.toLowerCase(),
        name: `${keyWords}, ${one.name} ${position}`,
        key,
        switches: { [one.id]: position },
        ...withPlugs,
      });
    }
  }
  if (switches.length > 1) {
    conditions.push({
      id: 'all-on',
      name: `${keyWords}, every switch on`,
      key,
      switches: Object.fromEntries(
        switches.map((one) => [one.id, one.positions.find((each) => each !== one.rest) ?? one.rest]),
      ),
      ...withPlugs,
    });
  }
  return conditions;
}

/** Minutes to get at a part of a kind, where nobody has been there yet. */
const USUAL_MINUTES: Readonly<Partial<Record<PartKind, number>>> = {
  battery: 1,
  'charging-source': 3,
  fuse: 1,
  'fusible-link': 1,
  breaker: 1,
  relay: 1,
  'latching-relay': 2,
  flasher: 2,
  'module-output': 6,
  'cut-off': 3,
  'key-contact': 8,
  switch: 4,
  ground: 4,
  connector: 3,
  splice: 8,
  socket: 2,
  solenoid: 3,
};
const USUAL_LOAD_MINUTES = 3;

/** Parts that sit together in a box, as long as nobody has said which. */
const BOXED: readonly PartKind[] = [...PROTECTORS, 'relay', 'latching-relay', 'flasher'];
const BOX = 'fuse-box';

/** Kinds whose terminals nobody measures on: their neighbours are got at. */
const UNREACHED: readonly PartKind[] = ['wire', 'resistor', 'diode'];

/**
 * Gives every part without a place a usual one, and every point without an access those of the parts that meet there.
 * Points and places of the circuit that the text was made from stay as they are.
 */
export function reachable(circuit: CircuitFile, base: CircuitFile | null): CircuitFile {
  const places = new Map(circuit.places.map((place) => [place.id, place]));
  const known = {
    parts: new Set((base?.parts ?? []).map((part) => part.id)),
    nodes: new Set((base?.nodes ?? []).map((node) => node.id)),
  };
  const placeOf = (part: CircuitPart): string | null => {
    if (part.place !== undefined) return part.place;
    if (known.parts.has(part.id)) return null;
    if (UNREACHED.includes(part.kind)) return null;
    const boxed = BOXED.includes(part.kind);
    const id = boxed ? BOX : `at-${part.id.toLowerCase()}`;
    if (!places.has(id)) {
      places.set(id, {
        id,
        name: boxed ? 'Fuse and relay box' : part.name,
        minutesToOpen: USUAL_MINUTES[part.kind] ?? USUAL_LOAD_MINUTES,
      });
    }
    return id;
  };
  const parts = circuit.parts.map((part) => {
    const place = placeOf(part);
    return place === null ? part : { ...part, place };
  });
  const leads = new Map<string, { place: string; lead: string }[]>();
  for (const part of parts) {
    if (part.place === undefined || UNREACHED.includes(part.kind)) continue;
    for (const [pin, at] of Object.entries(part.pins)) {
      const lead = { place: part.place, lead: `${part.name}, ${pinWords(part.kind, pin)}` };
      const there = leads.get(at);
      if (there) there.push(lead);
      else leads.set(at, [lead]);
    }
  }
  const nodes = circuit.nodes.map((node) => {
    if (known.nodes.has(node.id)) return node;
    const access = leads.get(node.id) ?? [];
    return access.length > 0 ? { ...node, access: access.slice(0, 4) } : node;
  });
  return { ...circuit, places: [...places.values()], parts: parts as CircuitFile['parts'], nodes };
}
