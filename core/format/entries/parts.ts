/** Pieces that entries about slots and wires share. */
import { Type } from 'typebox';
import { KEY_STATES } from '../lists';
import { LampState } from '../readingsSchema';
import { strict } from '../schemaParts';

/** Positions of key and engine, and what is switched on, in which feeds are told apart. */
export const KeyStateName = Type.Enum([...KEY_STATES]);

/** What a lamp or a meter showed. */
export const LampOrVolts = Type.Union([
  Type.Object({ lamp: LampState }, strict),
  Type.Object({ volts: Type.Number({ minimum: -1000, maximum: 1000 }) }, strict),
]);
