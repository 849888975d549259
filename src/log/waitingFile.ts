/** What waits in this browser as a file, for an address that is not reached any more. */
import { WAITING_FORMAT, type WaitingFile } from '#core/format';
import type { Sender } from './sender';

/** Everything that waits, with whose it is. */
export async function waitingFile(outgoing: Sender): Promise<WaitingFile> {
  const { events, pictures } = outgoing.everything();
  return {
    format: WAITING_FORMAT,
    version: 1,
    savedAt: new Date().toISOString(),
    entries: events.map(({ refused: _refused, by, ...event }) => ({ event, ...(by ? { by } : {}) })),
    pictures: await Promise.all(
      pictures.map(async ({ id, jobId, blob, by }) => ({
        id,
        jobId,
        type: blob.type || 'image/jpeg',
        bytes: await base64Of(blob),
        ...(by ? { by } : {}),
      })),
    ),
  };
}

function base64Of(blob: Blob): Promise<string> {
  return new Promise((resolve, reject) => {
    const reader = new FileReader();
    reader.onload = () => resolve(String(reader.result).replace(/^[^,]*,/, ''));
    reader.onerror = () => reject(reader.error);
    reader.readAsDataURL(blob);
  });
}
