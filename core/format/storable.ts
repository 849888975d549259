/**
 * Texts that a database and every reader of an open file can keep: no NUL, which PostgreSQL has no place for, and no
 * half of a surrogate pair, which UTF-8 cannot write. Compiled with the `u` flag, so that whole pairs are one letter.
 */
export const STORABLE_PATTERN = '^[^\\u0000\\ud800-\\udfff]*$';
