/** What was read and seen at the slots and plugs of a box. */
import { Type } from 'typebox';
import { FoundInSlot, SlotStateName } from '../panelSchema';
import { Id, SomeText, strict } from '../schemaParts';
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
