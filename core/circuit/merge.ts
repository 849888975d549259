/**
 * Several circuit files of one vehicle as one network: a part with the same id is the same part. For every field there
 * is one rule: what protects joins to the stricter of what the files say; what describes must be the same, or is a
 * problem that names both files. The order of the files decides nothing.
 */
import { type CircuitFile, type Problem, ProblemList } from '../format';

type Node = CircuitFile['nodes'][number];
type Access = NonNullable<Node['access']>[number];
type Place = CircuitFile['places'][number];
type Condition = CircuitFile['conditions'][number];
type FunctionEntry = CircuitFile['functions'][number];
type Report = (path: string, message: string) => void;

/** The same in every field, in whatever order. */
export function same(left: unknown, right: unknown): boolean {
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

/** From the mildest to the strictest. */
const PROBING: readonly NonNullable<Node['probe']>[] = ['allowed', 'no-load', 'do-not-probe'];

/** Things of one kind from all files, by id, each with the name of the file that it was first met in. */
class Joined<T extends { readonly id: string; readonly name: string }> {
  private readonly entries = new Map<string, { readonly file: string; readonly value: T }>();

  constructor(
    private readonly list: string,
    private readonly report: Report,
    private readonly join: (one: T, other: T, differs: (field: keyof T & string) => void) => T,
  ) {}

  add(file: string, value: T): void {
    const known = this.entries.get(value.id);
    if (!known) {
      this.entries.set(value.id, { file, value });
      return;
    }
    const differs = (field: keyof T & string) => {
      const said = `${words(known.value[field])} in ${known.file}, ${words(value[field])} in ${file}`;
      this.report(
        `/${this.list}/${value.id}/${field}`,
        `${value.name} (${value.id}): “${field}” is ${said}. Make them the same in one of the two.`,
      );
    };
    this.entries.set(value.id, { file: known.file, value: this.join(known.value, value, differs) });
  }

  get all(): T[] {
    return [...this.entries.values()].map((entry) => entry.value);
  }
}

function words(value: unknown): string {
  return value === undefined ? 'not said' : JSON.stringify(value).slice(0, 80);
}

/** What only one of two says, or both alike; otherwise it is reported. */
function agreed<T, K extends keyof T & string>(
  one: T,
  other: T,
  field: K,
  differs: (field: K) => void,
): Partial<Pick<T, K>> {
  const [left, right] = [one[field], other[field]];
  if (left !== undefined && right !== undefined && !same(left, right)) differs(field);
  const value = left ?? right;
  return (value === undefined ? {} : { [field]: value }) as Partial<Pick<T, K>>;
}

/** Of two names for one thing the same one whichever file comes first; a name protects nobody. */
function oneName(one: { readonly name: string }, other: { readonly name: string }): string {
  return [one.name, other.name].sort()[0]!;
}

function most(one: number | undefined, other: number | undefined): number | undefined {
  return one === undefined ? other : other === undefined ? one : Math.max(one, other);
}

function joinNodes(one: Node, other: Node): Node {
  const access = [...(one.access ?? []), ...(other.access ?? [])];
  const probe =
    PROBING[Math.max(PROBING.indexOf(one.probe ?? 'allowed'), PROBING.indexOf(other.probe ?? 'allowed'))];
  return {
    id: one.id,
    name: oneName(one, other),
    ...(access.length > 0 ? { access: joinAccess(access) } : {}),
    ...(one.probe === undefined && other.probe === undefined ? {} : { probe }),
  };
}

/** Every way to a point once; of one way said twice the longer time counts. In an order of their own. */
function joinAccess(access: readonly Access[]): Access[] {
  const ways = new Map<string, Access>();
  for (const one of access) {
    const key = `${one.place} ${one.lead}`;
    const minutes = most(ways.get(key)?.minutes, one.minutes);
    ways.set(key, { place: one.place, lead: one.lead, ...(minutes === undefined ? {} : { minutes }) });
  }
  return [...ways.entries()].sort(([one], [other]) => (one < other ? -1 : 1)).map(([, way]) => way);
}

function joinPlaces(one: Place, other: Place): Place {
  const cautions = new Set(
    [one.caution, other.caution].flatMap((text) => (text ? text.split(CAUTION_BREAK) : [])),
  );
  return {
    id: one.id,
    name: oneName(one, other),
    // Who plans with the longer time is not surprised.
    minutesToOpen: Math.max(one.minutesToOpen, other.minutesToOpen),
    ...(cautions.size > 0 ? { caution: [...cautions].sort().join(CAUTION_BREAK) } : {}),
  };
}

/** Two cautions of one place are both said. */
const CAUTION_BREAK = ' · ';

/**
 * A condition with all that its file means by it: a switch of the file that is not named is at rest, an engine that is
 * not named stands. What the file has no part for it says nothing about.
 */
interface Meant extends Condition {
  readonly switches: Record<string, string>;
  readonly pluggedIn: Record<string, string>;
}

/** Stands for what is meant by saying nothing. */
const LONG_AGO = Number.POSITIVE_INFINITY;
const FROM_REST = '';
const NOTHING_IN = '';

function meantBy(file: CircuitFile, condition: Condition): Meant {
  const switches: Record<string, string> = {};
  const pluggedIn: Record<string, string> = {};
  let [flashes, times, holds] = [false, false, false];
  for (const part of file.parts) {
    if (part.kind === 'switch') switches[part.id] = condition.switches?.[part.id] ?? part.rest;
    if (part.kind === 'socket') pluggedIn[part.id] = condition.pluggedIn?.[part.id] ?? NOTHING_IN;
    flashes ||= part.kind === 'flasher';
    times ||= part.kind === 'relay' && part.timing !== undefined;
    holds ||= part.kind === 'latching-relay' || part.kind === 'cut-off';
  }
  return {
    ...condition,
    switches,
    pluggedIn,
    engineRunning: condition.engineRunning ?? false,
    ...(flashes ? { phase: condition.phase ?? 'on' } : {}),
    ...(times ? { secondsIn: condition.secondsIn ?? LONG_AGO } : {}),
    ...(holds ? { after: condition.after ?? FROM_REST } : {}),
  };
}

/** As files write it: what is meant anyhow is left out. */
function written(condition: Meant, rests: ReadonlyMap<string, string>): Condition {
  const { engineRunning, phase, secondsIn, after } = condition;
  const switches = Object.entries(condition.switches).filter(([id, at]) => rests.get(id) !== at);
  const pluggedIn = Object.entries(condition.pluggedIn).filter(([, appliance]) => appliance !== NOTHING_IN);
  return {
    id: condition.id,
    name: condition.name,
    key: condition.key,
    ...(switches.length > 0 ? { switches: Object.fromEntries(switches) } : {}),
    ...(engineRunning ? { engineRunning } : {}),
    ...(pluggedIn.length > 0 ? { pluggedIn: Object.fromEntries(pluggedIn) } : {}),
    ...(phase === undefined ? {} : { phase }),
    ...(secondsIn === undefined || secondsIn === LONG_AGO ? {} : { secondsIn }),
    ...(after === undefined || after === FROM_REST ? {} : { after }),
  };
}

function joinConditions(one: Meant, other: Meant, differs: (field: keyof Meant & string) => void): Meant {
  if (one.key !== other.key) differs('key');
  if (one.engineRunning !== other.engineRunning) differs('engineRunning');
  return {
    id: one.id,
    name: oneName(one, other),
    key: one.key,
    switches: joinRecords(one, other, 'switches', differs),
    pluggedIn: joinRecords(one, other, 'pluggedIn', differs),
    engineRunning: one.engineRunning || other.engineRunning,
    ...agreed(one, other, 'phase', differs),
    ...agreed(one, other, 'secondsIn', differs),
    ...agreed(one, other, 'after', differs),
  };
}

/** What either says of its switches or sockets; one of both files in two positions is a problem. */
function joinRecords<K extends 'switches' | 'pluggedIn'>(
  one: Meant,
  other: Meant,
  field: K,
  differs: (field: K) => void,
): Record<string, string> {
  const [left, right] = [one[field], other[field]];
  if (Object.keys(left).some((id) => Object.hasOwn(right, id) && left[id] !== right[id])) differs(field);
  const joined: Record<string, string> = {};
  for (const id of [...new Set([...Object.keys(left), ...Object.keys(right)])].sort()) {
    joined[id] = left[id] ?? right[id]!;
  }
  return joined;
}

function joinFunctions(
  one: FunctionEntry,
  other: FunctionEntry,
  differs: (field: keyof FunctionEntry & string) => void,
): FunctionEntry {
  if (one.load !== other.load) differs('load');
  const minutes = most(one.minutes, other.minutes);
  return {
    id: one.id,
    name: oneName(one, other),
    load: one.load,
    ...(minutes === undefined ? {} : { minutes }),
  };
}

/**
 * Joins circuit files that share parts, each field by its rule; problems name both files. The circuit is what it is
 * whatever order the files come in.
 */
export function mergeCircuits(files: readonly CircuitFile[]): {
  circuit: CircuitFile;
  problems: readonly Problem[];
} {
  const inOrder = [...files].sort((one, other) => (one.id < other.id ? -1 : one.id > other.id ? 1 : 0));
  const first = inOrder[0];
  if (!first) throw new Error('There is nothing to merge.');
  if (files.length === 1) return { circuit: first, problems: [] };
  const problems = new ProblemList();
  const report: Report = (path, message) => problems.add('merge-conflict', path, message);
  const parts = new Map<string, { file: CircuitFile; part: CircuitFile['parts'][number] }>();
  const nodes = new Joined<Node>('nodes', report, joinNodes);
  const places = new Joined<Place>('places', report, joinPlaces);
  const conditions = new Joined<Meant>('conditions', report, joinConditions);
  const rests = new Map<string, string>();
  const functions = new Joined<FunctionEntry>('functions', report, joinFunctions);
  for (const file of inOrder) {
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
      if (part.kind === 'switch') rests.set(part.id, part.rest);
      if (!known) parts.set(part.id, { file, part });
      else if (!same(known.part, part)) {
        report(
          `/parts/${part.id}`,
          `${part.name} (${part.id}) is not the same in ${known.file.name} and in ${file.name}. If it is the same part, make them the same in one of the two; if it is another, give it another id.`,
        );
      }
    }
    for (const node of file.nodes) nodes.add(file.name, node);
    for (const place of file.places) places.add(file.name, place);
    for (const condition of file.conditions) conditions.add(file.name, meantBy(file, condition));
    for (const one of file.functions) functions.add(file.name, one);
  }
  return {
    circuit: {
      ...first,
      id: inOrder
        .map((file) => file.id)
        .join('+')
        .slice(0, 80),
      name: inOrder
        .map((file) => file.name)
        .join(' + ')
        .slice(0, 160),
      places: places.all,
      nodes: nodes.all,
      parts: [...parts.values()].map((entry) => entry.part),
      conditions: conditions.all.map((one) => written(one, rests)),
      functions: functions.all,
    },
    problems: problems.all,
  };
}
