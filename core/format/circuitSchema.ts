/**
 * The circuit file, version 1: parts with named pins, joined at nodes, with the places where a probe
 * reaches them and the functions a person sees. The published JSON Schema is this very object
 * (`npm run -s trace -- schema circuit`).
 */
import { type Static, Type } from 'typebox';
import { Id, Name, NominalVolts, oneOfKind, strict } from './schemaParts';

const NodeId = Id;
/** Ohms of anything that conducts. The floor keeps two sources from being joined by nothing at all. */
const Ohms = Type.Number({ minimum: 1e-5, maximum: 1e9 });
const Amps = Type.Number({ exclusiveMinimum: 0, maximum: 5000 });
const Watts = Type.Number({ exclusiveMinimum: 0, maximum: 50000 });
const Volts = Type.Number({ exclusiveMinimum: 0, maximum: 100 });
const Fraction = Type.Number({ minimum: 0, maximum: 1 });
const Minutes = Type.Number({ minimum: 0, maximum: 600 });

export const KeyPosition = Type.Enum(['lock', 'off', 'accessory', 'run', 'crank']);

/** Somewhere a technician has to get at: a box, a panel, a lamp housing. */
export const PlaceSchema = Type.Object(
  {
    id: Id,
    name: Name,
    /** Minutes to open once; 0 where nothing is in the way. */
    minutesToOpen: Minutes,
    caution: Type.Optional(Type.String({ maxLength: 400 })),
  },
  strict,
);

/** Where and how a probe reaches a node. */
export const AccessSchema = Type.Object(
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
  /** Cannot be taken out and tested alone (soldered, moulded in). */
  fixed: Type.Optional(Type.Boolean()),
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
  },
  strict,
);
const FuseFamily = Type.Enum([
  'micro-2',
  'micro-3',
  'low-profile-mini',
  'mini',
  'regular',
  'maxi',
  'cartridge-low',
  'cartridge-tall',
  'strip-small',
  'strip-large',
]);
const Fuse = Type.Object(
  {
    ...common,
    kind: Type.Literal('fuse'),
    pins: feedPins,
    ratingAmps: Amps,
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
const Wire = Type.Object(
  {
    ...common,
    kind: Type.Literal('wire'),
    pins: twoPins,
    lengthMetres: Type.Optional(Type.Number({ exclusiveMinimum: 0, maximum: 200 })),
    sizeMm2: Type.Optional(Type.Number({ exclusiveMinimum: 0, maximum: 240 })),
    ohms: Type.Optional(Ohms),
    /** Base and tracer, "BN/WH". */
    colour: Type.Optional(Type.String({ maxLength: 20 })),
  },
  strict,
);
const Connector = Type.Object(
  {
    ...common,
    kind: Type.Literal('connector'),
    pins: twoPins,
    cavity: Type.Optional(Type.String({ maxLength: 20 })),
    ohms: Type.Optional(Ohms),
  },
  strict,
);
const Splice = Type.Object(
  {
    ...common,
    kind: Type.Literal('splice'),
    /** Any pin names; every pin is one leg. */
    pins: Type.Record(Type.String({ pattern: '^[A-Za-z0-9-]{1,20}$' }), NodeId, { minProperties: 2 }),
    ohms: Type.Optional(Ohms),
  },
  strict,
);
const Ground = Type.Object(
  {
    ...common,
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
    kind: Type.Literal('switch'),
    pins: Type.Record(Type.String({ pattern: '^[A-Za-z0-9-]{1,20}$' }), NodeId, { minProperties: 2 }),
    positions: Type.Array(Id, { minItems: 2, maxItems: 12, uniqueItems: true }),
    /** The position it has when a condition does not name it. */
    rest: Id,
    contacts: Type.Array(
      Type.Object(
        {
          from: Type.String({ minLength: 1, maxLength: 20 }),
          to: Type.String({ minLength: 1, maxLength: 20 }),
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
    kind: Type.Literal('key-contact'),
    pins: feedPins,
    closedIn: Type.Array(KeyPosition, { minItems: 1 }),
    ohms: Type.Optional(Ohms),
  },
  strict,
);
const Relay = Type.Object(
  {
    ...common,
    kind: Type.Literal('relay'),
    /** Terminal numbers of DIN 72552; two terminals may share a node (three-pin relays). */
    pins: Type.Object(
      {
        '30': NodeId,
        '85': NodeId,
        '86': NodeId,
        '87': Type.Optional(NodeId),
        '87a': Type.Optional(NodeId),
      },
      strict,
    ),
    coilOhms: Type.Optional(Ohms),
    pullInVolts: Type.Optional(Volts),
    dropOutVolts: Type.Optional(Volts),
    contactOhms: Type.Optional(Ohms),
    contactRatingAmps: Type.Optional(Amps),
  },
  strict,
);
const Lamp = Type.Object({ ...load, kind: Type.Literal('lamp') }, strict);
const Motor = Type.Object({ ...load, kind: Type.Literal('motor') }, strict);
const Heater = Type.Object({ ...load, kind: Type.Literal('heater') }, strict);
const Module = Type.Object({ ...load, kind: Type.Literal('module') }, strict);
const Diode = Type.Object(
  {
    ...common,
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
  Fuse,
  FusibleLink,
  Wire,
  Connector,
  Splice,
  Ground,
  Switch,
  KeyContact,
  Relay,
  Lamp,
  Motor,
  Heater,
  Module,
  Diode,
);

export const ConditionSchema = Type.Object(
  {
    id: Id,
    name: Name,
    key: KeyPosition,
    /** Switch positions by part id; switches not named are at rest. */
    switches: Type.Optional(Type.Record(Id, Id)),
    engineRunning: Type.Optional(Type.Boolean()),
  },
  strict,
);

/** Something a person sees work or not: one load, named as the customer names it. */
export const FunctionSchema = Type.Object(
  {
    id: Id,
    name: Name,
    load: Id,
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
    nodes: Type.Array(NodeSchema, { minItems: 2, maxItems: 2000 }),
    conditions: Type.Array(ConditionSchema, { minItems: 1, maxItems: 100 }),
    functions: Type.Array(FunctionSchema, { maxItems: 200 }),
    notes: Type.Optional(Type.String({ maxLength: 4000 })),
    parts: Type.Array(PartSchema, { minItems: 1, maxItems: 1000 }),
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
