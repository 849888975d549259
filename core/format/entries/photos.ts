/** Photos and the marks on them. */
import { Type } from 'typebox';
import { Id, strict, Text, text, Uuid } from '../schemaParts';

/** A photo of a box, a slot or a step; the picture itself is kept under its id. */
export const Photo = Type.Object(
  {
    kind: Type.Literal('photo'),
    photo: Uuid,
    words: Text,
    panel: Type.Optional(Id),
    slot: Type.Optional(Id),
    /** The step of the job that it belongs to, where it is of no box. */
    step: Type.Optional(Type.Enum(['complaint', 'trace', 'repair', 'prove'])),
    when: Type.Enum(['before', 'during', 'after']),
  },
  strict,
);

/** All marks on a photo, in shares of its width and height; the latest entry counts. */
export const PhotoMarks = Type.Object(
  {
    kind: Type.Literal('photo-marks'),
    photo: Uuid,
    marks: Type.Array(
      Type.Object(
        {
          x: Type.Number({ minimum: 0, maximum: 1 }),
          y: Type.Number({ minimum: 0, maximum: 1 }),
          words: text(60),
        },
        strict,
      ),
      { maxItems: 60 },
    ),
  },
  strict,
);
