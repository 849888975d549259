/** Seeded random circuits of any size: feeds, fuses, relays, diodes, loads and earths as a vehicle has them. */
import { checkCircuit } from '../core/circuit';
import type { CircuitFile, CircuitPart } from '../core/format';

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

/** One of the kinds that a vehicle has few of; what it feeds becomes a feed. */
function rare(
  id: (prefix: string) => string,
  pick: <T>(list: readonly T[]) => T,
  between: (low: number, high: number) => number,
  feeds: string[],
  earths: readonly string[],
  fresh: () => string,
): CircuitPart {
  const from = pick(feeds);
  const earth = pick(earths);
  const to = fresh();
  const build = pick<() => CircuitPart>([
    () => {
      const name = id('K');
      return {
        id: name,
        kind: 'breaker',
        name,
        pins: { in: from, out: to },
        ratingAmps: pick([10, 20, 30, 60]),
        reset: 'manual',
      };
    },
    () => {
      const name = id('Z');
      const pins = { feed: from, load: to, control: pick(feeds), return: earth };
      return { id: name, kind: 'solenoid', name, pins };
    },
    () => {
      const name = id('U');
      return { id: name, kind: 'flasher', name, pins: { '49': from, '49a': to, '31': earth } };
    },
    () => {
      const name = id('C');
      return { id: name, kind: 'cut-off', name, pins: { in: from, out: to, minus: earth } };
    },
    () => {
      const name = id('M');
      return {
        id: name,
        kind: 'module-output',
        name,
        pins: { plus: from, minus: earth, out: to, request: pick(feeds) },
        side: 'high',
        rule: [{ key: ['run'], inputs: { request: 'high' } }, { key: ['off'] }],
      };
    },
    () => {
      const name = id('Q');
      return { id: name, kind: 'resistor', name, pins: { a: from, b: to }, ohms: between(0.2, 5) };
    },
  ]);
  const part = build();
  feeds.push(to);
  return part;
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
    } else if (choice < 0.44) {
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
    } else if (choice < 0.52) {
      const name = id('R');
      const to = `f${++number}`;
      const rest = `f${++number}`;
      parts.push({
        id: name,
        kind: 'relay',
        name,
        pins: { '30': pick(feeds), '87': to, '87a': rest, '86': pick(feeds), '85': pick(earths) },
        coilOhms: between(60, 120),
        suppression: pick(['none', 'none', 'resistor', 'diode']),
      });
      feeds.push(to, rest);
    } else if (choice < 0.56) {
      const name = id('D');
      const to = `f${++number}`;
      parts.push({ id: name, kind: 'diode', name, pins: { anode: pick(feeds), cathode: to } });
      feeds.push(to);
    } else if (choice < 0.62) {
      parts.push(rare(id, pick, between, feeds, earths, () => `f${++number}`));
    } else {
      const name = id('L');
      const kind = pick(['lamp', 'motor', 'heater', 'module', 'pump', 'led'] as const);
      parts.push({
        id: name,
        kind,
        name,
        pins: { plus: pick(feeds), minus: pick(earths) },
        watts: kind === 'led' ? between(1, 20) : between(2, 90),
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
