/** A test as a technician reads it: what to set, where the leads go, what to beware of. */
import type { CircuitFile, CircuitPart, TestRef } from '../format';
import { CircuitModel } from '../network';
import { type Deed, safetyGate, shortest, type Warning } from '../safety';
import { type Fitted, fittedInShort } from './evidence/fitted';
import { sideTaken } from './habits';
import { kindOf } from './kinds';
import { type AnswerKind, Names } from './kinds/kind';
import { conditionSettings, pluggedWords, type Setting, set } from './settings';
import { deedOf } from './tests';

export interface TestCardWords {
  readonly title: string;
  readonly answer: AnswerKind;
  readonly settings: readonly Setting[];
  readonly instrument: string;
  readonly steps: readonly string[];
  readonly cautions: readonly string[];
  /** Those of them that are answered once on a job, before it is done. */
  readonly asks: readonly Warning[];
  /** Our side of a question on which people of the trade disagree, where this test raises one. */
  readonly side: string | null;
  /** How long what it has on may stay on, seconds; null where nothing limits it. */
  readonly onSeconds: number | null;
  /** Slot of the vehicle's panel set at which it is done, where there is one. */
  readonly slot: { readonly panel: string; readonly slot: string } | null;
}

/** What two conditions differ in where key, switches and engine stand alike: what is plugged in, for the title. */
function plugTitle(circuit: CircuitFile, conditionId: string): string {
  const condition = circuit.conditions.find((one) => one.id === conditionId);
  if (!condition) return '';
  const { id: _id, name: _name, pluggedIn = {}, ...rest } = condition;
  const twin = circuit.conditions.some(({ id, name: _other, pluggedIn: _plugs, ...others }) => {
    return id !== conditionId && JSON.stringify(others) === JSON.stringify(rest);
  });
  if (!twin) return '';
  const plugs = Object.entries(pluggedIn).map(([socket, appliance]) =>
    pluggedWords(circuit, socket, appliance).replace('Plugged in: ', ''),
  );
  return plugs.length > 0 ? `, ${plugs.join(' and ')} plugged in` : ', nothing plugged in';
}

function pinsAt(part: CircuitPart, node: string): boolean {
  return Object.values(part.pins).includes(node);
}

function slotAtNode(circuit: CircuitFile, node: string, place: string | null) {
  const candidates = circuit.parts.filter((part) => part.slot && part.place === place && pinsAt(part, node));
  return (candidates.find((part) => part.kind === 'fuse') ?? candidates[0])?.slot ?? null;
}

/** What is said before a test, by the one gate; what it forbids was never offered. */
function warningsOf(circuit: CircuitFile, deed: Deed): readonly Warning[] {
  const scene = { circuit, unbidden: false, lampVolts: [circuit.nominalVolts], highestVolts: null };
  return safetyGate(deed, scene).warnings;
}

const models = new WeakMap<CircuitFile, CircuitModel>();

function modelOf(circuit: CircuitFile): CircuitModel {
  const made = models.get(circuit) ?? new CircuitModel(circuit);
  models.set(circuit, made);
  return made;
}

/**
 * The card of a test, at the place and with the lead that were proposed for it; `fitted` are parts that do not stand in
 * their own places, which is a part of what is set.
 */
export function testCardWords(
  circuit: CircuitFile,
  ref: TestRef,
  place: string | null,
  lead: string,
  fitted?: Fitted,
): TestCardWords {
  const names = new Names(circuit);
  const kind = kindOf(ref);
  const body = kind.card(names, ref, lead);
  const placeCaution = circuit.places.find((one) => one.id === place)?.caution;
  const deed = deedOf(modelOf(circuit), ref);
  const warnings = warningsOf(circuit, deed);
  const sits = fitted ? fittedInShort(circuit, fitted) : [];
  const slotPart = kind.slotPart?.(ref);
  return {
    ...body,
    title: [
      'condition' in ref ? `${body.title}${plugTitle(circuit, ref.condition)}` : body.title,
      ...sits,
    ].join(', '),
    answer: kind.answer,
    side: sideTaken(ref),
    onSeconds: shortest(deed, circuit),
    settings: [
      ...(body.settings ?? ('condition' in ref ? conditionSettings(circuit, ref.condition) : [])),
      ...sits.map((words) => set('other', `${words[0]!.toUpperCase()}${words.slice(1)}`)),
    ],
    asks: warnings.filter(({ asks }) => asks),
    cautions: [
      ...warnings.map(({ words }) => words),
      ...body.cautions,
      ...(placeCaution ? [placeCaution] : []),
    ],
    slot: slotPart
      ? (names.partOf(slotPart)?.slot ?? null)
      : 'node' in ref
        ? slotAtNode(circuit, ref.node, place)
        : null,
  };
}
