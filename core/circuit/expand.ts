/**
 * What each kind of part is electrically: its branches, junctions and sensors, with the typical values of
 * `defaults.ts` where the file gives none.
 */
import type { CircuitPart, PartOf } from '../format';
import {
  BATTERY_CHARGE_OHMS,
  BATTERY_INNER_OHMS,
  BREAKER_OHMS,
  CHARGING_EMF_PER_NOMINAL,
  CHARGING_INNER_OHMS,
  CONNECTOR_OHMS,
  CUT_OFF_DISCONNECT_PER_NOMINAL,
  CUT_OFF_OHMS,
  CUT_OFF_RECONNECT_PER_NOMINAL,
  DEAD_BELOW,
  DIODE,
  ELECTRONICS_OHMS_12V,
  EMF_PER_NOMINAL,
  FLASHER_WORKS_PER_NOMINAL,
  FUSIBLE_LINK_OHMS,
  fuseColdOhms,
  GROUND_OHMS,
  INPUT_HIGH_PER_NOMINAL,
  INPUT_LOW_PER_NOMINAL,
  LATCHING_COIL_OHMS_12V,
  LED_EMISSION,
  LED_FORWARD_PER_NOMINAL,
  LED_SINGLE_VOLTS,
  MODULE_FAILS_PER_NOMINAL,
  MODULE_IDLE_AMPS,
  MODULE_INPUT_OHMS,
  MODULE_OUTPUT_OHMS,
  MODULE_WORKS_PER_NOMINAL,
  OPENS_FROM,
  POLYFUSE_DROP_VOLTS,
  POLYFUSE_HOT_WATTS,
  POLYFUSE_TRIPS_AT,
  RELAY_COIL_OHMS_12V,
  RELAY_CONTACT_OHMS,
  RELAY_DROP_OUT_PER_NOMINAL,
  RELAY_PULL_IN_PER_NOMINAL,
  SOCKET_OHMS,
  SOLENOID_COIL_OHMS_12V,
  SOLENOID_CONTACT_OHMS,
  SPLICE_LEG_OHMS,
  START_FACTOR,
  SUPPRESSOR_OHMS_12V,
  SWITCH_OHMS,
  THERMAL_VOLTS,
  UNKNOWN_FUSE_AMPS,
  UNKNOWN_LOAD_WATTS,
  UNKNOWN_WIRE_METRES,
  UNKNOWN_WIRE_MM2,
  WEAK_BELOW,
  wireOhms,
} from '../limits';
import type { Control, NetworkBuilder, Term } from './network';

type LoadPart = PartOf<'lamp' | 'motor' | 'pump' | 'horn' | 'heater' | 'module'>;
/** Kinds whose current follows their volts as a resistance does. */
export const LOAD_KINDS: readonly CircuitPart['kind'][] = [
  'lamp',
  'motor',
  'pump',
  'horn',
  'heater',
  'module',
];

/** Ohms of a load at its nominal voltage, from ohms, watts or amps, whichever the file gives. */
export function loadOhms(
  part: { ohms?: number; watts?: number; amps?: number },
  nominalVolts: number,
): number {
  if (part.ohms !== undefined) return part.ohms;
  if (part.watts !== undefined) return (nominalVolts * nominalVolts) / part.watts;
  if (part.amps !== undefined) return nominalVolts / part.amps;
  return (nominalVolts * nominalVolts) / UNKNOWN_LOAD_WATTS;
}

/** How many times the running current a load takes in its first moment, or held still; at least 1. */
export function startFactor(part: CircuitPart): number {
  const own = 'startFactor' in part ? part.startFactor : undefined;
  return own ?? START_FACTOR[part.kind] ?? 1;
}

/** Half the gap between giving and taking a charge: wide enough for rounding, narrow enough for any reading, volts. */
const CHARGE_HYSTERESIS_VOLTS = 1e-6;
/** A threshold below any size: what never switches back by itself. */
const NEVER = -1;

