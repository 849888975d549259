/**
 * What a voltage means, in words: held against what a sound circuit would show after the readings before it, and
 * against the currents that flow under the suspects that are left.
 */
import {
  type Fault,
  type FaultMode,
  faultAlteration,
  faultModes,
  OPEN_MODES,
  RESISTANCE_MODES,
} from '../../faults';
import type { CircuitPart, Reading } from '../../format';
import { CONTACT_WORN_VOLTS, mayLose } from '../../limits';
import { formatQuantity } from '../../quantity';
import { FLOWS, FLOWS_NOT } from '../thresholds';
import { carries, type Meaning, type RefOf } from './kind';

type Ref = RefOf<'volts'>;

/** Deviations from what a sound circuit shows up to which a reading is as expected. */
const AS_EXPECTED = 2.5;

/** From this chance on a suspect is looked at, and not everything before the point. */
const LEADS = 0.5;

/** Below this share of the nominal volts a point that should be dead is not called live. */
const LIVE_SHARE = 0.05;

/** Faults that bring volts to where none belong. */
const HOLDS_UP: ReadonlySet<FaultMode> = new Set(['short-to-feed', 'contact-stuck', 'shorted', 'wrong-part']);

/** Faults that leave no way, or a poor one, to earth. */
function endsWay({ mode }: Fault): boolean {
  return OPEN_MODES.has(mode) || RESISTANCE_MODES.has(mode) || mode === 'contact-open';
}

/** Live where it should be dead, or not brought down to earth: by what is likely now. */
function heldUpWords({ model, names, left }: Meaning, ref: Ref, shown: string): string {
  const { ground } = names;
  const { likely } = left;
  const holds = ({ faults }: { faults: readonly Fault[] }) => faults.some(({ mode }) => HOLDS_UP.has(mode));
  const first = likely.find((one) => holds(one) || one.faults.some(endsWay));
  if (first && holds(first)) {
    const list = likely
      .filter(holds)
      .map(({ words }) => words)
      .join('; ');
    return `${shown}, live where it should be dead. What would hold it up: ${list}.`;
  }
  if (!carries(model, model.sound(ref.condition).amps, ref.node)) {
    return `${shown}, live where it should be dead: a second feed, a contact that stays closed, or a switch that is not where it was believed.`;
  }
  return first
    ? `${shown}, which should be near ${ground}: the way from here to ${ground} is open or poor.`
    : `${shown}, which should be near ${ground}: nothing on this map alone does that. A second feed would, and so would an open way to ${ground}.`;
}

/** Volts that may be lost between two points while all is sound: by the limit of the part between them. */
function mayBeLost({ model, expected }: Meaning, ref: Ref, between: CircuitPart | undefined): number {
  const { network, circuit } = model;
  const { amps } = model.sound(ref.condition);
  const branches = network.branchesOfPart.get(between?.id ?? '') ?? [];
  const working = Math.max(0, ...branches.map((index) => Math.abs(amps[index]!)));
  const limit = between ? mayLose(between.kind, working, circuit.nominalVolts) : CONTACT_WORN_VOLTS;
  return Math.max(limit, expected ? expected.volts + AS_EXPECTED * expected.deviation : 0);
}

/** Whether a function was last seen to run in this condition, though what drops so much would leave it dead. */
function drawsAllTheSame(
  { model, earlier }: Meaning,
  ref: Ref,
  volts: number,
  between: CircuitPart,
): boolean {
  const opened = faultAlteration(model.network, { part: between.id, mode: 'open' });
  return model.circuit.functions.some((one) => {
    const seen = earlier.findLast(
      ({ test, value }) =>
        test.kind === 'function' &&
        test.function === one.id &&
        test.condition === ref.condition &&
        'state' in value,
    );
    const runs = seen && 'state' in seen.value && ['works', 'weak'].includes(seen.value.state);
    if (!runs || model.outcome(one, model.solve(ref.condition, opened)) !== 'dead') return false;
    const load = model.network.loads.get(one.load)!;
    return (model.emfVolts - volts) / model.emfVolts < load.deadBelow;
  });
}

