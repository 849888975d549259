/** Where a browser keeps what the diagnosis worked out (`workers/keptPredictions.ts`), and how it is erased. */

export const PREDICTIONS_DB = 'every-trace-predictions';

/** Erases all of it; a page that still works with it closes it first. Gives up quietly where there is none. */
export function forgetPredictions(): Promise<void> {
  return new Promise((resolve) => {
    try {
      const request = indexedDB.deleteDatabase(PREDICTIONS_DB);
      request.onsuccess = () => resolve();
      request.onerror = () => resolve();
      // Whoever holds it lets go of it in a moment, and then it goes.
      request.onblocked = () => resolve();
    } catch {
      resolve();
    }
  });
}
