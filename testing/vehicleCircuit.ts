/**
 * Seeded circuits built as vehicles are: a battery, main fuses, a bus, and function after function with its
 * fuse, wires, connectors, switch or relay, load, splices and earths. Places and leads are there too, so that
 * a technician can be played on them.
 */
import { checkCircuit } from '../core/circuit';
import type { CircuitFile, CircuitPart, Condition } from '../core/format';
import { seeded } from './randomCircuit';

interface Draft {
  readonly parts: CircuitPart[];
  readonly nodes: Map<string, { place: string; lead: string }>;
  readonly functions: CircuitFile['functions'];
  readonly switches: string[];
  number: number;
}

/** Joins two nodes by so many wires and connectors in a row. */
function run(
  draft: Draft,
  random: () => number,
  from: string,
  to: string,
  pieces: number,
  place: string,
): void {
  let here = from;
  for (let i = 0; i < pieces; i++) {
    const next = i === pieces - 1 ? to : `n${++draft.number}`;
    const id = `W${++draft.number}`;
    if (i % 2 === 0) {
      draft.parts.push({
        id,
        kind: 'wire',
        name: `Wire ${id}`,
        pins: { a: here, b: next },
        lengthMetres: Number((0.3 + 4 * random()).toFixed(2)),
        sizeMm2: random() < 0.5 ? 1.5 : 2.5,
      });
    } else {
      draft.parts.push({ id, kind: 'connector', name: `Plug ${id}`, pins: { a: here, b: next }, place });
    }
    draft.nodes.set(next, { place, lead: `the pin at ${next}` });
    here = next;
  }
}

const LOADS = [
  ['lamp', 21],
  ['lamp', 55],
  ['motor', 60],
  ['heater', 90],
  ['pump', 48],
  ['module', 12],
] as const;

/** One function from the bus to earth. */
function addFunction(draft: Draft, random: () => number, bus: string, earth: string, size: number): void {
  const f = draft.functions.length + 1;
  const panel = 'panel';
  const far = `place-${f % 4}`;
  const node = (name: string, place: string) => {
    const id = `${name}${f}`;
    draft.nodes.set(id, { place, lead: `the terminal at ${id}` });
    return id;
  };
  const fused = node('fused', panel);
  const fuseId = `F${f}`;
  draft.parts.push({
    id: fuseId,
    kind: 'fuse',
    name: `Fuse ${f}`,
    pins: { in: bus, out: fused },
    ratingAmps: [10, 15, 20][Math.floor(random() * 3)]!,
    family: 'regular',
    place: panel,
  });
  const switched = node('switched', 'dash');
  const switchId = `S${f}`;
  const withRelay = random() < 0.4 && size > 6;
  const fed = node('fed', panel);
  const contact: CircuitPart = {
    id: switchId,
    kind: 'switch',
    name: `Switch ${f}`,
    pins: { in: fused, out: switched },
    positions: ['off', 'on'],
    rest: 'off',
    contacts: [{ from: 'in', to: 'out', closedIn: ['on'] }],
    place: 'dash',
  };
  draft.parts.push(contact);
  draft.switches.push(switchId);
  if (withRelay) {
    draft.parts.push({
      id: `R${f}`,
      kind: 'relay',
      name: `Relay ${f}`,
      pins: { '30': fused, '87': fed, '86': switched, '85': earth },
      suppression: random() < 0.3 ? 'diode' : random() < 0.5 ? 'resistor' : 'none',
      place: panel,
    });
  } else if (random() < 0.12) {
    draft.parts.push({
      id: `D${f}`,
      kind: 'diode',
      name: `Diode ${f}`,
      pins: { anode: switched, cathode: fed },
    });
  } else run(draft, random, switched, fed, 1, 'dash');
  const plus = node('plus', far);
  const minus = node('minus', far);
  const left = Math.max(2, size - 4);
  run(draft, random, fed, plus, Math.max(1, Math.ceil(left * 0.6)), far);
  run(draft, random, minus, earth, Math.max(1, Math.floor(left * 0.4)), far);
  const [kind, watts] = LOADS[Math.floor(random() * LOADS.length)]!;
  const id = `L${f}`;
  draft.parts.push(
    random() < 0.12
      ? { id, kind: 'led', name: `Lamp ${f}`, pins: { plus, minus }, watts: 8, place: far }
      : { id, kind, name: `Load ${f}`, pins: { plus, minus }, watts, place: far },
  );
  draft.functions.push({ id: `function-${f}`, name: `Function ${f}`, load: id });
}

/** A vehicle's circuit of about so many parts; the same seed gives the same circuit. */
export function vehicleCircuit(seed: number, wantedParts: number): CircuitFile {
  const random = seeded(seed);
  const draft: Draft = { parts: [], nodes: new Map(), functions: [], switches: [], number: 0 };
  draft.parts.push(
    { id: 'B', kind: 'battery', name: 'Battery', pins: { plus: 'plus', minus: 'minus' } },
    { id: 'strap', kind: 'ground', name: 'Earth strap', pins: { lug: 'body', body: 'minus' } },
  );
  draft.nodes.set('plus', { place: 'bay', lead: 'the plus post' });
  draft.nodes.set('minus', { place: 'bay', lead: 'the minus post' });
  draft.nodes.set('body', { place: 'bay', lead: 'bare metal of the body' });
  let bus = 'plus';
  let earth = 'body';
  for (let group = 1; draft.parts.length < wantedParts; group++) {
    if (wantedParts > 15 && (group === 1 || random() < 0.3)) {
      bus = `bus${group}`;
      earth = `earth${group}`;
      draft.nodes.set(bus, { place: 'panel', lead: `the bus bar at ${bus}` });
      draft.nodes.set(earth, { place: 'dash', lead: `the earth eyelet at ${earth}` });
      draft.parts.push(
        {
          id: `M${group}`,
          kind: 'fusible-link',
          name: `Link ${group}`,
          pins: { in: 'plus', out: bus },
          ratingAmps: 80,
        },
        { id: `G${group}`, kind: 'ground', name: `Earth point ${group}`, pins: { lug: earth, body: 'body' } },
      );
    }
    const left = wantedParts - draft.parts.length;
    addFunction(draft, random, bus, earth, Math.min(left, 8 + Math.floor(random() * 6)));
  }
  const on = (count: number) =>
    Object.fromEntries(draft.switches.slice(0, count).map((name) => [name, 'on'] as const));
  const conditions: Condition[] = [
    { id: 'off', name: 'All off', key: 'off' },
    { id: 'one', name: 'First function on', key: 'run', switches: on(1) },
    { id: 'all', name: 'All on', key: 'run', switches: on(draft.switches.length) },
  ];
  const minutes: Readonly<Record<string, number>> = { bay: 1, panel: 1, dash: 6 };
  const places = [...new Set([...draft.nodes.values()].map((one) => one.place))];
  const checked = checkCircuit({
    format: 'every-trace/circuit',
    version: 1,
    id: `vehicle-${seed}`,
    name: `Vehicle circuit ${seed}`,
    nominalVolts: 12,
    reference: 'minus',
    places: places.map((id) => ({ id, name: id, minutesToOpen: minutes[id] ?? 4 })),
    nodes: [...draft.nodes].map(([id, access]) => ({ id, name: id, access: [access] })),
    parts: draft.parts,
    conditions,
    functions: draft.functions,
  });
  if (!checked.ok) throw new Error(checked.problems.map((one) => `${one.path} ${one.message}`).join('\n'));
  return checked.value;
}
