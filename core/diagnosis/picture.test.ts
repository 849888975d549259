/** The picture on a card: for every test of every circuit its points are those of the test, and no label covers one. */
import { readFileSync } from 'node:fs';
import { DEMO_CIRCUITS, demoCircuit } from '../../testing/circuits';
import { mergeCircuits } from '../circuit';
import type { CircuitFile, PanelSetFile, TestRef } from '../format';
import { CircuitModel } from '../network';
import { circuitOfPattern, PATTERNS } from '../notation/patterns';
import { testCardWords } from './card';
import { kindOf, testId } from './kinds';
import { cardPicture } from './picture';
import { type Box, PICTURE, pictureShape, plugShape, slotShape } from './pictureShape';
import { runsOfComplaint } from './run';
import { deedOf, testsFor } from './tests';

const CIRCUITS: readonly (readonly [string, CircuitFile])[] = [
  ...DEMO_CIRCUITS.map((name) => [name, demoCircuit(name)] as const),
  ...PATTERNS.map(
    (pattern) =>
      [
        pattern.name,
        circuitOfPattern(pattern, { load: 'Step light over the side door', kind: 'lamp', nominalVolts: 12 })
          .circuit,
      ] as const,
  ),
];

/** Every test of a circuit, once, with the runs that its card is drawn from. */
function* cards(circuit: CircuitFile) {
  const model = new CircuitModel(circuit);
  const seen = new Set<string>();
  for (const { id } of circuit.functions) {
    const on = model.conditions.find((one) => model.expectedOn(model.function(id), one.id));
    if (!on) continue;
    const complaint = { function: id, condition: on.id };
    const runs = runsOfComplaint(model, complaint);
    for (const { ref } of testsFor(model, complaint).permitted) {
      if (seen.has(testId(ref))) continue;
      seen.add(testId(ref));
      yield { model, ref, picture: cardPicture(circuit, ref, runs) };
    }
  }
}

const VAN = ['van-proving-cabinet', 'van-hatch-fridge', 'van-demist'] as const;

/** Places from which a test is done. */
function placesOf(circuit: CircuitFile, ref: TestRef): { place: string | null; lead: string }[] {
  if (!('node' in ref)) return [{ place: null, lead: '' }];
  return (circuit.nodes.find(({ id }) => id === ref.node)?.access ?? []).map(({ place, lead }) => ({
    place,
    lead,
  }));
}

/** What a hand puts something on, by the gate's own account of the test. */
function pointsOf(model: CircuitModel, ref: TestRef): string[] {
  const deed = deedOf(model, ref);
  return [...deed.probes, ...deed.lamps, ...deed.leds, ...deed.leads.map(({ node }) => node)];
}

const meets = (one: Box, other: Box) =>
  one.x < other.x + other.width &&
  other.x < one.x + one.width &&
  one.y < other.y + other.height &&
  other.y < one.y + one.height;

test.each(CIRCUITS)('%s: points drawn are the points of the test', (_, circuit) => {
  let drawn = 0;
  const part = (id: string) => circuit.parts.find((one) => one.id === id);
  for (const { model, ref, picture } of cards(circuit)) {
    const { stations, stops, leads } = picture;
    const at = { test: testId(ref) };
    expect({ ...at, stops: stops.length }).toEqual({
      ...at,
      stops: stations.length === 0 ? stops.length : stations.length + 1,
    });
    expect({ ...at, room: stations.length <= 3 }).toEqual({ ...at, room: true });
    // Each end that is drawn at a stop is drawn at its own, and every point that is touched is drawn.
    for (const { node, stop } of leads)
      if (stop !== null) expect({ ...at, node: stops[stop] }).toEqual({ ...at, node });
    const nodes = leads.map(({ node }) => node);
    for (const point of pointsOf(model, ref))
      expect({ ...at, nodes }).toMatchObject({ nodes: expect.arrayContaining([point]) });
    // Nothing is drawn that the test does not touch: only its part's own pins, its points, and where leads end.
    const own = 'part' in ref ? (Object.values(part(ref.part)?.pins ?? {}) as string[]) : [];
    const { node, against } = ref as { node?: string; against?: string };
    for (const { node: point, stop } of leads)
      if (stop !== null)
        expect({
          ...at,
          own: [...own, node, against, ...pointsOf(model, ref), ...postsOf(circuit)].includes(point),
        }).toEqual({ ...at, own: true });
    // What is neither held nor touched anywhere would be no picture.
    expect({ ...at, told: leads.length > 0 || stations.some(({ here }) => here) }).toEqual({
      ...at,
      told: true,
    });
    drawn += 1;
  }
  expect(drawn).toBeGreaterThan(10);
});

