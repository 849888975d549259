/** The plan file, version 1: a change of a vehicle as an ordered list of edits to its circuits and boxes, played before it is done. */
import { type Static, type TSchema, Type } from 'typebox';
import {
  type CircuitFile,
  ConditionSchema,
  FunctionSchema,
  NodeSchema,
  PartSchema,
  PlaceSchema,
} from './circuitSchema';
import { BATTERY_KINDS, JOINTS, KEY_STATES } from './lists';
import { SlotFamily } from './panelSchema';
import { Id, keyed, Name, oneOfKind, PinName, SomeText, someText, strict, text, Uuid } from './schemaParts';

/** `variant`: it is only done where that way of doing it is chosen. */
const edit = { id: Id, variant: Type.Optional(Id) };

/** Parts and points that come in. */
const Add = Type.Object(
  {
    kind: Type.Literal('add'),
    ...edit,
    parts: Type.Array(PartSchema, { minItems: 1, maxItems: 20 }),
    nodes: Type.Array(NodeSchema, { maxItems: 40 }),
    /** What a person sees of loads among them. */
    functions: Type.Optional(Type.Array(FunctionSchema, { maxItems: 20 })),
  },
  strict,
);
/** A tap in the slot of a fuse: a second fuse on one of its two sides, with a lead. */
const Tap = Type.Object(
  {
    kind: Type.Literal('tap'),
    ...edit,
    /** The fuse whose slot it goes into. */
    fuse: Id,
    /** On which side of that fuse the added one is fed: on the load side it hangs behind the original fuse. */
    side: Type.Enum(['supply', 'load']),
    family: SlotFamily,
    addedFuse: Id,
    addedAmps: Type.Number({ exclusiveMinimum: 0, maximum: 1000 }),
    /** The point at the end of its lead. */
    lead: Id,
    name: Name,
  },
  strict,
);
/** A wire in two: each piece keeps its end, each new end is a point of its own. */
const Cut = Type.Object(
  {
    kind: Type.Literal('cut'),
    ...edit,
    wire: Id,
    /** The piece from the cut to end b. */
    rest: Id,
    /** Of its length, from end a to the cut. */
    share: Type.Number({ exclusiveMinimum: 0, exclusiveMaximum: 1 }),
    nodes: Type.Object({ a: Id, b: Id }, strict),
    caps: Type.Object({ a: Type.Boolean(), b: Type.Boolean() }, strict),
  },
  strict,
);
/** Two points joined for good. */
const Join = Type.Object(
  {
    kind: Type.Literal('join'),
    ...edit,
    splice: Id,
    name: Name,
    one: Id,
    other: Id,
    joint: Type.Enum([...JOINTS]),
  },
  strict,
);
/** A pin of a part to another point: a wire into another cavity. */
const Move = Type.Object({ kind: Type.Literal('move'), ...edit, part: Id, pin: PinName, to: Id }, strict);
/** A part out for good, or kept so that it can be put back: a controller that is disabled, a fuse that was pulled. */
const TakeOut = Type.Object(
  { kind: Type.Literal('take-out'), ...edit, part: Id, kept: Type.Boolean() },
  strict,
);
/** A label where somebody will look. */
const Label = Type.Object({ kind: Type.Literal('label'), ...edit, on: Name, words: SomeText }, strict);

/**
 * Something of a circuit, told by its id. Its other fields are those of the circuit file and are checked with the circuit that
 * it becomes part of.
 */
const thing = <T extends TSchema>(_of: T) =>
  Type.Unsafe<Static<T>>({ type: 'object', properties: { id: Id }, required: ['id'] });
const changeOf = <T extends TSchema>(of: T) =>
  Type.Optional(
    Type.Object(
      {
        /** With the place where it stood. */
        removed: Type.Array(Type.Object({ at: Type.Integer({ minimum: 0 }), thing: thing(of) }, strict)),
        added: Type.Array(Id),
        changed: Type.Array(Type.Object({ before: thing(of), after: thing(of) }, strict)),
      },
      strict,
    ),
  );
