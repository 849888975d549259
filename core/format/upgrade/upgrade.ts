/**
 * Files and entries of an earlier version, brought up to the newest step by step. A format that changes gets one step
 * more; the steps of earlier versions are never touched again, and a stored file of each stays among the tests.
 */
import { type Checked, fail } from '../problem';
import { jobFrom1 } from './jobFrom1';
import type { Step } from './step';

const STEPS = {
  'every-trace/circuit': [],
  'every-trace/panel-set': [],
  'every-trace/plan': [],
  'every-trace/readings': [],
  'every-trace/job': [jobFrom1],
} satisfies Readonly<Record<string, readonly Step[]>>;

export type Format = keyof typeof STEPS;

const stepsOf = (format: Format): readonly Step[] => STEPS[format];

/** The version that is written now. */
export const newestVersion = (format: Format): number => stepsOf(format).length + 1;

/**
 * A parsed file as one of the newest version. Refuses a file of another kind or of a newer version with a clear word;
 * what is wrong inside is left to the schema.
 */
export function upgraded(data: unknown, format: Format): Checked<unknown> {
  if (!data || typeof data !== 'object' || Array.isArray(data)) {
    return fail('not-an-object', '', 'The file must hold one object in braces.');
  }
  const file = data as Record<string, unknown>;
  if (file.format !== format) {
    return fail(
      'wrong-format',
      '/format',
      file.format === undefined
        ? `“format” is missing. This kind of file starts with "format": "${format}".`
        : `This is a file of the format “${String(file.format).slice(0, 60)}”; “${format}” is wanted here.`,
    );
  }
  const newest = newestVersion(format);
  const { version } = file;
  if (typeof version === 'number' && version > newest) {
    return fail(
      'newer-version',
      '/version',
      `The file has version ${version}; this program reads up to version ${newest}. Update the program, or export in the older version.`,
    );
  }
  if (typeof version !== 'number' || !Number.isInteger(version) || version < 1 || version === newest) {
    return { ok: true, value: data };
  }
  const value = stepsOf(format)
    .slice(version - 1)
    .reduce(
      (now: Record<string, unknown>, step, index) => ({ ...step(now), version: version + index + 1 }),
      file,
    );
  return { ok: true, value };
}
