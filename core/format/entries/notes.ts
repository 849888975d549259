/** Notes, cautions that were read, and entries that are struck. */
import { Type } from 'typebox';
import { SomeText, strict, Text, Uuid } from '../schemaParts';

export const Note = Type.Object({ kind: Type.Literal('note'), words: SomeText }, strict);

export const CautionRead = Type.Object({ kind: Type.Literal('caution-read'), caution: SomeText }, strict);

/** Where the work was done, confirmed by a person. */
export const WorkPlace = Type.Object({ kind: Type.Literal('work-place'), place: SomeText }, strict);

/** Strikes an earlier entry; what replaces it is an event of its own. */
export const Correction = Type.Object(
  { kind: Type.Literal('correction'), of: Uuid, reason: Type.Optional(Text) },
  strict,
);
