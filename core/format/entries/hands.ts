/** What hands do: isolate, begin work, read and cut wires, exchange relays. */
import { Type } from 'typebox';
import { ISOLATION_STEPS } from '../lists';
import { Id, SomeText, strict, Uuid } from '../schemaParts';
import { KeyStateName, LampOrVolts } from './parts';

/** A step of isolation, done or undone again. */
export const Isolation = Type.Object(
  {
    kind: Type.Literal('isolation'),
    step: Type.Enum([...ISOLATION_STEPS]),
    done: Type.Boolean(),
  },
  strict,
);

/** Work that wants isolation has begun; with a reason where the gate was passed all the same. */
export const TaskBegun = Type.Object(
  {
    kind: Type.Literal('task-begun'),
    task: Id,
    panel: Type.Optional(Id),
    wire: Type.Optional(Id),
    part: Type.Optional(Id),
    /** Why it was begun although it was blocked. */
    override: Type.Optional(SomeText),
  },
  strict,
);

/** One end of a wire in one state of the feeds, before it is cut or toned. */
export const WireRead = Type.Object(
  {
    kind: Type.Literal('wire-reading'),
    wire: Id,
    end: Type.Enum(['a', 'b']),
    value: LampOrVolts,
    state: KeyStateName,
    testerProved: Type.Boolean(),
  },
  strict,
);

/** Two relays stand in each other's places until they are put back. */
export const Swapped = Type.Object(
  {
    kind: Type.Literal('swapped'),
    one: Id,
    other: Id,
    functions: Type.Array(Id, { maxItems: 40 }),
  },
  strict,
);

/** Which part sits in a place after a known good one was tried there. */
export const PartInPlace = Type.Object(
  { kind: Type.Literal('part-in-place'), part: Id, sits: Type.Enum(['own', 'known-good']) },
  strict,
);

/** A whole unit tried between two vehicles, a cell of its table: this one or a known good one, here or where such a one works. */
export const UnitTried = Type.Object(
  {
    kind: Type.Literal('unit-tried'),
    unit: SomeText,
    cell: Type.Enum(['own-here', 'good-here', 'own-there', 'good-there']),
    state: Type.Enum(['works', 'fails']),
  },
  strict,
);

export const SwapRestored = Type.Object({ kind: Type.Literal('swap-restored'), of: Uuid }, strict);