function oneSensor(sensor: number, on: boolean, ...more: Term[]): Control {
  return [[{ kind: 'sensor', sensor, on }, ...more]];
}

function expandBattery(net: NetworkBuilder, part: PartOf<'battery'>): void {
  const ends = [part.pins.plus, part.pins.minus] as const;
  const emfVolts = part.emfVolts ?? net.nominalVolts * EMF_PER_NOMINAL;
  const innerOhms = part.innerOhms ?? BATTERY_INNER_OHMS;
  if (!net.severalSources) {
    net.branch(part, 'source', 'cell', ends, innerOhms, { emfVolts });
    return;
  }
  const charged = net.sensor(part, 'charged', {
    a: net.node(part.pins.plus),
    b: net.node(part.pins.minus),
    signed: true,
    onAbove: emfVolts + CHARGE_HYSTERESIS_VOLTS,
    offBelow: emfVolts - CHARGE_HYSTERESIS_VOLTS,
  });
  net.branch(part, 'source', 'cell', ends, innerOhms, { emfVolts, control: oneSensor(charged, false) });
  const chargeOhms = part.chargeOhms ?? Math.max(innerOhms, BATTERY_CHARGE_OHMS * (net.nominalVolts / 12));
  net.branch(part, 'source', 'charging', ends, chargeOhms, { emfVolts, control: oneSensor(charged, true) });
}

function expandChargingSource(net: NetworkBuilder, part: PartOf<'charging-source'>): void {
  net.branch(
    part,
    'source',
    'output',
    [part.pins.plus, part.pins.minus],
    part.innerOhms ?? CHARGING_INNER_OHMS,
    {
      emfVolts: part.emfVolts ?? net.nominalVolts * CHARGING_EMF_PER_NOMINAL,
      control: part.active === 'engine-running' ? [[{ kind: 'engine', running: true }]] : null,
    },
  );
}

function expandBreaker(net: NetworkBuilder, part: PartOf<'breaker'>): void {
  // The branch is the next one to be added; its own current moves its own contact.
  const branch = net.branches.length;
  const trips = part.ratingAmps * OPENS_FROM;
  const tripped = net.sensor(part, 'trip', {
    senses: 'amps',
    branch,
    onAbove: trips,
    offBelow: part.reset === 'manual' ? NEVER : trips / 2,
  });
  net.branch(part, 'breaker', 'element', [part.pins.in, part.pins.out], part.ohms ?? BREAKER_OHMS, {
    control: oneSensor(tripped, false),
  });
}

/** Hot, it is a resistor, and what is lost over it keeps it hot: it cools once load or supply is taken away. */
function expandPolyfuse(net: NetworkBuilder, part: PartOf<'polyfuse'>): void {
  const ends = [part.pins.in, part.pins.out] as const;
  const ohms = part.ohms ?? POLYFUSE_DROP_VOLTS / part.ratingAmps;
  const trips = POLYFUSE_TRIPS_AT * part.ratingAmps * ohms;
  const hot = net.sensor(part, 'heat', {
    a: net.node(ends[0]),
    b: net.node(ends[1]),
    onAbove: trips,
    offBelow: trips * 0.9,
  });
  net.branch(part, 'breaker', 'element', ends, ohms, { control: oneSensor(hot, false) });
  const hotOhms = net.nominalVolts ** 2 / POLYFUSE_HOT_WATTS;
  net.branch(part, 'internal', 'hot', ends, hotOhms, { control: oneSensor(hot, true) });
}

function expandSwitch(net: NetworkBuilder, part: PartOf<'switch'>): void {
  for (const contact of part.contacts) {
    net.branch(
      part,
      'contact',
      `${contact.from}-${contact.to}`,
      [part.pins[contact.from]!, part.pins[contact.to]!],
      part.ohms ?? SWITCH_OHMS,
      { control: [[{ kind: 'switch', part: part.id, closedIn: contact.closedIn }]] },
    );
  }
}

