/**
 * The job log and the job file, version 1. A job is its events in order; nothing else about it is stored.
 */
import { type Static, Type } from 'typebox';
import { BOUNDS, LARGEST_INTEGER } from './bounds';
import { CircuitFileSchema } from './circuitSchema';
import { FoundInSlot, PanelSetFileSchema, SlotStateName } from './panelSchema';
import { FunctionState, LampState, ReadingValueSchema, TestRefSchema } from './readingsSchema';
import {
  Day,
  Id,
  Instant,
  Name,
  NominalVolts,
  numberIn,
  oneOfKind,
  SomeText,
  strict,
  Text,
  text,
  Uuid,
} from './schemaParts';

/** Positions of key and engine, and what is switched on, in which feeds are told apart. */
const FeedStateName = Type.Enum(['off', 'off-waited', 'accessory', 'run', 'crank', 'running', 'function-on']);

export const EventBodySchema = oneOfKind(
  Type.Object(
    {
      kind: Type.Literal('complaint'),
      words: SomeText,
      function: Type.Optional(Id),
      condition: Type.Optional(Id),
      /** How it fails there, as reported; weighs less than what was seen. */
      state: Type.Optional(FunctionState),
      sound: Type.Optional(Text),
      pluggedIn: Type.Optional(Text),
      /** A portable appliance that was plugged in when it failed. */
      appliance: Type.Optional(
        Type.Object(
          {
            watts: Type.Optional(numberIn(BOUNDS.applianceWatts)),
            fusesTaken: numberIn(BOUNDS.fusesTaken),
          },
          strict,
        ),
      ),
      changedBefore: Type.Optional(Text),
    },
    strict,
  ),
  Type.Object(
    {
      kind: Type.Literal('identity'),
      nominalVolts: Type.Optional(NominalVolts),
      odometerKm: Type.Optional(numberIn(BOUNDS.odometerKm)),
      fuel: Type.Optional(Text),
      options: Type.Optional(Text),
      alterations: Type.Optional(Text),
    },
    strict,
  ),
  Type.Object(
    {
      kind: Type.Literal('function-check'),
      function: Id,
      condition: Id,
      state: FunctionState,
    },
    strict,
  ),
  Type.Object(
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
  ),
  /** Lamp or volts at the ends of a fuse, in one state of key and engine. */
  Type.Object(
    {
      kind: Type.Literal('slot-reading'),
      panel: Id,
      slot: Id,
      ends: Type.Array(
        Type.Object(
          {
            end: Type.Enum(['feed', 'load', 'load-2']),
            value: Type.Union([
              Type.Object({ lamp: LampState }, strict),
              Type.Object({ volts: Type.Number({ minimum: -1000, maximum: 1000 }) }, strict),
            ]),
          },
          strict,
        ),
        { minItems: 1, maxItems: 3 },
      ),
      state: FeedStateName,
      fuseOut: Type.Boolean(),
      testerProved: Type.Boolean(),
    },
    strict,
  ),
  /** What is in a slot, and how that is known. */
  Type.Object(
    {
      kind: Type.Literal('slot-state'),
      panel: Id,
      slot: Id,
      state: SlotStateName,
      found: Type.Optional(FoundInSlot),
      evidence: SomeText,
    },
    strict,
  ),
  /** A photo of a box, a slot or a step; the picture itself is kept under its id. */
  Type.Object(
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
  ),
  /** All marks on a photo, in shares of its width and height; the latest entry counts. */
  Type.Object(
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
  ),
  /** A step of isolation, done or undone again. */
  Type.Object(
    {
      kind: Type.Literal('isolation'),
      step: Type.Enum(['key-off', 'slept', 'earthed-pole-off', 'retained-power-waited', 'dead-reading']),
      done: Type.Boolean(),
    },
    strict,
  ),
  /** Work that wants isolation has begun; with a reason where the gate was passed all the same. */
  Type.Object(
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
  ),
  /** One end of a wire in one state of the feeds, before it is cut or toned. */
  Type.Object(
    {
      kind: Type.Literal('wire-reading'),
      wire: Id,
      end: Type.Enum(['a', 'b']),
      value: Type.Union([
        Type.Object({ lamp: LampState }, strict),
        Type.Object({ volts: Type.Number({ minimum: -1000, maximum: 1000 }) }, strict),
      ]),
      state: FeedStateName,
      testerProved: Type.Boolean(),
    },
    strict,
  ),
  Type.Object({ kind: Type.Literal('plug-tag'), panel: Id, plug: Id, tag: SomeText }, strict),
  /** Two relays stand in each other's places until they are put back. */
  Type.Object(
    {
      kind: Type.Literal('swapped'),
      one: Id,
      other: Id,
      functions: Type.Array(Id, { maxItems: 40 }),
    },
    strict,
  ),
  Type.Object({ kind: Type.Literal('swap-restored'), of: Uuid }, strict),
  /** Damage at a box: as it was found, or done here. The two never mix. */
  Type.Object(
    { kind: Type.Literal('damage'), panel: Id, words: SomeText, when: Type.Enum(['as-found', 'by-us']) },
    strict,
  ),
  /** Strikes an earlier entry; what replaces it is an event of its own. */
  Type.Object({ kind: Type.Literal('correction'), of: Uuid, reason: Type.Optional(Text) }, strict),
  Type.Object({ kind: Type.Literal('tester-proved'), on: SomeText }, strict),
  /** The appliance is unplugged and aside, or was shown to be sound. */
  Type.Object({ kind: Type.Literal('appliance-set-aside'), words: SomeText }, strict),
  Type.Object({ kind: Type.Literal('test-refused'), test: TestRefSchema, reason: Text }, strict),
  Type.Object({ kind: Type.Literal('caution-read'), caution: SomeText }, strict),
  Type.Object(
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
  ),
  Type.Object(
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
    },
    strict,
  ),
  Type.Object(
    {
      kind: Type.Literal('proof'),
      function: Id,
      condition: Id,
      state: FunctionState,
      /** What it should do there, as the list of proofs said it. */
      expected: Type.Optional(FunctionState),
    },
    strict,
  ),
  Type.Object({ kind: Type.Literal('watch'), words: SomeText, due: Type.Optional(Day) }, strict),
  /** A watch item is dealt with, and what was found then. */
  Type.Object({ kind: Type.Literal('watch-done'), of: Uuid, words: SomeText }, strict),
  Type.Object({ kind: Type.Literal('note'), words: SomeText }, strict),
  Type.Object(
    {
      kind: Type.Literal('state'),
      state: Type.Enum(['open', 'waiting', 'closed']),
      /** Why the job was closed although something was still missing. */
      override: Type.Optional(SomeText),
    },
    strict,
  ),
);

