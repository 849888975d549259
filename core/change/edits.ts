/** What each kind of edit does to a circuit, how it reads, and how it is undone by hand. */
import { type CircuitFile, type CircuitPart, FUSE_FAMILIES, type PlanEdit } from '../format';
import { figure } from '../sizing';
import { undoPatch } from './patch';

type KindName = PlanEdit['kind'];
type EditOf<K extends KindName> = Extract<PlanEdit, { kind: K }>;

/** Why an edit cannot be made, in words. */
export interface Impossible {
  readonly problem: string;
}

interface EditKind<E extends PlanEdit> {
  readonly apply: (circuit: CircuitFile, edit: E) => CircuitFile | Impossible;
  /** One sentence of the plan. */
  readonly words: (circuit: CircuitFile, edit: E) => string;
  /** What a hand does to undo it. */
  readonly undo: (circuit: CircuitFile, edit: E) => string;
}

const cannot = (problem: string): Impossible => ({ problem });

export function isImpossible(made: CircuitFile | Impossible): made is Impossible {
  return 'problem' in made;
}

const partOf = (circuit: CircuitFile, id: string) => circuit.parts.find((part) => part.id === id);
const nameOf = (circuit: CircuitFile, id: string) =>
  partOf(circuit, id)?.name ?? circuit.nodes.find((node) => node.id === id)?.name ?? id;
const hasNode = (circuit: CircuitFile, id: string) => circuit.nodes.some((node) => node.id === id);

/** Ids that stand already, among points or parts. */
function taken(circuit: CircuitFile, parts: readonly string[], nodes: readonly string[]): string | null {
  return parts.find((id) => partOf(circuit, id)) ?? nodes.find((id) => hasNode(circuit, id)) ?? null;
}

const pinsOf = (part: CircuitPart) => Object.entries(part.pins) as [string, string][];

/** Points that no part is at any more go too, the reference but for itself. */
function withoutLoosePoints(circuit: CircuitFile): CircuitFile {
  const used = new Set([
    circuit.reference,
    ...circuit.parts.flatMap((part) => pinsOf(part).map(([, node]) => node)),
  ]);
  const nodes = circuit.nodes.filter(({ id }) => used.has(id));
  return nodes.length === circuit.nodes.length ? circuit : { ...circuit, nodes };
}

/** A part that comes in, with what decides whether it is the right one. */
function addedWords(part: CircuitPart): string {
  const more: (string | undefined)[] = [];
  if ('ratingAmps' in part && part.ratingAmps !== undefined) more.push(figure(part.ratingAmps, 'A'));
  if (part.kind === 'wire') {
    more.push(
      part.sizeMm2 === undefined ? undefined : `${part.sizeMm2} mm²`,
      part.lengthMetres === undefined ? undefined : `${part.lengthMetres} m`,
      part.colour,
      part.through ? `through ${part.through}` : undefined,
    );
  }
  if (part.kind === 'switch') more.push(part.momentary ? 'springs back' : 'stays where it is put');
  if ('watts' in part && part.watts !== undefined) more.push(figure(part.watts, 'W'));
  if ('amps' in part && part.amps !== undefined) more.push(figure(part.amps, 'A'));
  const said = more.filter(Boolean).join(', ');
  return said ? `${part.name} (${said})` : part.name;
}

const add: EditKind<EditOf<'add'>> = {
  apply: (circuit, { parts, nodes, functions = [] }) => {
    const twice = taken(
      circuit,
      parts.map(({ id }) => id),
      nodes.map(({ id }) => id),
    );
    if (twice) return cannot(`“${twice}” is there already: another name.`);
    const known = new Set([...circuit.nodes, ...nodes].map(({ id }) => id));
    for (const part of parts) {
      const loose = pinsOf(part).find(([, node]) => !known.has(node));
      if (loose) return cannot(`${part.name}, ${loose[0]}: there is no point “${loose[1]}”.`);
    }
    const again = functions.find(({ id }) => circuit.functions.some((one) => one.id === id));
    if (again) return cannot(`There is a function “${again.id}” already: another name.`);
    return {
      ...circuit,
      nodes: nodes.length > 0 ? [...circuit.nodes, ...nodes] : circuit.nodes,
      parts: [...circuit.parts, ...parts],
      functions: functions.length > 0 ? [...circuit.functions, ...functions] : circuit.functions,
    };
  },
  words: (_, { parts }) => `Add ${parts.map(addedWords).join(', ')}.`,
  undo: (_, { parts }) => `Take out ${parts.map(({ name }) => name).join(', ')}.`,
};