interface CoilValues {
  readonly coilOhms?: number;
  readonly pullInVolts?: number;
  readonly dropOutVolts?: number;
}

/** A coil with the sensor that feels its volts; 12 V values scale with the square of the nominal volts. */
function coil(
  net: NetworkBuilder,
  part: CircuitPart & CoilValues,
  label: string,
  ends: readonly [string, string],
  ohms12V: number,
  holdsSeconds = 0,
): number {
  const branch = net.branch(
    part,
    'coil',
    label,
    ends,
    part.coilOhms ?? ohms12V * (net.nominalVolts / 12) ** 2,
  );
  return net.sensor(part, label, {
    a: net.node(ends[0]),
    b: net.node(ends[1]),
    branch,
    onAbove: part.pullInVolts ?? net.nominalVolts * RELAY_PULL_IN_PER_NOMINAL,
    offBelow: part.dropOutVolts ?? net.nominalVolts * RELAY_DROP_OUT_PER_NOMINAL,
    holdsSeconds,
  });
}

function changeoverContacts(
  net: NetworkBuilder,
  part: PartOf<'relay' | 'latching-relay'>,
  sensor: number,
  closes: readonly Term[] = [],
): void {
  const ohms = part.contactOhms ?? RELAY_CONTACT_OHMS;
  const pins: Readonly<Record<string, string | undefined>> = part.pins;
  for (const [pin, on] of [
    ['87', true],
    ['87b', true],
    ['87a', false],
  ] as const) {
    const node = pins[pin];
    if (node === undefined) continue;
    // Resting contacts are closed while the coil is off, and while it has not been on for long enough.
    const control: Control = on
      ? oneSensor(sensor, true, ...closes)
      : [[{ kind: 'sensor', sensor, on: false }], ...closes.map((term) => [opposite(term)])];
    net.branch(part, 'contact', `30-${pin}`, [part.pins['30'], node], ohms, { control });
  }
}

function opposite(term: Term): Term {
  return term.kind === 'elapsed' ? { ...term, reached: !term.reached } : term;
}

function expandRelay(net: NetworkBuilder, part: PartOf<'relay'>): void {
  const ends = [part.pins['86'], part.pins['85']] as const;
  const { timing } = part;
  const holds = timing?.mode === 'delay-off' ? timing.seconds : 0;
  const sensor = coil(net, part, 'coil', ends, RELAY_COIL_OHMS_12V, holds);
  if (part.suppression === 'resistor') {
    const ohms = part.suppressorOhms ?? SUPPRESSOR_OHMS_12V * (net.nominalVolts / 12) ** 2;
    net.branch(part, 'internal', 'suppressor', ends, ohms);
  }
  if (part.suppression === 'diode') {
    const inner = `${part.id}#suppressor`;
    net.branch(part, 'junction-series', 'suppressor', [part.pins['85'], inner], DIODE.seriesOhms);
    net.junction(part, inner, part.pins['86'], DIODE.saturationAmps, DIODE.emission * THERMAL_VOLTS);
  }
  const closes: Term[] =
    timing && timing.mode !== 'delay-off'
      ? [{ kind: 'elapsed', seconds: timing.seconds, reached: timing.mode === 'delay-on' }]
      : [];
  changeoverContacts(net, part, sensor, closes);
}

function expandLatchingRelay(net: NetworkBuilder, part: PartOf<'latching-relay'>): void {
  const { pins } = part;
  const set = coil(net, part, 'set', [pins.set, pins['set-return']], LATCHING_COIL_OHMS_12V);
  const reset = coil(net, part, 'reset', [pins.reset, pins['reset-return']], LATCHING_COIL_OHMS_12V);
  const latch = net.sensor(part, 'latch', {
    senses: 'latch',
    set,
    reset,
    starts: part.starts === 'set' ? 1 : 0,
  });
  changeoverContacts(net, part, latch);
}

