import { demoCircuit } from '../../testing/circuits';
import type { CircuitFile } from '../format';
import { ampacity } from '../limits';
import { judgeFuse, thinnestBehind } from './fitting';

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

test('a fuse of the rating that the map has is a repair; above it it never is', () => {
  const { ratingAmps, family } = fuseOf('F31');
  const known = {
    ...van,
    parts: van.parts.map((part) => (part.id === 'F31' ? { ...part, family: 'mini' } : part)),
  } as CircuitFile;
  expect(judgeFuse(known, { part: 'F31', ratingAmps: ratingAmps! })).toMatchObject({
    verdict: 'alike',
    repair: true,
  });
  const above = judgeFuse(known, { part: 'F31', ratingAmps: ratingAmps! * 2 });
  expect(above).toMatchObject({ verdict: 'above', repair: false, percentOfDesign: 200 });
  if (family === undefined) {
    // Where nobody said the family of the hole, it is not known to be alike.
    expect(judgeFuse(van, { part: 'F31', ratingAmps: ratingAmps! })).toMatchObject({ verdict: 'open' });
  }
  const thin = judgeFuse(
    sized(() => 0.5),
    { part: 'F31', ratingAmps: 30 },
  );
  expect(thin!.percentOfWire).toBe(Math.round((30 / ampacity(0.5)) * 100));
  expect(judgeFuse(van, { part: 'R4', ratingAmps: 10 })).toBeNull();
  expect(judgeFuse(van, { part: 'no such', ratingAmps: 10 })).toBeNull();
});
