import fc from 'fast-check';
import { type Elements, findIslands, invertInPlace, LinearBase, solveSmall } from './linear';

const size = fc.integer({ min: 1, max: 12 });
const value = fc.double({ min: 0.01, max: 100, noNaN: true });

/** A symmetric positive definite matrix as resistor networks give: diagonally dominant. */
function networkMatrix(n: number, values: readonly number[]): Float64Array {
  const matrix = new Float64Array(n * n);
  for (let i = 0; i < n; i++) {
    for (let j = i + 1; j < n; j++) {
      const g = values[(i * 7 + j * 13) % values.length]!;
      matrix[i * n + i]! += g;
      matrix[j * n + j]! += g;
      matrix[i * n + j]! -= g;
      matrix[j * n + i]! -= g;
    }
    matrix[i * n + i]! += values[i % values.length]!;
  }
  return matrix;
}

describe('inverse', () => {
  test('times the matrix is the identity', () => {
    fc.assert(
      fc.property(size, fc.array(value, { minLength: 5, maxLength: 30 }), (n, values) => {
        const matrix = networkMatrix(n, values);
        const inverse = matrix.slice();
        expect(invertInPlace(inverse, n)).toBe(true);
        for (let i = 0; i < n; i++) {
          for (let j = 0; j < n; j++) {
            let sum = 0;
            for (let k = 0; k < n; k++) sum += matrix[i * n + k]! * inverse[k * n + j]!;
            expect(sum).toBeCloseTo(i === j ? 1 : 0, 8);
          }
        }
      }),
    );
  });

  test('a matrix with a node without any path is refused', () => {
    expect(invertInPlace(Float64Array.from([1, -1, -1, 1]), 2)).toBe(false);
    expect(invertInPlace(Float64Array.from([0]), 1)).toBe(false);
    expect(invertInPlace(Float64Array.from([Number.NaN]), 1)).toBe(false);
  });
});

describe('small systems', () => {
  test('what is solved satisfies the equations', () => {
    fc.assert(
      fc.property(
        size,
        fc.array(fc.double({ min: -5, max: 5, noNaN: true }), { minLength: 160, maxLength: 200 }),
        (n, values) => {
          const matrix = Float64Array.from(
            { length: n * n },
            (_, i) => values[i]! + (i % (n + 1) === 0 ? 20 * n : 0),
          );
          const rhs = Float64Array.from({ length: n }, (_, i) => values[values.length - 1 - i]!);
          const x = rhs.slice();
          expect(solveSmall(matrix.slice(), x, n)).toBeGreaterThan(0);
          for (let i = 0; i < n; i++) {
            let sum = 0;
            for (let j = 0; j < n; j++) sum += matrix[i * n + j]! * x[j]!;
            expect(sum).toBeCloseTo(rhs[i]!, 8);
          }
        },
      ),
    );
  });

  test('a singular system gives 0, a row exchange is found', () => {
    expect(solveSmall(Float64Array.from([1, 2, 2, 4]), Float64Array.from([1, 2]), 2)).toBe(0);
    const x = Float64Array.from([3, 5]);
    expect(solveSmall(Float64Array.from([0, 1, 1, 0]), x, 2)).toBeGreaterThan(0);
    expect([...x]).toEqual([5, 3]);
  });
});

function elementsOf(edges: readonly (readonly [number, number, number])[]): Elements {
  return {
    count: edges.length,
    a: Int32Array.from(edges, ([a]) => a),
    b: Int32Array.from(edges, ([, b]) => b),
    siemens: Float64Array.from(edges, ([, , g]) => g),
    injected: new Float64Array(edges.length),
  };
}

describe('islands', () => {
  test('are what walking the conducting edges finds', () => {
    const node = fc.integer({ min: 0, max: 14 });
    fc.assert(
      fc.property(fc.array(fc.tuple(node, node, fc.constantFrom(0, 1)), { maxLength: 25 }), (edges) => {
        const roots = new Int32Array(15);
        findIslands(15, elementsOf(edges), roots);
        for (let start = 0; start < 15; start++) {
          const reached = new Set([start]);
          for (let grown = true; grown; ) {
            grown = false;
            for (const [a, b, g] of edges) {
              if (g === 0 || reached.has(a) === reached.has(b)) continue;
              reached.add(a);
              reached.add(b);
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

  test('one tie each keeps the base solvable, and none where everything hangs together', () => {
    const joined = new LinearBase(
      3,
      0,
      elementsOf([
        [0, 1, 1],
        [1, 2, 1],
      ]),
    );
    expect([...joined.tied]).toEqual([0, 0, 0]);
    const apart = new LinearBase(
      4,
      0,
      elementsOf([
        [0, 1, 1],
        [2, 3, 1],
      ]),
    );
    expect([...apart.tied]).toEqual([0, 0, 1, 0]);
  });
});