function expandSolenoid(net: NetworkBuilder, part: PartOf<'solenoid'>): void {
  const { pins } = part;
  const sensor = coil(net, part, 'coil', [pins.control, pins.return], SOLENOID_COIL_OHMS_12V);
  if (part.pullInCoilOhms !== undefined) {
    net.branch(part, 'internal', 'pull-in', [pins.control, pins.load], part.pullInCoilOhms);
  }
  net.branch(part, 'contact', 'studs', [pins.feed, pins.load], part.contactOhms ?? SOLENOID_CONTACT_OHMS, {
    control: oneSensor(sensor, true),
  });
}

function electronicsOhms(net: NetworkBuilder): number {
  return ELECTRONICS_OHMS_12V * (net.nominalVolts / 12);
}

function expandFlasher(net: NetworkBuilder, part: PartOf<'flasher'>): void {
  const lit: Term = { kind: 'phase', is: 'on' };
  const earth = part.pins['31'];
  let control: Control = [[lit]];
  if (earth !== undefined) {
    const ends = [part.pins['49'], earth] as const;
    const branch = net.branch(part, 'internal', 'electronics', ends, electronicsOhms(net));
    const works = net.nominalVolts * FLASHER_WORKS_PER_NOMINAL;
    const sensor = net.sensor(part, 'supply', {
      a: net.node(ends[0]),
      b: net.node(ends[1]),
      branch,
      signed: true,
      onAbove: works,
      offBelow: works * 0.9,
    });
    control = oneSensor(sensor, true, lit);
  }
  net.branch(part, 'contact', '49-49a', [part.pins['49'], part.pins['49a']], part.ohms ?? SWITCH_OHMS, {
    control,
  });
}

/** Volts at which a cut-off lets go and joins again. */
export function cutOffThresholds(
  part: PartOf<'cut-off'>,
  nominalVolts: number,
): { disconnectVolts: number; reconnectVolts: number } {
  return {
    disconnectVolts: part.disconnectVolts ?? nominalVolts * CUT_OFF_DISCONNECT_PER_NOMINAL,
    reconnectVolts: part.reconnectVolts ?? nominalVolts * CUT_OFF_RECONNECT_PER_NOMINAL,
  };
}

function expandCutOff(net: NetworkBuilder, part: PartOf<'cut-off'>): void {
  const { pins } = part;
  const { disconnectVolts, reconnectVolts } = cutOffThresholds(part, net.nominalVolts);
  const branch = net.branch(part, 'internal', 'electronics', [pins.in, pins.minus], electronicsOhms(net));
  const sensor = net.sensor(part, 'sense', {
    a: net.node(pins.in),
    b: net.node(pins.minus),
    branch,
    signed: true,
    onAbove: reconnectVolts,
    offBelow: disconnectVolts,
    starts: part.starts === 'disconnected' ? 0 : 1,
  });
  net.branch(part, 'contact', 'contact', [pins.in, pins.out], part.ohms ?? CUT_OFF_OHMS, {
    control: oneSensor(sensor, true),
  });
}

const MODULE_OWN_PINS: readonly string[] = ['plus', 'minus', 'out'];

/** Pins of a module output that are inputs: all but supply, return and output. */
export function moduleInputs(part: PartOf<'module-output'>): string[] {
  return Object.keys(part.pins).filter((pin) => !MODULE_OWN_PINS.includes(pin));
}

