/** Several circuit files of one vehicle as one network: a part with the same id is the same part. */
import type { CircuitFile } from '../format/circuitSchema';
import type { Problem } from '../format/problem';

function same(left: unknown, right: unknown): boolean {
  return JSON.stringify(sortKeys(left)) === JSON.stringify(sortKeys(right));
}

function sortKeys(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(sortKeys);
  if (value && typeof value === 'object') {
    return Object.fromEntries(
      Object.entries(value)
        .sort(([a], [b]) => (a < b ? -1 : 1))
        .map(([key, inner]) => [key, sortKeys(inner)]),
    );
  }
  return value;
}

/**
 * Joins circuit files that share parts. Equal ids must be equal parts; a node named in several files keeps
 * every access; conditions with one id join their switch positions. Problems name both files.
 */
export function mergeCircuits(files: readonly CircuitFile[]): {
  circuit: CircuitFile;
  problems: readonly Problem[];
} {
  const first = files[0];
  if (!first) throw new Error('There is nothing to merge.');
  const problems: Problem[] = [];
  const report = (path: string, message: string) => problems.push({ code: 'merge-conflict', path, message });
  const parts = new Map<string, { file: CircuitFile; part: CircuitFile['parts'][number] }>();
  const nodes = new Map<string, CircuitFile['nodes'][number]>();
  const places = new Map<string, CircuitFile['places'][number]>();
  const conditions = new Map<string, CircuitFile['conditions'][number]>();
  const functions = new Map<string, CircuitFile['functions'][number]>();
  for (const file of files) {
    if (file.nominalVolts !== first.nominalVolts) {
      report(
        '/nominalVolts',
        `${file.name} is a ${file.nominalVolts} V circuit and ${first.name} a ${first.nominalVolts} V one. They cannot be traced together.`,
      );
    }
    if (file.reference !== first.reference) {
      report(
        '/reference',
        `${file.name} measures against ${file.reference} and ${first.name} against ${first.reference}. Use one reference node.`,
      );
    }
    for (const part of file.parts) {
      const known = parts.get(part.id);
      if (!known) parts.set(part.id, { file, part });
      else if (!same(known.part, part)) {
        report(
          `/parts/${part.id}`,
          `${part.name} (${part.id}) is not the same in ${known.file.name} and in ${file.name}.`,
        );
      }
    }
    for (const node of file.nodes) {
      const known = nodes.get(node.id);
      const access = [...(known?.access ?? [])];
      for (const one of node.access ?? []) if (!access.some((had) => same(had, one))) access.push(one);
      nodes.set(node.id, { ...(known ?? node), ...(access.length > 0 ? { access } : {}) });
    }
    for (const place of file.places) if (!places.has(place.id)) places.set(place.id, place);
    for (const condition of file.conditions) {
      const known = conditions.get(condition.id);
      if (known && known.key !== condition.key) {
        report(
          `/conditions/${condition.id}`,
          `The condition ${condition.id} has the key at ${known.key} in one file and at ${condition.key} in ${file.name}.`,
        );
      }
      const switches = { ...known?.switches, ...condition.switches };
      conditions.set(condition.id, {
        ...(known ?? condition),
        ...(Object.keys(switches).length > 0 ? { switches } : {}),
      });
    }
    for (const one of file.functions) if (!functions.has(one.id)) functions.set(one.id, one);
  }
  if (files.length === 1) return { circuit: first, problems };
  return {
    circuit: {
      ...first,
      id: files
        .map((file) => file.id)
        .join('+')
        .slice(0, 80),
      name: files
        .map((file) => file.name)
        .join(' + ')
        .slice(0, 160),
      places: [...places.values()],
      nodes: [...nodes.values()],
      parts: [...parts.values()].map((entry) => entry.part),
      conditions: [...conditions.values()],
      functions: [...functions.values()],
    },
    problems,
  };
}
