/** What has been read so far: parts, the points where their pins meet, and what is said about them. */

import type { CircuitFile, CircuitNode, CircuitPart, PartKind } from '../format';
import { NODE_LIMIT, PART_LIMIT, PROBLEM_LIMIT } from '../format';
import { capital, entering, foundBy, leaving, pinProblem, pinWords, requiredPins } from './pinWords';
import type { ReadPart } from './readPart';
import { derived, unspoken } from './spoken';
import type { TextProblem } from './tokens';
import { type KindWord, nearestWord, type Way, wordsOfKind } from './words';

/** For so many mistakes a nearer name is looked for; whoever has more begins with these. */
const SUGGESTIONS = 20;

/** The metal that earth points are bolted to, where nobody names it. */
export const BODY = 'chassis';

interface Place {
  readonly line: number;
  readonly from: number;
  readonly to: number;
}

export class Pieces {
  readonly problems: TextProblem[] = [];
  readonly parts = new Map<string, ReadPart>();
  readonly notes: string[] = [];
  readonly header: { id?: string; name?: string; volts?: number; reference?: string } = {};
  readonly places: CircuitFile['places'] = [];
  readonly conditions: CircuitFile['conditions'] = [];
  readonly functions: CircuitFile['functions'] = [];
  /** Points and places are given by the text itself. */
  saysAccess = false;
  readonly pointWords = new Map<string, Partial<CircuitNode>>();
  /** Points joined to one another (union by the smaller number). */
  private readonly joined: number[] = [];
  private readonly named = new Map<string, number>();
  /** Where each name was first used, for names that lead nowhere. */
  private readonly uses = new Map<string, Place>();
  private idOfPoint: ReadonlyMap<number, string> | null = null;

  /** Where the search for a free id goes on, by its letters. */
  private readonly nextId = new Map<string, number>();
  private readonly baseIds: ReadonlySet<string>;

  constructor(readonly base: CircuitFile | null) {
    this.baseIds = new Set(base?.parts.map((part) => part.id));
  }

  readonly report = (problem: TextProblem): void => {
    if (this.problems.length < PROBLEM_LIMIT) this.problems.push(problem);
  };

  /** More than a circuit can have, or more mistakes than anybody reads: there is no use in reading on. */
  get isTooMuch(): boolean {
    return (
      this.parts.size > PART_LIMIT || this.named.size > NODE_LIMIT || this.problems.length >= PROBLEM_LIMIT
    );
  }

  add(kind: PartKind, id: string, line: number, place: { from: number; to: number }): ReadPart {
    // No prototype: what is typed as a field's name meets nothing that is there already.
    const fields = Object.create(null) as Record<string, unknown>;
    const part = {
      id,
      kind,
      line,
      from: place.from,
      to: place.to,
      fields,
      pins: new Map(),
      ways: [],
      nextLeg: 1,
    };
    this.parts.set(id, part);
    return part;
  }

  freeId(prefix: string): string {
    for (let n = this.nextId.get(prefix) ?? 1; ; n++) {
      const id = `${prefix}${n}`;
      if (this.parts.has(id) || this.baseIds.has(id)) continue;
      this.nextId.set(prefix, n + 1);
      return id;
    }
  }

  private point(): number {
    this.joined.push(this.joined.length);
    return this.joined.length - 1;
  }

  private root(point: number): number {
    let root = point;
    while (this.joined[root] !== root) root = this.joined[root]!;
    // What was walked leads straight to the root from here on.
    for (let at = point; at !== root; ) {
      const next = this.joined[at]!;
      this.joined[at] = root;
      at = next;
    }
    return root;
  }

  join(one: number, other: number): void {
    const [a, b] = [this.root(one), this.root(other)];
    this.joined[Math.max(a, b)] = Math.min(a, b);
  }

  pin(part: ReadPart, pin: string): number {
    const known = part.pins.get(pin);
    if (known !== undefined) return known;
    const made = this.point();
    part.pins.set(pin, made);
    return made;
  }

