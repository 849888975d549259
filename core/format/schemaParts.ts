/** Small pieces that the file schemas share. */
import { type Static, type TSchema, Type } from 'typebox';
import type { NumberRange } from '../quantity';
import { NOMINAL_VOLTS } from './bounds';
import { DAY_PATTERN, INSTANT_PATTERN } from './calendar';
import { STORABLE_PATTERN } from './storable';
import { UUID_PATTERN } from './uuid';

export const strict = { additionalProperties: false } as const;

/** A text that may be empty, of at most so many characters. */
export const text = (maxLength: number) => Type.String({ maxLength, pattern: STORABLE_PATTERN });
/** A text that says something. */
export const someText = (maxLength: number) =>
  Type.String({ minLength: 1, maxLength, pattern: STORABLE_PATTERN });

/** Ids are written by hand in files, so they stay plain. */
export const Id = Type.String({ minLength: 1, maxLength: 80, pattern: '^[A-Za-z0-9][A-Za-z0-9._:-]*$' });
export const PinName = Type.String({ pattern: '^[A-Za-z0-9-]{1,20}$' });
export const Name = someText(160);
export const Text = text(2000);
export const SomeText = someText(2000);
export const Uuid = Type.String({ pattern: UUID_PATTERN });

export const Day = Type.String({ pattern: DAY_PATTERN });
/** ISO 8601 with zone. */
export const Instant = Type.String({ pattern: INSTANT_PATTERN });
export const NominalVolts = Type.Enum([...NOMINAL_VOLTS]);

/** The number that a form reads by the same range. */
export function numberIn({ least, above, most, whole }: NumberRange) {
  const range = {
    ...(least === undefined ? {} : { minimum: least }),
    ...(above === undefined ? {} : { exclusiveMinimum: above }),
    maximum: most,
  };
  return whole ? Type.Integer(range) : Type.Number(range);
}

/** Values by keys of a certain form; any other key is refused. */
export function keyed<K extends TSchema, V extends TSchema>(key: K, value: V, options: object = {}) {
  return Type.Record(key, value, { ...options, ...strict });
}

/**
 * One of several shapes told apart by `kind`. Written as `oneOf` with a discriminator, so that a fault in
 * one shape is reported against that shape alone and not against all of them.
 */
export function oneOfKind<T extends readonly TSchema[]>(...shapes: T) {
  return Type.Unsafe<Static<T[number]>>({
    type: 'object',
    discriminator: { propertyName: 'kind' },
    required: ['kind'],
    oneOf: shapes,
  });
}
