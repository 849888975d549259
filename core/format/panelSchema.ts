/** The panel-set file, version 1: every box of a vehicle with its slots, measured in millimetres. */
import { type Static, Type } from 'typebox';
import { BOUNDS } from './bounds';
import { SLOT_FAMILIES, SLOT_FEEDS, SLOT_STATES, SLOT_TYPES } from './lists';
import { Id, Name, numberIn, someText, strict, text } from './schemaParts';

const Mm = Type.Number({ minimum: 0, maximum: 2000 });

export const SlotFamily = Type.Enum([...SLOT_FAMILIES]);

export const SlotStateName = Type.Enum([...SLOT_STATES]);

export const FoundInSlot = Type.Object(
  {
    ratingAmps: Type.Optional(numberIn(BOUNDS.foundAmps)),
    family: Type.Optional(SlotFamily),
    colour: Type.Optional(text(30)),
  },
  strict,
);

const SlotSchema = Type.Object(
  {
    id: Id,
    /** Fuse 14, relay 14 and cavity 14 are three different things. */
    type: Type.Enum([...SLOT_TYPES]),
    number: someText(12),
    /** As printed on the cover; empty where nothing is printed. */
    label: text(80),
    meaning: Type.Optional(text(200)),
    synonyms: Type.Optional(Type.Array(someText(80), { maxItems: 20 })),
    family: SlotFamily,
    ratingAmps: Type.Optional(Type.Number({ exclusiveMinimum: 0, maximum: 1000 })),
    /** Second element of a three-leg fuse: one slot, two elements, three test ends. */
    secondRatingAmps: Type.Optional(Type.Number({ exclusiveMinimum: 0, maximum: 1000 })),
    /** What the smallest wire behind it carries, ampere. */
    wireLimitAmps: Type.Optional(Type.Number({ exclusiveMinimum: 0, maximum: 1000 })),
    /** What was found in it, where that is not what belongs there. */
    found: Type.Optional(FoundInSlot),
    /** Sockets of a relay by their role, millimetres from its own left upper corner. */
    pins: Type.Optional(
      Type.Array(
        Type.Object(
          {
            role: someText(6),
            x: Type.Number({ minimum: 0, maximum: 500 }),
            y: Type.Number({ minimum: 0, maximum: 500 }),
          },
          strict,
        ),
        { maxItems: 12 },
      ),
    ),
    /** Printed colour of what is specified for the slot. */
    colour: Type.Optional(text(30)),
    state: SlotStateName,
    /** How it is known that it was never ordered, or is abandoned: that the hole is empty shows neither. */
    stateEvidence: Type.Optional(text(200)),
    /** What it feeds serves a safety function, or was said not to, where its name suggests it. */
    safetyCritical: Type.Optional(Type.Boolean()),
    feed: Type.Optional(Type.Enum([...SLOT_FEEDS])),
    functions: Type.Optional(Type.Array(someText(120), { maxItems: 40 })),
    /** Left upper corner and size, as seen with the cover text upright. */
    x: Mm,
    y: Mm,
    width: Type.Number({ exclusiveMinimum: 0, maximum: 500 }),
    height: Type.Number({ exclusiveMinimum: 0, maximum: 500 }),
    source: Type.Optional(Type.Enum(['lid', 'manual', 'measured', 'sibling-vehicle'])),
    confirmed: Type.Optional(Type.Boolean()),
    confidence: Type.Optional(Type.Enum(['sure', 'likely', 'doubtful'])),
    /** For which build or year the fact holds. */
    applies: Type.Optional(text(120)),
    /** What another source says instead, kept until a measurement decides. */
    disputed: Type.Optional(
      Type.Array(
        Type.Object(
          {
            source: someText(80),
            says: someText(200),
          },
          strict,
        ),
        { maxItems: 10 },
      ),
    ),
  },
  strict,
);

const PanelSchema = Type.Object(
  {
    id: Id,
    name: Name,
    place: Name,
    /** Where it stands in the circuit files, so that opening it is paid for once. */
    circuitPlace: Type.Optional(Id),
    minutesToOpen: Type.Number({ minimum: 0, maximum: 600 }),
    opening: Type.Array(someText(300), { maxItems: 20 }),
    /** The way to it in steps, with what holds it and what breaks when forced. */
    steps: Type.Optional(
      Type.Array(
        Type.Object(
          {
            words: someText(300),
            fastener: Type.Optional(text(80)),
            tool: Type.Optional(text(80)),
            direction: Type.Optional(text(80)),
            breaks: Type.Optional(text(160)),
            minutes: Type.Optional(Type.Number({ minimum: 0, maximum: 600 })),
          },
          strict,
        ),
        { maxItems: 30 },
      ),
    ),
    /** Maker's waiting time for retained power, minutes; not known where it is not given. */
    retainedMinutes: Type.Optional(Type.Number({ minimum: 0, maximum: 600 })),
    /** Plugs underneath: equal shape means that they can be taken for one another. */
    plugs: Type.Optional(
      Type.Array(
        Type.Object(
          {
            id: Id,
            name: Name,
            shape: someText(80),
            cavities: Type.Integer({ minimum: 1, maximum: 200 }),
            /** Cavities mirror each other between the two faces. */
            face: Type.Enum(['mating', 'wire']),
          },
          strict,
        ),
        { maxItems: 40 },
      ),
    ),
    isolateFirst: Type.Optional(text(300)),
    caution: Type.Optional(text(400)),
    width: Type.Number({ exclusiveMinimum: 0, maximum: 2000 }),
    height: Type.Number({ exclusiveMinimum: 0, maximum: 2000 }),
    /** Something that cannot be mistaken, and the edge it stands at with the cover text upright. */
    landmark: Type.Object({ name: Name, edge: Type.Enum(['top', 'right', 'bottom', 'left']) }, strict),
    slots: Type.Array(SlotSchema, { maxItems: 400 }),
  },
  strict,
);

export const PanelSetFileSchema = Type.Object(
  {
    format: Type.Literal('every-trace/panel-set'),
    version: Type.Literal(1),
    id: Id,
    name: Name,
    panels: Type.Array(PanelSchema, { minItems: 1, maxItems: 40 }),
  },
  { ...strict, $id: 'every-trace/panel-set/1', title: 'Every Trace panel-set file, version 1' },
);

export type PanelSetFile = Static<typeof PanelSetFileSchema>;
export type Panel = Static<typeof PanelSchema>;
export type Slot = Static<typeof SlotSchema>;
