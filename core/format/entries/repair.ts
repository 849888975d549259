/** What was done to which part, with what, and what of it is only for a while. */
import { type Static, Type } from 'typebox';
import { BOUNDS } from '../bounds';
import { CONTACT_FORMS, FUSE_FAMILIES, JOINTS, REPAIR_DEEDS } from '../lists';
import {
  Day,
  Id,
  Name,
  NominalVolts,
  numberIn,
  oneOfKind,
  SomeText,
  strict,
  Text,
  Uuid,
} from '../schemaParts';

/** What decides whether a part is like another, kind by kind; what is not said is not known. */
const FuseKind = Type.Object(
  {
    kind: Type.Literal('fuse'),
    family: Type.Optional(Type.Enum([...FUSE_FAMILIES])),
    ratingAmps: Type.Optional(numberIn(BOUNDS.fuseRating)),
    /** For which it is made, volts; a blade of a car for 32. */
    volts: Type.Optional(numberIn(BOUNDS.partVolts)),
  },
  strict,
);
const RelayKind = Type.Object(
  {
    kind: Type.Literal('relay'),
    /** As printed; the same number is the same relay. */
    number: Type.Optional(Name),
    /** Size and arrangement of its pins. */
    footprint: Type.Optional(Name),
    /** Which pin has which role: two relays of one footprint may differ. */
    layout: Type.Optional(Name),
    contact: Type.Optional(Type.Enum([...CONTACT_FORMS])),
    coilVolts: Type.Optional(numberIn(BOUNDS.partVolts)),
    suppression: Type.Optional(Type.Enum(['none', 'resistor', 'diode'])),
    /** Which coil pin is plus, where a diode lies across it. */
    plusPin: Type.Optional(Type.Enum(['85', '86'])),
    contactAmps: Type.Optional(numberIn(BOUNDS.partAmps)),
  },
  strict,
);
const LampKind = Type.Object(
  {
    kind: Type.Literal('lamp'),
    volts: Type.Optional(numberIn(BOUNDS.partVolts)),
    watts: Type.Optional(numberIn(BOUNDS.lampWatts)),
    base: Type.Optional(Name),
  },
  strict,
);
const WireKind = Type.Object(
  {
    kind: Type.Literal('wire'),
    sizeMm2: Type.Optional(numberIn(BOUNDS.wireMm2)),
    /** What its insulation bears, °C. */
    celsius: Type.Optional(numberIn(BOUNDS.insulation)),
    /** Sizes that the terminal at its end takes, mm². */
    terminalMm2: Type.Optional(Type.Array(numberIn(BOUNDS.wireMm2), { minItems: 2, maxItems: 2 })),
  },
  strict,
);
const SwitchKind = Type.Object(
  {
    kind: Type.Literal('switch'),
    action: Type.Optional(Type.Enum(['momentary', 'latching'])),
    amps: Type.Optional(numberIn(BOUNDS.partAmps)),
  },
  strict,
);
const ConnectorKind = Type.Object(
  {
    kind: Type.Literal('connector'),
    series: Type.Optional(Name),
    cavities: Type.Optional(numberIn(BOUNDS.cavities)),
    sealed: Type.Optional(Type.Boolean()),
  },
  strict,
);
export const PartKindSchema = oneOfKind(FuseKind, RelayKind, LampKind, WireKind, SwitchKind, ConnectorKind);

export type KindOfPart = Static<typeof PartKindSchema>;

/** One part of a repair. */
const RepairLineSchema = Type.Object(
  {
    /** Of the circuit; left out where the map has it not. */
    part: Type.Optional(Id),
    name: Name,
    deed: Type.Enum([...REPAIR_DEEDS]),
    /** Where on the vehicle. */
    place: Type.Optional(Text),
    /** What belongs there and what was fitted, as they stood then: the map may say something else later. */
    wanted: Type.Optional(PartKindSchema),
    fitted: Type.Optional(PartKindSchema),
    nominalVolts: Type.Optional(NominalVolts),
    /** The thinnest wire behind a fuse, mm². */
    wireMm2: Type.Optional(numberIn(BOUNDS.wireMm2)),
    joint: Type.Optional(
      Type.Object(
        {
          method: Type.Enum([...JOINTS]),
          /** Whether it held when it was pulled, and whether it is sealed; left out where nobody tried. */
          pulled: Type.Optional(Type.Boolean()),
          sealed: Type.Optional(Type.Boolean()),
        },
        strict,
      ),
    ),
  },
  strict,
);
export type RepairLine = Static<typeof RepairLineSchema>;

/** Something that was used up. */
const PartUsed = Type.Object(
  {
    name: SomeText,
    count: numberIn(BOUNDS.partCount),
    from: Type.Optional(Type.Enum(['stock', 'bought', 'customer', 'vehicle'])),
    /** The item of the stock, and the place that it was taken from. */
    stock: Type.Optional(Type.Object({ item: Uuid, place: Uuid }, strict)),
  },
  strict,
);

export const Repair = Type.Object(
  {
    kind: Type.Literal('repair'),
    words: SomeText,
    partsUsed: Type.Array(PartUsed, { maxItems: 40 }),
    lines: Type.Optional(Type.Array(RepairLineSchema, { maxItems: 40 })),
    /** Not said where nobody looked at a clock. */
    minutes: Type.Optional(numberIn(BOUNDS.repairMinutes)),
    temporary: Type.Boolean(),
    due: Type.Optional(Day),
    undo: Type.Optional(Text),
    /** Why something that is no repair was fitted all the same. */
    reason: Type.Optional(SomeText),
    /** Temporary repairs of this job that it puts right. */
    ends: Type.Optional(Type.Array(Uuid, { maxItems: 20 })),
  },
  strict,
);

/** Somebody decides that a temporary part stays, and says why. */
export const TemporaryEnded = Type.Object(
  { kind: Type.Literal('temporary-ended'), of: Uuid, words: SomeText, decidedBy: Name },
  strict,
);

/** The clock of the work: started or stopped at the moment of the entry. */
export const WorkClock = Type.Object(
  { kind: Type.Literal('clock'), step: Type.Enum(['start', 'stop']) },
  strict,
);

/** What became of an appliance that was set aside. */
export const ApplianceReleased = Type.Object(
  { kind: Type.Literal('appliance-released'), of: Uuid, words: SomeText },
  strict,
);
