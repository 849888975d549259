/**
 * Every caution as one object: the moment at which it is said, whom it concerns, and what it forbids. Views say what
 * stands here and decide nothing. The maker's information, local rules and licensed practice come first.
 */
import { coilsBehind, partsBehind, pointsBehind } from '../circuit';
import type { CircuitFile } from '../format';
import { stepsOf, type Task } from '../hands';
import { BLADE_VOLTS, STOP_VOLTS } from '../limits';
import type { Deed } from './deed';
import { isHot, isMoving, mayBeOnSeconds } from './duty';
import { isSafety, safetyMarks } from './marks';

const MOMENTS = [
  'before-opening',
  'at-lifting',
  'before-isolating',
  'before-probing',
  'before-loading',
  'before-pulling',
  'before-feeding',
  'before-exchanging',
  'before-running',
  'before-cutting',
  'at-battery',
] as const;
type Moment = (typeof MOMENTS)[number];

/** A caution as it is said before a deed. */
export interface Warning {
  readonly caution: string;
  readonly moment: Moment;
  readonly words: string;
  /** Answered once on a job before the deed is done. */
  readonly asks: boolean;
}

/** What is known of the job when a deed is asked about. */
export interface SafetyScene {
  readonly circuit: CircuitFile;
  /** What failed runs when it should be off. */
  readonly unbidden: boolean;
  /** Volts of the filament lamps at hand. */
  readonly lampVolts: readonly number[];
  /** The highest volts read so far on this job; null where nothing was. */
  readonly highestVolts: number | null;
  /** Cautions that were answered with "not now", by id: what they concern waits. */
  readonly notNow?: readonly string[];
}

export interface Caution {
  readonly id: string;
  readonly moment: Moment;
  readonly words: (deed: Deed, scene: SafetyScene) => string;
  /** Whether a deed meets it. */
  readonly concerns: (deed: Deed, scene: SafetyScene) => boolean;
  /** Whether it is answered once on a job, and kept with person and time, before the deed. */
  readonly asks?: (deed: Deed) => boolean;
  /** Why it forbids a deed that it concerns, in words; null where it only warns. */
  readonly forbids?: (deed: Deed, scene: SafetyScene) => string | null;
}

/** A lamp is right for a system that lies within this of its own volts. */
const LAMP_WITHIN = 0.25;

const nameOf = (circuit: CircuitFile, id: string) =>
  circuit.parts.find((part) => part.id === id)?.name ??
  circuit.nodes.find((node) => node.id === id)?.name ??
  id;

/** Points that a deed gives a load of its own, or feeds. */
const loaded = ({ lamps, leads }: Deed) => [...lamps, ...leads.map(({ node }) => node)];

/** Parts that a deed takes the place of, bridges, moves or feeds behind; a pull counts while the circuit stays fed. */
const worked = ({ bridges, exchanges, moves, behind, pulls, probes }: Deed) => [
  ...bridges,
  ...exchanges,
  ...moves,
  ...behind,
  ...(probes.length > 0 ? pulls : []),
];

/** What lies behind these, relays that their coils switch with it. */
function reachedBehind(circuit: CircuitFile, ids: readonly string[]) {
  const asked = new Set(ids);
  for (const id of asked) for (const relay of coilsBehind(circuit, id)) asked.add(relay);
  return {
    parts: [...asked].flatMap((id) => partsBehind(circuit, id).map((part) => part.id)),
    points: [...asked].flatMap((id) => [...pointsBehind(circuit, id)]),
    relays: [...asked].filter((id) => !ids.includes(id)),
  };
}

function markedPart(circuit: CircuitFile, ids: readonly string[]): string | undefined {
  const { parts } = safetyMarks(circuit);
  return ids.find((id) => parts.has(id));
}

/** Whether a lamp at hand is made for the system. */
function lampFits({ circuit, lampVolts }: SafetyScene): boolean {
  return lampVolts.some((volts) => Math.abs(volts - circuit.nominalVolts) <= LAMP_WITHIN * volts);
}

