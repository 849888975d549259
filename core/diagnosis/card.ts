/** A test as a technician reads it: what to set, where the leads go, what to beware of. */
import type { CircuitFile, CircuitPart, Condition } from '../format/circuitSchema';
import type { TestRef } from '../format/readingsSchema';

/** How the answer is given: a number of a unit, or one of a few words. */
export type AnswerKind = 'volts' | 'ohms' | 'amps' | 'lamp' | 'function' | 'click' | 'look';

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

const CARRIES: readonly CircuitPart['kind'][] = ['wire', 'connector', 'splice'];

/**
 * The smallest fuse that a relay's contact hangs on, ampere: those reached from its 30 and 87 by wires, plugs and
 * splices alone. Null where the map shows none.
 */
export function fuseOfRelay(circuit: CircuitFile, relay: string): number | null {
  const part = circuit.parts.find((one) => one.id === relay);
  if (part?.kind !== 'relay') return null;
  const reached = new Set([part.pins['30'], part.pins['87'] ?? part.pins['30']]);
  let smallest: number | null = null;
  // A set grows while it is walked; every node is visited once.
  for (const node of reached) {
    for (const one of circuit.parts) {
      if (!pinsAt(one, node)) continue;
      if (one.kind === 'fuse') smallest = Math.min(smallest ?? one.ratingAmps, one.ratingAmps);
      if (CARRIES.includes(one.kind)) for (const next of Object.values(one.pins)) reached.add(next as string);
    }
  }
  return smallest;
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
        title:
          ref.against === circuit.reference
            ? `Volts at ${nodeName(ref.node)}`
            : `Drop from ${nodeName(ref.node)} to ${nodeName(ref.against)}`,
        answer: 'volts',
        settings: conditionSettings(circuit, ref.condition),
        instrument: 'Meter on DC volts',
        steps: [
          `Red lead on ${lead}.`,
          `Black lead on ${nodeName(ref.against)}.`,
          ...(ref.against === circuit.reference
            ? []
            : ['The load stays switched on: without current a drop of 0 V says nothing.']),
        ],
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
    case 'click':
      return {
        title: `Does ${partName(ref.part)} click`,
        answer: 'click',
        settings: conditionSettings(circuit, ref.condition),
        instrument: 'Finger and ear',
        steps: [`Finger on ${partName(ref.part)}.`, 'Switch its control off and on again. Does it click?'],
        cautions: ['What it feeds may start: hands and clothes clear.', ...placeCautions],
        slot: partOf(ref.part)?.slot ?? null,
      };
    case 'look':
      return {
        title: `Look at ${partName(ref.part)}`,
        answer: 'look',
        settings: ['Key: off', 'Its load switched off'],
        instrument: 'Eyes and a light',
        steps: [`Pull ${partName(ref.part)} and hold its element against the light.`, 'Is it whole?'],
        cautions: ['Load off before it is pulled. Insulated puller, no metal pliers.', ...placeCautions],
        slot: partOf(ref.part)?.slot ?? null,
      };
    case 'clamp':
      return {
        title: `Current through ${partName(ref.part)}`,
        answer: 'amps',
        settings: conditionSettings(circuit, ref.condition),
        instrument: 'Clamp on DC amperes, zeroed first',
        steps: [`Clamp around the one wire that leads from ${lead} to the load.`],
        cautions: placeCautions,
        slot: partOf(ref.part)?.slot ?? null,
      };
    case 'bridge': {
      const name = circuit.functions.find((one) => one.id === ref.function)?.name ?? ref.function;
      const fuseAmps = fuseOfRelay(circuit, ref.part);
      const limit = fuseAmps === null ? 'look it up before' : `at most ${fuseAmps} A here`;
      return {
        title: `Bridge ${partName(ref.part)} from 30 to 87`,
        answer: 'function',
        settings: conditionSettings(circuit, ref.condition),
        instrument: 'Momentary lead with a fuse in it',
        steps: [
          `Take ${partName(ref.part)} out.`,
          'Find 30 and 87 by a reading: 30 is live, 87 is not. Never a coil pin.',
          `Touch the lead from 30 to 87 for a moment. Does ${name.toLowerCase()} work?`,
        ],
        cautions: [
          `The fuse in the lead no larger than the circuit’s own (${limit}). Only a load that may run now: hands clear.`,
          ...placeCautions,
        ],
        slot: partOf(ref.part)?.slot ?? null,
      };
    }
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
