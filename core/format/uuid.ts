/** Ids of what the program itself makes: RFC 9562, in small letters. */
export const UUID_PATTERN = '^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$';

const UUID = new RegExp(UUID_PATTERN);

export function isUuid(value: unknown): value is string {
  return typeof value === 'string' && UUID.test(value);
}
