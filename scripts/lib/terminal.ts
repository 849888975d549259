/** What commands that take a while say while they do, and how they are stopped. */

/** One line that is written over; an empty one takes it away. Nothing where nobody watches. */
export function inThe(line: string): void {
  if (process.stderr.isTTY) process.stderr.write(`\r\u001b[2K${line}`);
}

/** A signal that Ctrl+C gives; `done` takes the ear away. */
export function stopper(): { readonly signal: AbortSignal; readonly done: () => void } {
  const stopping = new AbortController();
  const stop = () => stopping.abort(new Error('stopped'));
  process.on('SIGINT', stop);
  process.on('SIGTERM', stop);
  return {
    signal: stopping.signal,
    done: () => {
      process.off('SIGINT', stop);
      process.off('SIGTERM', stop);
    },
  };
}