  namedPoint(name: string): number {
    const known = this.named.get(name);
    if (known !== undefined) return known;
    const made = this.point();
    this.named.set(name, made);
    return made;
  }

  /** A point by the name of a part (behind it, or before it), of one of its pins, or of its own. */
  pointOf(name: string, place: Place, behind: boolean): number | null {
    const part = this.parts.get(name);
    if (part) {
      const pin = behind ? leaving(part) : entering(part);
      if (pin !== null) return this.pin(part, pin);
      this.report({
        ...place,
        message: `${name} has several terminals. Say which: ${name}.${[...part.pins.keys()][0] ?? '1'}`,
      });
      return null;
    }
    const dot = name.lastIndexOf('.');
    const owner = dot > 0 ? this.parts.get(name.slice(0, dot)) : undefined;
    if (owner) {
      const pin = name.slice(dot + 1);
      const wrong = pinProblem(owner, pin);
      if (wrong) {
        this.report({ ...place, message: wrong });
        return null;
      }
      return this.pin(owner, pin);
    }
    if (!/^[A-Za-z0-9][A-Za-z0-9._:-]*$/.test(name)) {
      this.report({
        ...place,
        message: `“${name}” cannot name a point: letters, figures, point and dash only.`,
      });
      return null;
    }
    if (!this.uses.has(name)) this.uses.set(name, place);
    return this.namedPoint(name);
  }

  /** Goes along one line. */
  walk(line: number) {
    let here: number | null = null;
    let lastPart: ReadPart | null = null;
    let closed = false;
    const walker = {
      ended: false,
      reported: false,
      /** Joins the present point to a named one, or starts there. */
      name: (name: string, place: { from: number; to: number }, closes: boolean, starts = false) => {
        const point = this.pointOf(name, { line, from: place.from, to: place.to }, starts);
        if (point === null) {
          closed = true;
          return;
        }
        if (here !== null && !starts) this.join(here, point);
        here = point;
        if (closes && !starts) closed = true;
      },
      /** The branch ends in the air on purpose: a spare leg, a wire that is capped. */
      open: () => {
        closed = true;
      },
      fromBattery: (place: { from: number; to: number }) => {
        const battery =
          [...this.parts.values()].find((part) => part.kind === 'battery') ??
          this.add(
            'battery',
            this.base?.parts.find((part) => part.kind === 'battery')?.id ?? 'B1',
            line,
            place,
          );
        this.pin(battery, 'minus');
        here = this.pin(battery, 'plus');
        lastPart = battery;
      },
      through: (part: ReadPart, way: Way, place: { from: number; to: number }) => {
        const fresh = !part.pins.has(way.enter);
        const enters = this.pin(part, way.enter);
        if (here !== null) this.join(here, enters);
        else if (fresh && part.kind !== 'battery') {
          this.report({
            line,
            from: place.from,
            to: place.to,
            message: `Where does ${part.id} get its feed from? Start the line with “battery, …” or “from F1, …”.`,
          });
        }
        part.ways.push(way);
        here = this.pin(part, way.leave);
        lastPart = part;
        if (part.kind === 'ground' && way.leave === 'body') {
          walker.ended = true;
          closed = true;
        }
      },
      finish: (segment: { from: number; to: number }) => {
        if (closed || here === null || lastPart === null) return;
        const root = this.root(here);
        this.ends.push({ point: root, part: lastPart, place: { line, from: segment.from, to: segment.to } });
      },
    };
    return walker;
  }

  /** Ends of lines that nobody named: each must be met by something else. */
  private readonly ends: { point: number; part: ReadPart; place: Place }[] = [];

