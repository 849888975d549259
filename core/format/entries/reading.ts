/** Readings of the trace, the tester that takes them, tests that were not done. */
import { Type } from 'typebox';
import { BOUNDS } from '../bounds';
import { ReadingValueSchema, TestRefSchema } from '../readingsSchema';
import { Id, Name, numberIn, SomeText, strict, Text, text } from '../schemaParts';

export const ReadingTaken = Type.Object(
  {
    kind: Type.Literal('reading'),
    test: TestRefSchema,
    value: ReadingValueSchema,
    /** What was typed or tapped, to the letter. */
    raw: text(60),
    /** Was the tester proved on a known live point and its earth before this reading? */
    testerProved: Type.Boolean(),
    /** False when key and switches were not seen to stand as the card says. */
    setUpSeen: Type.Optional(Type.Boolean()),
    /** The place that was opened to take it. */
    place: Type.Optional(Id),
  },
  strict,
);

export const TesterProved = Type.Object({ kind: Type.Literal('tester-proved'), on: SomeText }, strict);

export const TestRefused = Type.Object(
  { kind: Type.Literal('test-refused'), test: TestRefSchema, reason: Text },
  strict,
);

/** What was plugged in when a second fuse went, asked because nobody had said it. */
export const PluggedIn = Type.Object(
  {
    kind: Type.Literal('plugged-in'),
    appliance: Type.Boolean(),
    watts: Type.Optional(numberIn(BOUNDS.applianceWatts)),
  },
  strict,
);

export const ApplianceSetAside = Type.Object(
  {
    kind: Type.Literal('appliance-set-aside'),
    words: SomeText,
    /** All fuses that it took, by name: they are one case. */
    fuses: Type.Optional(Type.Array(Name, { maxItems: 20 })),
  },
  strict,
);