/** What a drop between two points means. Without current it means nothing, and says so. */
function dropWords(meaning: Meaning, ref: Ref, volts: number): string {
  const { model, names, left } = meaning;
  const flows = left.flows(ref.condition, ref.node);
  const between = names.between(ref.node, ref.against);
  const limit = mayBeLost(meaning, ref, between);
  const shown = between
    ? `${formatQuantity(volts, 'V')} across ${between.name}`
    : `${formatQuantity(volts, 'V')} from ${names.node(ref.node)} to ${names.node(ref.against)}`;
  if (volts < -limit)
    return `${shown}: the minus sign says that the leads are reversed, or current flows backwards.`;
  if (volts > 0.5 * model.circuit.nominalVolts) {
    return between && faultModes(between).includes('open') && drawsAllTheSame(meaning, ref, volts, between)
      ? `${shown}: nearly all of the supply is lost here, and a load that still draws does not go with that. Look at it again while this is read.`
      : `${shown}: nearly all of the supply stands here, so it is open between these points while the rest of the way is joined.`;
  }
  if (volts > limit) {
    return `${shown}, more than the ${formatQuantity(limit, 'V')} that a sound part loses here: resistance between these points.`;
  }
  if (flows >= FLOWS) return `${shown} while current flows: no more than a sound part loses.`;
  return flows <= FLOWS_NOT
    ? `${shown}: no current flows here by what is left, so it says nothing of the joint.`
    : `${shown}: good only if the load’s current flows. Without current a drop of nothing is no pass.`;
}

/** What was read at a point in a condition, the latest counting; null when nothing was. */
function readBefore(earlier: readonly Reading[], node: string, condition: string): number | null {
  for (const { test, value } of earlier.slice().reverse()) {
    if (
      test.kind === 'volts' &&
      !test.pulled &&
      test.node === node &&
      test.condition === condition &&
      'volts' in value
    ) {
      return value.volts;
    }
  }
  return null;
}

/** Both ends of a fuse read: what only the pair can say. Null when the other end was not read, or all is plain. */
function pairWords({ model, names, earlier }: Meaning, ref: Ref, volts: number): string | null {
  const nominal = model.circuit.nominalVolts;
  const live = (value: number) => value > 0.5 * nominal;
  for (const part of model.circuit.parts) {
    if (part.kind !== 'fuse') continue;
    const { in: feed, out } = part.pins;
    if (ref.node !== feed && ref.node !== out) continue;
    const other = readBefore(earlier, ref.node === feed ? out : feed, ref.condition);
    if (other === null) continue;
    const dead = earlier.some(
      ({ test, value }) =>
        test.kind === 'function' &&
        'state' in value &&
        value.state === 'dead' &&
        model.expectedOn(model.function(test.function), test.condition),
    );
    if (live(volts) && live(other)) {
      return dead
        ? `Both ends of ${part.name} are live. That passes it only if nothing feeds its load side from elsewhere: pull it and read both holes.`
        : null;
    }
    if (!live(volts) && !live(other)) {
      return `Neither end of ${part.name} is live: it is not fed in this set-up. Key position, main fuse and everything upstream come before the fuse.`;
    }
    const feedLive = ref.node === feed ? live(volts) : live(other);
    return feedLive
      ? `Only the feed side of ${part.name} is live: it is open, or nothing of its current gets through. Pull it and measure it.`
      : `Only the load side of ${names.part(part.id)} is live: something feeds it backwards.`;
  }
  return null;
}

/** A coil's control pin that should fall when commanded and stays up. */
function controlWords({ model, expected }: Meaning, ref: Ref, volts: number): string | null {
  const nominal = model.circuit.nominalVolts;
  if (!expected || expected.volts > 0.25 * nominal || volts < 0.6 * nominal) return null;
  const relay = model.circuit.parts.find(
    (part) => part.kind === 'relay' && (part.pins['85'] === ref.node || part.pins['86'] === ref.node),
  );
  if (!relay || !carries(model, model.sound(ref.condition).amps, ref.node)) return null;
  return `${formatQuantity(volts, 'V')} at ${relay.name}’s control pin, which should fall when commanded and does not: look at the command and its wire, not at the relay.`;
}

