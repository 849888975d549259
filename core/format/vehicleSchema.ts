/** What the pages ask of a vehicle's record and of its customer. */
import { type Static, Type } from 'typebox';
import { BOUNDS } from './bounds';
import { NominalVolts, numberIn, oneOfKind, someText, strict, text, Uuid } from './schemaParts';

/** What is known of a vehicle itself. */
const VehicleRecordSchema = Type.Object(
  {
    name: someText(80),
    make: text(60),
    model: text(60),
    year: Type.Union([numberIn(BOUNDS.modelYear), Type.Null()]),
    plate: text(20),
    nominalVolts: Type.Union([NominalVolts, Type.Null()]),
    odometerKm: Type.Union([numberIn(BOUNDS.odometerKm), Type.Null()]),
    notes: text(2000),
    otherNames: text(200),
  },
  strict,
);

/** Each with an id of its own, so that a repeat changes nothing. */
export const VehicleChangeSchema = oneOfKind(
  Type.Object(
    {
      kind: Type.Literal('correct'),
      id: Uuid,
      /** As it is to be, and as the page showed it: what somebody else changed meanwhile is not undone. */
      now: VehicleRecordSchema,
      was: VehicleRecordSchema,
    },
    strict,
  ),
  Type.Object({ kind: Type.Literal('archive'), id: Uuid, archived: Type.Boolean() }, strict),
  Type.Object({ kind: Type.Literal('merge'), id: Uuid, into: Uuid }, strict),
  Type.Object(
    { kind: Type.Literal('customer'), id: Uuid, customerId: Uuid, name: someText(120), reach: text(400) },
    strict,
  ),
  Type.Object({ kind: Type.Literal('erase-customer'), id: Uuid }, strict),
);

export type VehicleRecord = Static<typeof VehicleRecordSchema>;
export type VehicleChange = Static<typeof VehicleChangeSchema>;
