/** The plan file, version 1: a change of a vehicle as an ordered list of edits to its circuits and boxes, played before it is done. */
import { type Static, Type } from 'typebox';
import { NodeSchema, PartSchema } from './circuitSchema';
import { JOINTS } from './lists';
import { SlotFamily } from './panelSchema';
import { Id, Name, oneOfKind, PinName, SomeText, strict, text } from './schemaParts';

const edit = { id: Id };

/** Parts and points that come in. */
const Add = Type.Object(
  {
    kind: Type.Literal('add'),
    ...edit,
    parts: Type.Array(PartSchema, { minItems: 1, maxItems: 20 }),
    nodes: Type.Array(NodeSchema, { maxItems: 40 }),
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

export const EditSchema = oneOfKind(Add, Tap, Cut, Join, Move, TakeOut, Label);

export const PlanFileSchema = Type.Object(
  {
    format: Type.Literal('every-trace/plan'),
    version: Type.Literal(1),
    id: Id,
    name: Name,
    purpose: text(400),
    edits: Type.Array(EditSchema, { maxItems: 200 }),
  },
  { ...strict, $id: 'every-trace/plan/1', title: 'Every Trace plan file, version 1' },
);

export type PlanEdit = Static<typeof EditSchema>;
export type PlanFile = Static<typeof PlanFileSchema>;
