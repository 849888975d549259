/**
 * Writes a circuit in the notation: branches from the battery to earth, one a line, then functions and conditions.
 * `everything` adds names, places, slots, points and every other field, so that the text alone is the whole file;
 * without it the text is short, and reading it back needs the circuit it was made from.
 */
import type { CircuitFile, CircuitPart, Condition } from '../format';
import { BODY, SPOKEN } from './pieces';
import { looksLikeId, readNotation } from './read';
import { quoted } from './tokens';
import { isColour, kindOfWord, LOADS, type Unit, type Way, wordsOfKind } from './words';

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

interface Step {
  readonly part: CircuitPart;
  readonly way: Way;
}

interface BranchLine {
  /** Node it starts from; the steps; the node it ends at. */
  readonly from: string;
  readonly steps: readonly Step[];
  readonly to: string;
}

/** Ways that together touch every pin of a part. */
function waysOf(part: CircuitPart): Way[] {
  const pins = part.pins as Readonly<Record<string, string>>;
  const words = wordsOfKind(part.kind);
  const ways = words.ways.filter((way) => pins[way.enter] !== undefined && pins[way.leave] !== undefined);
  const touched = new Set(ways.flatMap((way) => [way.enter, way.leave]));
  const rest = Object.keys(pins).filter((pin) => !touched.has(pin));
  if (part.kind === 'switch' && part.contacts.length > 0) {
    const own = part.contacts
      .filter((one) => pins[one.from] !== undefined && pins[one.to] !== undefined)
      .map((one) => ({ enter: one.from, leave: one.to }));
    const unique = own.filter(
      (way, index) => own.findIndex((one) => one.enter === way.enter && one.leave === way.leave) === index,
    );
    const reached = new Set(unique.flatMap((way) => [way.enter, way.leave]));
    const left = Object.keys(pins).filter((pin) => !reached.has(pin));
    return [
      ...unique,
      ...left.map((pin) => ({ enter: unique[0]?.enter ?? Object.keys(pins)[0]!, leave: pin })),
    ];
  }
  if (ways.length === 0 && rest.length >= 2) {
    return rest.slice(1).map((pin) => ({ enter: rest[0]!, leave: pin }));
  }
  const hub = ways[0]?.enter ?? rest[0]!;
  return [...ways, ...rest.map((pin) => ({ enter: hub, leave: pin }))];
}

/** Every way of every part once, in lines that follow the current where they can. */
function branchesOf(circuit: CircuitFile): BranchLine[] {
  return new LineMaker(circuit).make();
}

/** F5 before F31. */
const { compare: byName } = new Intl.Collator('en', { numeric: true });

interface OpenStep extends Step {
  done: boolean;
}

const pinsOf = (part: CircuitPart) => part.pins as Readonly<Record<string, string>>;
/** Parts that a line may go through from either end, when nothing leads to them the right way round. */
const TURNS: readonly CircuitPart['kind'][] = [
  'wire',
  'connector',
  'resistor',
  'ground',
  'fuse',
  'fusible-link',
];

class LineMaker {
  private readonly lines: BranchLine[] = [];
  private readonly steps: OpenStep[];
  private readonly byNode = new Map<string, OpenStep[]>();
  private readonly splices = new Map<string, { part: CircuitPart; passed: boolean }[]>();
  private readonly reached: string[] = [];

  constructor(private readonly circuit: CircuitFile) {
    // By name, so that the text depends on the circuit and not on the order of its file.
    const ordered = circuit.parts.slice().sort((one, other) => byName(one.id, other.id));
    this.steps = ordered
      .filter((part) => part.kind !== 'splice')
      .flatMap((part) => waysOf(part).map((way): OpenStep => ({ part, way, done: false })))
      .filter(({ way }) => way.enter !== way.leave);
    for (const step of this.steps) {
      for (const pin of [step.way.enter, step.way.leave])
        this.put(this.byNode, pinsOf(step.part)[pin]!, step);
    }
    for (const part of ordered) {
      if (part.kind !== 'splice') continue;
      const splice = { part, passed: false };
      for (const node of new Set(Object.values(pinsOf(part)))) this.put(this.splices, node, splice);
    }
  }