const postsOf = ({ parts }: CircuitFile) =>
  parts.flatMap((part) => (part.kind === 'battery' ? (Object.values(part.pins) as string[]) : []));

test.each(CIRCUITS)(
  '%s: nothing runs out of the picture, and no label covers a point or another label',
  (_, circuit) => {
    for (const { ref, picture } of cards(circuit)) {
      const shape = pictureShape(picture);
      const labels = [
        shape.range,
        ...shape.stations.map((one) => one.label),
        ...shape.points.map((one) => one.label),
      ];
      const dots = shape.points.map(({ x, y }): Box => ({ x: x - 8, y: y - 8, width: 16, height: 16 }));
      const id = testId(ref);
      for (const [index, one] of labels.entries()) {
        const { x, y, width, height } = one.box;
        const inside = x >= 0 && y >= 0 && x + width <= PICTURE.width && y + height <= PICTURE.height;
        expect({ id, text: one.lines, inside }).toEqual({ id, text: one.lines, inside: true });
        const covers = [...dots, ...labels.slice(index + 1).map(({ box }) => box), shape.instrument].some(
          (box) => meets(one.box, box),
        );
        expect({ id, text: one.lines, covers }).toEqual({ id, text: one.lines, covers: false });
      }
      for (const station of shape.stations)
        expect({ id, over: dots.some((dot) => meets(station, dot)) }).toEqual({ id, over: false });
    }
  },
);

test('the range is the next that a meter has, and a lamp is for the system', () => {
  const circuit = demoCircuit('van-proving-cabinet');
  const of = (nominalVolts: CircuitFile['nominalVolts'], ref: TestRef) =>
    cardPicture({ ...circuit, nominalVolts }, ref, []).range;
  const volts = { kind: 'volts', node: 'm1-plus', against: circuit.reference, condition: 'fan-on' } as const;
  expect(([6, 12, 24, 48] as const).map((nominal) => of(nominal, volts))).toEqual([
    'DC, to 20 V',
    'DC, to 20 V',
    'DC, to 60 V',
    'DC, to 60 V',
  ]);
  expect(of(24, { kind: 'lamp', node: 'm1-plus', condition: 'fan-on' })).toBe('lamp for 24 V');
});

test('a drop over a long way shows both its points and what lies between as one', () => {
  const circuit = demoCircuit('van-proving-cabinet');
  const model = new CircuitModel(circuit);
  const complaint = { function: 'cabinet-fan', condition: 'fan-on' };
  const runs = runsOfComplaint(model, complaint);
  const [main] = runs;
  const [from, to] = [main!.stops[1]!, main!.stops.at(-2)!];
  const picture = cardPicture(circuit, { kind: 'volts', node: from, against: to, condition: 'fan-on' }, runs);
  expect(picture.stops).toEqual([from, null, null, to]);
  expect(picture.stations[1]!.name).toMatch(/^\d+ parts$/);
  expect(picture.leads.map(({ pole, stop }) => [pole, stop])).toEqual([
    ['plus', 0],
    ['minus', 3],
  ]);
  // A plain reading goes from its point to the body at the picture's edge.
  const plain = cardPicture(
    circuit,
    { kind: 'volts', node: from, against: circuit.reference, condition: 'fan-on' },
    runs,
  );
  expect(plain.leads[1]).toMatchObject({ pole: 'minus', stop: null, node: circuit.reference });
  expect(kindOf({ kind: 'look', part: 'F31' }).leads(circuit, { kind: 'look', part: 'F31' }).sign).toBe(
    'eye',
  );
});

