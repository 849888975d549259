/**
 * Circuits that nobody here drew: groups behind a fuse that share trunk, control and earth, as looms grow. Nothing of
 * them comes from the generators that the engine is tuned and tested with.
 */
import { checkCircuit } from '../core/circuit';
import type { CircuitFile, CircuitPart, Condition } from '../core/format';

const PLACES = ['bay', 'panel', 'sill', 'roof', 'tail', 'seat'] as const;
const CONTROLS = ['each', 'feed', 'relay', 'earth'] as const;

/** A loom of about so many parts. `random` gives numbers from 0 to 1. */
export function outsideCircuit(random: () => number, wanted: number): CircuitFile {
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
  const parts: CircuitPart[] = [];
  const nodes = new Map<string, string>();
  const functions: { id: string; name: string; load: string }[] = [];
  const groups: string[][] = [];
  let count = 0;
  const node = (place: string) => {
    count += 1;
    nodes.set(`j${count}`, place);
    return `j${count}`;
  };
  const named = (letter: string) => {
    count += 1;
    return `${letter}${count}`;
  };
  const wire = (a: string, b: string, sizeMm2: number, longest: number) => {
    const id = named('w');
    const lengthMetres = Number((0.2 + longest * random()).toFixed(2));
    parts.push({ id, kind: 'wire', name: `Wire ${id}`, pins: { a, b }, lengthMetres, sizeMm2 });
  };
  /** A way of wires, with a plug between two of them now and then. */
  const way = (from: string, to: string, place: string, sizeMm2: number) => {
    let here = from;
    if (random() < 0.6) {
      const [left, right] = [node(place), node(place)];
      wire(here, left, sizeMm2, 3);
      const id = named('x');
      parts.push({ id, kind: 'connector', name: `Plug ${id}`, pins: { a: left, b: right }, place });
      here = right;
    }
    wire(here, to, sizeMm2, 4);
  };
  const breaker = (from: string, to: string, place: string): string => {
    const id = named('s');
    parts.push({
      id,
      kind: 'switch',
      name: `Switch ${id}`,
      pins: { in: from, out: to },
      positions: ['off', 'on'],
      rest: 'off',
      contacts: [{ from: 'in', to: 'out', closedIn: ['on'] }],
      place,
    });
    return id;
  };
  nodes.set('post', 'bay');
  nodes.set('return', 'bay');
  nodes.set('metal', 'bay');
  parts.push({ id: 'battery', kind: 'battery', name: 'Battery', pins: { plus: 'post', minus: 'return' } });
  parts.push({ id: 'strap', kind: 'ground', name: 'Strap', pins: { lug: 'metal', body: 'return' } });
  const bus = node('panel');
  parts.push({
    id: 'main',
    kind: 'fusible-link',
    name: 'Main',
    pins: { in: 'post', out: bus },
    ratingAmps: 100,
  });
  while (parts.length < wanted) {
    const place = pick(PLACES.slice(2));
    const control = pick(CONTROLS);
    const switches: string[] = [];
    const fused = node('panel');
    const fuse = named('f');
    const trunk = node(place);
    const joined = node(place);
    // An earth point of the group, or one that several share.
    const shares = joined;
    const point = named('g');
    parts.push({
      id: point,
      kind: 'ground',
      name: `Earth ${point}`,
      pins: { lug: shares, body: 'metal' },
      place,
    });
    let feed = fused;
    if (control === 'feed') {
      feed = node('seat');
      switches.push(breaker(fused, feed, 'seat'));
    }
    if (control === 'relay') {
      feed = node('panel');
      const ask = node('panel');
      const low = node('seat');
      const id = named('r');
      const suppression = pick(['none', 'diode', 'resistor'] as const);
      const pins = { '30': fused, '87': feed, '86': fused, '85': ask };
      parts.push({ id, kind: 'relay', name: `Relay ${id}`, pins, suppression, place: 'panel' });
      wire(ask, low, 0.75, 4);
      switches.push(breaker(low, 'metal', 'seat'));
    }
    way(feed, trunk, place, 2.5);
    const loads = 1 + Math.floor(3 * random());
    let watts = 0;
    for (let index = 0; index < loads; index++) {
      const plus = node(place);
      const minus = node(place);
      let from = trunk;
      if (control === 'each') {
        from = node('seat');
        way(trunk, from, 'seat', 1.5);
        const behind = node('seat');
        switches.push(breaker(from, behind, 'seat'));
        from = behind;
      }
      way(from, plus, place, 1.5);
      let down = minus;
      if (control === 'earth' && index === 0) {
        down = node('seat');
        switches.push(breaker(minus, down, 'seat'));
      }
      way(down, joined, place, 1.5);
      const [kind, power] = pick([
        ['lamp', 10],
        ['lamp', 45],
        ['motor', 70],
        ['heater', 60],
        ['pump', 35],
        ['module', 8],
      ] as const);
      const id = named('l');
      parts.push({ id, kind, name: `Load ${id}`, pins: { plus, minus }, watts: power, place });
      functions.push({ id: `does-${id}`, name: `Function of ${id}`, load: id });
      watts += power;
    }
    const ratingAmps = [5, 10, 15, 20, 25, 30].find((amps) => amps > (1.4 * watts) / 12) ?? 30;
    parts.push({
      id: fuse,
      kind: 'fuse',
      name: `Fuse ${fuse}`,
      pins: { in: bus, out: fused },
      ratingAmps,
      family: 'mini',
      place: 'panel',
    });
    groups.push(switches);
  }
  const set = (of: readonly string[][]) => Object.fromEntries(of.flat().map((id) => [id, 'on'] as const));
  const conditions: Condition[] = [
    { id: 'rest', name: 'All at rest', key: 'off' },
    { id: 'first', name: 'First group on', key: 'run', switches: set(groups.slice(0, 1)) },
    {
      id: 'half',
      name: 'Half of the groups on',
      key: 'run',
      switches: set(groups.slice(0, Math.ceil(groups.length / 2))),
    },
    { id: 'all', name: 'All on', key: 'run', switches: set(groups) },
  ];
  const checked = checkCircuit({
    format: 'every-trace/circuit',
    version: 1,
    id: 'outside',
    name: 'Loom',
    nominalVolts: 12,
    reference: 'return',
    places: PLACES.map((id, index) => ({ id, name: id, minutesToOpen: [1, 1, 5, 8, 3, 4][index]! })),
    nodes: [...nodes].map(([id, place]) => ({ id, name: id, access: [{ place, lead: `the pin at ${id}` }] })),
    parts,
    conditions,
    functions,
  });
  if (!checked.ok) throw new Error(checked.problems.map((one) => `${one.path} ${one.message}`).join('\n'));
  return checked.value;
}
