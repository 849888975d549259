/**
 * The worker of the diagnosis, begun before the job is there: its program is fetched and read while the job is asked for,
 * and not after it.
 */

let ahead: Worker | null = null;

const begun = () => new Worker(new URL('../workers/diagnosis.worker.ts', import.meta.url));

/** The scripts that a worker begins with, by its address as the bundler writes it; none where it is written otherwise. */
export function scriptsOf(address: string): string[] {
  try {
    const [scripts] = JSON.parse(decodeURIComponent(new URL(address).hash.replace('#params=', '')));
    return scripts.filter((one: unknown) => typeof one === 'string');
  } catch {
    return [];
  }
}

/** Into the cache of the browser, to the end: an answer that nobody reads holds a connection that others wait for. */
async function fetchAhead(script: string): Promise<void> {
  try {
    await (await fetch(script)).arrayBuffer();
  } catch {
    // The worker itself says when one cannot be had.
  }
}

/** A worker fetches its scripts one after the other. Asked for all at once here, they are on their way together. */
function begunWithScripts(): Worker {
  const Plain = window.Worker;
  let address = '';
  window.Worker = class extends Plain {
    constructor(at: string | URL, options?: WorkerOptions) {
      super(at, options);
      address = String(at);
    }
  };
  try {
    return begun();
  } finally {
    window.Worker = Plain;
    for (const script of scriptsOf(address)) void fetchAhead(script);
  }
}

/** Begins the worker for a view that will ask it; once. One whose program cannot be fetched is not kept. */
export function beginDiagnosis(): void {
  if (ahead) return;
  const made = begunWithScripts();
  ahead = made;
  made.onerror = () => {
    if (ahead === made) ahead = null;
  };
}

/** The worker that was begun ahead, once, or another. */
export function diagnosisWorker(): Worker {
  const taken = ahead ?? begun();
  ahead = null;
  return taken;
}

/** Nobody will ask it. */
export function endDiagnosisAhead(): void {
  ahead?.terminate();
  ahead = null;
}
