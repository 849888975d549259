/** Volts on the battery's own posts: rested, cranking, charging. Limits scale with the nominal voltage. */

import { type FaultMode, type FaultyCircuit, FLAT_EMF, WEAK_EMF } from '../../faults';
import { normalBelow, voltmeterError } from '../../limits';
import type { CircuitModel } from '../../network';
import { formatQuantity } from '../../quantity';
import type { Hypothesis } from '../hypotheses/hypotheses';
import { atNode, type RefOf, type Scene, type TestKind } from './kind';

type State = RefOf<'battery'>['state'];

/** On 12 V: below the first is too little, above the second too much. */
export const BATTERY_LIMITS: Readonly<Record<State, readonly [number, number]>> = {
  // A quarter charged; nothing rests above the second except on charge or of another chemistry.
  rest: [12.06, 13.6],
  crank: [9.6, 13],
  // Managed charging goes anywhere from 12.2 to 15.2 V.
  charge: [12.9, 15.2],
};

const WORDS: Readonly<Record<State, string>> = {
  rest: 'rested, everything off',
  crank: 'while cranking',
  charge: 'engine running',
};

/** What is usual on a sound 12 V system, with its spread. */
const USUAL: Readonly<Record<State, readonly [number, number]>> = {
  rest: [12.55, 0.2],
  crank: [10.6, 0.5],
  charge: [14.2, 0.5],
};

/** Volts that a fault of battery or charging source leaves, on 12 V. */
function left(state: State, mode: FaultMode | null): readonly [number, number] {
  const [usual, spread] = USUAL[state];
  switch (mode) {
    case 'weak':
      return state === 'rest' ? [12.6 * WEAK_EMF + 1.2, 0.9] : state === 'crank' ? [7, 1.5] : [usual, spread];
    case 'flat':
      return state === 'rest' ? [12.6 * FLAT_EMF + 3, 3] : state === 'crank' ? [3, 2] : [13, 1];
    case 'open':
      return state === 'charge' ? USUAL.rest : [usual, spread];
    case 'over-voltage':
      return state === 'charge' ? [16.5, 0.7] : [usual, spread];
    default:
      return [usual, spread];
  }
}

/** The fault of the battery, or of the charging source where that is what charges, in a list of faults. */
function modeIn(model: CircuitModel, state: State, faults: Hypothesis['faults']): FaultMode | null {
  const kinds = state === 'charge' ? ['battery', 'charging-source'] : ['battery'];
  const found = faults.find((fault) => kinds.includes(model.network.parts.get(fault.part)?.kind ?? ''));
  return found?.mode ?? null;
}

function usualOn(circuit: FaultyCircuit, state: State): number {
  const scale = circuit.model.circuit.nominalVolts / 12;
  const mode = modeIn(circuit.model, state, circuit.faults);
  const [volts] = left(state, mode);
  // A rested sound battery shows its own emf.
  return state === 'rest' && mode === null ? circuit.model.emfVolts : volts * scale;
}

function postOf({ circuit }: Pick<Scene, 'circuit'>): string | null {
  const part = circuit.parts.find((one) => one.kind === 'battery');
  return part?.kind === 'battery' ? part.pins.plus : null;
}

export const battery: TestKind<RefOf<'battery'>> = {
  fields: ['state'],
  answer: 'volts',
  results: ['too low', 'in order', 'too high'],
  minutes: 1,
  setUp: (ref) => `battery|${ref.state}`,
  spot: () => 'part|battery',
  offers: (scene) => {
    const post = postOf(scene);
    const sources = scene.circuit.parts.some((part) => part.kind === 'charging-source');
    if (post === null) return [];
    const states: readonly State[] = sources ? ['rest', 'crank', 'charge'] : ['rest', 'crank'];
    return states.map((state) => ({
      ref: { kind: 'battery', state },
      accesses: atNode(scene.circuit, post, battery.minutes + (state === 'rest' ? 0 : 1)),
    }));
  },
  chances: ({ model, hypothesis }, ref) => {
    const [volts, spread] = left(ref.state, modeIn(model, ref.state, hypothesis.faults));
    const blur = Math.hypot(spread, voltmeterError(volts));
    const [low, high] = BATTERY_LIMITS[ref.state].map((limit) => normalBelow((limit - volts) / blur));
    return [low!, Math.max(0, high! - low!), 1 - high!];
  },
  outcome: (model, ref, value) => {
    if (!('volts' in value)) return null;
    const onTwelve = value.volts / (model.circuit.nominalVolts / 12);
    return BATTERY_LIMITS[ref.state].filter((limit) => onTwelve >= limit).length;
  },
  shows: (circuit, ref) => ({ volts: Math.round(usualOn(circuit, ref.state) * 100) / 100 }),
  card: (_names, ref) => ({
    title: `Battery on its own posts, ${WORDS[ref.state]}`,
    settings:
      ref.state === 'rest'
        ? ['Key: off', 'Everything off for a while']
        : ref.state === 'crank'
          ? ['Key: crank']
          : ['Engine running'],
    instrument: 'Meter on DC volts',
    steps: ['Red lead on the plus post itself, black on the minus post itself, not on the clamps.'],
    cautions:
      ref.state === 'rest'
        ? []
        : [
            'Out of gear, brake on, clothes and leads clear of belts and fans. Never through the ampere socket.',
          ],
  }),
  inSentence: (_names, ref) => `the battery ${WORDS[ref.state]}`,
  inLog: (_names, ref) => `Battery ${WORDS[ref.state]}`,
  means: ({ model }, ref, value) => {
    if (!('volts' in value)) return null;
    const scale = model.circuit.nominalVolts / 12;
    const [low, high] = BATTERY_LIMITS[ref.state].map((limit) => limit * scale);
    const shown = `${formatQuantity(value.volts, 'V')} ${WORDS[ref.state]}`;
    const limits = `on this ${model.circuit.nominalVolts} V system`;
    if (value.volts < low!) {
      return ref.state === 'rest'
        ? `${shown}: below ${formatQuantity(low!, 'V')} ${limits}, so less than a quarter charged. Charge it and find out why before any part is bought.`
        : ref.state === 'crank'
          ? `${shown}: below ${formatQuantity(low!, 'V')} ${limits}. Battery, posts or cables; charge and test the battery first.`
          : `${shown}: below ${formatQuantity(low!, 'V')} ${limits}. Managed charging can go lower for a while: one low value is no verdict.`;
    }
    if (value.volts >= high!) {
      return `${shown}: more than the ${formatQuantity(high!, 'V')} ${limits} should show; charging, another battery type, or overcharging.`;
    }
    return ref.state === 'rest'
      ? `${shown}: rested volts in order. They do not prove that it can deliver current.`
      : `${shown}: in order.`;
  },
};
