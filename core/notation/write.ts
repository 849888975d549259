/**
 * Writes a circuit in the notation: branches from the battery to earth, one a line, then functions and conditions.
 * `everything` adds names, places, slots, points and every other field, so that the text alone is the whole file;
 * without it the text is short, and reading it back needs the circuit it was made from.
 */
import type { CircuitFile, CircuitPart, Condition } from '../format';
import { type BranchLine, branchesOf } from './branchLines';
import { phraseOf } from './partPhrase';
import { BODY } from './pieces';
import { readNotation } from './read';
import { quoted } from './tokens';
import { wordsOfKind } from './words';

export interface WriteOptions {
  readonly everything: boolean;
}

export function writeNotation(circuit: CircuitFile, { everything }: WriteOptions): string {
  const branches = branchesOf(circuit);
  const first = compose(circuit, branches, everything, new Map());
  if (!everything) return first;
  // Ids that the lines would give by themselves need not be written.
  const read = readNotation(first).circuit;
  const made = new Map(
    (read?.parts ?? []).flatMap((part) =>
      Object.entries(part.pins).map(([pin, node]) => [`${part.id}.${pin}`, node] as const),
    ),
  );
  const names = new Map<string, string>();
  for (const part of circuit.parts) {
    for (const [pin, node] of Object.entries(part.pins)) {
      if (made.get(`${part.id}.${pin}`) !== node) names.set(node, node);
    }
  }
  return compose(circuit, branches, true, names);
}

/** "F31" for the point behind a fuse, "R4.87" where a part has several ways out. */
function calledBy(part: CircuitPart, pin: string): string {
  const { ways, anyPins } = wordsOfKind(part.kind);
  const plain = ways.length === 1 && !anyPins && ways[0]!.leave === pin;
  return plain ? part.id : `${part.id}.${pin}`;
}

/** Behind "to", a part alone would mean the point before it. */
function byPin(circuit: CircuitFile, name: string): string {
  const part = circuit.parts.find((one) => one.id === name);
  return part ? `${name}.${wordsOfKind(part.kind).ways[0]!.leave}` : name;
}

/** The metal that most earth points are bolted to; null where the circuit has none. */
function bodyOf(circuit: CircuitFile): string | null {
  const counts = new Map<string, number>();
  for (const part of circuit.parts) {
    if (part.kind === 'ground') counts.set(part.pins.body, (counts.get(part.pins.body) ?? 0) + 1);
  }
  const [most] = [...counts].sort((one, other) => other[1] - one[1]);
  return most?.[0] ?? null;
}

/** Points that are one, where no line of parts says so: a part's pin on the body, an open end with a name. */
function loose(
  circuit: CircuitFile,
  branches: readonly BranchLine[],
  called: ReadonlyMap<string, string>,
  names: ReadonlyMap<string, string>,
): string[] {
  const written = new Set(
    branches.flatMap((branch) =>
      branch.steps.flatMap(({ part, way }) => [`${part.id}.${way.enter}`, `${part.id}.${way.leave}`]),
    ),
  );
  const rest: string[] = [];
  for (const part of circuit.parts) {
    for (const [pin, node] of Object.entries(part.pins)) {
      if (written.has(`${part.id}.${pin}`)) continue;
      const other = names.get(node) ?? called.get(node);
      rest.push(
        other === undefined
          ? `from ${part.id}.${pin}, open`
          : `from ${part.id}.${pin}, to ${byPin(circuit, other)}`,
      );
    }
  }
  return rest;
}

function referenceLine(circuit: CircuitFile): string[] {
  const battery = circuit.parts.find((part) => part.kind === 'battery');
  return battery?.pins.minus === circuit.reference ? [] : [`reference ${circuit.reference}`];
}

function notesOf(circuit: CircuitFile): string[] {
  return circuit.notes === undefined ? [] : circuit.notes.split('\n').map((line) => `note ${quoted(line)}`);
}

function conditionLine(one: Condition): string {
  const states = [
    `key ${one.key}`,
    ...Object.entries(one.switches ?? {}).map(([id, position]) => `${id} ${position}`),
    ...(one.engineRunning === undefined ? [] : [one.engineRunning ? 'engine running' : 'engine stopped']),
    ...Object.entries(one.pluggedIn ?? {}).map(([id, appliance]) => `${id} takes ${appliance}`),
    ...(one.phase === undefined ? [] : [`phase ${one.phase}`]),
    ...(one.secondsIn === undefined ? [] : [`${one.secondsIn} s in`]),
    ...(one.after === undefined ? [] : [`after ${one.after}`]),
  ];
  return `when ${one.id} ${quoted(one.name)}: ${states.join(', ')}`;
}

