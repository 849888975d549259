/** A change that is planned, done step by step, and carried out or taken back. */
import { Type } from 'typebox';
import type { Slot } from '../panelSchema';
import { type CircuitPatch, PlanInEntry } from '../planSchema';
import { Id, Name, SomeText, someText, strict, Uuid } from '../schemaParts';

/** Written by the server when a plan is carried out; checked with the files that it is made in. */
const Patch = Type.Unsafe<CircuitPatch>({ type: 'object' });
const SlotThen = Type.Unsafe<Slot>({ type: 'object', required: ['id', 'type', 'number'] });

/** The plan as it now stands; the latest of its id counts. */
export const PlanStated = Type.Object({ kind: Type.Literal('plan'), plan: PlanInEntry }, strict);

/** A step of the work: done, found not to be as it should, passed with a reason, or taken back. */
export const PlanStep = Type.Object(
  {
    kind: Type.Literal('plan-step'),
    plan: Id,
    step: Id,
    how: Type.Enum(['done', 'wrong', 'override', 'back']),
    /** The step in words, as it was read. */
    words: SomeText,
    reason: Type.Optional(SomeText),
    /** What was read, in the unit of the step. */
    value: Type.Optional(Type.Number({ minimum: -1000, maximum: 5000 })),
    /** Somebody who watched, or who was at the key. */
    watched: Type.Optional(Name),
    /** What it leaves on the vehicle while the plan is not carried out. */
    leaves: Type.Optional(SomeText),
    /** The entry that it takes back. */
    of: Type.Optional(Uuid),
  },
  strict,
);

/** Something that the plan shows stays, and why. */
export const FindingKept = Type.Object(
  {
    kind: Type.Literal('finding-kept'),
    plan: Id,
    finding: someText(400),
    words: SomeText,
    reason: SomeText,
  },
  strict,
);

/** The end of a plan: what it made of the files, so that it can be undone exactly, or that it was taken back or given up. */
export const PlanEnded = Type.Object(
  {
    kind: Type.Literal('plan-ended'),
    plan: Id,
    how: Type.Enum(['carried', 'taken-back', 'dropped']),
    name: Name,
    /** What was done, and how it is undone, sentence by sentence. */
    words: Type.Array(SomeText, { maxItems: 200 }),
    undo: Type.Array(SomeText, { maxItems: 200 }),
    /** Steps that were passed with a reason. */
    passed: Type.Optional(Type.Array(SomeText, { maxItems: 200 })),
    /** By circuit file; a circuit that the plan brought is made, and undone with it. */
    files: Type.Optional(
      Type.Array(
        Type.Object({ circuit: Id, made: Type.Optional(Type.Literal(true)), patch: Patch }, strict),
        {
          maxItems: 40,
        },
      ),
    ),
    slots: Type.Optional(
      Type.Array(Type.Object({ panel: Id, slot: Id, before: SlotThen, after: SlotThen }, strict), {
        maxItems: 200,
      }),
    ),
    /** As they were printed. */
    labels: Type.Optional(
      Type.Array(
        Type.Object(
          {
            sort: Type.Enum(['cover', 'flag', 'receptacle', 'quarantine']),
            title: Name,
            lines: Type.Array(SomeText, { maxItems: 12 }),
          },
          strict,
        ),
        { maxItems: 200 },
      ),
    ),
    undoes: Type.Optional(Type.Object({ job: Uuid, plan: Id }, strict)),
  },
  strict,
);
