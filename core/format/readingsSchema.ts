/** Tests, readings and the readings file, version 1: what was measured where, in which set-up. */
import { type Static, Type } from 'typebox';
import { Id, oneOfKind, PinName, strict } from './schemaParts';

export const LampState = Type.Enum(['lit', 'dim', 'off']);
export const FunctionState = Type.Enum([
  'works',
  'weak',
  'dead',
  'on-when-off',
  'comes-and-goes',
  'not-tried',
]);

/** What is heard while something is switched on. */
export const SoundHeard = Type.Enum(['silent', 'clicks', 'chatters', 'hums']);

/** What is done: instrument, place and set-up. Two equal refs are the same test. */
export const TestRefSchema = oneOfKind(
  Type.Object(
    {
      kind: Type.Literal('volts'),
      node: Id,
      against: Id,
      condition: Id,
      /** Read with this fuse out: is there a second feed? */
      pulled: Type.Optional(Id),
    },
    strict,
  ),
  Type.Object({ kind: Type.Literal('lamp'), node: Id, condition: Id }, strict),
  /** A tester of light-emitting diodes, which hardly loads. */
  Type.Object({ kind: Type.Literal('led'), node: Id, condition: Id }, strict),
  Type.Object({ kind: Type.Literal('function'), function: Id, condition: Id }, strict),
  /** Ohms of a part in the hand. */
  Type.Object({ kind: Type.Literal('continuity'), part: Id, from: PinName, to: PinName }, strict),
  /** Ohms in place, the battery disconnected; parallel paths count. */
  Type.Object({ kind: Type.Literal('ohms'), node: Id, against: Id, condition: Id }, strict),
  Type.Object(
    {
      kind: Type.Literal('lamp-in-fuse'),
      part: Id,
      condition: Id,
      unplugged: Type.Optional(Id),
      /** Every load behind it unplugged. */
      apart: Type.Optional(Type.Literal('loads')),
    },
    strict,
  ),
  /** A clamp around a wire while a lamp stands in place of the fuse: which way what opened the fuse draws. */
  Type.Object({ kind: Type.Literal('lamp-current'), part: Id, wire: Id, condition: Id }, strict),
  /** Ohms to earth at the load side of a fuse or relay that is out, one plug or load apart, all loads, or none: a short, and where. */
  Type.Object(
    {
      kind: Type.Literal('ohms-behind'),
      part: Id,
      condition: Id,
      unplugged: Type.Optional(Id),
      /** Every load behind it unplugged. */
      apart: Type.Optional(Type.Literal('loads')),
    },
    strict,
  ),
  /** A known good part here. */
  Type.Object({ kind: Type.Literal('substitute'), part: Id, function: Id, condition: Id }, strict),
  /** The part of this vehicle, or the known good one, in another vehicle or place where it should work. */
  Type.Object(
    { kind: Type.Literal('elsewhere'), part: Id, function: Id, fitted: Type.Enum(['own', 'known-good']) },
    strict,
  ),
  /** Feel or hear a relay pull in. */
  Type.Object({ kind: Type.Literal('click'), part: Id, condition: Id }, strict),
  /** Listen while something is switched on: relays that click or chatter, a motor that hums. */
  Type.Object({ kind: Type.Literal('sound'), function: Id, condition: Id }, strict),
  /** Look at the element of a fuse. */
  Type.Object({ kind: Type.Literal('look'), part: Id }, strict),
  /** Tap or wiggle a part and watch the function. */
  Type.Object({ kind: Type.Literal('wiggle'), part: Id, function: Id, condition: Id }, strict),
  /** A clamp around the wire of a part. */
  Type.Object({ kind: Type.Literal('clamp'), part: Id, condition: Id }, strict),
  /** Millivolts across a fuse, on its own ends: its current. */
  Type.Object({ kind: Type.Literal('fuse-drop'), part: Id, condition: Id }, strict),
  /** The relay out, a fused lead from its 30 to its 87: does the function work? */
  Type.Object({ kind: Type.Literal('bridge'), part: Id, function: Id, condition: Id }, strict),
  /** Battery plus through a fused lead, or earth, put on a point: does the function work? */
  Type.Object(
    {
      kind: Type.Literal('apply'),
      with: Type.Enum(['plus', 'earth']),
      node: Id,
      function: Id,
      condition: Id,
    },
    strict,
  ),
  /** Volts on the battery's own posts: rested, while cranking, while charging. */
  Type.Object({ kind: Type.Literal('battery'), state: Type.Enum(['rest', 'crank', 'charge']) }, strict),
);

export const ReadingValueSchema = Type.Union([
  Type.Object({ volts: Type.Number({ minimum: -1000, maximum: 1000 }) }, strict),
  Type.Object({ ohms: Type.Number({ minimum: 0, maximum: 1e9 }) }, strict),
  Type.Object({ overLimit: Type.Literal(true) }, strict),
  Type.Object({ lamp: LampState }, strict),
  Type.Object({ state: FunctionState }, strict),
  Type.Object({ click: Type.Enum(['clicks', 'silent', 'chatters']) }, strict),
  Type.Object({ sound: SoundHeard }, strict),
  Type.Object({ look: Type.Enum(['whole', 'broken']) }, strict),
  Type.Object({ wiggle: Type.Enum(['changes', 'no change']) }, strict),
  Type.Object({ amps: Type.Number({ minimum: -5000, maximum: 5000 }) }, strict),
]);

/** What was made sure of before a reading; what is missing makes it provisional. */
const PreconditionsSchema = Type.Object(
  {
    /** The tester shows a point known to be live. */
    tester: Type.Boolean(),
    /** The point measured against is known to be earth. */
    reference: Type.Boolean(),
    /** Key and switches were seen to stand as the card says. */
    setUp: Type.Boolean(),
  },
  strict,
);

/** Parts that did not stand in their own places: exchanged for one another, or replaced by a known good one. */
const FittedSchema = Type.Object(
  {
    exchanged: Type.Array(Type.Object({ one: Id, other: Id }, strict), { maxItems: 20 }),
    knownGood: Type.Array(Id, { maxItems: 20 }),
  },
  strict,
);

const ReadingSchema = Type.Object(
  {
    test: TestRefSchema,
    value: ReadingValueSchema,
    sure: Type.Optional(PreconditionsSchema),
    /** A mended fault lies between: the reading was taken before the repair of these parts. */
    before: Type.Optional(Type.Array(Id, { maxItems: 40 })),
    fitted: Type.Optional(FittedSchema),
  },
  strict,
);

export const ReadingsFileSchema = Type.Object(
  {
    format: Type.Literal('every-trace/readings'),
    version: Type.Literal(1),
    complaint: Type.Object({ function: Id, condition: Id }, strict),
    readings: Type.Array(ReadingSchema, { maxItems: 2000 }),
  },
  { ...strict, $id: 'every-trace/readings/1', title: 'Every Trace readings file, version 1' },
);

export type TestRef = Static<typeof TestRefSchema>;
export type ReadingValue = Static<typeof ReadingValueSchema>;
export type Reading = Static<typeof ReadingSchema>;
export type Preconditions = Static<typeof PreconditionsSchema>;
export type ReadingsFile = Static<typeof ReadingsFileSchema>;
export type LampStateName = Static<typeof LampState>;
export type FunctionStateName = Static<typeof FunctionState>;
export type SoundName = Static<typeof SoundHeard>;
