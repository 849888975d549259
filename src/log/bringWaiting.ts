/** A file of what waited elsewhere, read in: checked whole, then sent as if it had been made here. */
import {
  type Checked,
  checkEvent,
  fail,
  readJson,
  validateWaitingFrame,
  validateWith,
  WAITING_FORMAT,
  type WaitingFile,
} from '#core/format';
import type { WaitingEvent, WaitingPicture } from './outbox';
import type { Sender } from './sender';

/** Largest file that is read: twenty pictures and all entries of a long day. */
const MOST_BYTES = 200 * 1024 * 1024;

/** Reads such a file and hands what is in it to the sender, which sends it as if it had been made here. */
export async function bringWaiting(
  outgoing: Sender,
  text: string,
): Promise<Checked<{ readonly count: number }>> {
  const read = readWaiting(text);
  if (!read.ok) return read;
  const events = read.value.entries.map(
    ({ event, by }): WaitingEvent => ({ ...event, ...(by ? { by } : {}) }),
  );
  const pictures = read.value.pictures.map(
    ({ id, jobId, by, type, bytes }): WaitingPicture => ({
      id,
      jobId,
      blob: new Blob([Uint8Array.from(atob(bytes), (one) => one.charCodeAt(0))], { type }),
      ...(by ? { by } : {}),
    }),
  );
  await outgoing.bring(events, pictures);
  return { ok: true, value: { count: events.length + pictures.length } };
}

function readWaiting(text: string): Checked<WaitingFile> {
  const json = readJson(text, MOST_BYTES);
  if (!json.ok) return json;
  const { format, version } = (json.value ?? {}) as { format?: unknown; version?: unknown };
  if (format !== WAITING_FORMAT)
    return fail('other-file', '', 'This is no file of entries that waited in a browser.');
  if (typeof version === 'number' && version > 1) {
    return fail(
      'newer-version',
      '/version',
      'The file was written by a newer program. Update this one; the file stays good.',
    );
  }
  const checked = validateWith<WaitingFile>(validateWaitingFrame, json.value);
  if (!checked.ok) return checked;
  for (const [index, { event }] of checked.value.entries.entries()) {
    const entry = checkEvent(event);
    if (!entry.ok) {
      const problems = entry.problems.map((one) => ({ ...one, path: `/entries/${index}/event${one.path}` }));
      return { ok: false, problems };
    }
  }
  return checked;
}