/** As in a sound circuit: what that proves hangs on whether current flows there. */
function ordinaryWords(flows: number, shown: string, isReturn: boolean, ground: string): string {
  if (isReturn) {
    if (flows >= FLOWS) return `${shown} while current flows: the way to ${ground} from here is sound.`;
    return flows <= FLOWS_NOT
      ? `${shown}, as in a sound circuit; no current flows here by what is left, so it proves nothing of the way to ${ground}.`
      : `${shown}, as in a sound circuit; it proves the way to ${ground} only if current flows here.`;
  }
  return flows >= FLOWS
    ? `${shown}, as expected under load: the feed is sound up to here.`
    : `${shown}, as expected: the feed reaches here, but without load this does not prove it; a bad joint would show the same.`;
}

/** Too little at the battery's own post: nothing lies before it but the battery, and its joint to the reference. */
function sourceWords(
  { names }: Meaning,
  shown: string,
  belongs: string,
  battery: CircuitPart,
  flows: number,
): string {
  const joint = `or what joins its minus to ${names.ground} is poor: read it at both posts`;
  return flows >= FLOWS
    ? `${shown} instead of ${belongs} under load: ${battery.name} gives way, ${joint} before anything behind is judged.`
    : `${shown} instead of ${belongs}: ${battery.name} is low, ${joint} before anything behind is judged.`;
}

/** What a voltage at a point means, read against the reference. */
function pointWords(meaning: Meaning, ref: Ref, volts: number): string {
  const { model, names, expected } = meaning;
  const nominal = model.circuit.nominalVolts;
  const shown = `${formatQuantity(volts, 'V')} at ${names.node(ref.node)}`;
  const sound = expected?.volts ?? 0;
  const isReturn = sound < 0.1 * nominal;
  if (volts < -0.3) return `${shown}: the minus sign says that the leads are reversed, or the polarity is.`;
  const flows = meaning.left.flows(ref.condition, ref.node);
  const special = controlWords(meaning, ref, volts) ?? pairWords(meaning, ref, volts);
  if (special) return special.startsWith(shown.slice(0, 4)) ? special : `${shown}. ${special}`;
  if (expected && Math.abs(volts - sound) <= AS_EXPECTED * expected.deviation) {
    return ordinaryWords(flows, shown, isReturn, names.ground);
  }
  if (isReturn && volts > sound) {
    const works = carries(model, model.sound(ref.condition).amps, ref.node);
    return !works && volts < LIVE_SHARE * nominal
      ? `${shown}: next to nothing, as it should be here.`
      : heldUpWords(meaning, ref, shown);
  }
  if (isReturn) {
    const carried =
      flows <= FLOWS_NOT ? 'no current flows here by what is left' : 'less current flows here than should';
    return `${shown}, less than the ${formatQuantity(sound, 'V')} of a sound return: ${carried}, so it proves nothing of the way to ${names.ground}.`;
  }
  if (volts > 0 && volts < 0.12) {
    return `Only ${shown}: a few millivolts are nothing; no feed arrives here.`;
  }
  const belongs = formatQuantity(sound, 'V');
  const source = model.circuit.parts.find((part) => part.kind === 'battery' && part.pins.plus === ref.node);
  if (source && volts < sound) return sourceWords(meaning, shown, belongs, source, flows);
  if (volts < sound * 0.15) {
    const upstream =
      meaning.left.lead < LEADS
        ? ' Look at key, switches and everything upstream before any part is condemned.'
        : '';
    return `${shown} where ${belongs} belong: the feed does not arrive here.${upstream}`;
  }
  if (volts < sound) {
    return `${shown} instead of ${belongs}: volts are lost in resistance before this point, or the return is lifted less than it should be.`;
  }
  return `${shown}, more than the ${belongs} of a sound circuit: less current flows than should, so look behind this point.`;
}

export function voltsWords(meaning: Meaning, ref: Ref, value: Reading['value']): string | null {
  if (!('volts' in value)) return null;
  const { model, names } = meaning;
  const { volts } = value;
  if (ref.pulled) {
    const shown = `${formatQuantity(volts, 'V')} at ${names.node(ref.node)} with ${names.part(ref.pulled)} out`;
    return volts > 0.3 * model.circuit.nominalVolts
      ? `${shown}: its load side has a second feed. A lamp or meter on both ends cannot pass this fuse.`
      : `${shown}: no second feed shows here. What is connected may pull a weak one down: read it with the load off too.`;
  }
  return ref.against === model.circuit.reference
    ? pointWords(meaning, ref, volts)
    : dropWords(meaning, ref, volts);
}
