/** Notes, cautions that were read, and entries that are struck. */
import { Type } from 'typebox';
import { Id, SomeText, strict, Text, Uuid } from '../schemaParts';

export const Note = Type.Object(
  {
    kind: Type.Literal('note'),
    words: SomeText,
    /** Short, where it also goes onto a label. */
    label: Type.Optional(SomeText),
  },
  strict,
);

/** A caution in the words in which it was said, and how it was answered: read, or that what it concerns waits. */
export const CautionRead = Type.Object(
  {
    kind: Type.Literal('caution-read'),
    caution: SomeText,
    /** Which caution it is, where it is asked once on a job. */
    id: Type.Optional(Id),
    notNow: Type.Optional(Type.Literal(true)),
  },
  strict,
);

/** Where the work was done, confirmed by a person. */
export const WorkPlace = Type.Object({ kind: Type.Literal('work-place'), place: SomeText }, strict);

/** Strikes an earlier entry; what replaces it is an event of its own. */
export const Correction = Type.Object(
  { kind: Type.Literal('correction'), of: Uuid, reason: Type.Optional(Text) },
  strict,
);