  private put<T>(map: Map<string, T[]>, key: string, value: T): void {
    map.set(key, [...(map.get(key) ?? []), value]);
  }

  make(): BranchLine[] {
    for (const step of this.steps) {
      if (step.part.kind === 'battery' && !step.done)
        this.follow(pinsOf(step.part)[step.way.enter]!, step, false);
    }
    // First along the current only; then what is left, from whichever end is known.
    for (const turning of [false, true]) {
      for (let index = 0; index < this.reached.length; index++) this.startAt(this.reached[index]!, turning);
    }
    for (const step of this.steps) {
      if (step.done) continue;
      this.follow(pinsOf(step.part)[step.way.enter]!, step, false);
      for (let index = 0; index < this.reached.length; index++) this.startAt(this.reached[index]!, true);
    }
    for (const splice of [...this.splices.values()].flat()) {
      if (!splice.passed) this.follow(Object.values(pinsOf(splice.part))[0]!, null, true);
    }
    return this.lines;
  }

  private reach(node: string): void {
    if (!this.reached.includes(node)) this.reached.push(node);
  }

  private startAt(node: string, turning: boolean): void {
    // What starts at the return of everything comes last, and turned round if need be.
    if (node === this.circuit.reference && !turning) return;
    while (this.openAt(node, turning) || this.spliceAt(node)) this.follow(node, null, turning);
  }

  private openAt(node: string, turning: boolean): OpenStep | undefined {
    const open = (this.byNode.get(node) ?? []).filter((step) => !step.done);
    return (
      open.find((step) => pinsOf(step.part)[step.way.enter] === node) ??
      (turning ? open.find((step) => TURNS.includes(step.part.kind)) : undefined)
    );
  }

  private spliceAt(node: string) {
    return (this.splices.get(node) ?? []).find((splice) => !splice.passed);
  }

  private follow(from: string, first: OpenStep | null, turning: boolean): void {
    const path: Step[] = [];
    let at = from;
    const legs: string[] = [];
    let forced = first;
    this.reach(from);
    for (;;) {
      const splice = forced ? undefined : this.spliceAt(at);
      const step = splice
        ? this.throughSplice(splice, at)
        : this.next(forced ?? this.openAt(at, turning), at);
      forced = null;
      if (!step) break;
      path.push(step);
      at = pinsOf(step.part)[step.way.leave]!;
      if (splice) legs.push(...Object.values(pinsOf(step.part)));
      // A point that was met before ends the branch by its name.
      if (this.reached.includes(at)) break;
      this.reach(at);
      // Earth ends a branch, and so does the point that everything returns to.
      if ((step.part.kind === 'ground' && step.way.leave === 'body') || at === this.circuit.reference) break;
    }
    for (const leg of legs) this.reach(leg);
    if (path.length > 0) this.lines.push({ from, steps: path, to: at });
  }

  private next(step: OpenStep | undefined, at: string): Step | null {
    if (!step) return null;
    step.done = true;
    const { part, way } = step;
    if (pinsOf(part)[way.enter] === at) return { part, way };
    return { part, way: { enter: way.leave, leave: way.enter } };
  }

