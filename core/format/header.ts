/** The first two lines of every file: which format, and which version of it. */
import { type Checked, fail } from './problem';

/** Refuses a file of another kind or of a newer version with a clear word before looking further. */
export function checkHeader(data: unknown, format: string, version: number): Checked<unknown> {
  if (!data || typeof data !== 'object' || Array.isArray(data)) {
    return fail('not-an-object', '', 'The file must hold one object in braces.');
  }
  const header = data as { format?: unknown; version?: unknown };
  if (header.format !== format) {
    return fail(
      'wrong-format',
      '/format',
      header.format === undefined
        ? `“format” is missing. This kind of file starts with "format": "${format}".`
        : `This is a file of the format “${String(header.format).slice(0, 60)}”; “${format}” is wanted here.`,
    );
  }
  if (typeof header.version === 'number' && header.version > version) {
    return fail(
      'newer-version',
      '/version',
      `The file has version ${header.version}; this program reads up to version ${version}. Update the program, or export in the older version.`,
    );
  }
  return { ok: true, value: data };
}
