/** What a person has at hand, and how that person works: kept per person, honoured when tests are chosen. */
import { type Static, Type } from 'typebox';
import { INSTRUMENT_NAMES } from './lists';
import { strict, Uuid } from './schemaParts';

const HandSchema = Type.Object(
  {
    /** Instruments that are not there: tests with them are never proposed. */
    without: Type.Array(Type.Enum([...INSTRUMENT_NAMES]), { maxItems: 5 }),
    /** Volts of the filament lamps at hand. */
    lampVolts: Type.Array(Type.Number({ minimum: 1, maximum: 60 }), { maxItems: 4 }),
    /** A fuse: read at both ends where it sits, or pulled first. */
    fuses: Type.Enum(['probe', 'pull']),
    tester: Type.Enum(['either', 'lamp', 'meter']),
    exchange: Type.Enum(['early', 'last']),
    /** Battery off by the task, or always before hands go in. */
    isolation: Type.Enum(['by-task', 'always']),
  },
  strict,
);

export const HandRequestSchema = Type.Object({ id: Uuid, hand: HandSchema }, strict);

export type Hand = Static<typeof HandSchema>;
export type HandRequest = Static<typeof HandRequestSchema>;
