/** What was read and seen at the slots and plugs of a box. */
import { Type } from 'typebox';
import { BOUNDS } from '../bounds';
import { FoundInSlot, SlotFamily, SlotStateName } from '../panelSchema';
import { Id, numberIn, SomeText, strict } from '../schemaParts';
import { KeyStateName, LampOrVolts } from './parts';

/**
 * Lamp or volts at the ends of a fuse, in one state of key and engine. `first` is the upper or left end of the box as
 * drawn, `second` the other, where nobody knows which is fed.
 */
export const SlotReadingTaken = Type.Object(
  {
    kind: Type.Literal('slot-reading'),
    panel: Id,
    slot: Id,
    ends: Type.Array(
      Type.Object(
        { end: Type.Enum(['feed', 'load', 'load-2', 'first', 'second']), value: LampOrVolts },
        strict,
      ),
      {
        minItems: 1,
        maxItems: 3,
      },
    ),
    state: KeyStateName,
    fuseOut: Type.Boolean(),
    testerProved: Type.Boolean(),
    /** So long after the key went off it was dead for the first time, seconds: a feed that lingers. */
    afterSeconds: Type.Optional(Type.Number({ minimum: 0, maximum: 86_400 })),
  },
  strict,
);

/** Volts across a fuse in its place with everything asleep: what flows through it while nobody is there. */
export const SlotDropTaken = Type.Object(
  {
    kind: Type.Literal('slot-drop'),
    panel: Id,
    slot: Id,
    volts: Type.Number({ minimum: 0, maximum: 30 }),
    /** Of the fuse as it was read; without it no current can be told. */
    ratingAmps: numberIn(BOUNDS.fuseRating),
    family: SlotFamily,
  },
  strict,
);

/** What is in a slot, and how that is known. */
export const SlotSeen = Type.Object(
  {
    kind: Type.Literal('slot-state'),
    panel: Id,
    slot: Id,
    state: SlotStateName,
    /** Whether what it feeds serves a safety function, where that was asked. */
    safetyCritical: Type.Optional(Type.Boolean()),
    found: Type.Optional(FoundInSlot),
    evidence: SomeText,
  },
  strict,
);

export const PlugTag = Type.Object(
  { kind: Type.Literal('plug-tag'), panel: Id, plug: Id, tag: SomeText },
  strict,
);

export const Damage = Type.Object(
  { kind: Type.Literal('damage'), panel: Id, words: SomeText, when: Type.Enum(['as-found', 'by-us']) },
  strict,
);
