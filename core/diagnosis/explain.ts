/** Sentences: what a reading means and clears, what each result of a test would mean, why it is proposed. */
import type { Place } from '../format/circuitSchema';
import type { TestRef } from '../format/readingsSchema';
import { clampLimits } from '../instruments/instruments';
import { formatQuantity } from '../instruments/quantity';
import type { TakenReading } from './evidence';
import { NO_FAULT } from './hypotheses';
import type { TestWorth } from './next';
import {
  clampedAmps,
  EMF_SPREAD,
  outcomeIndex,
  type Predictions,
  type TestPrediction,
  voltsSpread,
} from './predictions';

export interface OutcomeMeaning {
  /** "about 12.5 V", "lit", "conducts". */
  readonly result: string;
  readonly chance: number;
  /** True for what a sound circuit shows. */
  readonly asExpected: boolean;
  /** What it would mean, in a sentence. */
  readonly means: string;
}

const RESULT_WORDS: Readonly<Record<Exclude<TestRef['kind'], 'volts'>, readonly string[]>> = {
  lamp: ['lit', 'dim', 'off'],
  'lamp-in-fuse': ['lit', 'dim', 'off'],
  function: ['works', 'weak', 'dead'],
  substitute: ['works', 'weak', 'dead'],
  continuity: ['conducts', 'open (over limit)'],
  bridge: ['works', 'weak', 'dead'],
  click: ['clicks', 'silent'],
  look: ['whole', 'broken'],
  clamp: ['no current', 'clearly less current', 'current as expected', 'clearly more current'],
};

function percent(chance: number): string {
  if (chance > 0.995) return 'almost certain';
  if (chance < 0.005) return 'under 1 %';
  return `${Math.round(chance * 100)} %`;
}

function joinWords(words: readonly string[], limit = 4): string {
  const shown = words.slice(0, limit);
  const more = words.length - shown.length;
  if (more > 0) return `${shown.join(', ')} and ${more} more`;
  return shown.length < 2
    ? shown.join('')
    : `${shown.slice(0, -1).join(', ')} and ${shown[shown.length - 1]}`;
}

interface Range {
  readonly result: string;
  readonly bins: readonly number[];
  readonly asExpected: boolean;
}

/** A handful of results that a technician would tell apart, each a set of outcomes. */
function ranges(predictions: Predictions, prediction: TestPrediction, sound: number): Range[] {
  const { ref } = prediction;
  if (ref.kind !== 'volts') {
    const words = RESULT_WORDS[ref.kind];
    const { outcomes, clean } = prediction;
    let expected = 0;
    for (let k = 1; k < outcomes; k++) {
      if (clean[sound * outcomes + k]! > clean[sound * outcomes + expected]!) expected = k;
    }
    return words.map((result, k) => ({ result, bins: [k], asExpected: k === expected }));
  }
  const emf = predictions.model.emfVolts;
  const floating = prediction.volts!.floating[sound] === 1;
  const expected = floating ? 0 : prediction.volts!.mean[sound]!;
  const spread = Math.hypot(voltsSpread(expected, emf), expected * EMF_SPREAD);
  const width = Math.max(2.5 * spread, emf * 0.012);
  const low = predictions.bin(expected - width);
  const high = predictions.bin(expected + width);
  const below: number[] = [];
  const middle: number[] = [];
  const above: number[] = [];
  const zero: number[] = [];
  const zeroTop = predictions.bin(emf * 0.027);
  for (let k = 0; k < prediction.outcomes; k++) {
    if (k >= low && k <= high) middle.push(k);
    else if (k < low && k <= zeroTop) zero.push(k);
    else if (k < low) below.push(k);
    else above.push(k);
  }
  const about = formatQuantity(Math.abs(expected) < 0.02 ? 0 : expected, 'V');
  const all: Range[] = [
    {
      result: floating || Math.abs(expected) < 0.3 ? 'next to nothing' : `about ${about}`,
      bins: middle,
      asExpected: true,
    },
    { result: 'next to nothing', bins: zero, asExpected: false },
    { result: 'clearly less', bins: below, asExpected: false },
    { result: 'clearly more', bins: above, asExpected: false },
  ];
  return all.filter((range) => range.bins.length > 0);
}

