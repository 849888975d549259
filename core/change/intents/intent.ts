/** What somebody wants to change, in a few answers; they become edits and goals. */
import type { CircuitFile, CircuitPart, PlanEdit, PlanGoal } from '../../format';
import { readNumber } from '../../quantity';

/** One thing that is asked. */
export interface IntentField {
  readonly id: string;
  readonly label: string;
  /** part and point: chosen from the circuit; numbers are typed; choice: one of a few. */
  readonly kind: 'part' | 'point' | 'number' | 'words' | 'choice';
  readonly unit?: 'A' | 'W' | 'm' | 'mm²' | 's' | 'V';
  /** What it means, or a typical value, in a few words. */
  readonly hint?: string;
  readonly optional?: boolean;
  /** Parts that can be chosen. */
  readonly fits?: (part: CircuitPart, circuit: CircuitFile) => boolean;
  readonly choices?: readonly (readonly [id: string, words: string])[];
}

export type Answers = Readonly<Record<string, string>>;

export interface Stated {
  readonly edits: readonly PlanEdit[];
  readonly goals: readonly PlanGoal[];
  /** What was worked out on the way, each a sentence with its figures. */
  readonly worked: readonly string[];
}

export interface Intent {
  readonly id: string;
  readonly name: string;
  readonly fields: readonly IntentField[];
  /** Throws `Unanswered` with what is missing, in words. */
  readonly make: (ask: Asking) => Stated;
}

/** Something that is missing or cannot be, with the field it belongs to. */
export class Unanswered extends Error {
  constructor(
    readonly field: string,
    message: string,
  ) {
    super(message);
  }
}

/** Answers as an intent reads them, and names that nothing else has. */
export class Asking {
  private readonly taken: Set<string>;

  constructor(
    readonly circuit: CircuitFile,
    private readonly intent: { readonly fields: readonly IntentField[] },
    private readonly answers: Answers,
    takenToo: readonly string[] = [],
  ) {
    this.taken = new Set([
      ...circuit.parts.map(({ id }) => id),
      ...circuit.nodes.map(({ id }) => id),
      ...circuit.functions.map(({ id }) => id),
      ...takenToo,
    ]);
  }

  private field(id: string): IntentField {
    return this.intent.fields.find((one) => one.id === id)!;
  }

  /** What was typed or chosen, trimmed; empty where nothing was. */
  said(id: string): string {
    return this.answers[id]?.trim() ?? '';
  }

  words(id: string): string {
    const words = this.said(id);
    if (words === '') throw new Unanswered(id, `${this.field(id).label}: say it.`);
    return words;
  }

  choice(id: string): string {
    const { label, choices = [] } = this.field(id);
    const said = this.said(id) || (choices[0]?.[0] ?? '');
    if (!choices.some(([one]) => one === said)) throw new Unanswered(id, `${label}: choose one.`);
    return said;
  }

  part<K extends CircuitPart['kind'] = CircuitPart['kind']>(id: string): Extract<CircuitPart, { kind: K }> {
    const field = this.field(id);
    const part = this.circuit.parts.find((one) => one.id === this.said(id));
    if (!part || !(field.fits?.(part, this.circuit) ?? true))
      throw new Unanswered(id, `${field.label}: choose one.`);
    return part as Extract<CircuitPart, { kind: K }>;
  }

  point(id: string): string {
    const node = this.circuit.nodes.find((one) => one.id === this.said(id));
    if (!node) throw new Unanswered(id, `${this.field(id).label}: choose one.`);
    return node.id;
  }

  /** A number above zero; null where it was left open and may be. */
  number(id: string): number | null {
    const { label, unit, optional } = this.field(id);
    const text = this.said(id);
    if (text === '') {
      if (optional) return null;
      throw new Unanswered(id, `${label}: write a number${unit ? ` in ${unit}` : ''}.`);
    }
    const read = readNumber(text, { above: 0, most: 100_000, ...(unit ? { unit } : {}) });
    if (!read.ok) throw new Unanswered(id, `${label}: ${read.message}`);
    return read.value;
  }

  /** An id that nothing has yet. */
  fresh(prefix: string): string {
    for (let number = 1; ; number++) {
      const id = `${prefix}${number}`;
      if (this.taken.has(id)) continue;
      this.taken.add(id);
      return id;
    }
  }

  nameOf(node: string): string {
    return this.circuit.nodes.find(({ id }) => id === node)?.name ?? node;
  }
}
