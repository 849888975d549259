import type { Instrumentation } from 'next';

/** A path as it may be written down: what a link carries behind its first word lets somebody in. */
function withoutSecret(path: string): string {
  return (path.split('?')[0] ?? '').replace(/\/(guest|enter|feed)\/[^/]+/, '/$1/…');
}

/** A page or route that failed, written down with where and as what. */
export const onRequestError: Instrumentation.onRequestError = async (error, request, context) => {
  if (process.env.NEXT_RUNTIME !== 'nodejs') return;
  const { journal } = await import('./journal/journal');
  const { method, path } = request;
  journal.error({ err: error, method, path: withoutSecret(path), route: context.routePath }, 'a page failed');
};

/** So long after the start it is first looked whether a backup is due, and what is over. */
const FIRST_LOOK_MS = 60_000;

/** What a server begins with, and what it does by itself besides answering. */
export async function register(): Promise<void> {
  if (process.env.NEXT_RUNTIME !== 'nodejs') return;
  const { standBeforeRoutes } = await import('./http/beforeRoutes');
  standBeforeRoutes();
  // Not while somebody waits for the first page.
  setTimeout(async () => {
    const { startPruning } = await import('./db/prune');
    startPruning();
    if (!process.env.EVERY_TRACE_BACKUPS) return;
    const { startNightlyBackups } = await import('./features/backup/server');
    startNightlyBackups();
  }, FIRST_LOOK_MS).unref();
}