function placeLines(circuit: CircuitFile): string[] {
  return circuit.places.map(
    (one) =>
      `place ${one.id} ${quoted(one.name)} ${one.minutesToOpen} min${one.caution === undefined ? '' : ` caution ${quoted(one.caution)}`}`,
  );
}

function pointLines(circuit: CircuitFile): string[] {
  return circuit.nodes.map((node) =>
    [
      `point ${node.id} ${quoted(node.name)}${node.probe === undefined ? '' : ` ${node.probe}`}`,
      ...(node.access ?? []).map(
        (one) =>
          `at ${one.place} ${quoted(one.lead)}${one.minutes === undefined ? '' : ` ${one.minutes} min`}`,
      ),
    ].join(', '),
  );
}

function compose(
  circuit: CircuitFile,
  branches: readonly BranchLine[],
  everything: boolean,
  names: ReadonlyMap<string, string>,
): string {
  const mentioned = new Set<string>();
  /** How a node may be called by what was written before. */
  const called = new Map<string, string>();
  const body = bodyOf(circuit);
  const meets = new Map<string, number>();
  for (const node of circuit.parts.flatMap((part) => Object.values(part.pins) as string[])) {
    meets.set(node, (meets.get(node) ?? 0) + 1);
  }
  if (body !== null) called.set(body, names.get(body) ?? BODY);
  const runs = branches.map((branch) => {
    const phrases: string[] = [];
    const [head] = branch.steps;
    const battery = head?.part.kind === 'battery';
    if (!battery) phrases.push(`from ${names.get(branch.from) ?? called.get(branch.from) ?? branch.from}`);
    else if (names.has(branch.from)) phrases.push(`from ${branch.from}`);
    for (const { part, way } of branch.steps) {
      const fresh = !mentioned.has(part.id);
      mentioned.add(part.id);
      const node = (part.pins as Readonly<Record<string, string>>)[way.leave]!;
      // Going on from the body in mid-line, the body has to be named there.
      const passesBody = node === body && part !== branch.steps.at(-1)!.part;
      const before = called.has(node) && !passesBody;
      const phrase = phraseOf(part, way, fresh, everything);
      const name = before ? undefined : (names.get(node) ?? (passesBody ? BODY : undefined));
      phrases.push(name === undefined ? phrase : `${phrase} [${name}]`);
      for (const [pin, at] of Object.entries(part.pins)) {
        if (pin === way.enter || pin === way.leave) {
          if (!called.has(at)) called.set(at, names.get(at) ?? calledBy(part, pin));
        }
      }
    }
    const last = branch.steps.at(-1)!;
    const end = branch.to;
    const lastPin = calledBy(last.part, last.way.leave);
    const closes =
      last.part.kind === 'ground' && last.way.leave === 'body' && end === body && !names.has(end);
    const knownAs = called.get(end);
    if (!closes && knownAs !== undefined && knownAs !== lastPin && names.get(end) === undefined) {
      phrases.push(`to ${byPin(circuit, knownAs)}`);
    } else if (!closes && names.get(end) !== undefined && !phrases.at(-1)!.endsWith(`[${end}]`)) {
      phrases.push(`to ${end}`);
    }
    if (names.get(end) === undefined && (meets.get(end) ?? 0) === 1 && !closes) phrases.push('open');
    return phrases.join(', ');
  });
  const lines = [
    `circuit ${circuit.id} ${quoted(circuit.name)} ${circuit.nominalVolts} V`,
    ...notesOf(circuit),
    '',
    ...runs,
    ...loose(circuit, branches, called, names),
    ...referenceLine(circuit),
    '',
    ...circuit.functions.map(
      (one) =>
        `function ${one.id} ${quoted(one.name)}: ${one.load}${one.minutes === undefined ? '' : ` ${one.minutes} min`}`,
    ),
    ...circuit.conditions.map(conditionLine),
  ];
  if (!everything) return `${lines.join('\n')}\n`;
  return `${[...lines, '', ...placeLines(circuit), ...pointLines(circuit)].join('\n')}\n`;
}
