/** What fails, on what vehicle, and what was seen of its functions before anything was touched. */
import { Type } from 'typebox';
import { BOUNDS } from '../bounds';
import { ConditionSchema } from '../circuitSchema';
import { WORKS } from '../lists';
import { FunctionState, SoundHeard } from '../readingsSchema';
import { Id, NominalVolts, numberIn, SomeText, strict, Text } from '../schemaParts';

export const Complaint = Type.Object(
  {
    kind: Type.Literal('complaint'),
    words: SomeText,
    /** The job is work and no fault; then `words` say what is to be done. */
    work: Type.Optional(Type.Enum([...WORKS])),
    function: Type.Optional(Id),
    condition: Type.Optional(Id),
    /** How it fails there, as reported; weighs less than what was seen. */
    state: Type.Optional(FunctionState),
    /** What is heard while it is switched on. */
    heard: Type.Optional(SoundHeard),
    /** The same in words. */
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
);

export const VehicleIdentity = Type.Object(
  {
    kind: Type.Literal('identity'),
    nominalVolts: Type.Optional(NominalVolts),
    odometerKm: Type.Optional(numberIn(BOUNDS.odometerKm)),
    fuel: Type.Optional(Text),
    options: Type.Optional(Text),
    alterations: Type.Optional(Text),
  },
  strict,
);

export const FunctionCheck = Type.Object(
  { kind: Type.Literal('function-check'), function: Id, condition: Id, state: FunctionState },
  strict,
);

/** Key and switches as they stood when something was seen, where the map has no such condition. */
export const ConditionSet = Type.Object(
  { kind: Type.Literal('condition-set'), condition: ConditionSchema },
  strict,
);