/** What each result of a test would mean for the suspects. */
export function outcomeMeanings(
  predictions: Predictions,
  prediction: TestPrediction,
  p: Float64Array,
  groupOf: Int32Array,
  groupCount: number,
  title: (group: number) => string,
): { expected: string; meanings: OutcomeMeaning[] } {
  const sound = predictions.hypotheses.findIndex((one) => one.id === NO_FAULT);
  const { outcomes, chances } = prediction;
  const before = new Float64Array(groupCount);
  for (let h = 0; h < p.length; h++) before[groupOf[h]!] = before[groupOf[h]!]! + p[h]!;
  const found = ranges(predictions, prediction, sound);
  const meanings = found.map((range): OutcomeMeaning => {
    const after = new Float64Array(groupCount);
    let total = 0;
    for (let h = 0; h < p.length; h++) {
      let chance = 0;
      for (const k of range.bins) chance += chances[h * outcomes + k]!;
      after[groupOf[h]!] = after[groupOf[h]!]! + p[h]! * chance;
      total += p[h]! * chance;
    }
    const order = [...after.keys()].sort((x, y) => after[y]! - after[x]!);
    const lead = order[0]!;
    const leadChance = total > 0 ? after[lead]! / total : 0;
    const gone = [...after.keys()]
      .filter((g) => before[g]! > 0.03 && total > 0 && after[g]! / total < before[g]! * 0.1)
      .sort((x, y) => before[y]! - before[x]!)
      .map(title);
    const points =
      leadChance >= 0.5
        ? `Points at ${title(lead)} (${percent(leadChance)}).`
        : `Leaves ${joinWords(order.filter((g) => total > 0 && after[g]! / total > 0.01).map(title), 3)}.`;
    const clears = gone.length > 0 ? ` Clears ${joinWords(gone, 3)}.` : '';
    return { result: range.result, chance: total, asExpected: range.asExpected, means: points + clears };
  });
  return {
    expected: found.find((range) => range.asExpected)?.result ?? '',
    meanings: meanings
      .filter((one) => one.asExpected || one.chance >= 0.005)
      .sort((x, y) => Number(y.asExpected) - Number(x.asExpected) || y.chance - x.chance),
  };
}

/** Two plain sentences: what the test divides, and what it costs. */
export function explainProposal(
  meanings: readonly OutcomeMeaning[],
  worth: TestWorth,
  place: Place | undefined,
  isOpen: boolean,
): string {
  const likely = meanings.slice().sort((x, y) => y.chance - x.chance);
  const first = likely[0];
  const split = first
    ? first.chance > 0.9
      ? `Most likely it shows “${first.result}” (${percent(first.chance)}), which would settle more than any other test does in the same time.`
      : `It divides the suspects: “${first.result}” ${percent(first.chance)}${likely[1] ? `, “${likely[1].result}” ${percent(likely[1].chance)}` : ''}.`
    : '';
  const minutes = worth.minutes < 1 ? 'under a minute' : `about ${Math.round(worth.minutes * 10) / 10} min`;
  const cost =
    !place || place.minutesToOpen === 0
      ? `It takes ${minutes} and nothing has to come off.`
      : isOpen
        ? `It takes ${minutes}; ${place.name} is open already.`
        : `It takes ${minutes}, opening ${place.name} included.`;
  return `${split} ${cost}`;
}

/** What a reading means and clears, and whether it was out of keeping with what was left. */
export function explainReading(
  predictions: Predictions,
  reading: TakenReading,
  prediction: TestPrediction,
  taken: boolean,
  explained: boolean,
  cleared: readonly string[],
): { sentence: string; unexpected: boolean } {
  if (!taken) return { sentence: 'Recorded; it says nothing about the circuit.', unexpected: false };
  const { model } = predictions;
  const names = cleared.map((part) => model.network.parts.get(part)?.name ?? part);
  const clears = names.length > 0 ? ` Clears ${joinWords(names)}.` : '';
  const sentence = `${meaningWords(predictions, reading, prediction)}${clears}`;
  const isReport = reading.test.kind === 'function';
  const unproved = reading.testerProved || isReport ? '' : ' Provisional: the tester was not proved first.';
  if (!explained) {
    return {
      sentence: `${sentence} It does not fit what was recorded before: repeat it, and check the condition and the spot.${unproved}`,
      unexpected: true,
    };
  }
  return { sentence: sentence + unproved, unexpected: false };
}

