/** Volts on the battery's own posts: rested, cranking, charging. Limits scale with the nominal voltage. */

import type { FaultMode } from '../../faults';
import type { CircuitPart } from '../../format';
import { normalBelow, STOP_VOLTS, voltmeterError } from '../../limits';
import type { Alteration, CircuitModel } from '../../network';
import { formatQuantity } from '../../quantity';
import type { Hypothesis } from '../hypotheses/hypothesis';
import { set } from '../settings';
import { atNode, pinsOf, type RefOf, type Scene, type TestKind } from './kind';

type State = RefOf<'battery'>['state'];

/** On 12 V: below the first is too little, above the second too much. */
const BATTERY_LIMITS: Readonly<Record<State, readonly [number, number]>> = {
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

/** Ohms of a starter and its cables on 12 V, turning: what a sound battery is drawn down by to about 10.5 V. */
const CRANKING_OHMS = 0.06;
/** Spread of what is read on a sound battery, on 12 V; wider where its own fault decides. */
const SPREAD: Readonly<Record<State, number>> = { rest: 0.2, crank: 0.5, charge: 0.5 };
const FAULTY_SPREAD: Readonly<Record<State, number>> = { rest: 0.4, crank: 1, charge: 1 };
/** Volts while charging, and what a fault of the charging source makes of them, on 12 V. */
const CHARGING = 14.2;
const CHARGED_BY: Readonly<Partial<Record<FaultMode, number>>> = { weak: 12.9, 'over-voltage': 16.5 };

type Faults = Hypothesis['faults'];

/** Volts and inner ohms of the battery, as altered. */
function cellOf(model: CircuitModel, { changes }: Alteration): { emfVolts: number; ohms: number } {
  const { branches, parts } = model.network;
  const index = branches.findIndex((one) => one.role === 'source' && parts.get(one.part)?.kind === 'battery');
  const sound = branches[index]!;
  return changes
    .filter((change) => change.branch === index)
    .reduce((left, { emfVolts = left.emfVolts, ohms = left.ohms }) => ({ emfVolts, ohms }), {
      emfVolts: sound.emfVolts,
      ohms: sound.ohms,
    });
}

function modeOf(model: CircuitModel, kind: CircuitPart['kind'], faults: Faults): FaultMode | null {
  return faults.find((fault) => model.network.parts.get(fault.part)?.kind === kind)?.mode ?? null;
}

/** Volts on the posts, and how far they may lie from it. */
function onPosts(
  model: CircuitModel,
  state: State,
  altered: Alteration,
  faults: Faults,
): { volts: number; spread: number } {
  const scale = model.circuit.nominalVolts / 12;
  const cell = cellOf(model, altered);
  const battery = modeOf(model, 'battery', faults);
  const charging = modeOf(model, 'charging-source', faults);
  const faulty = battery !== null || (state === 'charge' && charging !== null);
  const spread = (faulty ? FAULTY_SPREAD : SPREAD)[state] * scale;
  const cranking = CRANKING_OHMS * scale ** 2;
  switch (state) {
    case 'rest':
      return { volts: cell.emfVolts, spread };
    case 'crank':
      return { volts: (cell.emfVolts * cranking) / (cranking + cell.ohms), spread };
    case 'charge': {
      if (charging === 'open') return { volts: cell.emfVolts, spread };
      const charged = ((charging && CHARGED_BY[charging]) ?? CHARGING) * scale;
      // One that is low holds the charge down for a while.
      return { volts: battery === 'flat' ? (charged + cell.emfVolts) / 2 : charged, spread };
    }
  }
}

/** Rested volts of a lead-acid battery of 12 V at 25 °C, and how far it is charged then. */
const CHARGED: readonly (readonly [number, string])[] = [
  [12.55, 'well charged'],
  [12.35, 'about three quarters charged'],
  [12.15, 'about half charged'],
];

/** What rested volts above a quarter say of the charge, and what they do not. */
function chargeWords(onTwelve: number): string {
  const charged = CHARGED.find(([from]) => onTwelve >= from)?.[1];
  if (charged === undefined) {
    return 'about a quarter charged. Charge it before it is judged, or anything behind it.';
  }
  const rests =
    charged === 'about half charged' ? 'Charge it before it is judged under load' : 'In order at rest';
  return `${charged}. ${rests}; resting volts do not prove that it can deliver current.`;
}

/** Volts at the posts that belong to another system than the vehicle was said to have; null where they do not. */
function otherSystem(state: State, volts: number, nominalVolts: number): string | null {
  if (volts > STOP_VOLTS) {
    return `more than ${STOP_VOLTS} V. Stop: this is no ${nominalVolts} V circuit. Take the leads off, and leave it to whoever is trained for high voltage.`;
  }
  if (state !== 'rest') return null;
  const share = volts / nominalVolts;
  if (share > 1.7) {
    return `twice what a ${nominalVolts} V system has. Stop: what system is this? Two batteries in series, or another vehicle than the job says.`;
  }
  if (share > 0.44 && share < 0.56) {
    return `half of what a ${nominalVolts} V system has. What system is this, and is it the whole battery? If it is, a battery so low is charged or exchanged before anything else is tested.`;
  }
  return null;
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
  apart: () => true,
  deed: (_, ref) => ({ atBattery: true, cranks: ref.state === 'crank', engineRuns: ref.state === 'charge' }),
  leads: ({ parts }) => {
    const post = parts.find(({ kind }) => kind === 'battery');
    const { plus, minus } = post ? pinsOf(parts, post.id) : {};
    return { sign: 'volts', plus, minus, at: post?.id };
  },
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
  chances: ({ model, hypothesis, altered }, ref) => {
    const { volts, spread } = onPosts(model, ref.state, altered, hypothesis.faults);
    const scale = model.circuit.nominalVolts / 12;
    const blur = Math.hypot(spread, voltmeterError(volts));
    const [low, high] = BATTERY_LIMITS[ref.state].map((limit) => normalBelow((limit * scale - volts) / blur));
    return [low!, Math.max(0, high! - low!), 1 - high!];
  },
  outcome: (model, ref, value) => {
    if (!('volts' in value)) return null;
    const onTwelve = value.volts / (model.circuit.nominalVolts / 12);
    return BATTERY_LIMITS[ref.state].filter((limit) => onTwelve >= limit).length;
  },
  shows: ({ model, alteration, faults }, ref) => {
    const { volts } = onPosts(model, ref.state, alteration, faults);
    return { volts: Math.round(volts * 100) / 100 };
  },
  card: (_names, ref) => ({
    title: `Battery on its own posts, ${WORDS[ref.state]}`,
    settings:
      ref.state === 'rest'
        ? [set('key', 'Key: off'), set('switch', 'Everything off for a while')]
        : ref.state === 'crank'
          ? [set('key', 'Key: crank')]
          : [set('engine', 'Engine running')],
    instrument: 'Meter on DC volts',
    steps: ['Red lead on the plus post itself, black on the minus post itself, not on the clamps.'],
    cautions: ref.state === 'rest' ? [] : ['Never through the ampere socket.'],
  }),
  inSentence: (_names, ref) => `the battery ${WORDS[ref.state]}`,
  inLog: (_names, ref) => `Battery ${WORDS[ref.state]}`,
  means: ({ model }, ref, value) => {
    if (!('volts' in value)) return null;
    const scale = model.circuit.nominalVolts / 12;
    const [low, high] = BATTERY_LIMITS[ref.state].map((limit) => limit * scale);
    const shown = `${formatQuantity(value.volts, 'V')} ${WORDS[ref.state]}`;
    const limits = `on this ${model.circuit.nominalVolts} V system`;
    const other = otherSystem(ref.state, value.volts, model.circuit.nominalVolts);
    if (other) return `${shown}: ${other}`;
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
    return ref.state === 'rest' ? `${shown}: ${chargeWords(value.volts / scale)}` : `${shown}: in order.`;
  },
};
