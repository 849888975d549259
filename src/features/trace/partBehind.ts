import type { CircuitFile } from '#core/format';

/** The part of the runs that a point belongs to, for what is learned about it. */
export function partBehind(
  circuit: CircuitFile,
  node: string | null,
  parts: ReadonlySet<string>,
): string | null {
  if (node === null) return null;
  const here = circuit.parts.filter((part) => parts.has(part.id) && Object.values(part.pins).includes(node));
  return (here.find((part) => part.kind === 'fuse' || part.kind === 'relay') ?? here[0])?.id ?? null;
}
