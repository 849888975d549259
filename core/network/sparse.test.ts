import fc from 'fast-check';
import { flatten, join, separate } from './islands';
import { SmallSystem } from './smallSystem';
import { SparseFactor, SparsePattern } from './sparse';
import { spread } from './spread';

const edges = (nodes: number) =>
  fc.array(
    fc.tuple(
      fc.integer({ min: 0, max: nodes - 1 }),
      fc.integer({ min: 0, max: nodes - 1 }),
      fc.oneof(fc.constantFrom(1e-12, 1e-9, 0), fc.double({ min: 1e-3, max: 1e3, noNaN: true })),
    ),
    { minLength: 1, maxLength: 40 },
  );

function factored(
  nodes: number,
  list: readonly (readonly [number, number, number])[],
  varying = { from: 0, to: 0 },
) {
  const pattern = new SparsePattern(
    nodes,
    0,
    list.map(([a]) => a),
    list.map(([, b]) => b),
    list.length,
    varying,
  );
  const roots = new Int32Array(nodes);
  separate(roots);
  for (const [a, b, g] of list) if (g > 0) join(roots, a, b);
  flatten(roots);
  const ties = Float64Array.from(roots, (root, node) => (root === node && root !== roots[0] ? 1 : 0));
  const siemens = list.map(([, , g]) => g);
  const factor = new SparseFactor(pattern);
  factor.assemble(siemens, ties);
  return { factor, ties, ok: factor.factor(siemens) };
}

describe('sparse factor', () => {
  test('node volts satisfy Kirchhoff’s current law, whatever the spread of conductances', () => {
    fc.assert(
      fc.property(
        edges(12),
        fc.array(fc.integer({ min: -5, max: 5 }), { minLength: 12, maxLength: 12 }),
        (list, amps) => {
          const { factor, ties, ok } = factored(12, list);
          expect(ok).toBe(true);
          const volts = new Float64Array(12);
          factor.solve(amps, volts);
          const sums = Float64Array.from(volts, (v, node) => ties[node]! * v - amps[node]!);
          const sizes = Float64Array.from(amps, Math.abs);
          for (const [a, b, g] of list) {
            const flows = g * (volts[a]! - volts[b]!);
            sums[a]! += flows;
            sums[b]! -= flows;
            const size = g * (Math.abs(volts[a]!) + Math.abs(volts[b]!));
            sizes[a]! += size;
            sizes[b]! += size;
          }
          for (let node = 1; node < 12; node++) {
            expect(Math.abs(sums[node]!)).toBeLessThanOrEqual(1e-12 * Math.max(1, sizes[node]!));
          }
        },
      ),
    );
  });

  test('what hangs on 1e-12 S is as exact as what hangs on 100 S', () => {
    // A chain of 100 S that leads to the datum by 1e-12 S alone: 1 pA raises all of it to 1 V.
    const { factor } = factored(4, [
      [1, 0, 1e-12],
      [1, 2, 100],
      [2, 3, 100],
    ]);
    const volts = new Float64Array(4);
    factor.solve([0, 0, 0, 1e-12], volts);
    for (const node of [1, 2, 3]) expect(volts[node]).toBeCloseTo(1, 12);
  });

  test('a node without any path to the datum is refused', () => {
    const pattern = new SparsePattern(3, 0, [1], [2], 1, { from: 0, to: 0 });
    const factor = new SparseFactor(pattern);
    factor.assemble([1], new Float64Array(3));
    expect(factor.factor([1])).toBe(false);
  });

  test('with some elements varying, each round gives the volts that a factor of its own gives', () => {
    const amps = fc.array(fc.integer({ min: -5, max: 5 }), { minLength: 12, maxLength: 12 });
    const siemens = fc.array(fc.double({ min: 1e-3, max: 1e3, noNaN: true }), { minLength: 6, maxLength: 6 });
    fc.assert(
      fc.property(
        edges(12),
        fc.array(siemens, { minLength: 1, maxLength: 3 }),
        amps,
        (list, rounds, into) => {
          const varying = { from: Math.max(0, list.length - 6), to: list.length };
          const known = factored(12, list, varying);
          const { nodeCount } = known.factor.pattern;
          const more = new Float64Array(nodeCount);
          for (const [a, b] of list.slice(varying.from)) {
            more[a]! += 1;
            more[b]! -= 1;
          }
          known.factor.begin(into);
          for (const round of rounds) {
            const now = list.map(([a, b, g], e): [number, number, number] => [
              a,
              b,
              // What was open stays open: the islands are those that the ties were made for.
              e >= varying.from && g > 0 ? round[e - varying.from]! : g,
            ]);
            const volts = new Float64Array(nodeCount);
            expect(known.factor.factor(now.map(([, , g]) => g))).toBe(true);
            known.factor.solveVarying(more, volts);
            known.factor.complete(volts);
            const own = factored(12, now).factor;
            const voltsFor = (currents: readonly number[]) => {
              const found = new Float64Array(nodeCount);
              own.solve(currents, found);
              return found;
            };
            const wanted = voltsFor(into.map((ampere, node) => ampere + more[node]!));
            // What all currents would raise if none took from another: what cancels leaves an error of its size.
            const most = voltsFor(into.map((ampere, node) => Math.abs(ampere) + Math.abs(more[node]!)));
            wanted.forEach((v, node) => {
              expect(Math.abs(volts[node]! - v)).toBeLessThanOrEqual(1e-12 * Math.max(1, most[node]!));
            });
          }
        },
      ),
    );
  });
});