/** How long a deed may leave on what it has on, seconds; null where nothing limits it. */
export function shortest({ runs, on }: Deed, circuit: CircuitFile): number | null {
  const seconds = [...runs, ...on].flatMap((id) => mayBeOnSeconds(circuit, id) ?? []);
  return seconds.length > 0 ? Math.min(...seconds) : null;
}

const LOAD_OFF = 'Load off before it is pulled or fitted. Insulated puller, no metal pliers.';
const MAKER = 'Only by the maker’s procedure.';

/** Starts or feeds something past its own switch. */
const pastItsSwitch = ({ bridges, leads, moves }: Deed) => bridges.length + leads.length + moves.length > 0;

export const CAUTIONS: readonly Caution[] = [
  {
    id: 'high-voltage',
    moment: 'before-probing',
    words: () =>
      `Orange cables, or more than ${STOP_VOLTS} V: no work here. Leave it to whoever is trained for it.`,
    concerns: (_, { highestVolts }) => highestVolts !== null && highestVolts > STOP_VOLTS,
    forbids: () => `More than ${STOP_VOLTS} V were read on this vehicle: the work stops.`,
  },
  {
    id: 'restraint',
    moment: 'before-probing',
    words: () => 'Restraint circuit: nothing is put on it, no meter, no lamp.',
    concerns: ({ probes, lamps, leds, leads }, { circuit }) => {
      const { points } = safetyMarks(circuit);
      return [...probes, ...lamps, ...leds, ...leads.map(({ node }) => node)].some(
        (node) => points.get(node) === 'do-not-probe',
      );
    },
    forbids: () => `This point must not be probed. ${MAKER}`,
  },
  {
    id: 'safety-circuit',
    moment: 'before-loading',
    words: () =>
      'It serves a safety function: no lamp, lead, exchange, tap or substitute fuse. A meter only, and by the maker’s procedure; a look alone is no electrical proof.',
    concerns: (deed, { circuit }) => {
      const { parts, points } = safetyMarks(circuit);
      const touched = [...deed.probes, ...deed.leds, ...loaded(deed)];
      return (
        touched.some((node) => points.get(node) === 'safety') ||
        [...worked(deed), ...deed.unplugs].some((id) => parts.has(id))
      );
    },
    asks: () => true,
    forbids: (deed, { circuit }) => {
      const { points } = safetyMarks(circuit);
      const part = markedPart(circuit, [...worked(deed), ...deed.unplugs]);
      if (part) return `${nameOf(circuit, part)} serves a safety function. ${MAKER}`;
      const point = [...loaded(deed), ...deed.leds].find((node) => points.get(node) === 'safety');
      if (point)
        return `${nameOf(circuit, point)} belongs to a safety function: no lamp and no lead there. ${MAKER}`;
      return deed.ohms && deed.probes.some((node) => points.get(node) === 'safety')
        ? `No ohms on a safety function. ${MAKER}`
        : null;
    },
  },
  {
    id: 'safety-behind',
    moment: 'before-loading',
    words: ({ lampInPlace }) =>
      lampInPlace
        ? 'Electronics behind the fuse see too few volts meanwhile. Never on restraint or module feeds.'
        : '',
    concerns: ({ behind }) => behind.length > 0,
    forbids: ({ behind, lampInPlace, ohms }, { circuit }) => {
      const { parts, points } = safetyMarks(circuit);
      const there = reachedBehind(circuit, behind);
      const part = [...there.parts, ...there.relays].find((id) => parts.has(id));
      if (part) return `${nameOf(circuit, part)} lies behind it and serves a safety function. ${MAKER}`;
      const unit = lampInPlace
        ? circuit.parts.find(({ id, kind }) => kind === 'module-output' && there.parts.includes(id))
        : undefined;
      if (unit) return `${unit.name} hangs on it: no lamp in the feed of a module.`;
      // A new part or a lead puts nothing on a point that it does not touch.
      if (!lampInPlace && !ohms) return null;
      const own = new Set(
        circuit.nodes.filter(({ probe }) => probe !== undefined && probe !== 'allowed').map(({ id }) => id),
      );
      const point = there.points.find((id) => own.has(id) || points.get(id) === 'do-not-probe');
      return point ? `${nameOf(circuit, point)} lies behind it: no lamp and no ohmmeter there.` : null;
    },
  },
  {
    id: 'module-line',
    moment: 'before-loading',
    words: () => 'Output or line of a module: a meter only, it may be pulsed. No lamp, no lead.',
    concerns: (deed, { circuit }) => {
      const { points } = safetyMarks(circuit);
      return [...deed.probes, ...deed.leds, ...loaded(deed)].some((node) => points.get(node) === 'no-load');
    },
    forbids: (deed, { circuit }) => {
      const { points } = safetyMarks(circuit);
      const at = loaded(deed).find((node) => points.get(node) === 'no-load');
      if (at) return `${nameOf(circuit, at)} hangs on a module: a lamp or lead could harm it. Use a meter.`;
      return deed.ohms && deed.probes.some((node) => points.get(node) === 'no-load')
        ? 'Electronics are never judged by ohms.'
        : null;
    },
  },
  {
    id: 'lamp-volts',
    moment: 'before-loading',
    words: ({ lampInPlace }, { circuit }) =>
      lampInPlace
        ? 'The lamp limits the current and gets hot: keep it off trim and wires.'
        : `A filament lamp for ${circuit.nominalVolts} V. Never on restraint circuits, module outputs or data lines.`,
    concerns: ({ lamps, lampInPlace }) => lamps.length > 0 || lampInPlace,
    forbids: (_, scene) =>
      lampFits(scene)
        ? null
        : scene.lampVolts.length === 0
          ? 'No filament lamp is at hand.'
          : `The lamp at hand is for ${scene.lampVolts.join(' or ')} V, this system has ${scene.circuit.nominalVolts} V: it would mislead, or burst.`,
  },
  {
    id: 'led-volts',
    moment: 'before-loading',
    words: () => 'No filament lamp here: it could harm the electronics behind this point.',
    concerns: ({ leds }) => leds.length > 0,
    forbids: (_, { circuit }) =>
      circuit.nominalVolts > BLADE_VOLTS
        ? `Such a tester is made for ${BLADE_VOLTS} V at most; this system has ${circuit.nominalVolts} V.`
        : null,
  },
  {
    id: 'fuse-volts',
    moment: 'before-feeding',
    words: () => 'Fused leads only, held for a moment; never an unfused jumper.',
    concerns: ({ leads, bridges, lampInPlace }) => leads.length + bridges.length > 0 || lampInPlace,
    forbids: (_, { circuit }) =>
      circuit.nominalVolts > BLADE_VOLTS
        ? `Common blade fuses are made for ${BLADE_VOLTS} V: none in the lead breaks ${circuit.nominalVolts} V safely.`
        : null,
  },
  {
    id: 'unbidden',
    moment: 'before-exchanging',
    words: () =>
      'It runs with its switch off: isolate it and keep clear first. Nothing is exchanged or bridged on it.',
    concerns: (_, { unbidden }) => unbidden,
    forbids: ({ bridges, exchanges, leads }) =>
      bridges.length + exchanges.length + leads.length > 0
        ? 'It runs when it should be off: isolated first, and nothing exchanged, bridged or fed.'
        : null,
  },
  {
    id: 'soldered',
    moment: 'before-pulling',
    words: () => '',
    concerns: ({ bridges, exchanges, pulls }, { circuit }) =>
      [...bridges, ...exchanges, ...pulls].some((id) => circuit.parts.find((part) => part.id === id)?.fixed),
    forbids: ({ bridges, exchanges, pulls }, { circuit }) => {
      const fixed = [...bridges, ...exchanges, ...pulls].find(
        (id) => circuit.parts.find((part) => part.id === id)?.fixed,
      );
      return fixed ? `${nameOf(circuit, fixed)} does not come out.` : null;
    },
  },
  {
    id: 'load-off',
    moment: 'before-pulling',
    words: () => LOAD_OFF,
    concerns: ({ pulls, exchanges }) => pulls.length + exchanges.length > 0,
  },
  {
    id: 'dead-for-ohms',
    moment: 'before-probing',
    words: () =>
      'Never ohms on a live circuit: volts first, and they must be nothing. Electronics are not judged by ohms.',
    concerns: ({ ohms }) => ohms,
  },
  {
    id: 'earth-on-fed',
    moment: 'before-feeding',
    words: () =>
      'Never put earth on a point that is fed other than through its load, nor plus on one that a switch may earth.',
    concerns: ({ leads }) => leads.length > 0,
  },
  {
    id: 'motion',
    moment: 'before-running',
    words: () =>
      'It may start: hands, clothes and leads clear of what turns or lifts; one named person switches, and only when told.',
    concerns: ({ runs }, { circuit }) => runs.some((id) => isMoving(circuit, id)),
    asks: pastItsSwitch,
  },
  {
    id: 'short-time',
    moment: 'before-running',
    words: (deed, { circuit }) =>
      `On for ${shortest(deed, circuit)} s at most, then off: it is made for seconds. The maker’s figure counts.`,
    concerns: (deed, { circuit }) => shortest(deed, circuit) !== null,
  },
  {
    id: 'hot',
    moment: 'before-running',
    words: () => 'It gets hot: not touched while it is on, nor soon after.',
    concerns: ({ runs, on }, { circuit }) => [...runs, ...on].some((id) => isHot(circuit, id)),
  },
  {
    id: 'crank',
    moment: 'before-running',
    words: () => CRANK_WORDS,
    concerns: ({ cranks, engineRuns }) => cranks || engineRuns,
    asks: () => true,
  },
  {
    id: 'sparks',
    moment: 'before-feeding',
    words: () =>
      'It may spark: no fuel vapour and no gas of a battery here, ground dry, eyes covered, no clip pulled under load.',
    concerns: ({ leads, bridges, cranks, atBattery }) =>
      bridges.length > 0 || leads.some((one) => one.with === 'plus') || (cranks && atBattery),
    asks: () => true,
  },
  {
    id: 'road-safety',
    moment: 'before-running',
    words: () => 'Lamps and brakes are road-safety items: each is seen to work before the vehicle leaves.',
    concerns: ({ exchanges }, { circuit }) =>
      circuit.functions.some((one) => isSafety(one)) && exchanges.length > 0,
  },
];

