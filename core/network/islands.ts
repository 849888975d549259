/** Which nodes hang together: union-find with path halving; the root of a set is its lowest node. */

/** Root of a node's set. */
export function rootOf(roots: Int32Array, node: number): number {
  let here = node;
  while (roots[here] !== here) {
    roots[here] = roots[roots[here]!]!;
    here = roots[here]!;
  }
  return here;
}

/** Joins two sets; false when they were one already. */
export function join(roots: Int32Array, a: number, b: number): boolean {
  const one = rootOf(roots, a);
  const other = rootOf(roots, b);
  if (one === other) return false;
  if (one < other) roots[other] = one;
  else roots[one] = other;
  return true;
}

/** Every node alone. */
export function separate(roots: Int32Array): void {
  for (let node = 0; node < roots.length; node++) roots[node] = node;
}

/** Every node pointing straight at its root. */
export function flatten(roots: Int32Array): void {
  for (let node = 0; node < roots.length; node++) roots[node] = rootOf(roots, node);
}
