/** An entry of the log, and the job file, version 2. A job is its entries in order; nothing else about it is stored. */
import { type Static, Type } from 'typebox';
import { BOUNDS, LARGEST_INTEGER } from './bounds';
import { CircuitFileSchema } from './circuitSchema';
import { Complaint, ConditionSet, FunctionCheck, VehicleIdentity } from './entries/complaint';
import {
  Found,
  FuseCurrent,
  HandedOver,
  Proof,
  ProofAnswer,
  StateChange,
  WatchDone,
  WatchItem,
  WatchSnoozed,
} from './entries/conclusion';
import {
  Isolation,
  PartInPlace,
  Swapped,
  SwapRestored,
  TaskBegun,
  UnitTried,
  WireRead,
} from './entries/hands';
import { CautionRead, Correction, Note, WorkPlace } from './entries/notes';
import { BoardCheck, OptionChosen, RepairOption } from './entries/options';
import { Photo, PhotoMarks } from './entries/photos';
import { FindingKept, PlanEnded, PlanStated, PlanStep } from './entries/plans';
import { ApplianceSetAside, PluggedIn, ReadingTaken, TesterProved, TestRefused } from './entries/reading';
import { ApplianceReleased, Repair, TemporaryEnded, WorkClock } from './entries/repair';
import { Damage, PlugTag, SlotDropTaken, SlotReadingTaken, SlotSeen } from './entries/slots';
import { PanelSetFileSchema } from './panelSchema';
import {
  Instant,
  Name,
  NominalVolts,
  numberIn,
  oneOfKind,
  SomeText,
  strict,
  Text,
  Uuid,
} from './schemaParts';

const EventBodySchema = oneOfKind(
  Complaint,
  VehicleIdentity,
  FunctionCheck,
  ConditionSet,
  ReadingTaken,
  SlotReadingTaken,
  SlotDropTaken,
  SlotSeen,
  Photo,
  PhotoMarks,
  Isolation,
  TaskBegun,
  WireRead,
  PlugTag,
  Swapped,
  SwapRestored,
  PartInPlace,
  UnitTried,
  Damage,
  Correction,
  TesterProved,
  ApplianceSetAside,
  ApplianceReleased,
  PluggedIn,
  TestRefused,
  CautionRead,
  WorkPlace,
  Found,
  FuseCurrent,
  RepairOption,
  OptionChosen,
  BoardCheck,
  Repair,
  TemporaryEnded,
  WorkClock,
  Proof,
  ProofAnswer,
  WatchItem,
  WatchSnoozed,
  WatchDone,
  HandedOver,
  PlanStated,
  PlanStep,
  FindingKept,
  PlanEnded,
  Note,
  StateChange,
);

/** The versions of entries that there are. */
const EntryVersion = Type.Integer({ minimum: 1, maximum: 1 });

export const JobEventSchema = Type.Object(
  {
    id: Uuid,
    jobId: Uuid,
    /** Of what it says; 1 where it is not said. */
    version: Type.Optional(EntryVersion),
    madeAt: Instant,
    /** Order in which the client made its events; the server's sequence is its own. */
    clientOrder: Type.Integer({ minimum: 0, maximum: LARGEST_INTEGER }),
    body: EventBodySchema,
  },
  strict,
);

const StoredEventSchema = Type.Object(
  {
    id: Uuid,
    version: EntryVersion,
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
    version: Type.Literal(2),
    job: Type.Object({ id: Uuid, title: SomeText, openedAt: Instant }, strict),
    vehicle: Type.Object(
      {
        name: SomeText,
        make: Text,
        model: Text,
        year: Type.Union([numberIn(BOUNDS.modelYear), Type.Null()]),
        plate: Text,
        nominalVolts: Type.Union([NominalVolts, Type.Null()]),
        odometerKm: Type.Union([numberIn(BOUNDS.odometerKm), Type.Null()]),
      },
      strict,
    ),
    circuits: Type.Array(CircuitFileSchema, { maxItems: 40 }),
    panelSet: Type.Union([PanelSetFileSchema, Type.Null()]),
    events: Type.Array(StoredEventSchema, { maxItems: 20000 }),
  },
  { ...strict, $id: 'every-trace/job/2', title: 'Every Trace job file, version 2' },
);

export type EventBody = Static<typeof EventBodySchema>;
export type EventKind = EventBody['kind'];
export type BodyOf<K extends EventKind> = Extract<EventBody, { kind: K }>;
export type JobEvent = Static<typeof JobEventSchema>;
export type JobFile = Static<typeof JobFileSchema>;