function expandModuleOutput(net: NetworkBuilder, part: PartOf<'module-output'>): void {
  const plus = part.pins.plus!;
  const minus = part.pins.minus!;
  const nominal = net.nominalVolts;
  const idle = nominal / (part.idleAmps ?? MODULE_IDLE_AMPS);
  const supply = net.branch(part, 'internal', 'supply', [plus, minus], idle);
  const works = net.sensor(part, 'supply', {
    a: net.node(plus),
    b: net.node(minus),
    branch: supply,
    signed: true,
    onAbove: nominal * MODULE_WORKS_PER_NOMINAL,
    offBelow: nominal * MODULE_FAILS_PER_NOMINAL,
  });
  const inputs = new Map<string, number>();
  for (const pin of moduleInputs(part)) {
    const node = part.pins[pin]!;
    const pull = part.pullUps?.includes(pin) ? plus : minus;
    net.branch(part, 'internal', `pull:${pin}`, [node, pull], MODULE_INPUT_OHMS);
    const sensor = net.sensor(part, `input:${pin}`, {
      a: net.node(node),
      b: net.node(minus),
      signed: true,
      onAbove: nominal * INPUT_HIGH_PER_NOMINAL,
      offBelow: nominal * INPUT_LOW_PER_NOMINAL,
    });
    inputs.set(pin, sensor);
  }
  const control = part.rule.map((line): Term[] => [
    { kind: 'sensor', sensor: works, on: true },
    ...(line.key ? [{ kind: 'key', closedIn: line.key } as const] : []),
    ...(line.engineRunning === undefined ? [] : [{ kind: 'engine', running: line.engineRunning } as const]),
    ...Object.entries(line.inputs ?? {}).map(
      ([pin, level]): Term => ({ kind: 'sensor', sensor: inputs.get(pin)!, on: level === 'high' }),
    ),
    ...(part.duty === undefined ? [] : [{ kind: 'pulse' } as const]),
  ]);
  const ends = part.side === 'high' ? ([plus, part.pins.out!] as const) : ([part.pins.out!, minus] as const);
  net.branch(part, 'contact', 'output', ends, part.ohms ?? MODULE_OUTPUT_OHMS, { control });
}

function addLoad(
  net: NetworkBuilder,
  id: string,
  branch: number,
  nominalAmps: number,
  limits: { weakBelow?: number; deadBelow?: number },
): void {
  net.loads.set(id, {
    branch,
    nominalAmps,
    weakBelow: limits.weakBelow ?? WEAK_BELOW,
    deadBelow: limits.deadBelow ?? DEAD_BELOW,
  });
}

function expandLoad(net: NetworkBuilder, part: LoadPart): void {
  const ohms = loadOhms(part, net.nominalVolts);
  const branch = net.branch(part, 'load', 'load', [part.pins.plus, part.pins.minus], ohms);
  addLoad(net, part.id, branch, net.nominalVolts / ohms, part);
}

/** Diodes in series with a resistor that leaves the nominal current at the nominal voltage. */
function expandLed(net: NetworkBuilder, part: PartOf<'led'>): void {
  const nominal = net.nominalVolts;
  const amps = part.amps ?? (part.watts ?? UNKNOWN_LOAD_WATTS) / nominal;
  const forward = Math.min(part.forwardVolts ?? nominal * LED_FORWARD_PER_NOMINAL, nominal * 0.95);
  const inSeries = Math.ceil(forward / LED_SINGLE_VOLTS);
  const thermalVolts = inSeries * LED_EMISSION * THERMAL_VOLTS;
  const inner = `${part.id}#junction`;
  const branch = net.branch(part, 'load', 'load', [part.pins.plus, inner], (nominal - forward) / amps);
  net.junction(part, inner, part.pins.minus, amps * Math.exp(-forward / thermalVolts), thermalVolts);
  addLoad(net, part.id, branch, amps, part);
}

function expandSocket(net: NetworkBuilder, part: PartOf<'socket'>): void {
  const centre = `${part.id}#centre`;
  net.branch(part, 'conductor', 'centre', [part.pins.plus, centre], part.ohms ?? SOCKET_OHMS);
  for (const appliance of part.appliances) {
    const ohms = loadOhms(appliance, net.nominalVolts);
    const branch = net.branch(part, 'load', appliance.id, [centre, part.pins.minus], ohms, {
      control: [[{ kind: 'plugged', socket: part.id, appliance: appliance.id }]],
    });
    addLoad(net, `${part.id}:${appliance.id}`, branch, net.nominalVolts / ohms, appliance);
  }
}

