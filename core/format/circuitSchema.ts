/**
 * The circuit file, version 1: parts with named pins, joined at nodes, with the places where a probe
 * reaches them and the functions a person sees. The published JSON Schema is this very object
 * (`npm run -s trace -- schema circuit`).
 */
import { type Static, Type } from 'typebox';
import { NODE_LIMIT, PART_LIMIT } from './bounds';
import { FUSE_FAMILIES } from './lists';
import { Id, keyed, Name, NominalVolts, oneOfKind, PinName, someText, strict, text } from './schemaParts';

const NodeId = Id;
/** Ohms of anything that conducts. The floor keeps two sources from being joined by nothing at all. */
const Ohms = Type.Number({ minimum: 1e-5, maximum: 1e9 });
const Amps = Type.Number({ exclusiveMinimum: 0, maximum: 5000 });
const Watts = Type.Number({ exclusiveMinimum: 0, maximum: 50000 });
const Volts = Type.Number({ exclusiveMinimum: 0, maximum: 100 });
/** What a contact or terminal carries for good by its maker, ampere; not said: nobody knows. */
const carries = { carriesAmps: Type.Optional(Amps) };
const Fraction = Type.Number({ minimum: 0, maximum: 1 });
const Minutes = Type.Number({ minimum: 0, maximum: 600 });

const KeyPosition = Type.Enum(['lock', 'off', 'accessory', 'run', 'crank']);

/** Somewhere a technician has to get at: a box, a panel, a lamp housing. */
export const PlaceSchema = Type.Object(
  {
    id: Id,
    name: Name,
    /** Minutes to open once; 0 where nothing is in the way. */
    minutesToOpen: Minutes,
    caution: Type.Optional(text(400)),
  },
  strict,
);

/** Where and how a probe reaches a node. */
const AccessSchema = Type.Object(
  {
    place: Id,
    /** What the lead is put on, in words that follow "on": "the exposed end of fuse 31 nearest the hinge". */
    lead: Name,
    minutes: Type.Optional(Minutes),
  },
  strict,
);

export const NodeSchema = Type.Object(
  {
    id: NodeId,
    name: Name,
    access: Type.Optional(Type.Array(AccessSchema, { maxItems: 10 })),
    /** do-not-probe: restraint circuits. no-load: data lines and module outputs, meter only. */
    probe: Type.Optional(Type.Enum(['allowed', 'no-load', 'do-not-probe'])),
  },
  strict,
);

const common = {
  id: Id,
  name: Name,
  place: Type.Optional(Id),
  /** The slot that holds it, as panel and slot of the vehicle's panel set. */
  slot: Type.Optional(Type.Object({ panel: Id, slot: Id }, strict)),
  /** Restraint, brake, steering, charging or engine control: the maker's procedure rules. */
  safetyCritical: Type.Optional(Type.Boolean()),
  /** For what uses current: longest time on at once by the maker, seconds. */
  onSeconds: Type.Optional(Type.Number({ exclusiveMinimum: 0, maximum: 3600 })),
  /** What it drives moves: keep clear. */
  moves: Type.Optional(Type.Boolean()),
  /** Cannot be taken out and tested alone (soldered, moulded in). */
  fixed: Type.Optional(Type.Boolean()),
  /** As printed on the part. */
  partNumber: Type.Optional(text(60)),
};

const twoPins = Type.Object({ a: NodeId, b: NodeId }, strict);
const feedPins = Type.Object({ in: NodeId, out: NodeId }, strict);
const loadPins = Type.Object({ plus: NodeId, minus: NodeId }, strict);
const load = {
  ...common,
  pins: loadPins,
  watts: Type.Optional(Watts),
  ohms: Type.Optional(Ohms),
  amps: Type.Optional(Amps),
  /** Current in the first moment, or with the shaft held, as a multiple of the running current. */
  startFactor: Type.Optional(Type.Number({ minimum: 1, maximum: 30 })),
  /** Below this fraction of its nominal current it counts as weak, below the other as dead. */
  weakBelow: Type.Optional(Fraction),
  deadBelow: Type.Optional(Fraction),
};

