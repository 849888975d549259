/** Another test is found by the words that people use. */
import { demoCircuit } from '../../testing/circuits';
import { CircuitModel } from '../network';
import { testsFor } from './tests';
import { testMatches, testSearchWords } from './testWords';

const circuit = demoCircuit('van-proving-cabinet');
const { permitted } = testsFor(new CircuitModel(circuit), { function: 'cabinet-fan', condition: 'fan-on' });
const found = (query: string) =>
  permitted
    .filter(({ ref, accesses }) =>
      testMatches(query, testSearchWords(circuit, ref, accesses[0]!.place, accesses[0]!.lead)),
    )
    .map(({ id }) => id);

test.each([
  ['continuity fuse 31', /^continuity\|F31/],
  ['element', /^(continuity|look)\|F/],
  ['pull fuse', /^(continuity|look|lamp-in-fuse|volts)\|/],
  ['holes', /^volts\|.*\|F\d+$/],
  ['swap relay 4', /^(substitute|elsewhere)\|R4/],
  ['exchange relay', /^(substitute|elsewhere)\|R/],
  ['ohms', /^(ohms|continuity)/],
  ['resistance', /^(ohms|continuity)/],
  ['posts', /^battery\|/],
  ['voltage drop', /^(volts|fuse-drop)\|/],
  ['drop plug C12', /^volts\|c12-box\|c12-cab/],
  ['back-probe', /^volts\|/],
  ['jumper', /^(bridge|apply)\|/],
  ['test light', /^lamp/],
  ['volts relay 4 common', /^volts\|r4-30|^volts\|f31-out/],
  ['relay coil return', /^volts\|r4-85/],
  ['amps', /^(clamp|fuse-drop)\|/],
])('“%s”', (query, wanted) => {
  const ids = found(query);
  expect(ids.length).toBeGreaterThan(0);
  expect(ids.some((id) => wanted.test(id))).toBe(true);
});

test('in the other dialect the same tests are found', () => {
  const earth = found('earth');
  expect(earth.length).toBeGreaterThan(0);
  for (const id of earth) expect(found('ground')).toContain(id);
  expect(found('blower').sort()).toEqual(expect.arrayContaining(found('fan').slice(0, 3)));
});

test('words that no test has find nothing', () => {
  expect(found('carburettor')).toEqual([]);
});