const tap: EditKind<EditOf<'tap'>> = {
  apply: (circuit, { fuse: id, side, family, addedFuse, addedAmps, lead, name }) => {
    const fuse = partOf(circuit, id);
    if (fuse?.kind !== 'fuse')
      return cannot(`${nameOf(circuit, id)} is no fuse: a tap goes into the slot of one.`);
    const twice = taken(circuit, [addedFuse], [lead]);
    if (twice) return cannot(`“${twice}” is there already: another name.`);
    const added = {
      id: addedFuse,
      kind: 'fuse',
      name,
      pins: { in: side === 'supply' ? fuse.pins.in : fuse.pins.out, out: lead },
      ratingAmps: addedAmps,
      ...(FUSE_FAMILIES.some((one) => one === family) ? { family } : {}),
    } as CircuitPart;
    return {
      ...circuit,
      nodes: [...circuit.nodes, { id: lead, name: `${name}, lead` }],
      parts: [...circuit.parts, added],
    };
  },
  words: (circuit, { fuse, side, addedAmps }) =>
    `Tap the slot of ${nameOf(circuit, fuse)} with a fuse of ${addedAmps} A, its incoming leg on the ${side} side.`,
  undo: (circuit, { fuse }) => `Take the tap out and put ${nameOf(circuit, fuse)} back into its slot alone.`,
};

const cut: EditKind<EditOf<'cut'>> = {
  apply: (circuit, { wire: id, rest, share, nodes }) => {
    const wire = partOf(circuit, id);
    if (wire?.kind !== 'wire') return cannot(`${nameOf(circuit, id)} is no wire.`);
    const twice = taken(circuit, [rest], [nodes.a, nodes.b]);
    if (twice) return cannot(`“${twice}” is there already: another name.`);
    const piece = (of: number) => ({
      ...(wire.lengthMetres === undefined ? {} : { lengthMetres: wire.lengthMetres * of }),
      ...(wire.ohms === undefined ? {} : { ohms: Math.max(1e-5, wire.ohms * of) }),
    });
    const { slot: _slot, ...same } = wire;
    return {
      ...circuit,
      nodes: [
        ...circuit.nodes,
        { id: nodes.a, name: `${wire.name}, cut, towards a` },
        { id: nodes.b, name: `${wire.name}, cut, towards b` },
      ],
      parts: [
        ...circuit.parts.map((part) =>
          part === wire ? { ...wire, ...piece(share), pins: { a: wire.pins.a, b: nodes.a } } : part,
        ),
        {
          ...same,
          ...piece(1 - share),
          id: rest,
          name: `${wire.name}, far piece`,
          pins: { a: nodes.b, b: wire.pins.b },
        },
      ],
    };
  },
  words: (circuit, { wire, caps }) =>
    `Cut ${nameOf(circuit, wire)}; ${caps.a && caps.b ? 'a cap on each end' : caps.a || caps.b ? 'a cap on one end only' : 'both ends bare'}.`,
  undo: (circuit, { wire }) => `Join the two ends of ${nameOf(circuit, wire)} again, crimped and sealed.`,
};

const join: EditKind<EditOf<'join'>> = {
  apply: (circuit, { splice, name, one, other }) => {
    const missing = [one, other].find((id) => !hasNode(circuit, id));
    if (missing) return cannot(`There is no point “${missing}”.`);
    if (one === other) return cannot('A point is not joined with itself.');
    const twice = taken(circuit, [splice], []);
    if (twice) return cannot(`“${twice}” is there already: another name.`);
    const made: CircuitPart = { id: splice, kind: 'splice', name, pins: { a: one, b: other } };
    return { ...circuit, parts: [...circuit.parts, made] };
  },
  words: (circuit, { one, other, joint }) =>
    `Join ${nameOf(circuit, one)} with ${nameOf(circuit, other)}, ${joint.replace(/-/g, ' ')}.`,
  undo: (circuit, { one, other }) =>
    `Part ${nameOf(circuit, one)} from ${nameOf(circuit, other)} again, each end capped.`,
};