const Battery = Type.Object(
  {
    ...common,
    kind: Type.Literal('battery'),
    pins: loadPins,
    emfVolts: Type.Optional(Volts),
    innerOhms: Type.Optional(Ohms),
    /** Inner ohms while it takes a charge; more than when it gives current. */
    chargeOhms: Type.Optional(Ohms),
  },
  strict,
);
/** Alternator, charger or supply unit: holds its volts while it is active and is not there otherwise. */
const ChargingSource = Type.Object(
  {
    ...common,
    kind: Type.Literal('charging-source'),
    pins: loadPins,
    emfVolts: Type.Optional(Volts),
    innerOhms: Type.Optional(Ohms),
    active: Type.Enum(['engine-running', 'always']),
  },
  strict,
);
const FuseFamily = Type.Enum([...FUSE_FAMILIES]);
const Fuse = Type.Object(
  {
    ...common,
    kind: Type.Literal('fuse'),
    pins: feedPins,
    /** Not said: nobody has read it yet. It is never guessed where a fuse or a lead has to be chosen. */
    ratingAmps: Type.Optional(Amps),
    family: Type.Optional(FuseFamily),
    ohms: Type.Optional(Ohms),
  },
  strict,
);
const FusibleLink = Type.Object(
  {
    ...common,
    kind: Type.Literal('fusible-link'),
    pins: feedPins,
    ratingAmps: Amps,
    ohms: Type.Optional(Ohms),
  },
  strict,
);
/** Trips by its own current. Manual: stays open until somebody resets it. Automatic: closes again when cool. */
const Breaker = Type.Object(
  {
    ...common,
    kind: Type.Literal('breaker'),
    pins: feedPins,
    ratingAmps: Amps,
    reset: Type.Enum(['manual', 'automatic']),
    ohms: Type.Optional(Ohms),
  },
  strict,
);
const Polyfuse = Type.Object(
  {
    ...common,
    kind: Type.Literal('polyfuse'),
    pins: feedPins,
    /** What it holds for good; it trips from about twice as much. */
    ratingAmps: Amps,
    ohms: Type.Optional(Ohms),
  },
  strict,
);
const Wire = Type.Object(
  {
    ...common,
    kind: Type.Literal('wire'),
    pins: twoPins,
    lengthMetres: Type.Optional(Type.Number({ exclusiveMinimum: 0, maximum: 200 })),
    sizeMm2: Type.Optional(Type.Number({ exclusiveMinimum: 0, maximum: 240 })),
    ohms: Type.Optional(Ohms),
    /** Base and tracer, "BN/WH". */
    colour: Type.Optional(text(20)),
    /** Lies in a bundle or in heat, and carries less. */
    bundled: Type.Optional(Type.Boolean()),
    /** Sheathed or in conduit all the way, so that it may be longer before its fuse. */
    sheathed: Type.Optional(Type.Boolean()),
    /** What it passes through, in words: a bulkhead, a floor. */
    through: Type.Optional(someText(120)),
    /** How it stands in the loom; in use when not said. */
    state: Type.Optional(Type.Enum(['in-use', 'unused', 'insulated', 'cut', 'unknown'])),
    /** Where an end that joins nothing lies, and how it is made safe, in words. */
    endA: Type.Optional(someText(200)),
    endB: Type.Optional(someText(200)),
    /** Joints along it, in words: a crimped sleeve, a solder joint, a repair. */
    joints: Type.Optional(Type.Array(someText(200), { maxItems: 20 })),
  },
  strict,
);
const Connector = Type.Object(
  {
    ...common,
    ...carries,
    kind: Type.Literal('connector'),
    pins: twoPins,
    cavity: Type.Optional(text(20)),
    /** The face that its cavity is counted from: the two mirror each other. */
    face: Type.Optional(Type.Enum(['mating', 'wire'])),
    /** The plug it sits in: all pins of one plug part together. */
    plug: Type.Optional(Id),
    ohms: Type.Optional(Ohms),
  },
  strict,
);
const Splice = Type.Object(
  {
    ...common,
    kind: Type.Literal('splice'),
    /** Any pin names; every pin is one leg. */
    pins: keyed(PinName, NodeId, { minProperties: 2 }),
    ohms: Type.Optional(Ohms),
  },
  strict,
);
const Ground = Type.Object(
  {
    ...common,
    ...carries,
    kind: Type.Literal('ground'),
    /** The lug, and the metal it is bolted to. */
    pins: Type.Object({ lug: NodeId, body: NodeId }, strict),
    ohms: Type.Optional(Ohms),
  },
  strict,
);
const Switch = Type.Object(
  {
    ...common,
    ...carries,
    kind: Type.Literal('switch'),
    pins: keyed(PinName, NodeId, { minProperties: 2 }),
    positions: Type.Array(Id, { minItems: 2, maxItems: 12, uniqueItems: true }),
    /** The position it has when a condition does not name it. */
    rest: Id,
    /** Springs back to rest when the hand leaves it. */
    momentary: Type.Optional(Type.Boolean()),
    contacts: Type.Array(
      Type.Object(
        {
          from: someText(20),
          to: someText(20),
          closedIn: Type.Array(Id, { minItems: 1 }),
        },
        strict,
      ),
      { minItems: 1, maxItems: 24 },
    ),
    ohms: Type.Optional(Ohms),
  },
  strict,
);
const KeyContact = Type.Object(
  {
    ...common,
    ...carries,
    kind: Type.Literal('key-contact'),
    pins: feedPins,
    closedIn: Type.Array(KeyPosition, { minItems: 1 }),
    ohms: Type.Optional(Ohms),
  },
  strict,
);
const contactParameters = {
  contactOhms: Type.Optional(Ohms),
  contactRatingAmps: Type.Optional(Amps),
};
const coilParameters = {
  coilOhms: Type.Optional(Ohms),
  pullInVolts: Type.Optional(Volts),
  dropOutVolts: Type.Optional(Volts),
};
/** What quenches the coil: a resistor across it, or a diode with its cathode at 86. */
const Suppression = Type.Enum(['none', 'resistor', 'diode']);
const Relay = Type.Object(
  {
    ...common,
    kind: Type.Literal('relay'),
    /**
     * Roles by the terminal numbers of DIN 72552, whatever is printed on the plastic. Two roles may share a
     * node (three-pin relays). 87b closes with 87.
     */
    pins: Type.Object(
      {
        '30': NodeId,
        '85': NodeId,
        '86': NodeId,
        '87': Type.Optional(NodeId),
        '87a': Type.Optional(NodeId),
        '87b': Type.Optional(NodeId),
      },
      strict,
    ),
    ...coilParameters,
    ...contactParameters,
    suppression: Type.Optional(Suppression),
    suppressorOhms: Type.Optional(Ohms),
    /** Which pin sits where on the plastic, in words: two equal bodies may exchange 30 and 86. */
    footprint: Type.Optional(text(60)),
    /** A timed relay: its contact follows the coil late, or for a while only. */
    timing: Type.Optional(
      Type.Object(
        {
          mode: Type.Enum(['delay-on', 'delay-off', 'pulse']),
          seconds: Type.Number({ exclusiveMinimum: 0, maximum: 86400 }),
        },
        strict,
      ),
    ),
  },
  strict,
);
/** Two coils, no spring: stays where the last of them put it. */
const LatchingRelay = Type.Object(
  {
    ...common,
    kind: Type.Literal('latching-relay'),
    pins: Type.Object(
      {
        '30': NodeId,
        '87': Type.Optional(NodeId),
        '87a': Type.Optional(NodeId),
        set: NodeId,
        'set-return': NodeId,
        reset: NodeId,
        'reset-return': NodeId,
      },
      strict,
    ),
    coilOhms: Type.Optional(Ohms),
    pullInVolts: Type.Optional(Volts),
    ...contactParameters,
    /** Where it lies before anything has moved it. */
    starts: Type.Optional(Type.Enum(['set', 'reset'])),
  },
  strict,
);
/** Two studs and one or two small terminals; the coil's return is the body or a terminal of its own. */
const Solenoid = Type.Object(
  {
    ...common,
    kind: Type.Literal('solenoid'),
    pins: Type.Object({ feed: NodeId, load: NodeId, control: NodeId, return: NodeId }, strict),
    ...coilParameters,
    ...contactParameters,
    /** A second winding from the control terminal to the load stud, which only pulls in. */
    pullInCoilOhms: Type.Optional(Ohms),
  },
  strict,
);
/** 49 in, 49a out, 31 where it needs an earth. Looked at in one phase at a time. */
const Flasher = Type.Object(
  {
    ...common,
    ...carries,
    kind: Type.Literal('flasher'),
    pins: Type.Object({ '49': NodeId, '49a': NodeId, '31': Type.Optional(NodeId) }, strict),
    ohms: Type.Optional(Ohms),
  },
  strict,
);
/** Parts a feed from its load by the feed's own volts: protects a battery, or joins a second one. */
const CutOff = Type.Object(
  {
    ...common,
    ...carries,
    kind: Type.Literal('cut-off'),
    pins: Type.Object({ in: NodeId, out: NodeId, minus: NodeId }, strict),
    disconnectVolts: Type.Optional(Volts),
    reconnectVolts: Type.Optional(Volts),
    starts: Type.Optional(Type.Enum(['connected', 'disconnected'])),
    ohms: Type.Optional(Ohms),
  },
  strict,
);
/** An output that a module switches by a rule over the key, the engine and its inputs. */
const ModuleOutput = Type.Object(
  {
    ...common,
    ...carries,
    kind: Type.Literal('module-output'),
    /** `plus`, `minus` and `out`; every other pin is an input. */
    pins: keyed(PinName, NodeId, { minProperties: 3 }),
    /** High: joins the output to plus. Low: joins it to minus. */
    side: Type.Enum(['high', 'low']),
    /** On where every term of one line holds; inputs by pin name. */
    rule: Type.Array(
      Type.Object(
        {
          key: Type.Optional(Type.Array(KeyPosition, { minItems: 1 })),
          engineRunning: Type.Optional(Type.Boolean()),
          inputs: Type.Optional(keyed(PinName, Type.Enum(['high', 'low']))),
        },
        strict,
      ),
      { minItems: 1, maxItems: 12 },
    ),
    /** Inputs that idle at plus and are pulled to earth; the others idle at minus. */
    pullUps: Type.Optional(Type.Array(PinName, { maxItems: 24 })),
    /** Share of the time it is on, where it is pulsed. */
    duty: Type.Optional(Type.Number({ exclusiveMinimum: 0, exclusiveMaximum: 1 })),
    ohms: Type.Optional(Ohms),
    idleAmps: Type.Optional(Amps),
  },
  strict,
);
const Lamp = Type.Object({ ...load, kind: Type.Literal('lamp') }, strict);
const Motor = Type.Object({ ...load, kind: Type.Literal('motor') }, strict);
const Pump = Type.Object({ ...load, kind: Type.Literal('pump') }, strict);
const Horn = Type.Object({ ...load, kind: Type.Literal('horn') }, strict);
const Heater = Type.Object({ ...load, kind: Type.Literal('heater') }, strict);
const Module = Type.Object({ ...load, kind: Type.Literal('module') }, strict);
/** Light-emitting diodes in series with a resistor: polarity matters, and ohms tell nothing. */
const Led = Type.Object(
  {
    ...common,
    kind: Type.Literal('led'),
    pins: loadPins,
    watts: Type.Optional(Watts),
    amps: Type.Optional(Amps),
    /** Volts across the diodes at the nominal current. */
    forwardVolts: Type.Optional(Volts),
    weakBelow: Type.Optional(Fraction),
    deadBelow: Type.Optional(Fraction),
  },
  strict,
);
const Resistor = Type.Object(
  { ...common, kind: Type.Literal('resistor'), pins: twoPins, ohms: Ohms },
  strict,
);
/** An outlet. A condition says which of its appliances is plugged in; \`X1:cooler\` names one as a load. */
const Socket = Type.Object(
  {
    ...common,
    ...carries,
    kind: Type.Literal('socket'),
    pins: loadPins,
    appliances: Type.Array(
      Type.Object(
        {
          id: Id,
          name: Name,
          watts: Type.Optional(Watts),
          ohms: Type.Optional(Ohms),
          amps: Type.Optional(Amps),
          weakBelow: Type.Optional(Fraction),
          deadBelow: Type.Optional(Fraction),
        },
        strict,
      ),
      { maxItems: 20 },
    ),
    ohms: Type.Optional(Ohms),
  },
  strict,
);
const Diode = Type.Object(
  {
    ...common,
    ...carries,
    kind: Type.Literal('diode'),
    pins: Type.Object({ anode: NodeId, cathode: NodeId }, strict),
    saturationAmps: Type.Optional(Type.Number({ minimum: 1e-15, maximum: 1e-3 })),
    emission: Type.Optional(Type.Number({ minimum: 0.5, maximum: 4 })),
    seriesOhms: Type.Optional(Ohms),
  },
  strict,
);