/** Whether a hypothesis explains a reading well, wrong readings left aside. The unmapped explains nothing well. */
export function explainsReading(
  predictions: Predictions,
  prediction: TestPrediction,
  reading: TakenReading,
  hypothesis: number,
): boolean {
  if (predictions.hypotheses[hypothesis]!.alteration === null) return false;
  const { outcomes, clean, volts } = prediction;
  if (volts && 'volts' in reading.value) {
    if (volts.floating[hypothesis]) return true;
    const mean = volts.mean[hypothesis]!;
    const spread = Math.hypot(volts.spread[hypothesis]!, mean * EMF_SPREAD);
    return Math.abs(reading.value.volts - mean) < 3.5 * spread;
  }
  const index = outcomeIndex(predictions.model, reading);
  return index === null || clean[hypothesis * outcomes + index]! > 0.05;
}

function meaningWords(predictions: Predictions, reading: TakenReading, prediction: TestPrediction): string {
  const { model, hypotheses } = predictions;
  const sound = hypotheses.findIndex((one) => one.id === NO_FAULT);
  const ref = reading.test;
  const value = reading.value;
  const node = (id: string) => model.circuit.nodes.find((one) => one.id === id)?.name ?? id;
  const part = (id: string) => model.network.parts.get(id)?.name ?? id;
  if (ref.kind === 'volts' && 'volts' in value && prediction.volts) {
    const volts = value.volts;
    const expected = prediction.volts.mean[sound]!;
    const floats = prediction.volts.floating[sound] === 1;
    const nominal = model.circuit.nominalVolts;
    const at = node(ref.node);
    if (ref.against !== model.circuit.reference) {
      return dropWords(volts, expected, `from ${at} to ${node(ref.against)}`, nominal);
    }
    if (volts < -0.3) {
      return `${formatQuantity(volts, 'V')} at ${at}: the minus sign says that the leads are reversed, or the polarity is.`;
    }
    const tolerance = Math.max(0.35 * (nominal / 12), 2.5 * voltsSpread(expected, model.emfVolts));
    if (!floats && Math.abs(volts - expected) <= tolerance) {
      if (expected < 0.3 * (nominal / 12)) {
        return `${formatQuantity(volts, 'V')} at ${at}, as in a sound circuit.`;
      }
      const loaded = conditionLoads(predictions, ref.condition, ref.node);
      return loaded
        ? `${formatQuantity(volts, 'V')} at ${at}, as expected under load: the feed is sound up to here.`
        : `${formatQuantity(volts, 'V')} at ${at}, as expected; without load this does not prove that the joint can carry current.`;
    }
    if (volts > 0 && volts < 0.12 && expected > nominal * 0.4) {
      return `Only ${formatQuantity(volts, 'V')} at ${at}: a few millivolts are nothing; no feed arrives here.`;
    }
    if (volts < expected * 0.15) {
      return `${formatQuantity(volts, 'V')} at ${at} where ${formatQuantity(expected, 'V')} belong: the feed does not arrive here. Look at key, switches and everything upstream before any part is condemned.`;
    }
    if (volts < expected) {
      return `${formatQuantity(volts, 'V')} at ${at} instead of ${formatQuantity(expected, 'V')}: volts are lost in resistance before this point, or the return is lifted less than it should be.`;
    }
    return expected < 0.5 * (nominal / 12)
      ? `${formatQuantity(volts, 'V')} at ${at}, which should be near earth: the way from here to earth is open or poor.`
      : `${formatQuantity(volts, 'V')} at ${at}, more than the ${formatQuantity(expected, 'V')} of a sound circuit: less current flows than should, so look behind this point.`;
  }
  if (ref.kind === 'lamp' && 'lamp' in value) {
    const at = node(ref.node);
    if (value.lamp === 'lit')
      return `The lamp lights at ${at}: there is a feed that can carry the lamp's current.`;
    if (value.lamp === 'dim') return `The lamp is dim at ${at}: a feed is there, but through resistance.`;
    return `The lamp stays off at ${at}: no feed that could carry it arrives here.`;
  }
  if (ref.kind === 'lamp-in-fuse' && 'lamp' in value) {
    if (value.lamp === 'lit') {
      return `Full brightness in place of ${part(ref.part)}: a short behind it, or a load still connected.`;
    }
    return value.lamp === 'dim'
      ? `Dim in place of ${part(ref.part)}: a load takes current, no dead short.`
      : `No light in place of ${part(ref.part)}: nothing behind it takes current in this set-up.`;
  }
  if (ref.kind === 'continuity') {
    const open = 'overLimit' in value || ('ohms' in value && value.ohms > 1000);
    return open
      ? `${part(ref.part)} reads open out of the circuit.`
      : `${part(ref.part)} conducts out of the circuit; ohms below one are not judged.`;
  }
  if (ref.kind === 'click' && 'click' in value) {
    return value.click === 'clicks'
      ? `${part(ref.part)} clicks: its coil circuit works. That says nothing of its contact.`
      : `${part(ref.part)} is silent: coil, its feed, its earth or the command is missing, or the relay hangs.`;
  }
  if (ref.kind === 'look' && 'look' in value) {
    return value.look === 'broken'
      ? `${part(ref.part)} looks broken. Why did it blow?`
      : `${part(ref.part)} looks whole; one hairline break in ten is not seen, so this proves nothing.`;
  }
  if (ref.kind === 'clamp' && 'amps' in value) {
    const expected = clampedAmps(model, ref.part, model.sound(ref.condition));
    const [nothing, less, more] = clampLimits(expected);
    const size = Math.abs(value.amps);
    const flows = `${formatQuantity(value.amps, 'A')} through ${part(ref.part)}, where ${formatQuantity(expected, 'A')} belong`;
    if (size < nothing) return `${flows}: no current, so the way is open somewhere before or behind it.`;
    if (size < less) return `${flows}: resistance in the way, or part of the load is missing.`;
    return size < more
      ? `${flows}: feed, way and load carry it.`
      : `${flows}: overload or a short behind it.`;
  }
  if (ref.kind === 'bridge' && 'state' in value) {
    return value.state === 'works'
      ? `It works with ${part(ref.part)} bridged: path and load carry the current. Contact, coil or command remain.`
      : `Bridging ${part(ref.part)} does not make it work: look behind pin 87, or at the feed of pin 30.`;
  }
  if (ref.kind === 'substitute' && 'state' in value) {
    return value.state === 'works'
      ? `With a known good ${part(ref.part)} it works: the fault went with the part that came out.`
      : `A known good ${part(ref.part)} changes nothing.`;
  }
  if (ref.kind === 'function' && 'state' in value) {
    const one = model.function(ref.function);
    const on = model.expectedOn(one, ref.condition);
    switch (value.state) {
      case 'works':
        return `${one.name} works: everything it shares carries its current.`;
      case 'weak':
        return `${one.name} is weak: volts are lost somewhere on its way.`;
      case 'on-when-off':
        return `${one.name} runs when it should be off: a stuck contact, or a feed from elsewhere.`;
      case 'comes-and-goes':
        return `${one.name} comes and goes: something loose. Good readings while it works clear nothing.`;
      default:
        return on ? `${one.name} is dead where it should work.` : `${one.name} is off, as it should be.`;
    }
  }
  return 'Recorded.';
}

