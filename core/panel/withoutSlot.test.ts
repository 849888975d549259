import { DEMO_CIRCUITS, demoCircuit } from '../../testing/circuits';
import { mergeCircuits } from '../circuit/merge';
import { partsOfFunction } from '../diagnosis/verdict/proofs';
import { CircuitModel } from '../network/model';
import { coverage, withoutSlot } from './withoutSlot';

const van = new CircuitModel(
  mergeCircuits(DEMO_CIRCUITS.filter((name) => name.startsWith('van')).map(demoCircuit)).circuit,
);
const names = (slot: string, panel = 'bay') =>
  withoutSlot(van, panel, slot).map((one) => `${one.name}: ${one.what}`);

test('without its own fuse a function is lost, and its neighbours are not', () => {
  expect(names('fuse-31')).toEqual(['Proving-cabinet fan: lost']);
  expect(names('fuse-32').some((one) => one.includes('shelf light: lost'))).toBe(true);
  expect(names('fuse-32').some((one) => one.includes('fan'))).toBe(false);
});

test('a main fuse takes everything behind it; a slot without a part takes nothing', () => {
  const behind = names('fuse-2', 'carrier');
  expect(behind.length).toBeGreaterThan(names('fuse-31').length);
  expect(names('fuse-40')).toEqual([]);
});

test('every loss names the positions in which it is lost, and every one of them is a position in which it should work', () => {
  for (const one of withoutSlot(van, 'carrier', 'fuse-2')) {
    expect(one.conditions.length).toBeGreaterThan(0);
    for (const name of one.conditions) {
      const condition = van.conditions.find((entry) => entry.name === name)!;
      expect(van.expectedOn(van.function(one.function), condition.id)).toBe(true);
    }
  }
});

test('coverage names what of a function’s way has no slot yet', () => {
  const bare = structuredClone(demoCircuit('van-proving-cabinet'));
  const fuse = bare.parts.find((part) => part.id === 'F31')!;
  const before = new CircuitModel(bare);
  expect(coverage(before, 'cabinet-fan', partsOfFunction(before, 'cabinet-fan')).unresolved).not.toContain(
    fuse.name,
  );
  delete (fuse as { slot?: unknown }).slot;
  const after = new CircuitModel(bare);
  expect(coverage(after, 'cabinet-fan', partsOfFunction(after, 'cabinet-fan')).unresolved).toContain(
    fuse.name,
  );
});