export const PartSchema = oneOfKind(
  Battery,
  ChargingSource,
  Fuse,
  FusibleLink,
  Breaker,
  Polyfuse,
  Wire,
  Connector,
  Splice,
  Ground,
  Switch,
  KeyContact,
  Relay,
  LatchingRelay,
  Solenoid,
  Flasher,
  CutOff,
  ModuleOutput,
  Lamp,
  Led,
  Motor,
  Pump,
  Horn,
  Heater,
  Module,
  Resistor,
  Socket,
  Diode,
);

export const ConditionSchema = Type.Object(
  {
    id: Id,
    name: Name,
    key: KeyPosition,
    /** Switch positions by part id; switches not named are at rest. */
    switches: Type.Optional(keyed(Id, Id)),
    engineRunning: Type.Optional(Type.Boolean()),
    /** What is plugged in, appliance by socket. */
    pluggedIn: Type.Optional(keyed(Id, Id)),
    /** Which half of a flasher's beat is looked at; the lit half when not said. */
    phase: Type.Optional(Type.Enum(['on', 'off'])),
    /** Seconds since it was entered, for timed relays; long ago when not said. */
    secondsIn: Type.Optional(Type.Number({ minimum: 0, maximum: 86400 })),
    /** The condition before this one, from which relays start; all at rest when not said. */
    after: Type.Optional(Id),
  },
  strict,
);

