/** Ohms: of a part in the hand, which is proof, and in place with the battery off, which is evidence only. */

import { loadSide, partsBehind } from '../../circuit';
import { type Fault, isOpen, OPEN_MODES } from '../../faults';
import { withoutBattery, withoutPart } from '../../hands';
import { ohmmeterShows } from '../../instruments';
import { CONTINUITY_STATES, normalBelow, OHMMETER_LEADS } from '../../limits';
import { type Alteration, type CircuitModel, combineAlterations, UNALTERED } from '../../network';
import { formatQuantity } from '../../quantity';
import { apartAccess, apartOf, apartSteps, apartWords, waysApart, withApart } from './behind';
import { continuityPins, OUT_OF_CIRCUIT } from './hand';
import { atNode, atPart, type Names, pinsOf, type RefOf, type TestKind } from './kind';

/** Ohms of the sound part between the pins of a continuity test. */
function soundOhms(model: CircuitModel, part: string): number {
  const branches = (model.network.branchesOfPart.get(part) ?? []).map(
    (index) => model.network.branches[index]!,
  );
  return branches.find((branch) => branch.role !== 'contact')?.ohms ?? 0;
}

export const continuity: TestKind<RefOf<'continuity'>> = {
  fields: ['part', 'from', 'to'],
  answer: 'ohms',
  results: ['conducts', 'open (over limit)'],
  minutes: 1.5,
  setUp: () => 'continuity|removed',
  spot: (ref) => `part|${ref.part}`,
  apart: () => true,
  touches: (ref) => [ref.part],
  deed: (_, ref) => ({ pulls: [ref.part] }),
  leads: ({ parts }, { part, from, to }) => {
    const pins = pinsOf(parts, part);
    return { sign: 'ohms', plus: pins[from], minus: pins[to], at: part };
  },
  offers: ({ circuit, concerned }) =>
    circuit.parts
      .filter((part) => concerned(part.id))
      .flatMap((part) =>
        continuityPins(part).map(([from, to]) => ({
          ref: { kind: 'continuity' as const, part: part.id, from, to },
          accesses: atPart(part, continuity.minutes),
          disturbs: true,
        })),
      ),
  chances: ({ hypothesis }, ref) => {
    const open = hypothesis.faults.some((fault) => fault.part === ref.part && OPEN_MODES.has(fault.mode));
    return open ? [0.01, 0.99] : [0.99, 0.01];
  },
  outcome: (model, ref, value) => {
    if ('overLimit' in value) return CONTINUITY_STATES.indexOf('open');
    if (!('ohms' in value)) return null;
    return value.ohms <= Math.max(10, soundOhms(model, ref.part) * 5) ? 0 : 1;
  },
  shows: (circuit, ref) =>
    isOpen(circuit, ref.part)
      ? { overLimit: true }
      : { ohms: Math.round((soundOhms(circuit.model, ref.part) + OHMMETER_LEADS) * 10) / 10 },
  card: (names, ref) => {
    const kind = names.partOf(ref.part)?.kind;
    return {
      title: `${names.part(ref.part)} out of the circuit: does it conduct`,
      settings: OUT_OF_CIRCUIT,
      instrument: 'Meter on ohms',
      steps: [
        `Take ${names.part(ref.part)} out.`,
        kind === 'relay'
          ? `Leads on its pins ${ref.from} and ${ref.to}.`
          : kind === 'fuse'
            ? 'Leads on its two blades.'
            : 'Leads on its two terminals.',
      ],
      cautions: ['Ohms only on the part in the hand, never on a live circuit.'],
    };
  },
  slotPart: (ref) => ref.part,
  inSentence: (names, ref) => `${names.part(ref.part)} measured out of the circuit`,
  inLog: (names, ref) => `${names.part(ref.part)}, out of the circuit`,
  means: ({ names, earlier }, ref, value) => {
    const part = names.part(ref.part);
    if ('overLimit' in value || ('ohms' in value && value.ohms > 1000)) {
      const lookedWhole = earlier.some(
        ({ test, value: was }) =>
          test.kind === 'look' && test.part === ref.part && 'look' in was && was.look === 'whole',
      );
      return lookedWhole
        ? `${part} reads open out of the circuit although it looked whole: the meter decides, it has failed.`
        : `${part} reads open out of the circuit.`;
    }
    return 'ohms' in value ? `${part} conducts out of the circuit; ohms below one are not judged.` : null;
  },
};

/** Limits between the results, ohms: nothing is judged below one, and nobody tells 300 from 500. */
const LIMITS = [1.3, 10, 100, 1000, 100_000] as const;
const RESULTS = [
  'below 1 Ω',
  '1 to 10 Ω',
  '10 to 100 Ω',
  '100 Ω to 1 kΩ',
  '1 to 100 kΩ',
  'over limit',
] as const;
/** Relative spread of ohms in place: tolerance of parts, temperature of filaments and windings. */
const SPREAD = 0.3;

function resultOf(ohms: number | null): number {
  return ohms === null ? LIMITS.length : LIMITS.filter((limit) => ohms >= limit).length;
}

