/** Every kind of test, by its name in the reference. */
import type { CircuitFile, TestRef } from '../../format';
import { battery } from './battery';
import { clamp, fuseDrop } from './current';
import { apply, bridge, functionSeen, substitute } from './functions';
import { click, elsewhere, look, wiggle } from './hand';
import { type AnswerKind, Names, type Offer, type RefOf, type Scene, type TestKind } from './kind';
import { lampCurrent } from './lampCurrent';
import { lamp, lampInFuse, led } from './lamps';
import { continuity, ohms, ohmsBehind } from './ohms';
import { sound } from './sound';
import { volts } from './volts';

export const KINDS: { readonly [K in TestRef['kind']]: TestKind<RefOf<K>> } = {
  volts,
  lamp,
  led,
  function: functionSeen,
  continuity,
  ohms,
  'ohms-behind': ohmsBehind,
  'lamp-in-fuse': lampInFuse,
  'lamp-current': lampCurrent,
  substitute,
  elsewhere,
  click,
  sound,
  look,
  wiggle,
  clamp,
  'fuse-drop': fuseDrop,
  bridge,
  apply,
  battery,
};

/** The kind of a test; it takes any reference, and is asked only with those of its own kind. */
export function kindOf(ref: TestRef): TestKind<TestRef> {
  return KINDS[ref.kind] as unknown as TestKind<TestRef>;
}

/** The same text for the same test, whoever builds the reference. */
export function testId(ref: TestRef): string {
  const fields = ref as unknown as Readonly<Record<string, string | undefined>>;
  return [ref.kind, ...kindOf(ref).fields.map((field) => fields[field] ?? '')].join('|').replace(/\|+$/, '');
}

/** The test that an id names; the reverse of `testId`. Throws where no kind has such a name. */
export function refOfId(id: string): TestRef {
  const [kind = '', ...values] = id.split('|');
  const found = (KINDS as unknown as Readonly<Record<string, TestKind<TestRef> | undefined>>)[kind];
  if (!found) throw new Error(`No test has the id ${id}.`);
  const given = found.fields.flatMap((field, index) => (values[index] ? [[field, values[index]]] : []));
  return { kind, ...Object.fromEntries(given) } as TestRef;
}

/** What two readings would share if a common mistake spoiled both. */
export function setUpOf(ref: TestRef): string {
  return kindOf(ref).setUp(ref);
}

/** Answers that a probe gives, which may sit on the pin beside. */
const PROBED: ReadonlySet<AnswerKind> = new Set(['volts', 'millivolts', 'ohms', 'amps', 'lamp']);

/** Whether an instrument gives the answer, and one slip of its probe may have given it. */
export function byProbe(ref: TestRef): boolean {
  return PROBED.has(kindOf(ref).answer);
}

/** The point or part that a reading is taken at. */
export function spotOf(ref: TestRef): string {
  return kindOf(ref).spot(ref);
}

/** What was tested, short, for logs: "Volts at relay 4 pin 87". */
export function testInLog(circuit: CircuitFile | null, ref: TestRef): string {
  const names = new Names(circuit ?? { nodes: [], parts: [], functions: [], reference: '' });
  return kindOf(ref).inLog(names, ref);
}

/** Every test of every kind that no flag bars. */
export function allOffers(scene: Scene): Offer[] {
  return Object.values(KINDS).flatMap((kind) => (kind as unknown as TestKind<TestRef>).offers(scene));
}
