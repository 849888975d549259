/**
 * What currents through columns take from what a base has: the innermost loops of every operating point, so that as
 * few passes over the numbers are made as can be.
 */

/** `from`, less every column times its ampere, in `into`. */
export function spread(
  from: Float64Array,
  columns: readonly Float64Array[],
  amps: Float64Array,
  count: number,
  into: Float64Array,
): void {
  if (count === 0) {
    into.set(from);
    return;
  }
  // What is left over by fours comes first.
  let done = count % 4 === 0 ? 4 : count % 4;
  if (done === 1) take1(from, columns, amps, into);
  else if (done === 2) take2(from, columns, amps, into);
  else if (done === 3) take3(from, columns, amps, into);
  else take4(from, columns, amps, 0, into);
  for (; done < count; done += 4) take4(into, columns, amps, done, into);
}

type Columns = readonly Float64Array[];

function take1(from: Float64Array, columns: Columns, amps: Float64Array, into: Float64Array): void {
  const c = columns[0]!;
  const n = c.length;
  const a = amps[0]!;
  for (let k = 0; k < n; k++) into[k] = from[k]! - a * c[k]!;
}

function take2(from: Float64Array, columns: Columns, amps: Float64Array, into: Float64Array): void {
  const c0 = columns[0]!;
  const n = c0.length;
  const c1 = columns[1]!;
  const a0 = amps[0]!;
  const a1 = amps[1]!;
  for (let k = 0; k < n; k++) into[k] = from[k]! - a0 * c0[k]! - a1 * c1[k]!;
}

function take3(from: Float64Array, columns: Columns, amps: Float64Array, into: Float64Array): void {
  const c0 = columns[0]!;
  const n = c0.length;
  const c1 = columns[1]!;
  const c2 = columns[2]!;
  const a0 = amps[0]!;
  const a1 = amps[1]!;
  const a2 = amps[2]!;
  for (let k = 0; k < n; k++) into[k] = from[k]! - a0 * c0[k]! - a1 * c1[k]! - a2 * c2[k]!;
}

function take4(
  from: Float64Array,
  columns: Columns,
  amps: Float64Array,
  at: number,
  into: Float64Array,
): void {
  const c0 = columns[at]!;
  const n = c0.length;
  const c1 = columns[at + 1]!;
  const c2 = columns[at + 2]!;
  const c3 = columns[at + 3]!;
  const a0 = amps[at]!;
  const a1 = amps[at + 1]!;
  const a2 = amps[at + 2]!;
  const a3 = amps[at + 3]!;
  for (let k = 0; k < n; k++) {
    into[k] = from[k]! - a0 * c0[k]! - a1 * c1[k]! - a2 * c2[k]! - a3 * c3[k]!;
  }
}
