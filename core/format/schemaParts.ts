/** Small pieces that the file schemas share. */
import { type Static, type TSchema, Type } from 'typebox';
import { NOMINAL_VOLTS } from '../circuit/defaults';
import { UUID_PATTERN } from './uuid';

export const strict = { additionalProperties: false } as const;

/** Ids are written by hand in files, so they stay plain. */
export const Id = Type.String({ minLength: 1, maxLength: 80, pattern: '^[A-Za-z0-9][A-Za-z0-9._:-]*$' });
export const Name = Type.String({ minLength: 1, maxLength: 160 });
export const Text = Type.String({ maxLength: 2000 });
export const SomeText = Type.String({ minLength: 1, maxLength: 2000 });
export const Uuid = Type.String({ pattern: UUID_PATTERN });
/** ISO 8601 with zone. */
export const Instant = Type.String({
  pattern: '^\\d{4}-\\d{2}-\\d{2}T\\d{2}:\\d{2}:\\d{2}(\\.\\d{1,6})?(Z|[+-]\\d{2}:\\d{2})$',
});
export const Day = Type.String({ pattern: '^\\d{4}-\\d{2}-\\d{2}$' });
export const NominalVolts = Type.Enum([...NOMINAL_VOLTS]);

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