/** What was done to a circuit, thing by thing. */
const PatchSchema = Type.Object(
  {
    places: changeOf(PlaceSchema),
    nodes: changeOf(NodeSchema),
    conditions: changeOf(ConditionSchema),
    functions: changeOf(FunctionSchema),
    parts: changeOf(PartSchema),
  },
  strict,
);
/** What an earlier edit did, taken back, or what was written in the circuit’s text: its sentence, how a hand undoes it, and the
 * way back from what it makes. */
const Restore = Type.Object(
  { kind: Type.Literal('restore'), ...edit, words: SomeText, was: SomeText, patch: PatchSchema },
  strict,
);

const EditSchema = oneOfKind(Add, Tap, Cut, Join, Move, TakeOut, Label, Restore);

/** Where something is to be live or on, and where it is not. */
const Goal = Type.Object(
  {
    id: Id,
    /** A function, or a point. */
    of: Id,
    on: Type.Array(Type.Enum([...KEY_STATES]), { maxItems: 7 }),
    off: Type.Array(Type.Enum([...KEY_STATES]), { maxItems: 7 }),
  },
  strict,
);

/** What releases a receptacle that a pack is charged through. */
const Charging = Type.Object(
  {
    variant: someText(120),
    chargerVolts: Type.Number({ exclusiveMinimum: 0, maximum: 100 }),
    battery: Type.Enum([...BATTERY_KINDS]),
    /** What stands on the receptacle. */
    receptacle: someText(200),
    /** The charger that was there cannot be switched on beside it. */
    lockedOut: Type.Boolean(),
  },
  strict,
);

export const PlanFileSchema = Type.Object(
  {
    format: Type.Literal('every-trace/plan'),
    version: Type.Literal(1),
    id: Id,
    name: Name,
    purpose: text(400),
    edits: Type.Array(EditSchema, { maxItems: 200 }),
    goals: Type.Optional(Type.Array(Goal, { maxItems: 40 })),
    /** Ways of doing it, or builds of one model, of which one is chosen. */
    variants: Type.Optional(
      Type.Array(Type.Object({ id: Id, name: Name }, strict), { minItems: 2, maxItems: 12 }),
    ),
    chosen: Type.Optional(Id),
    /** Parts through which two sources are joined on purpose. */
    ties: Type.Optional(Type.Array(Id, { maxItems: 20 })),
    charging: Type.Optional(Charging),
    /** Where the vehicle has no circuit of it: what it touches, and no more. */
    circuit: Type.Optional(
      Type.Unsafe<CircuitFile>({
        type: 'object',
        properties: { format: { const: 'every-trace/circuit' } },
        required: ['format', 'version', 'id', 'parts', 'nodes'],
      }),
    ),
    /** What nobody knows here, each in words. */
    unknown: Type.Optional(Type.Array(SomeText, { maxItems: 60 })),
    /** Facts that it rests on and that nobody has seen on this vehicle, by what they are of. */
    unverified: Type.Optional(keyed(Id, SomeText, { maxProperties: 200 })),
    /** Keepers, branch-offs and ends along the loom, with their distances, one a line. */
    loom: Type.Optional(Type.Array(someText(200), { maxItems: 100 })),
    /** The change that it takes back. */
    undoes: Type.Optional(Type.Object({ job: Uuid, plan: Id }, strict)),
  },
  { ...strict, $id: 'every-trace/plan/1', title: 'Every Trace plan file, version 1' },
);

/** A plan as an entry of a job holds it: told by its form; the rest is checked by the schema of the plan where it arrives. */
export const PlanInEntry = Type.Unsafe<Static<typeof PlanFileSchema>>({
  type: 'object',
  properties: {
    format: { const: 'every-trace/plan' },
    version: { const: 1 },
    id: Id,
    name: Name,
    edits: { type: 'array', maxItems: 200 },
  },
  required: ['format', 'version', 'id', 'name', 'purpose', 'edits'],
});

export type PlanEdit = Static<typeof EditSchema>;
export type PlanFile = Static<typeof PlanFileSchema>;
export type PlanGoal = Static<typeof Goal>;
export type CircuitPatch = Static<typeof PatchSchema>;