function expandDiode(net: NetworkBuilder, part: PartOf<'diode'>): void {
  const inner = `${part.id}#junction`;
  const ohms = part.seriesOhms ?? DIODE.seriesOhms;
  net.branch(part, 'junction-series', 'series', [part.pins.anode, inner], ohms);
  net.junction(
    part,
    inner,
    part.pins.cathode,
    part.saturationAmps ?? DIODE.saturationAmps,
    (part.emission ?? DIODE.emission) * THERMAL_VOLTS,
  );
}

type Expand<K extends CircuitPart['kind']> = (net: NetworkBuilder, part: PartOf<K>) => void;

const EXPAND: { readonly [K in CircuitPart['kind']]: Expand<K> } = {
  battery: expandBattery,
  'charging-source': expandChargingSource,
  fuse: (net, part) => {
    const ohms = part.ohms ?? fuseColdOhms(part.ratingAmps ?? UNKNOWN_FUSE_AMPS);
    net.branch(part, 'fuse', 'element', [part.pins.in, part.pins.out], ohms);
  },
  'fusible-link': (net, part) => {
    net.branch(part, 'fuse', 'link', [part.pins.in, part.pins.out], part.ohms ?? FUSIBLE_LINK_OHMS);
  },
  breaker: expandBreaker,
  polyfuse: expandPolyfuse,
  wire: (net, part) => {
    const metres = part.lengthMetres ?? UNKNOWN_WIRE_METRES;
    const ohms = part.ohms ?? wireOhms(metres, part.sizeMm2 ?? UNKNOWN_WIRE_MM2);
    net.branch(part, 'conductor', 'wire', [part.pins.a, part.pins.b], ohms);
  },
  connector: (net, part) => {
    net.branch(part, 'conductor', 'pin', [part.pins.a, part.pins.b], part.ohms ?? CONNECTOR_OHMS);
  },
  splice: (net, part) => {
    for (const [pin, node] of Object.entries(part.pins)) {
      net.branch(part, 'conductor', `leg:${pin}`, [node, `${part.id}#joint`], part.ohms ?? SPLICE_LEG_OHMS);
    }
  },
  ground: (net, part) => {
    net.branch(part, 'earth', 'joint', [part.pins.lug, part.pins.body], part.ohms ?? GROUND_OHMS);
  },
  switch: expandSwitch,
  'key-contact': (net, part) => {
    net.branch(part, 'contact', 'contact', [part.pins.in, part.pins.out], part.ohms ?? SWITCH_OHMS, {
      control: [[{ kind: 'key', closedIn: part.closedIn }]],
    });
  },
  relay: expandRelay,
  'latching-relay': expandLatchingRelay,
  solenoid: expandSolenoid,
  flasher: expandFlasher,
  'cut-off': expandCutOff,
  'module-output': expandModuleOutput,
  lamp: expandLoad,
  motor: expandLoad,
  pump: expandLoad,
  horn: expandLoad,
  heater: expandLoad,
  module: expandLoad,
  led: expandLed,
  resistor: (net, part) => {
    net.branch(part, 'conductor', 'resistor', [part.pins.a, part.pins.b], part.ohms);
  },
  socket: expandSocket,
  diode: expandDiode,
};

/** Every part kind that the model knows. */
export const PART_KINDS = Object.keys(EXPAND) as readonly CircuitPart['kind'][];

/** Adds the branches, junctions and sensors of one part. */
export function expandPart<K extends CircuitPart['kind']>(net: NetworkBuilder, part: PartOf<K>): void {
  (EXPAND[part.kind as K] as Expand<K>)(net, part);
}
