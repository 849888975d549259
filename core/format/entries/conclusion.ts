/** What was found, what was seen after the repair, what is watched, and whether the job is closed. */
import { Type } from 'typebox';
import { BOUNDS } from '../bounds';
import { CURRENT_PHASES, OPENED_BY, PROOF_ANSWERS, WATCH_SORTS } from '../lists';
import { FunctionState } from '../readingsSchema';
import { Day, Id, Name, numberIn, SomeText, strict, Text, Uuid } from '../schemaParts';

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
    /** Of a fuse that was open: what made it open. */
    openedBy: Type.Optional(Type.Enum([...OPENED_BY])),
    evidence: Type.Array(Uuid, { maxItems: 200 }),
  },
  strict,
);

/** What flows through a fuse, against its rating. */
export const FuseCurrent = Type.Object(
  {
    kind: Type.Literal('fuse-current'),
    fuse: Id,
    phase: Type.Enum([...CURRENT_PHASES]),
    amps: numberIn(BOUNDS.fuseCurrent),
    /** Of the fuse that was in the slot then. */
    ratingAmps: numberIn(BOUNDS.fuseRating),
    how: Type.Enum(['measured', 'calculated']),
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

/** What else is to be seen after the repair, by the id that the list of proofs gives it. */
export const ProofAnswer = Type.Object(
  {
    kind: Type.Literal('proof-answer'),
    what: Id,
    answer: Type.Enum([...PROOF_ANSWERS]),
    /** What was seen, why it is not possible here, or whose it is. */
    words: Text,
    amps: Type.Optional(numberIn(BOUNDS.fuseCurrent)),
    volts: Type.Optional(numberIn(BOUNDS.proofVolts)),
  },
  strict,
);

export const WatchItem = Type.Object(
  {
    kind: Type.Literal('watch'),
    words: SomeText,
    due: Type.Optional(Day),
    /** Something to be watched where it is not said. */
    sort: Type.Optional(Type.Enum([...WATCH_SORTS])),
  },
  strict,
);

/** Put off, and why: of a watch item or of a temporary repair. */
export const WatchSnoozed = Type.Object(
  { kind: Type.Literal('watch-snoozed'), of: Uuid, due: Day, words: SomeText },
  strict,
);

/** The job goes to somebody else in the middle. */
export const HandedOver = Type.Object({ kind: Type.Literal('handed-over'), to: Name, words: Text }, strict);

/** A watch item is dealt with, and what was found then. */
export const WatchDone = Type.Object({ kind: Type.Literal('watch-done'), of: Uuid, words: SomeText }, strict);

export const StateChange = Type.Object(
  {
    kind: Type.Literal('state'),
    /** `asked`: somebody whose own word does not close it asks for another's. */
    state: Type.Enum(['open', 'waiting', 'asked', 'closed']),
    /** Why the job was closed although something was still missing; of one opened again, why. */
    override: Type.Optional(SomeText),
    /** It ends without a repair; `override` says then what makes it safe, or what was looked at. */
    ending: Type.Optional(Type.Enum(['made-safe', 'not-found'])),
  },
  strict,
);