function chancesOf(ohms: number | null): number[] {
  if (ohms === null) return LIMITS.map(() => 0.005).concat(1 - 0.005 * LIMITS.length);
  const below = LIMITS.map((limit) => normalBelow(Math.log(limit / ohms) / SPREAD));
  return [...below, 1].map((upTo, k) => Math.max(0, upTo - (below[k - 1] ?? 0)));
}

/** What the meter shows in place with the battery off; null is over limit. */
function inPlace(model: CircuitModel, ref: RefOf<'ohms'>, alteration: Alteration): number | null {
  const dead = combineAlterations(alteration, withoutBattery(model.network));
  const shown = ohmmeterShows({ model, condition: ref.condition, alteration: dead }, ref.node, ref.against);
  return 'ohms' in shown ? shown.ohms : null;
}

export const ohms: TestKind<RefOf<'ohms'>> = {
  fields: ['node', 'against', 'condition'],
  answer: 'ohms',
  results: RESULTS,
  onRequest: true,
  minutes: 4,
  setUp: (ref) => `ohms|${ref.condition}`,
  spot: (ref) => `node|${ref.node}`,
  apart: () => true,
  deed: (_, ref) => ({ probes: [ref.node], ohms: true }),
  leads: (_, { node, against }) => ({ sign: 'ohms', plus: node, minus: against }),
  offers: ({ circuit, concerned, condition }) =>
    circuit.nodes
      .filter((node) => node.id !== circuit.reference && concerned(node.id))
      .map((node) => ({
        ref: { kind: 'ohms', node: node.id, against: circuit.reference, condition },
        accesses: atNode(circuit, node.id, ohms.minutes),
        disturbs: true,
      })),
  chances: ({ model, altered }, ref) => chancesOf(inPlace(model, ref, altered)),
  outcome: (_, _ref, value) =>
    'overLimit' in value ? resultOf(null) : 'ohms' in value ? resultOf(value.ohms) : null,
  shows: ({ model, alteration }, ref) => {
    const shown = inPlace(model, ref, alteration);
    return shown === null ? { overLimit: true } : { ohms: Math.round(shown * 10) / 10 };
  },
  card: (names, ref, lead) => ({
    title: `Ohms at ${names.node(ref.node)}, battery off`,
    instrument: 'Meter on ohms',
    steps: [
      'Disconnect the earthed pole of the battery, and every other source.',
      'Read volts first: they must be nothing.',
      `Leads on ${lead} and ${names.node(ref.against)}.`,
    ],
    cautions: ['Every path beside counts: this is evidence, not proof. Lamps are not judged by ohms.'],
  }),
  inSentence: (names, ref) => `the ohms at ${names.node(ref.node)}`,
  inLog: (names, ref) => `Ohms at ${names.node(ref.node)}, battery off`,
  means: ({ model, names }, ref, value) => {
    if (!('ohms' in value || 'overLimit' in value)) return null;
    const shown = 'ohms' in value ? formatQuantity(value.ohms, 'Ω') : 'Over limit';
    const at = `${shown} from ${names.node(ref.node)} to ${names.node(ref.against)}`;
    const expected = inPlace(model, ref, UNALTERED);
    const belongs = expected === null ? 'over limit' : formatQuantity(expected, 'Ω');
    const paths = 'Paths beside it count, so no part is passed by this.';
    return resultOf('ohms' in value ? value.ohms : null) === resultOf(expected)
      ? `${at}, about the ${belongs} of a sound circuit in place. ${paths}`
      : `${at}, where a sound circuit shows ${belongs} in place. ${paths}`;
  },
};

type Behind = RefOf<'ohms-behind'>;

const BEHIND_MINUTES = 1.8;
const APART_MINUTES = 1.5;

/** What was found once for a sound circuit; it is asked for every fault that lies elsewhere. */
const sound = new WeakMap<CircuitModel, Map<string, number | null | undefined>>();

/** What the meter shows behind a fuse or relay that is out, of a circuit with no fault there. */
function soundBehind(model: CircuitModel, ref: Behind): number | null | undefined {
  const known = sound.get(model) ?? new Map<string, number | null | undefined>();
  sound.set(model, known);
  const key = `${ref.part}|${ref.condition}|${ref.unplugged ?? ''}|${ref.apart ?? ''}`;
  if (!known.has(key)) known.set(key, behind(model, ref, [], UNALTERED));
  return known.get(key);
}

/** What the meter shows behind a fuse or relay that is out; null is over limit, undefined where volts forbid ohms. */
function behind(
  model: CircuitModel,
  ref: Behind,
  faults: readonly Fault[],
  altered: Alteration,
): number | null | undefined {
  const alteration = combineAlterations(
    withApart(model, faults, altered, apartOf(model, ref)),
    withoutPart(model.network, ref.part),
  );
  const measured = { model, condition: ref.condition, alteration };
  const shown = ohmmeterShows(
    measured,
    loadSide(model.network.parts.get(ref.part))!,
    model.circuit.reference,
  );
  if ('liveVolts' in shown) return undefined;
  return 'ohms' in shown ? shown.ohms : null;
}