const move: EditKind<EditOf<'move'>> = {
  apply: (circuit, { part: id, pin, to }) => {
    const part = partOf(circuit, id);
    if (!part) return cannot(`There is no part “${id}”.`);
    if (!(pin in part.pins)) return cannot(`${part.name} has no pin ${pin}.`);
    if (!hasNode(circuit, to)) return cannot(`There is no point “${to}”.`);
    const moved = { ...part, pins: { ...part.pins, [pin]: to } } as CircuitPart;
    return withoutLoosePoints({
      ...circuit,
      parts: circuit.parts.map((one) => (one === part ? moved : one)),
    });
  },
  words: (circuit, { part, pin, to }) => `Move ${pin} of ${nameOf(circuit, part)} to ${nameOf(circuit, to)}.`,
  undo: (circuit, { part, pin }) => {
    const from = (partOf(circuit, part)?.pins as Record<string, string> | undefined)?.[pin];
    return `Move ${pin} of ${nameOf(circuit, part)} back to ${nameOf(circuit, from ?? 'where it was')}.`;
  },
};

const takeOut: EditKind<EditOf<'take-out'>> = {
  apply: (circuit, { part: id }) => {
    const part = partOf(circuit, id);
    if (!part) return cannot(`There is no part “${id}”.`);
    if (part.kind === 'battery') return cannot('The battery stays: everything is measured against it.');
    const gone = (load: string) => load === id || load.startsWith(`${id}:`);
    const functions = circuit.functions.filter(({ load }) => !gone(load));
    const conditions = circuit.conditions.map((condition) => {
      const { switches, pluggedIn, ...rest } = condition;
      if (switches?.[id] === undefined && pluggedIn?.[id] === undefined) return condition;
      const without = (record: Readonly<Record<string, string>> | undefined) =>
        Object.fromEntries(Object.entries(record ?? {}).filter(([key]) => key !== id));
      return {
        ...rest,
        ...(switches ? { switches: without(switches) } : {}),
        ...(pluggedIn ? { pluggedIn: without(pluggedIn) } : {}),
      };
    });
    return withoutLoosePoints({
      ...circuit,
      parts: circuit.parts.filter((one) => one !== part),
      functions: functions.length === circuit.functions.length ? circuit.functions : functions,
      conditions: conditions.every((one, index) => one === circuit.conditions[index])
        ? circuit.conditions
        : conditions,
    });
  },
  words: (circuit, { part, kept }) =>
    kept
      ? `Disable ${nameOf(circuit, part)}; it is kept, and can be put back.`
      : `Take out ${nameOf(circuit, part)}.`,
  undo: (circuit, { part }) => `Put ${nameOf(circuit, part)} back as it was.`,
};

const label: EditKind<EditOf<'label'>> = {
  apply: (circuit) => circuit,
  words: (_, { on, words }) => `Label on ${on}: “${words.replace(/\.$/, '')}”.`,
  undo: (_, { on }) => `Take the label off ${on}.`,
};

const restore: EditKind<EditOf<'restore'>> = {
  apply: (circuit, { patch }) => {
    try {
      return undoPatch(circuit, patch);
    } catch (error) {
      return cannot(error instanceof Error ? error.message : 'Something else was changed since.');
    }
  },
  words: (_, { words }) => words,
  undo: (_, { was }) => was,
};

const KINDS: { readonly [K in KindName]: EditKind<EditOf<K>> } = {
  add,
  tap,
  cut,
  join,
  move,
  'take-out': takeOut,
  label,
  restore,
};

const kindOf = <E extends PlanEdit>(edit: E) => KINDS[edit.kind] as unknown as EditKind<E>;

/** The circuit with an edit made in it, or why that cannot be. */
export function applyEdit(circuit: CircuitFile, edit: PlanEdit): CircuitFile | Impossible {
  return kindOf(edit).apply(circuit, edit);
}

/** An edit as a sentence; `circuit` is that before it. */
export function editWords(circuit: CircuitFile, edit: PlanEdit): string {
  return kindOf(edit).words(circuit, edit);
}

/** How it is undone by hand, as a sentence; `circuit` is that before it. */
export function undoWords(circuit: CircuitFile, edit: PlanEdit): string {
  return kindOf(edit).undo(circuit, edit);
}
