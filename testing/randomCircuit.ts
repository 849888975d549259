/** Seeded random circuits of any size: feeds, fuses, relays, diodes, loads and earths as a vehicle has them. */
import { checkCircuit } from '../core/format/checkCircuit';
import type { CircuitFile, CircuitPart } from '../core/format/circuitSchema';

/** A small generator of numbers between 0 and 1 (mulberry32). */
export function seeded(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** A circuit of about so many parts; the same seed gives the same circuit. */
export function randomCircuit(seed: number, wantedParts: number): CircuitFile {
  const random = seeded(seed);
  const between = (low: number, high: number) => Number((low * (high / low) ** random()).toPrecision(4));
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
  const parts: CircuitPart[] = [
    {
      id: 'B',
      kind: 'battery',
      name: 'Battery',
      pins: { plus: 'plus', minus: 'minus' },
      emfVolts: between(12, 13),
      innerOhms: 0.012,
    },
    { id: 'E', kind: 'wire', name: 'Earth strap', pins: { a: 'body', b: 'minus' }, ohms: 0.001 },
  ];
  const feeds = ['plus'];
  const earths = ['body'];
  const switches: string[] = [];
  let number = 0;
  const id = (prefix: string) => `${prefix}${++number}`;
  const series = (from: string, to: string) => {
    const name = id('W');
    const ohms = between(0.002, 0.3);
    parts.push(
      pick<CircuitPart>([
        { id: name, kind: 'wire', name, pins: { a: from, b: to }, ohms },
        { id: name, kind: 'fuse', name, pins: { in: from, out: to }, ratingAmps: pick([5, 10, 15, 20, 30]) },
        { id: name, kind: 'connector', name, pins: { a: from, b: to } },
      ]),
    );
  };
  while (parts.length < wantedParts) {
    const choice = random();
    if (choice < 0.3) {
      const to = `f${++number}`;
      series(pick(feeds), to);
      feeds.push(to);
    } else if (choice < 0.36) {
      const to = `e${++number}`;
      const name = id('G');
      parts.push({
        id: name,
        kind: 'ground',
        name,
        pins: { lug: to, body: pick(earths) },
        ohms: between(0.001, 0.2),
      });
      earths.push(to);
    } else if (choice < 0.45) {
      const name = id('S');
      const to = `f${++number}`;
      parts.push({
        id: name,
        kind: 'switch',
        name,
        pins: { in: pick(feeds), out: to },
        positions: ['off', 'on'],
        rest: 'off',
        contacts: [{ from: 'in', to: 'out', closedIn: ['on'] }],
      });
      switches.push(name);
      feeds.push(to);
    } else if (choice < 0.53) {
      const name = id('R');
      const to = `f${++number}`;
      const rest = `f${++number}`;
      parts.push({
        id: name,
        kind: 'relay',
        name,
        pins: { '30': pick(feeds), '87': to, '87a': rest, '86': pick(feeds), '85': pick(earths) },
        coilOhms: between(60, 120),
      });
      feeds.push(to, rest);
    } else if (choice < 0.58) {
      const name = id('D');
      const to = `f${++number}`;
      parts.push({ id: name, kind: 'diode', name, pins: { anode: pick(feeds), cathode: to } });
      feeds.push(to);
    } else {
      const name = id('L');
      const kind = pick(['lamp', 'motor', 'heater', 'module'] as const);
      parts.push({
        id: name,
        kind,
        name,
        pins: { plus: pick(feeds), minus: pick(earths) },
        watts: between(2, 90),
      });
    }
  }
  const nodes = [...new Set(parts.flatMap((part) => Object.values(part.pins) as string[]))];
  const on = (share: number) =>
    Object.fromEntries(switches.flatMap((name) => (random() < share ? [[name, 'on'] as const] : [])));
  const checked = checkCircuit({
    format: 'every-trace/circuit',
    version: 1,
    id: `random-${seed}`,
    name: `Random circuit ${seed}`,
    nominalVolts: 12,
    reference: 'minus',
    places: [],
    nodes: nodes.map((node) => ({ id: node, name: node })),
    parts,
    conditions: [
      { id: 'off', name: 'All off', key: 'off' },
      { id: 'some', name: 'Some on', key: 'run', switches: on(0.5) },
      { id: 'all', name: 'All on', key: 'run', switches: on(1) },
    ],
    functions: [],
  });
  if (!checked.ok) throw new Error(checked.problems.map((one) => `${one.path} ${one.message}`).join('\n'));
  return checked.value;
}