  /** Every part as the file has it, or problems about what is missing. */
  finishedParts(): CircuitPart[] {
    this.bodyOfEarths();
    this.checkPins();
    this.checkEnds();
    const known = new Map((this.base?.parts ?? []).map((part) => [part.id, part]));
    const ids = this.pointIds();
    return [...this.parts.values()].map((part) => {
      const old = known.get(part.id);
      const kept = old?.kind === part.kind ? unspoken(old, part) : {};
      const pins = Object.fromEntries(
        [...part.pins].map(([pin, point]) => [pin, ids.get(this.root(point))!]),
      );
      const words = wordsOfKind(part.kind);
      this.checkNeeds(part, words, kept);
      return {
        ...kept,
        id: part.id,
        kind: part.kind,
        name: part.fields.name ?? kept.name ?? `${capital(words.word)} ${part.id}`,
        pins,
        ...derived(part),
        ...part.fields,
      } as CircuitPart;
    });
  }

  finishedNodes(): CircuitFile['nodes'] {
    const known = new Map((this.base?.nodes ?? []).map((node) => [node.id, node]));
    const names = this.pointNames();
    const ids = new Set(this.pointIds().values());
    // In the order in which they are described, so that a text settles.
    const described = [...this.pointWords.keys()].filter((id) => ids.has(id));
    return [...new Set([...described, ...ids])].map((id) => {
      const said = this.pointWords.get(id);
      if (said) return { name: names.get(id) ?? id, ...said, id };
      return known.get(id) ?? { id, name: names.get(id) ?? id };
    });
  }

  referenceNode(): string {
    const named = this.header.reference;
    const ids = this.pointIds();
    if (named !== undefined) {
      const point = this.named.get(named);
      return point === undefined ? named : ids.get(this.root(point))!;
    }
    const battery = [...this.parts.values()].find((part) => part.kind === 'battery');
    const minus = battery?.pins.get('minus');
    return minus === undefined ? BODY : ids.get(this.root(minus))!;
  }

  /** Earths, and a battery's minus, that nobody tied to anything are on the vehicle's metal. */
  private bodyOfEarths(): void {
    const loose = [...this.parts.values()].flatMap((part) =>
      part.kind === 'ground'
        ? [this.pin(part, 'body')]
        : part.kind === 'battery'
          ? [this.pin(part, 'minus')]
          : [],
    );
    const meets = new Map<number, number>();
    for (const part of this.parts.values()) {
      for (const point of part.pins.values()) {
        const root = this.root(point);
        meets.set(root, (meets.get(root) ?? 0) + 1);
      }
    }
    const namedRoots = new Set([...this.named.values()].map((point) => this.root(point)));
    const alone = loose.filter(
      (point) => meets.get(this.root(point)) === 1 && !namedRoots.has(this.root(point)),
    );
    for (const point of alone) this.join(point, this.namedPoint(BODY));
  }

  /** Pins that a kind must have and that no line reaches. */
  private checkPins(): void {
    for (const part of this.parts.values()) {
      const { ways, anyPins, word } = wordsOfKind(part.kind);
      const required =
        part.kind === 'relay' ? ['30', '85', '86'] : anyPins ? [] : requiredPins(part.kind, ways);
      const missing = required.filter((pin) => !part.pins.has(pin));
      if (missing.length === 0) continue;
      const way = ways.find((one) => missing.includes(one.enter) || missing.includes(one.leave));
      const how = way?.word ? `${word} ${part.id} ${way.word}` : `${part.id} ${way?.enter}>${way?.leave}`;
      this.report({
        line: part.line,
        from: part.from,
        to: part.to,
        message: `${part.id} is joined to nothing at ${missing.join(' and ')}. Write a line that goes through it: “from …, ${how}, …”.`,
      });
    }
  }

