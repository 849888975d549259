/** A plan kept as the shop’s own recipe: started on another vehicle, everything it rests on is unverified there. */
import type { CircuitFile, PlanEdit, PlanFile } from '../format';

/** Something of the vehicle that a plan names. */
export interface Rests {
  readonly id: string;
  readonly kind: 'part' | 'point' | 'function';
  /** As it was called where the plan was made. */
  readonly name: string;
  /** Of a part. */
  readonly partKind?: CircuitFile['parts'][number]['kind'];
}

const MADE = (plan: Pick<PlanFile, 'edits'>): ReadonlySet<string> =>
  new Set(
    plan.edits.flatMap((edit) => {
      if (edit.kind === 'add')
        return [
          ...edit.parts.map(({ id }) => id),
          ...edit.nodes.map(({ id }) => id),
          ...(edit.functions ?? []).map(({ id }) => id),
        ];
      if (edit.kind === 'tap') return [edit.addedFuse, edit.lead];
      if (edit.kind === 'cut') return [edit.rest, edit.nodes.a, edit.nodes.b];
      return edit.kind === 'join' ? [edit.splice] : [];
    }),
  );

function namedBy(edit: PlanEdit): { parts: string[]; points: string[] } {
  switch (edit.kind) {
    case 'add':
      return {
        parts: [],
        points: edit.parts.flatMap((part) => Object.values(part.pins as Record<string, string>)),
      };
    case 'tap':
      return { parts: [edit.fuse], points: [] };
    case 'cut':
      return { parts: [edit.wire], points: [] };
    case 'join':
      return { parts: [], points: [edit.one, edit.other] };
    case 'move':
      return { parts: [edit.part], points: [edit.to] };
    case 'take-out':
      return { parts: [edit.part], points: [] };
    default:
      return { parts: [], points: [] };
  }
}

/** Everything of the vehicle that a plan names, once, in its order. */
export function restsOn(plan: Pick<PlanFile, 'edits' | 'goals'>, circuit: CircuitFile): Rests[] {
  const made = MADE(plan);
  const found = new Map<string, Rests>();
  const part = (id: string) => {
    const one = circuit.parts.find((each) => each.id === id);
    if (!made.has(id))
      found.set(id, { id, kind: 'part', name: one?.name ?? id, ...(one ? { partKind: one.kind } : {}) });
  };
  const point = (id: string) => {
    if (!made.has(id))
      found.set(id, { id, kind: 'point', name: circuit.nodes.find((each) => each.id === id)?.name ?? id });
  };
  for (const edit of plan.edits) {
    const { parts, points } = namedBy(edit);
    parts.forEach(part);
    points.forEach(point);
  }
  for (const { of } of plan.goals ?? []) {
    if (made.has(of) || found.has(of)) continue;
    const one = circuit.functions.find(({ id }) => id === of);
    if (one) found.set(of, { id: of, kind: 'function', name: one.name });
    else point(of);
  }
  return [...found.values()];
}

/** What another vehicle has in the place of each, by name where exactly one bears it; the rest is to be chosen. */
export function foundOn(rests: readonly Rests[], circuit: CircuitFile): Record<string, string> {
  const found: Record<string, string> = {};
  for (const { id, kind, name, partKind } of rests) {
    const list: readonly { readonly id: string; readonly name: string }[] =
      kind === 'part'
        ? circuit.parts.filter((part) => partKind === undefined || part.kind === partKind)
        : kind === 'point'
          ? circuit.nodes
          : circuit.functions;
    const same = list.filter((one) => one.name.toLowerCase() === name.toLowerCase());
    const [only] = same.length === 1 ? same : list.filter((one) => one.id === id);
    if (only) found[id] = only.id;
  }
  return found;
}

export type Started =
  | { readonly ok: true; readonly plan: PlanFile }
  | { readonly ok: false; readonly missing: readonly Rests[] };

/** A recipe on another vehicle: names exchanged for its own; ids that are taken there get others. */
export function startedOn(
  recipe: PlanFile,
  rests: readonly Rests[],
  chosen: Readonly<Record<string, string>>,
  circuit: CircuitFile,
  id: string,
): Started {
  const has = (one: Rests) => {
    const to = chosen[one.id];
    if (to === undefined) return false;
    return one.kind === 'part'
      ? circuit.parts.some((part) => part.id === to)
      : one.kind === 'point'
        ? circuit.nodes.some((node) => node.id === to)
        : circuit.functions.some((each) => each.id === to);
  };
  const missing = rests.filter((one) => !has(one));
  if (missing.length > 0) return { ok: false, missing };
  const taken = new Set([
    ...circuit.parts.map((part) => part.id),
    ...circuit.nodes.map((node) => node.id),
    ...circuit.functions.map((one) => one.id),
  ]);
  const names = new Map(rests.map((one) => [one.id, chosen[one.id]!]));
  for (const made of MADE(recipe)) {
    let own = made;
    for (let count = 2; taken.has(own); count++) own = `${made.slice(0, 70)}-${count}`;
    names.set(made, own);
    taken.add(own);
  }
  const to = (name: string) => names.get(name) ?? name;
  const pins = <T extends { readonly pins: unknown }>(part: T): T => ({
    ...part,
    pins: Object.fromEntries(
      Object.entries(part.pins as Record<string, string>).map(([pin, node]) => [pin, to(node)]),
    ),
  });
  const edits = recipe.edits.map((edit): PlanEdit => {
    switch (edit.kind) {
      case 'add':
        return {
          ...edit,
          nodes: edit.nodes.map((node) => ({ ...node, id: to(node.id) })),
          parts: edit.parts.map((part) => ({ ...pins(part), id: to(part.id) })),
          ...(edit.functions
            ? {
                functions: edit.functions.map((one) => {
                  const [load = '', ...rest] = one.load.split(':');
                  return { ...one, id: to(one.id), load: [to(load), ...rest].join(':') };
                }),
              }
            : {}),
        };
      case 'tap':
        return { ...edit, fuse: to(edit.fuse), addedFuse: to(edit.addedFuse), lead: to(edit.lead) };
      case 'cut':
        return {
          ...edit,
          wire: to(edit.wire),
          rest: to(edit.rest),
          nodes: { a: to(edit.nodes.a), b: to(edit.nodes.b) },
        };
      case 'join':
        return { ...edit, splice: to(edit.splice), one: to(edit.one), other: to(edit.other) };
      case 'move':
        return { ...edit, part: to(edit.part), to: to(edit.to) };
      case 'take-out':
        return { ...edit, part: to(edit.part) };
      default:
        return edit;
    }
  });
  const unverified = Object.fromEntries(
    rests.map((one) => [
      to(one.id),
      `${one.name} is taken for ${nameOn(circuit, one, to(one.id))}.`.slice(0, 400),
    ]),
  );
  return {
    ok: true,
    plan: {
      ...recipe,
      id,
      edits,
      goals: (recipe.goals ?? []).map((goal) => ({ ...goal, of: to(goal.of) })),
      ...(recipe.ties ? { ties: recipe.ties.map(to) } : {}),
      unverified,
    },
  };
}

function nameOn(circuit: CircuitFile, { kind }: Rests, id: string): string {
  const list: readonly { readonly id: string; readonly name: string }[] =
    kind === 'part' ? circuit.parts : kind === 'point' ? circuit.nodes : circuit.functions;
  return list.find((one) => one.id === id)?.name ?? id;
}
