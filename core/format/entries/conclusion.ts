/** What was found, how it was repaired, what was seen afterwards, and whether the job is closed. */
import { Type } from 'typebox';
import { BOUNDS } from '../bounds';
import { FUSE_FAMILIES } from '../lists';
import { FunctionState } from '../readingsSchema';
import { Day, Id, numberIn, SomeText, strict, Text, Uuid } from '../schemaParts';

export const Found = Type.Object(
  {
    kind: Type.Literal('found'),
    parts: Type.Array(Id, { minItems: 1, maxItems: 40 }),
    fault: SomeText,
    /** The form of the fault, for counting what this shop meets. */
    form: Type.Optional(Type.Object({ part: Id, kind: Id, mode: Id }, strict)),
    strength: Type.Enum(['proved', 'supported', 'provisional']),
    cause: Type.Enum(['proved', 'suspected', 'unknown']),
    causeWords: Text,
    evidence: Type.Array(Uuid, { maxItems: 200 }),
  },
  strict,
);

export const Repair = Type.Object(
  {
    kind: Type.Literal('repair'),
    words: SomeText,
    partsUsed: Type.Array(Type.Object({ name: SomeText, count: numberIn(BOUNDS.partCount) }, strict), {
      maxItems: 40,
    }),
    /** Not said where nobody looked at a clock. */
    minutes: Type.Optional(numberIn(BOUNDS.repairMinutes)),
    temporary: Type.Boolean(),
    due: Type.Optional(Day),
    undo: Type.Optional(Text),
    /** Fuses that were fitted, by the circuit; what they are against the design is worked out from it. */
    fitted: Type.Optional(
      Type.Array(
        Type.Object(
          {
            part: Id,
            ratingAmps: numberIn(BOUNDS.fuseRating),
            family: Type.Optional(Type.Enum([...FUSE_FAMILIES])),
          },
          strict,
        ),
        { maxItems: 20 },
      ),
    ),
    /** Why something that is no repair was fitted all the same. */
    reason: Type.Optional(SomeText),
  },
  strict,
);

export const Proof = Type.Object(
  {
    kind: Type.Literal('proof'),
    function: Id,
    condition: Id,
    state: FunctionState,
    /** What it should do there, as the list of proofs said it. */
    expected: Type.Optional(FunctionState),
  },
  strict,
);

export const WatchItem = Type.Object(
  { kind: Type.Literal('watch'), words: SomeText, due: Type.Optional(Day) },
  strict,
);

/** A watch item is dealt with, and what was found then. */
export const WatchDone = Type.Object({ kind: Type.Literal('watch-done'), of: Uuid, words: SomeText }, strict);

export const StateChange = Type.Object(
  {
    kind: Type.Literal('state'),
    state: Type.Enum(['open', 'waiting', 'closed']),
    /** Why the job was closed although something was still missing. */
    override: Type.Optional(SomeText),
    /** It ends without a repair; `override` says then what makes it safe, or what was looked at. */
    ending: Type.Optional(Type.Enum(['made-safe', 'not-found'])),
  },
  strict,
);