export const JobEventSchema = Type.Object(
  {
    id: Uuid,
    jobId: Uuid,
    madeAt: Instant,
    /** Order in which the client made its events; the server's sequence is its own. */
    clientOrder: Type.Integer({ minimum: 0, maximum: LARGEST_INTEGER }),
    body: EventBodySchema,
  },
  strict,
);

export const StoredEventSchema = Type.Object(
  {
    id: Uuid,
    seq: Type.Integer({ minimum: 1, maximum: LARGEST_INTEGER }),
    person: Name,
    madeAt: Instant,
    arrivedAt: Instant,
    clientOrder: Type.Integer({ minimum: 0, maximum: LARGEST_INTEGER }),
    body: EventBodySchema,
  },
  strict,
);

export const JobFileSchema = Type.Object(
  {
    format: Type.Literal('every-trace/job'),
    version: Type.Literal(1),
    job: Type.Object({ id: Uuid, title: SomeText, openedAt: Instant }, strict),
    vehicle: Type.Object(
      {
        name: SomeText,
        make: Text,
        model: Text,
        year: Type.Union([numberIn(BOUNDS.modelYear), Type.Null()]),
        plate: Text,
      },
      strict,
    ),
    circuits: Type.Array(CircuitFileSchema, { maxItems: 40 }),
    panelSet: Type.Union([PanelSetFileSchema, Type.Null()]),
    events: Type.Array(StoredEventSchema, { maxItems: 20000 }),
  },
  { ...strict, $id: 'every-trace/job/1', title: 'Every Trace job file, version 1' },
);

export type EventBody = Static<typeof EventBodySchema>;
export type EventKind = EventBody['kind'];
export type BodyOf<K extends EventKind> = Extract<EventBody, { kind: K }>;
export type JobEvent = Static<typeof JobEventSchema>;
export type StoredEvent = Static<typeof StoredEventSchema>;
export type JobFile = Static<typeof JobFileSchema>;