/** Cautions of work that is no test, by its moment. */
export const AT_MOMENT: Readonly<
  Record<'before-opening' | 'at-lifting' | 'before-isolating' | 'before-cutting', readonly string[]>
> = {
  'before-opening': [
    'Rings, watch and chains off; studs that are always live covered before a tool comes near them.',
  ],
  'at-lifting': [
    'Rings, watch and chains off, once more: under the box run leads that are always live.',
    'Vehicle supported, not on a jack alone, when somebody is underneath.',
  ],
  'before-isolating': [
    'Radio code, clock, alarm, electric brakes and learned values first. A second battery, solar or a charger keeps the vehicle live. The earthed pole comes off first and goes on last.',
  ],
  'before-cutting': [
    'Eyes and hands covered. Solder fumes drawn off, no open flame near fuel or batteries; dry ground under mains tools.',
  ],
};

const CRANK_WORDS =
  'Out of gear, brake on, clothes and leads clear of belts and fans; nothing cranked through a meter in series.';

/** What is said before a whole box is read while somebody cranks or the engine runs. */
export const BEFORE_ENGINE: readonly Warning[] = [
  { caution: 'crank', moment: 'before-running', words: CRANK_WORDS, asks: true },
];

/** What is said before a task of the hand: at lifting once more what was said at opening, before isolating what it costs. */
export function momentsOf(task: Task): readonly Warning[] {
  const isolates = stepsOf(task).includes('earthed-pole-off');
  const moments = [
    ...(isolates ? (['before-isolating'] as const) : []),
    ...(task === 'lift-box' || task === 'bolted-fuse' ? (['at-lifting'] as const) : []),
    ...(task === 'cut-or-solder' ? (['before-cutting'] as const) : []),
  ];
  const asked = moments.flatMap((moment) =>
    AT_MOMENT[moment].map((words, at) => ({ caution: `${moment}-${at + 1}`, moment, words, asks: true })),
  );
  if (task !== 'pull-fuse') return asked;
  return [...asked, { caution: 'load-off', moment: 'before-pulling', words: LOAD_OFF, asks: false }];
}