/** Something a person sees work or not: one load (`X1:cooler` for an appliance in a socket), named as the customer names it. */
export const FunctionSchema = Type.Object(
  {
    id: Id,
    name: Name,
    load: Id,
    /** Restraint, brake, steering, charging, engine control or fuel: the maker's procedure rules. */
    safetyCritical: Type.Optional(Type.Boolean()),
    /** Minutes to look whether it works. */
    minutes: Type.Optional(Minutes),
  },
  strict,
);

export const CircuitFileSchema = Type.Object(
  {
    format: Type.Literal('every-trace/circuit'),
    version: Type.Literal(1),
    id: Id,
    name: Name,
    nominalVolts: NominalVolts,
    /** The node every voltage is measured against: the battery's negative post. */
    reference: NodeId,
    places: Type.Array(PlaceSchema, { maxItems: 200 }),
    nodes: Type.Array(NodeSchema, { minItems: 2, maxItems: NODE_LIMIT }),
    conditions: Type.Array(ConditionSchema, { minItems: 1, maxItems: 100 }),
    functions: Type.Array(FunctionSchema, { maxItems: 200 }),
    notes: Type.Optional(text(4000)),
    parts: Type.Array(PartSchema, { minItems: 1, maxItems: PART_LIMIT }),
  },
  { ...strict, $id: 'every-trace/circuit/1', title: 'Every Trace circuit file, version 1' },
);

export type CircuitFile = Static<typeof CircuitFileSchema>;
export type CircuitPart = CircuitFile['parts'][number];
export type PartKind = CircuitPart['kind'];
export type PartOf<K extends PartKind> = Extract<CircuitPart, { kind: K }>;
export type CircuitNode = Static<typeof NodeSchema>;
export type Place = Static<typeof PlaceSchema>;
export type Condition = Static<typeof ConditionSchema>;
export type CircuitFunction = Static<typeof FunctionSchema>;
export type KeyPositionName = Static<typeof KeyPosition>;