describe('what currents through columns take', () => {
  test('is the sum, however many columns there are', () => {
    const column = fc.array(fc.integer({ min: -9, max: 9 }), { minLength: 5, maxLength: 5 });
    fc.assert(
      fc.property(
        column,
        fc.array(fc.tuple(column, fc.integer({ min: -9, max: 9 })), { maxLength: 11 }),
        (from, list) => {
          const into = new Float64Array(5);
          const columns = list.map(([values]) => Float64Array.from(values));
          spread(
            Float64Array.from(from),
            columns,
            Float64Array.from(list, ([, amps]) => amps),
            list.length,
            into,
          );
          expect([...into]).toEqual(
            from.map((v, k) => list.reduce((left, [values, amps]) => left - amps * values[k]!, v)),
          );
        },
      ),
    );
  });
});

describe('small systems', () => {
  test('what is solved satisfies the equations, also for a strided right-hand side', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 12 }),
        fc.array(fc.double({ min: -5, max: 5, noNaN: true }), { minLength: 160, maxLength: 200 }),
        (n, values) => {
          const system = new SmallSystem();
          system.resize(n);
          const matrix = Float64Array.from(
            { length: n * n },
            (_, i) => values[i]! + (i % (n + 1) === 0 ? 20 * n : 0),
          );
          system.matrix.set(matrix);
          const rhs = Float64Array.from({ length: 2 * n }, (_, i) => values[values.length - 1 - i]!);
          const x = rhs.slice();
          expect(system.factor()).toBeGreaterThan(0);
          system.solve(x, 1, 2);
          for (let i = 0; i < n; i++) {
            let sum = 0;
            for (let j = 0; j < n; j++) sum += matrix[i * n + j]! * x[1 + 2 * j]!;
            expect(sum).toBeCloseTo(rhs[1 + 2 * i]!, 8);
          }
        },
      ),
    );
  });

  test('a singular system gives next to 0, a row exchange is found', () => {
    const system = new SmallSystem();
    system.resize(2);
    system.matrix.set([1, 2, 2, 4]);
    expect(system.factor()).toBeLessThan(1e-12);
    system.matrix.set([0, 1, 1, 0]);
    expect(system.factor()).toBe(1);
    const x = Float64Array.from([3, 5]);
    system.solve(x);
    expect([...x]).toEqual([5, 3]);
  });
});

describe('islands', () => {
  test('are what walking the conducting edges finds', () => {
    const node = fc.integer({ min: 0, max: 14 });
    fc.assert(
      fc.property(fc.array(fc.tuple(node, node, fc.boolean()), { maxLength: 25 }), (list) => {
        const roots = new Int32Array(15);
        separate(roots);
        for (const [a, b, conducts] of list) if (conducts) join(roots, a, b);
        flatten(roots);
        for (let start = 0; start < 15; start++) {
          const reached = new Set([start]);
          for (let grown = true; grown; ) {
            grown = false;
            for (const [a, b, conducts] of list) {
              if (!conducts || reached.has(a) === reached.has(b)) continue;
              reached.add(a).add(b);
              grown = true;
            }
          }
          for (let other = 0; other < 15; other++)
            expect(roots[other] === roots[start]).toBe(reached.has(other));
          expect(roots[start]).toBe(Math.min(...reached));
        }
      }),
    );
  });
});
