/** What was learned of one part, as it comes in. */
import { type Checked, fail, readJson } from '#core/format/problem';

export interface PartFact {
  readonly part: string;
  /** Fields of the circuit file, as they are now known; null for what is no longer said. */
  readonly fields: Readonly<Record<string, unknown>>;
}

/** A fact from the body of a request; which fields may be learned is for `learnFact` to say. */
export function readFact(text: string): Checked<PartFact> {
  const json = readJson(text);
  if (!json.ok) return json;
  const { part, fields } = (json.value ?? {}) as Record<string, unknown>;
  const named = typeof part === 'string' && fields !== null && typeof fields === 'object';
  if (!named || Object.keys(fields).length === 0) {
    return fail('no-fact', '', 'Say which part, and what is known of it now.');
  }
  return { ok: true, value: { part, fields: fields as Record<string, unknown> } };
}

/** A part with what was learned of it. */
export function withFact<P extends { readonly id: string }>(part: P, { fields }: PartFact): P {
  const kept = Object.entries({ ...part, ...fields }).filter(([, value]) => value !== null);
  return Object.fromEntries(kept) as unknown as P;
}
