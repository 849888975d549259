/** Every wire of a circuit as a line of a list: colour, size, both ends, how it stands, where it goes on. */
import type { CircuitFile, CircuitPart, PartOf } from '../format';

type WireState = NonNullable<PartOf<'wire'>['state']>;

export interface WireEnd {
  /** The point of the circuit. */
  readonly node: string;
  /** "Plug C12, cavity 3 (wire side)", "Fuse 31, out"; null where nothing is joined and nobody has said more. */
  readonly words: string | null;
  /** The same for one line of a list, by the ids of the map: "C12/3", "F31 out", "SP2 +2"; null where `words` is. */
  readonly short: string | null;
  readonly joined: boolean;
}

export interface LedgerRow {
  readonly wire: string;
  readonly name: string;
  /** As printed, base before tracer; empty when nobody has said it. */
  readonly colour: string;
  readonly sizeMm2: number | null;
  readonly state: WireState;
  readonly a: WireEnd;
  readonly b: WireEnd;
  readonly joints: readonly string[];
  /** The wire that goes on behind a plug or splice in another colour: "RD behind Plug C12 cavity 3". */
  readonly goesOn: readonly string[];
  /** What is still owed about it, in words. */
  readonly open: readonly string[];
}

const FACES = { mating: 'mating face', wire: 'wire side' } as const;

export function wireLedger(circuit: CircuitFile): LedgerRow[] {
  const at = new Map<string, { part: CircuitPart; pin: string }[]>();
  for (const part of circuit.parts) {
    for (const [pin, node] of Object.entries(part.pins)) {
      at.set(node, [...(at.get(node) ?? []), { part, pin }]);
    }
  }
  return circuit.parts.flatMap((wire) => (wire.kind === 'wire' ? [rowOf(circuit, wire, at)] : []));
}

type Meets = ReadonlyMap<string, readonly { part: CircuitPart; pin: string }[]>;

function rowOf(circuit: CircuitFile, wire: PartOf<'wire'>, at: Meets): LedgerRow {
  const a = endOf(circuit, wire, wire.pins.a, wire.endA, at);
  const b = endOf(circuit, wire, wire.pins.b, wire.endB, at);
  const state = wire.state ?? 'in-use';
  const open: string[] = [];
  for (const [name, end] of [
    ['a', a],
    ['b', b],
  ] as const) {
    if (end.words === null) open.push(`end ${name} is not accounted for`);
  }
  if (state === 'unused' && !(a.words && b.words)) open.push('an unused wire needs both its ends said');
  if (state === 'unused') open.push('unused: take it out of its cavity, or insulate both ends');
  if (state === 'cut') open.push('cut: a live end must not be left in the loom');
  return {
    wire: wire.id,
    name: wire.name,
    colour: wire.colour ?? '',
    sizeMm2: wire.sizeMm2 ?? null,
    state,
    a,
    b,
    joints: wire.joints ?? [],
    goesOn: [wire.pins.a, wire.pins.b].flatMap((node) => changesAt(wire, node, at)),
    open,
  };
}

function endOf(
  circuit: CircuitFile,
  wire: PartOf<'wire'>,
  node: string,
  said: string | undefined,
  at: Meets,
): WireEnd {
  const others = (at.get(node) ?? []).filter((one) => one.part.id !== wire.id);
  const solid = others.filter((one) => one.part.kind !== 'wire');
  const chosen = solid.length > 0 ? solid : others;
  const words = chosen.map(({ part, pin }) => {
    if (part.kind === 'connector') {
      const cavity = part.cavity && !part.name.includes(part.cavity) ? `, cavity ${part.cavity}` : '';
      return `${part.name}${cavity}${part.face ? ` (${FACES[part.face]})` : ''}`;
    }
    if (part.kind === 'splice') return `${part.name}, leg ${pin}`;
    return part.kind === 'ground' || part.kind === 'wire' ? part.name : `${part.name}, ${pin}`;
  });
  const joined = words.length > 0;
  const body = node === circuit.reference ? 'body or battery minus' : null;
  const more = chosen.length > 1 ? ` +${chosen.length - 1}` : '';
  const short = chosen[0] ? `${shortEnd(chosen[0])}${more}` : body;
  return { node, words: said ?? (joined ? words.join('; ') : body), short: said ?? short, joined };
}

function shortEnd({ part, pin }: { part: CircuitPart; pin: string }): string {
  if (part.kind === 'connector') return part.cavity ? `${part.id}/${part.cavity}` : part.id;
  return part.kind === 'ground' || part.kind === 'wire' || part.kind === 'splice'
    ? part.id
    : `${part.id} ${pin}`;
}

/** Another colour behind a plug or splice: the wire goes on, its colour does not. */
function changesAt(wire: PartOf<'wire'>, node: string, at: Meets): string[] {
  return (at.get(node) ?? []).flatMap(({ part, pin }) => {
    if (part.kind !== 'connector') return [];
    const far = Object.entries(part.pins).find(([other]) => other !== pin)?.[1];
    const next = (at.get(far ?? '') ?? []).find((one) => one.part.kind === 'wire')?.part;
    if (next?.kind !== 'wire' || !next.colour || sameColour(next.colour, wire.colour ?? '')) return [];
    return [`${next.colour} behind ${part.name}`];
  });
}

/** Base and tracer each as they are: BN/WH is another wire than WH/BN. */
export function sameColour(one: string, other: string): boolean {
  return one.trim().toUpperCase() === other.trim().toUpperCase();
}

/** Rows whose colour begins as typed, base before tracer. */
export function byColour(rows: readonly LedgerRow[], typed: string): LedgerRow[] {
  const wanted = typed.trim().toUpperCase();
  if (wanted === '') return [...rows];
  return rows.filter(({ colour }) => {
    const [base = ''] = colour.toUpperCase().split('/');
    return wanted.includes('/') ? sameColour(colour, wanted) : base === wanted;
  });
}