  /** On by the leg that leads on, else by any other. */
  private throughSplice(splice: { part: CircuitPart; passed: boolean }, at: string): Step {
    splice.passed = true;
    const legs = Object.entries(pinsOf(splice.part)).sort(([one], [other]) => byName(one, other));
    const enter = legs.find(([, node]) => node === at)![0];
    const others = legs.filter(([pin]) => pin !== enter);
    const on = others.find(([, node]) => this.openAt(node, false)) ?? others[0]!;
    return { part: splice.part, way: { enter, leave: on[0] } };
  }
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

const UNIT_ORDER: readonly Unit[] = ['A', 'W', 'V', 'mm²', 'm', 'ohm'];

function phraseOf(part: CircuitPart, way: Way, fresh: boolean, everything: boolean): string {
  const words = wordsOfKind(part.kind);
  const fields = part as unknown as Readonly<Record<string, unknown>>;
  const bareId = looksLikeId(part.id) && !kindOfWord(part.id) && !isColour(part.id.toUpperCase());
  const out = [words.word, bareId ? part.id : `#${part.id}`];
  const usualName = `${words.word[0]!.toUpperCase()}${words.word.slice(1)} ${part.id}`;
  const done = new Set<string>(['id', 'kind', 'pins', 'name']);
  if (fresh) {
    const speaks =
      everything || LOADS.includes(part.kind) || part.kind === 'switch' || part.kind === 'socket';
    if (speaks && part.name !== usualName) out.push(quoted(part.name));
    if (typeof fields.colour === 'string') {
      out.push(isColour(fields.colour) ? fields.colour : `colour=${quoted(fields.colour)}`);
      done.add('colour');
    }
    for (const unit of UNIT_ORDER) {
      const field = words.numbers[unit];
      const value = field === undefined ? undefined : fields[field];
      if (typeof value !== 'number' || field === undefined) continue;
      out.push(`${plainNumber(value)} ${unit}`);
      done.add(field);
    }
    for (const [field, values] of Object.entries(words.choices ?? {})) {
      if (typeof fields[field] !== 'string' || !values.includes(fields[field])) continue;
      out.push(fields[field]);
      done.add(field);
    }
    out.push(...special(part, done));
  }
  const wayWord = words.ways.find((one) => one.enter === way.enter && one.leave === way.leave);
  const usual = wayWord !== undefined && wayWord === words.ways[0] && !words.mustSay;
  if (wayWord?.word) out.push(wayWord.word);
  else if (!usual) out.push(`${way.enter}>${way.leave}`);
  if (fresh) out.push(...quiet(fields, done, everything));
  return out.join(' ');
}

function plainNumber(value: number): string {
  return String(value);
}

/** What only one kind has words for. */
function special(part: CircuitPart, done: Set<string>): string[] {
  switch (part.kind) {
    case 'connector':
      done.add('cavity').add('plug');
      return [
        ...(part.cavity === undefined
          ? []
          : /^[^\s,"=[\]]+$/.test(part.cavity)
            ? [`cavity ${part.cavity}`]
            : [`cavity=${quoted(part.cavity)}`]),
        ...(part.plug === undefined ? [] : [`of ${part.plug}`]),
      ];
    case 'key-contact':
      done.add('closedIn');
      return [part.closedIn.join('|')];
    case 'switch': {
      for (const field of ['positions', 'rest', 'contacts', 'momentary']) done.add(field);
      const [only] = part.contacts;
      const on = part.positions.filter((one) => one !== part.rest);
      const plain =
        part.contacts.length === 1 &&
        Object.keys(part.pins).length === 2 &&
        only?.from === 'in' &&
        only.to === 'out' &&
        JSON.stringify(only.closedIn) === JSON.stringify(on);
      return [
        ...(part.positions.join('|') === 'off|on' ? [] : [part.positions.join('|')]),
        ...(part.rest === part.positions[0] ? [] : [`rest=${quoted(part.rest)}`]),
        ...(plain ? [] : part.contacts.map((one) => `${one.from}>${one.to}:${one.closedIn.join('|')}`)),
        ...(part.momentary === undefined ? [] : part.momentary ? ['momentary'] : ['momentary=false']),
      ];
    }
    case 'socket':
      done.add('appliances');
      return part.appliances.length === 0 ? [] : [`appliances=${JSON.stringify(part.appliances)}`];
    default:
      return [];
  }
}

/** Places, slots, flags, and every field that has no word of its own. */
function quiet(
  fields: Readonly<Record<string, unknown>>,
  done: ReadonlySet<string>,
  everything: boolean,
): string[] {
  const out: string[] = [];
  for (const [field, value] of Object.entries(fields)) {
    if (done.has(field) || value === undefined) continue;
    if (!everything && !SPOKEN.includes(field)) continue;
    if (field === 'place' && /^[A-Za-z0-9][A-Za-z0-9._:-]*$/.test(String(value)))
      out.push(`@${String(value)}`);
    else if (field === 'slot') {
      const { panel, slot } = value as { panel: string; slot: string };
      out.push(`slot ${panel}/${slot}`);
    } else if (field === 'safetyCritical' && value === true) out.push('safety-critical');
    else if (field === 'fixed' && value === true) out.push('fixed');
    else out.push(`${field}=${JSON.stringify(value)}`);
  }
  return out;
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