/** " with the heater apart"; nothing where nothing is. */
function besides(names: Names, ref: Behind, joint: string): string {
  const apart = apartWords(names, ref);
  return apart === null ? '' : `${joint}${apart} apart`;
}

export const ohmsBehind: TestKind<Behind> = {
  fields: ['part', 'condition', 'unplugged', 'apart'],
  answer: 'ohms',
  results: RESULTS,
  minutes: BEHIND_MINUTES,
  setUp: (ref) => `ohms-behind|${ref.condition}|${ref.unplugged ?? ref.apart ?? ''}`,
  spot: (ref) => `part|${ref.part}`,
  apart: () => true,
  touches: (ref) => (ref.unplugged ? [ref.part, ref.unplugged] : [ref.part]),
  deed: (model, ref) => ({ pulls: [ref.part], behind: [ref.part], unplugs: apartOf(model, ref), ohms: true }),
  leads: ({ parts, reference }, { part }) => ({
    sign: 'ohms',
    plus: loadSide(parts.find(({ id }) => id === part)) ?? undefined,
    minus: reference,
    at: part,
  }),
  offers: ({ model, circuit, condition, concerned }) => {
    const rest = model.conditions.find(
      (one) => one.key === 'off' && Object.keys(one.switches ?? {}).length === 0,
    );
    const conditions = [...new Set([condition, ...(rest ? [rest.id] : [])])];
    return (
      circuit.parts
        .filter((part) => concerned(part.id) && loadSide(part) !== null && !('fixed' in part && part.fixed))
        .flatMap((fuse) =>
          conditions.flatMap((one) =>
            [{}, ...(one === condition ? waysApart(model, fuse.id) : [])].map((way) => {
              const ref = { kind: 'ohms-behind' as const, part: fuse.id, condition: one, ...way };
              const lead = fuse.kind === 'relay' ? `pin 87 of ${fuse.name}` : `the load side of ${fuse.name}`;
              const access = apartAccess(model, ref, lead, BEHIND_MINUTES, APART_MINUTES);
              return { ref, accesses: [access], disturbs: true };
            }),
          ),
        )
        // Where a sound circuit has volts, be they the drop over an earth that others share, no ohms are measured.
        .filter(({ ref }) => soundBehind(model, ref) !== undefined)
    );
  },
  chances: ({ model, hypothesis }, ref) => {
    // What lies elsewhere leaves no mark here, unless a relay behind it hears of it.
    const there = partsBehind(model.circuit, ref.part);
    const touched =
      there.some((part) => part.kind === 'relay') ||
      hypothesis.faults.some(
        ({ part, mode }) => mode === 'short-to-feed' || there.some((one) => one.id === part),
      );
    const { faults, alteration } = hypothesis;
    const shown = touched ? behind(model, ref, faults, alteration!) : soundBehind(model, ref);
    return shown === undefined ? RESULTS.map(() => 1 / RESULTS.length) : chancesOf(shown);
  },
  outcome: ohms.outcome as unknown as TestKind<Behind>['outcome'],
  shows: ({ model, faults, blown, alteration }, ref) => {
    const fuses = blown.map((part): Fault => ({ part, mode: 'open' }));
    const shown = behind(model, ref, [...faults, ...fuses], alteration);
    // With volts there nobody measures ohms: the reading is left out.
    if (shown === undefined) return { volts: model.circuit.nominalVolts };
    return shown === null ? { overLimit: true } : { ohms: Math.round(shown * 10) / 10 };
  },
  card: (names, ref, lead) => ({
    title: `Ohms to ${names.ground} behind ${names.part(ref.part)}${besides(names, ref, ', ')}`,
    instrument: 'Meter on ohms',
    steps: [
      ...apartSteps(names, ref),
      `Load off, then pull ${names.part(ref.part)}. Set key and switches as shown.`,
      `Read volts at ${lead} first: they must be nothing, or no ohms are measured here.`,
      `Leads on ${lead} and ${names.node(names.circuit.reference)}.`,
    ],
    cautions: ['A lamp or motor that is still connected reads almost as low as a short: cold, it is one.'],
  }),
  slotPart: (ref) => ref.part,
  inSentence: (names, ref) => `the ohms behind ${names.part(ref.part)}${besides(names, ref, ' with ')}`,
  inLog: (names, ref) => `Ohms to ${names.ground} behind ${names.part(ref.part)}${besides(names, ref, ', ')}`,
  means: ({ model, names }, ref, value) => {
    if (!('ohms' in value || 'overLimit' in value)) return null;
    const shown = 'ohms' in value ? formatQuantity(value.ohms, 'Ω') : 'Over limit';
    const at = `${shown} behind ${names.part(ref.part)}${besides(names, ref, ' with ')}`;
    const expected = soundBehind(model, ref);
    if (expected === undefined) return `${at}. A sound circuit has volts here in this set-up: read those.`;
    const belongs = expected === null ? 'over limit' : formatQuantity(expected, 'Ω');
    return resultOf('ohms' in value ? value.ohms : null) === resultOf(expected)
      ? `${at}, about the ${belongs} of a sound circuit so: no short shows in this set-up.`
      : `${at}, where a sound circuit shows ${belongs} so.`;
  },
};
