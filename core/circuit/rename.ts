/** A part that gets another name: everything that was named after it goes with it. */
import type { CircuitFile } from '../format';

/** The names of parts before a change, by their ids. */
export function namesOfParts(circuit: CircuitFile): ReadonlyMap<string, string> {
  return new Map(circuit.parts.map((part) => [part.id, part.name]));
}

/**
 * The circuit with points, leads, places and functions that bore the old name of a part under its new one: "Step lamp,
 * plus" of a lamp now called "Entry lamp" is "Entry lamp, plus". What a person named otherwise stays.
 */
export function renamedAfterParts(circuit: CircuitFile, before: ReadonlyMap<string, string>): CircuitFile {
  const renamed = circuit.parts.flatMap((part) => {
    const old = before.get(part.id);
    return old === undefined || old === part.name ? [] : [{ id: part.id, old, now: part.name }];
  });
  if (renamed.length === 0) return circuit;
  const put = (name: string): string => {
    for (const { id, old, now } of renamed) {
      // Points of a part that nobody had named bear its id.
      const bare = old.endsWith(` ${id}`) && name.startsWith(`${id}, `) ? id : old;
      if (name === old || name.startsWith(`${bare}, `))
        return `${now}${name.slice(bare.length)}`.slice(0, 160);
    }
    return name;
  };
  const nowOf = (id: string) => renamed.find((one) => one.id === id);
  return {
    ...circuit,
    places: circuit.places.map((place) => ({ ...place, name: put(place.name) })),
    nodes: circuit.nodes.map((node) => ({
      ...node,
      name: put(node.name),
      ...(node.access ? { access: node.access.map((one) => ({ ...one, lead: put(one.lead) })) } : {}),
    })),
    functions: circuit.functions.map((one) => {
      const of = nowOf(one.load);
      return of && one.name === of.old ? { ...one, name: of.now } : one;
    }),
  };
}
