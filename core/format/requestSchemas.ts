/** What the pages ask the server to make, besides entries of the log. Each request has an id of its own, so that a repeat makes nothing twice. */
import { type Static, Type } from 'typebox';
import { BOUNDS, LARGEST_INTEGER } from './bounds';
import { WORKS } from './lists';
import { PlanInEntry } from './planSchema';
import { Id, NominalVolts, numberIn, someText, strict, text, Uuid } from './schemaParts';

/** Opens a job; a vehicle that is not there yet, its voltage and the circuit of a pattern come with it. */
export const NewJobSchema = Type.Object(
  {
    /** Of the request and of the job. */
    id: Uuid,
    /** What fails, in the words of the complaint. */
    title: someText(160),
    vehicleId: Uuid,
    /** Given where the vehicle is new. */
    vehicleName: Type.Optional(someText(80)),
    plate: Type.Optional(text(20)),
    nominalVolts: Type.Optional(NominalVolts),
    pattern: Type.Optional(Id),
    /** What has to be made before it may run. */
    interlocks: Type.Optional(Type.Array(Id, { maxItems: 8 })),
    /** How the current comes back: by the body, or by wires of its own. */
    returns: Type.Optional(Type.Enum(['body', 'insulated'])),
    /** What the load of the pattern is, as a word of the notation. */
    kind: Type.Optional(Id),
    load: Type.Optional(text(60)),
    state: Type.Optional(Type.Enum(['dead', 'weak', 'comes-and-goes', 'on-when-off'])),
    /** What fails, by the circuits of the vehicle. */
    function: Type.Optional(Id),
    pluggedIn: Type.Optional(text(200)),
    nothingPluggedIn: Type.Optional(Type.Boolean()),
    changedBefore: Type.Optional(text(200)),
    /** Nothing fails: the job is work. */
    work: Type.Optional(Type.Enum([...WORKS])),
  },
  strict,
);

/** A vehicle by name, plate and volts, each of which but the name may come later. */
export const NewVehicleSchema = Type.Object(
  {
    id: Uuid,
    vehicleId: Uuid,
    name: someText(80),
    plate: Type.Optional(text(20)),
    nominalVolts: Type.Optional(NominalVolts),
  },
  strict,
);

/** Brings a circuit or a panel set in, as the text of its file or of the notation. */
export const ImportSchema = Type.Object(
  {
    id: Uuid,
    text: Type.String({ minLength: 1 }),
    /** The version that it was edited from, 0 for none; not said where it is meant to replace. */
    base: Type.Optional(Type.Integer({ minimum: 0, maximum: LARGEST_INTEGER })),
  },
  strict,
);

/** What was learned of one part. `was` holds the fields as the page showed them, so that two people undo nothing. */
export const FactSchema = Type.Object(
  {
    id: Uuid,
    part: Id,
    fields: Type.Record(Type.String({ pattern: '^[A-Za-z0-9]{1,40}$' }), Type.Unknown(), {
      ...strict,
      minProperties: 1,
    }),
    was: Type.Optional(Type.Record(Type.String({ pattern: '^[A-Za-z0-9]{1,40}$' }), Type.Unknown(), strict)),
  },
  strict,
);

/** Starts the counts of faults anew: the id says it all. */
export const BareRequestSchema = Type.Object({ id: Uuid }, strict);

/** What an hour of the shop costs. */
export const RateSchema = Type.Object(
  { id: Uuid, rate: Type.Union([numberIn(BOUNDS.price), Type.Null()]) },
  strict,
);

export type NewJob = Static<typeof NewJobSchema>;
export type NewVehicle = Static<typeof NewVehicleSchema>;
export type ImportRequest = Static<typeof ImportSchema>;
export type PartFact = Static<typeof FactSchema>;

/** Carries a plan of a job out. */
export const CarryOutSchema = Type.Object({ id: Uuid, plan: Id }, strict);

/** Opens a job in which a change is taken back; the id is that of the request and of the job. */
export const UndoSchema = Type.Object({ id: Uuid, job: Uuid, plan: Id }, strict);

/** Keeps a plan as a recipe of the shop, with what it rests on; the plan itself is checked by its own schema. */
export const RecipeSchema = Type.Object(
  {
    id: Uuid,
    name: someText(160),
    plan: PlanInEntry,
    rests: Type.Array(
      Type.Object(
        {
          id: Id,
          kind: Type.Enum(['part', 'point', 'function']),
          name: someText(160),
          partKind: Type.Optional(Id),
        },
        strict,
      ),
      { maxItems: 400 },
    ),
  },
  strict,
);