test('at a slot of a box its row is drawn as it is held, and every lead ends where the map says', () => {
  const circuit = mergeCircuits(VAN.map(demoCircuit)).circuit;
  const { panels } = JSON.parse(readFileSync('demo/van.panel-set.json', 'utf8')) as PanelSetFile;
  let [drawn, sockets] = [0, 0];
  for (const { ref, picture } of cards(circuit)) {
    for (const { place, lead } of placesOf(circuit, ref)) {
      const { slot } = testCardWords(circuit, ref, place, lead);
      const panel = panels.find(({ id }) => id === slot?.panel);
      if (!slot || !panel) continue;
      for (const turns of [0, 1, 2, 3] as const) {
        const shape = slotShape(picture, { panel, slot: slot.slot, turns, parts: circuit.parts });
        if (!shape) continue;
        drawn += 1;
        const id = testId(ref);
        const here = shape.slots.filter((one) => one.here);
        expect({ id, here: here.map((one) => one.slot.id) }).toEqual({ id, here: [slot.slot] });
        const [own] = here;
        for (const { x, y, end } of shape.points) {
          const pin = circuit.parts
            .filter((one) => one.slot?.slot === slot.slot && one.slot.panel === panel.id)
            .flatMap((one) => Object.entries(one.pins))
            .find(([, node]) => node === end.node)?.[0];
          if (pin === undefined) continue;
          const inside = x >= own!.x && x <= own!.x + own!.width && y >= own!.y && y <= own!.y + own!.height;
          expect({ id, pin, inside }).toEqual({ id, pin, inside: true });
          if (['30', '85', '86', '87'].includes(pin)) sockets += 1;
        }
        const labels = [shape.range, shape.caption!, ...shape.points.map((one) => one.label)];
        const dots = shape.points.map(({ x, y }): Box => ({ x: x - 8, y: y - 8, width: 16, height: 16 }));
        for (const [index, one] of labels.entries()) {
          const covers = [...dots, ...labels.slice(index + 1).map(({ box }) => box), ...shape.slots].some(
            (box) => one.lines.length > 0 && meets(one.box, box),
          );
          expect({ id, text: one.lines, covers }).toEqual({ id, text: one.lines, covers: false });
        }
      }
    }
  }
  expect(drawn).toBeGreaterThan(100);
  expect(sockets).toBeGreaterThan(20);
});

test('at a cavity of a plug all its cavities are drawn by number, and the lead ends in its own', () => {
  const trailer = demoCircuit('trailer-lamps');
  const parts = trailer.parts.map((part) =>
    part.kind === 'connector' && part.place === 'plug'
      ? { ...part, plug: 'tow', face: 'wire' as const }
      : part,
  );
  const circuit = { ...trailer, parts };
  const own = parts.flatMap((part) => (part.kind === 'connector' && part.plug === 'tow' ? [part] : []));
  expect(own.length).toBeGreaterThan(2);
  let drawn = 0;
  for (const { ref, picture } of cards(circuit)) {
    // Where nobody says which plug a cavity is of, none is drawn.
    expect(plugShape(picture, trailer.parts)).toBeNull();
    const shape = plugShape(picture, parts);
    const inside = picture.leads.filter(({ stop }) => stop !== null);
    const wanted = own.find(({ pins }) => Object.values(pins).includes(inside[0]?.node ?? ''));
    expect(shape !== null).toBe(inside.length === 1 && wanted !== undefined);
    if (!shape || !wanted) continue;
    drawn += 1;
    const id = testId(ref);
    expect(shape.cavities.map(({ name }) => name)).toEqual(
      own.map(({ cavity }) => cavity!).sort((one, other) => Number(one) - Number(other)),
    );
    const [here] = shape.cavities.filter((one) => one.here);
    expect({ id, name: here!.name }).toEqual({ id, name: wanted.cavity });
    const point = shape.points.find(({ end }) => end.stop !== null)!;
    expect(
      Math.hypot(point.x - here!.x - here!.width / 2, point.y - here!.y - here!.height / 2),
    ).toBeLessThan(1);
    expect(shape.caption!.lines[0]).toContain('wire side');
    for (const one of shape.cavities) {
      expect(one.x >= 0 && one.x + one.width <= PICTURE.width && one.y + one.height <= PICTURE.height).toBe(
        true,
      );
      expect(meets(one, shape.instrument)).toBe(false);
    }
  }
  expect(drawn).toBeGreaterThan(3);
});
