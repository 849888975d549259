/** What is heard while something is switched on, from where somebody sits: given with a complaint, or listened for. */
import { SOUND_STATES, soundChances } from '../../limits';
import { type CircuitModel, type OperatingPoint, seenPoint } from '../../network';
import { functionRuns } from '../run';
import { doesAt } from './hand';
import { likeliest, loadPart, type RefOf, type TestKind } from './kind';

type Ref = RefOf<'sound'>;
type Sound = (typeof SOUND_STATES)[number];

/** Loads that turn, and hum when they cannot. */
const TURNING: readonly string[] = ['motor', 'pump'];
/** Share of its current from which a motor that does not turn as it should is heard. */
const HUMS_FROM = 0.2;

/** Relays on the way of a function and of what controls it; found once for a model. */
const known = new WeakMap<CircuitModel, Map<string, readonly string[]>>();

function relaysOf(model: CircuitModel, { function: of, condition }: Ref): readonly string[] {
  const found = known.get(model) ?? new Map<string, readonly string[]>();
  known.set(model, found);
  const key = `${of}|${condition}`;
  const relays =
    found.get(key) ??
    functionRuns(model, of, condition)
      .map((run) => run.id)
      .filter((id) => hasCoil(model, id));
  found.set(key, relays);
  return relays;
}

/** Whether a part has a coil that is heard when it pulls. */
function hasCoil({ network }: CircuitModel, part: string): boolean {
  return (network.branchesOfPart.get(part) ?? []).some((index) => network.branches[index]!.role === 'coil');
}

function turns(model: CircuitModel, { function: of }: Ref): boolean {
  return TURNING.includes(model.network.parts.get(model.function(of).load)?.kind ?? '');
}

/** Every sound that is made; a seized motor hums while current flows through it. */
function made(model: CircuitModel, ref: Ref, point: OperatingPoint, seized: boolean): Sound[] {
  const one = model.function(ref.function);
  const relays = relaysOf(model, ref).map((part): Sound => doesAt(model, part, point));
  const flows = model.loadFraction(one, point) >= HUMS_FROM;
  const labours = seized || model.outcome(one, point) === 'weak';
  return [...new Set([...relays, ...(turns(model, ref) && flows && labours ? (['hums'] as const) : [])])];
}

export const sound: TestKind<Ref> = {
  fields: ['function', 'condition'],
  answer: 'sound',
  results: SOUND_STATES,
  minutes: 0.3,
  setUp: (ref) => `sound|${ref.condition}`,
  spot: (ref) => `sound|${ref.function}`,
  apart: () => false,
  deed: (_, ref) => ({ runs: [ref.function] }),
  leads: ({ functions }, ref) => ({ sign: 'ear', at: loadPart(functions, ref.function) }),
  offers: ({ model, function: of, condition }) => {
    const ref = { kind: 'sound' as const, function: of, condition };
    if (relaysOf(model, ref).length === 0 && !turns(model, ref)) return [];
    return [{ ref, accesses: [{ place: null, lead: model.function(of).name, minutes: sound.minutes }] }];
  },
  chances: ({ model, hypothesis, point }, ref) => {
    const { load } = model.function(ref.function);
    const seized = hypothesis.faults.some((fault) => fault.part === load && fault.mode === 'seized');
    return soundChances(made(model, ref, point(ref.condition), seized));
  },
  outcome: (_, _ref, value) => ('sound' in value ? SOUND_STATES.indexOf(value.sound) : null),
  shows: ({ model, alteration, faults }, ref) => {
    const { load } = model.function(ref.function);
    const seized = faults.some((fault) => fault.part === load && fault.mode === 'seized');
    const sounds = made(model, ref, seenPoint(model, ref.condition, alteration), seized);
    return { sound: likeliest(SOUND_STATES, soundChances(sounds)) };
  },
  card: (names, ref) => ({
    title: `Listen: ${names.function(ref.function)}`,
    instrument: 'Ears',
    steps: [
      `Everything else quiet. Switch ${names.function(ref.function).toLowerCase()} on and off again.`,
      'Does a relay click or chatter, does a motor hum, or is it silent?',
    ],
    cautions: [],
  }),
  inSentence: (names, ref) => `what is heard of ${names.function(ref.function).toLowerCase()}`,
  inLog: (names, ref) => `Sound of ${names.function(ref.function).toLowerCase()}`,
  means: ({ model, names }, ref, value) => {
    if (!('sound' in value)) return null;
    const relays = relaysOf(model, ref).map((id) => names.part(id));
    const which = relays.length === 1 ? relays[0]! : 'a relay';
    switch (value.sound) {
      case 'chatters':
        return `Chattering: the coil of ${which} is fed and drops out again. Weak supply, a poor earth, or something on its control that lets go.`;
      case 'clicks':
        return `A click: the coil circuit of ${which} works, as far as an ear can tell. That says nothing of its contact.`;
      case 'hums':
        return 'Humming: current reaches the motor and it does not turn as it should: it is seized, or gets too little.';
      default:
        return relays.length > 0
          ? `Silent: ${which} does not seem to pull in: its coil, feed, earth or command. A soft click may be missed.`
          : 'Silent: no current that could be heard.';
    }
  },
};
