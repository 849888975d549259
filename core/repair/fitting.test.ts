import { demoCircuit } from '../../testing/circuits';
import type { CircuitFile } from '../format';
import { ampacity } from '../limits';
import { jointProblem, judgeLine, kindWords, lineWords, noRepair, thinnestBehind, wantedAt } from './fitting';

const van = demoCircuit('van-proving-cabinet');
const fuseOf = (id: string) => {
  const part = van.parts.find((one) => one.id === id);
  if (part?.kind !== 'fuse') throw new Error(id);
  return part;
};
const sized = (size: (id: string) => number | undefined): CircuitFile => ({
  ...van,
  parts: van.parts.map((part) =>
    part.kind === 'wire' ? { ...part, sizeMm2: size(part.id) } : part,
  ) as CircuitFile['parts'],
});

test('the thinnest wire behind a fuse rules, wherever on its way it lies; one unsaid leaves it open', () => {
  expect(
    thinnestBehind(
      sized(() => 2.5),
      'F31',
    ),
  ).toBe(2.5);
  expect(
    thinnestBehind(
      sized((id) => (id === 'W32' ? 0.75 : 2.5)),
      'F31',
    ),
  ).toBe(0.75);
  expect(
    thinnestBehind(
      sized((id) => (id === 'W32' ? undefined : 2.5)),
      'F31',
    ),
  ).toBeNull();
  // A wire before it is protected by another.
  const before = van.parts.find((part) => part.kind === 'wire' && part.pins.b === fuseOf('F31').pins.in);
  if (before)
    expect(
      thinnestBehind(
        sized((id) => (id === before.id ? 0.5 : 2.5)),
        'F31',
      ),
    ).toBe(2.5);
});

test('what belongs in a place comes from the map, and what the map does not say is not made up', () => {
  expect(wantedAt(van, 'F31')).toEqual({ kind: 'fuse', family: 'mini', ratingAmps: 15 });
  const unread = { ...van, parts: [{ ...fuseOf('F31'), family: undefined, ratingAmps: undefined }] };
  expect(wantedAt(unread as unknown as CircuitFile, 'F31')).toEqual({ kind: 'fuse' });
  const relay = van.parts.find((part) => part.kind === 'relay')!;
  expect(wantedAt(van, relay.id)).toMatchObject({ kind: 'relay', coilVolts: 12 });
  expect(wantedAt(van, van.parts.find((part) => part.kind === 'battery')!.id)).toBeNull();
  expect(wantedAt(van, 'no such')).toBeNull();
});

test('a line is judged as it stood then: the rating of the design, the thinnest wire behind it', () => {
  const fuse = (ratingAmps: number) => ({ kind: 'fuse', family: 'mini', ratingAmps }) as const;
  expect(judgeLine({ wanted: fuse(15), fitted: fuse(15) })).toMatchObject({ verdict: 'alike', repair: true });
  const above = judgeLine({ wanted: fuse(15), fitted: fuse(30), wireMm2: 0.5 });
  expect(above).toMatchObject({ verdict: 'above', repair: false, percentOfDesign: 200 });
  expect(above!.percentOfWire).toBe(Math.round((30 / ampacity(0.5)) * 100));
  expect(noRepair(above)).toBe(true);
  // What nobody has read is told, and not refused.
  expect(noRepair(judgeLine({ wanted: { kind: 'fuse' }, fitted: fuse(15) }))).toBe(false);
  expect(judgeLine({ fitted: fuse(15) })).toBeNull();
});

test('a line in words says what was fitted, the joint with its check, and what differs', () => {
  const words = lineWords({
    name: 'Wire 32',
    deed: 'replaced',
    place: 'hinge of the left door',
    wanted: { kind: 'wire', sizeMm2: 1.5, celsius: 105, terminalMm2: [1, 2.5] },
    fitted: { kind: 'wire', sizeMm2: 1, celsius: 105 },
    joint: { method: 'crimped-sleeve', pulled: true },
  });
  for (const part of [
    'Wire 32: replaced, 1 mm², 105 °C fitted',
    'at hinge of the left door',
    'crimped sleeve, held when pulled, seal not looked at',
    'size 1 mm², less than 1.5 mm²',
  ])
    expect(words).toContain(part);
  expect(kindWords({ kind: 'relay', contact: 'double-make', coilVolts: 12 })).toBe('double make, 12 V coil');
});

test('a joint that came out when it was pulled is no joint', () => {
  expect(jointProblem({ joint: { method: 'soldered', pulled: false } })).toContain('made anew');
  expect(jointProblem({ joint: { method: 'soldered', pulled: true } })).toBeNull();
  expect(jointProblem({})).toBeNull();
});