/** Volts lost over one joint, contact or fuse that count as too much at working current, on a 12 V system. */
const DROP_LIMIT = 0.2;

/** What a drop between two points means. Without current it means nothing, and says so. */
function dropWords(volts: number, expected: number, between: string, nominalVolts: number): string {
  const shown = formatQuantity(volts, 'V');
  const limit = Math.max(DROP_LIMIT * (nominalVolts / 12), 2 * Math.abs(expected));
  if (volts < -limit)
    return `${shown} ${between}: the minus sign says that the leads are reversed, or current flows backwards.`;
  if (volts > 0.5 * nominalVolts) {
    return `${shown} ${between}: all of the supply is lost here, so it is open between these points while the rest of the way is joined.`;
  }
  if (volts > limit)
    return `${shown} ${between}, more than a good joint or contact loses: resistance between these points.`;
  return `${shown} ${between}: good only if the load’s current flows. Without current a drop of nothing is no pass.`;
}

/** Whether anything draws current through the point in the sound circuit. */
function conditionLoads(predictions: Predictions, conditionId: string, nodeId: string): boolean {
  const { model } = predictions;
  const node = model.network.nodeIndex.get(nodeId);
  const point = model.sound(conditionId);
  return model.network.branches.some(
    (branch, index) => (branch.a === node || branch.b === node) && Math.abs(point.amps[index] ?? 0) > 0.05,
  );
}
