/** A test as a technician reads it: what to set, where the leads go, what to beware of. */
import type { CircuitFile, CircuitPart, Condition } from '../format/circuitSchema';
import type { TestRef } from '../format/readingsSchema';

/** How the answer is given: a number of a unit, or one of a few words. */
export type AnswerKind = 'volts' | 'ohms' | 'lamp' | 'function';

export interface TestCardWords {
  readonly title: string;
  readonly answer: AnswerKind;
  /** "Key: run", "Cabinet fan switch: on". */
  readonly settings: readonly string[];
  readonly instrument: string;
  readonly steps: readonly string[];
  readonly cautions: readonly string[];
  /** Slot of the vehicle's panel set at which it is done, where there is one. */
  readonly slot: { readonly panel: string; readonly slot: string } | null;
}

const KEY_WORDS: Readonly<Record<Condition['key'], string>> = {
  lock: 'lock, key out',
  off: 'off',
  accessory: 'accessory',
  run: 'run',
  crank: 'crank',
};

/** Key and switch positions of a condition, every switch that is not at rest named. */
export function conditionSettings(circuit: CircuitFile, conditionId: string): string[] {
  const condition = circuit.conditions.find((one) => one.id === conditionId);
  if (!condition) return [];
  const switches = Object.entries(condition.switches ?? {}).map(([id, position]) => {
    const part = circuit.parts.find((one) => one.id === id);
    return `${part?.name ?? id}: ${position}`;
  });
  return [
    `Key: ${KEY_WORDS[condition.key]}`,
    ...switches,
    ...(condition.engineRunning ? ['Engine running'] : []),
  ];
}

function pinsAt(part: CircuitPart, node: string): boolean {
  return Object.values(part.pins).includes(node);
}

function slotAtNode(circuit: CircuitFile, node: string, place: string | null) {
  const candidates = circuit.parts.filter((part) => part.slot && part.place === place && pinsAt(part, node));
  return (candidates.find((part) => part.kind === 'fuse') ?? candidates[0])?.slot ?? null;
}

/** The card of a test, at the place and with the lead that were proposed for it. */
export function testCardWords(
  circuit: CircuitFile,
  ref: TestRef,
  place: string | null,
  lead: string,
): TestCardWords {
  const nodeName = (id: string) => circuit.nodes.find((one) => one.id === id)?.name ?? id;
  const partOf = (id: string) => circuit.parts.find((one) => one.id === id);
  const partName = (id: string) => partOf(id)?.name ?? id;
  const placeCaution = circuit.places.find((one) => one.id === place)?.caution;
  const placeCautions = placeCaution ? [placeCaution] : [];
  switch (ref.kind) {
    case 'volts':
      return {
        title: `Volts at ${nodeName(ref.node)}`,
        answer: 'volts',
        settings: conditionSettings(circuit, ref.condition),
        instrument: 'Meter on DC volts',
        steps: [`Red lead on ${lead}.`, `Black lead on ${nodeName(ref.against)}.`],
        cautions: placeCautions,
        slot: slotAtNode(circuit, ref.node, place),
      };
    case 'lamp':
      return {
        title: `Test lamp at ${nodeName(ref.node)}`,
        answer: 'lamp',
        settings: conditionSettings(circuit, ref.condition),
        instrument: 'Filament test lamp, 3 to 5 W',
        steps: [`Clip on ${nodeName(circuit.reference)}.`, `Probe on ${lead}.`],
        cautions: ['Never on restraint circuits, module outputs or data lines.', ...placeCautions],
        slot: slotAtNode(circuit, ref.node, place),
      };
    case 'function': {
      const name = circuit.functions.find((one) => one.id === ref.function)?.name ?? ref.function;
      return {
        title: `Does it work: ${name}`,
        answer: 'function',
        settings: conditionSettings(circuit, ref.condition),
        instrument: 'Eyes and ears',
        steps: [`Set key and switches, then look at ${name.toLowerCase()}.`],
        cautions: [],
        slot: null,
      };
    }
    case 'continuity': {
      const part = partOf(ref.part);
      return {
        title: `${partName(ref.part)} out of the circuit: does it conduct`,
        answer: 'ohms',
        settings: ['Key: off', 'Its load switched off'],
        instrument: 'Meter on ohms',
        steps: [
          `Take ${partName(ref.part)} out.`,
          part?.kind === 'relay'
            ? `Leads on its pins ${ref.from} and ${ref.to}.`
            : part?.kind === 'fuse'
              ? 'Leads on its two blades.'
              : 'Leads on its two terminals.',
        ],
        cautions: [
          'Load off before it is pulled. Insulated puller, no metal pliers. Ohms only on the part in the hand, never on a live circuit.',
          ...placeCautions,
        ],
        slot: part?.slot ?? null,
      };
    }
    case 'lamp-in-fuse':
      return {
        title: `Lamp in place of ${partName(ref.part)}`,
        answer: 'lamp',
        settings: conditionSettings(circuit, ref.condition),
        instrument: 'Lamp of 21 W with fused leads',
        steps: [
          ...(ref.unplugged ? [`Unplug ${partName(ref.unplugged)}.`] : []),
          `Pull ${partName(ref.part)} and put the lamp across its two contacts.`,
        ],
        cautions: [
          'Never on restraint or module feeds. A load that is still connected lights the lamp too.',
          ...placeCautions,
        ],
        slot: partOf(ref.part)?.slot ?? null,
      };
    case 'substitute': {
      const name = circuit.functions.find((one) => one.id === ref.function)?.name ?? ref.function;
      return {
        title: `Known good part for ${partName(ref.part)}`,
        answer: 'function',
        settings: conditionSettings(circuit, ref.condition),
        instrument: 'A part known to work',
        steps: [`Fit a known good part for ${partName(ref.part)}.`, `Does ${name.toLowerCase()} work now?`],
        cautions: [
          'Same rating, footprint, pin layout and coil voltage only. A fuse that blows again is a finding: do not fit a third.',
          ...placeCautions,
        ],
        slot: partOf(ref.part)?.slot ?? null,
      };
    }
  }
}