  /** A line that ends in the air, and a name that nothing else uses. */
  private checkEnds(): void {
    const meets = new Map<number, number>();
    for (const part of this.parts.values()) {
      for (const point of part.pins.values())
        meets.set(this.root(point), (meets.get(this.root(point)) ?? 0) + 1);
    }
    const namedRoots = new Set([...this.named.values()].map((point) => this.root(point)));
    for (const { point, part, place } of this.ends) {
      if ((meets.get(this.root(point)) ?? 0) > 1 || part.kind === 'battery') continue;
      if (namedRoots.has(this.root(point))) continue;
      this.report({
        ...place,
        message: `The line ends in the air behind ${part.id}. End it with “earth” or with “to …”; with “open” when it hangs free.`,
      });
    }
    const names = [...this.named.keys(), ...this.parts.keys()];
    for (const [name, place] of this.uses) {
      if (this.problems.length >= PROBLEM_LIMIT) return;
      const point = this.named.get(name);
      if (point === undefined || name === BODY) continue;
      if ((meets.get(this.root(point)) ?? 0) >= 2) continue;
      // An open end may be meant: an unused wire ends at a point that is described.
      if (this.pointWords.has(name)) continue;
      if (this.base?.nodes.some((node) => node.id === name)) continue;
      const near = this.problems.length < SUGGESTIONS ? nearestWord(name, names, name) : null;
      this.report({
        ...place,
        message: near
          ? `Nothing else meets at “${name}”. Did you mean “${near}”?`
          : `Nothing else meets at “${name}”. Name a part or point of another line.`,
      });
    }
  }

  private checkNeeds(part: ReadPart, words: KindWord, kept: Record<string, unknown>): void {
    for (const [field, what] of Object.entries(words.needs ?? {})) {
      if (part.fields[field] !== undefined || kept[field] !== undefined) continue;
      this.report({
        line: part.line,
        from: part.from,
        to: part.to,
        message: `Say of ${words.word} ${part.id} ${what}.`,
      });
    }
  }

  /** The id of every joined point: the one that was named, that of the old circuit, or one made of the first pin. */
  private pointIds(): ReadonlyMap<number, string> {
    if (this.idOfPoint) return this.idOfPoint;
    const ids = new Map<number, string>();
    const taken = new Set<string>();
    const give = (root: number, id: string) => {
      if (ids.has(root) || taken.has(id)) return;
      ids.set(root, id);
      taken.add(id);
    };
    for (const [name, point] of this.named) if (name !== BODY) give(this.root(point), name);
    const old = new Map(
      (this.base?.parts ?? []).map((part) => [part.id, part.pins as Record<string, string>]),
    );
    const pins = [...this.parts.values()].flatMap((part) =>
      [...part.pins].map(([pin, point]) => ({ part, pin, root: this.root(point) })),
    );
    for (const { part, pin, root } of pins) {
      const before = old.get(part.id)?.[pin];
      if (before !== undefined) give(root, before);
    }
    const body = this.named.get(BODY);
    if (body !== undefined) give(this.root(body), BODY);
    for (const { part, pin, root } of pins) {
      if (ids.has(root)) continue;
      const wanted = `${part.id}-${pin}`.toLowerCase();
      let id = wanted;
      for (let n = 2; taken.has(id); n++) id = `${wanted}-${n}`;
      give(root, id);
    }
    this.idOfPoint = ids;
    return ids;
  }

  private pointNames(): ReadonlyMap<string, string> {
    const ids = this.pointIds();
    const names = new Map<string, string>();
    const ranks = new Map<string, number>();
    for (const part of this.parts.values()) {
      const rank = foundBy(part.kind);
      for (const [pin, point] of part.pins) {
        const id = ids.get(this.root(point))!;
        if (rank >= (ranks.get(id) ?? Number.POSITIVE_INFINITY)) continue;
        ranks.set(id, rank);
        const name = part.fields.name ?? `${capital(wordsOfKind(part.kind).word)} ${part.id}`;
        names.set(id, `${String(name)}, ${pinWords(part.kind, pin)}`);
      }
    }
    for (const [name] of this.named) names.set(name, name === BODY ? 'body metal' : name.replace(/-/g, ' '));
    return names;
  }
}
