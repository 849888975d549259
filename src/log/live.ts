/**
 * News of a job as the server has them: a stream that a page keeps while it is looked at. It is opened anew after the
 * machine has slept, the network has changed, or nothing was heard for longer than a beat takes.
 */
import { newId } from '@/ui/newId';

/**
 * What a page is told of: that others have recorded; that something it holds of the job besides has changed, its stock or
 * its maps; that the person at the key has joined or answered. Each is told too when a stream begins.
 */
type Told = 'entries' | 'held' | 'helper';
const TOLD: readonly Told[] = ['entries', 'held', 'helper'];

export interface HereNow {
  readonly personId: string;
  readonly name: string;
}

/** Two beats of the server and some. */
const SILENT_MS = 35_000;
const FIRST_AGAIN_MS = 1000;
const LONGEST_AGAIN_MS = 15_000;

class LiveNews {
  private source: EventSource | null = null;
  private heardAt = 0;
  private againMs = FIRST_AGAIN_MS;
  private timer: ReturnType<typeof setTimeout> | null = null;
  private readonly page = newId();
  private readonly listeners = new Set<() => void>();
  private readonly told: Readonly<Record<Told, Set<() => void>>> = {
    entries: new Set(),
    held: new Set(),
    helper: new Set(),
  };
  private people: readonly HereNow[] = [];
  /** The person has the job on so many newer pages that this one is told nothing until it is turned to again. */
  private oneTooMany = false;

  constructor(private readonly jobId: string) {}

  /** Whether news come by themselves at the moment. */
  get open(): boolean {
    return this.source?.readyState === 1 && Date.now() - this.heardAt < SILENT_MS;
  }

  readonly readHere = (): readonly HereNow[] => this.people;

  readonly readTooMany = (): boolean => this.oneTooMany;

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  /** Calls a listener when there is news of a kind. Gives what ends it. */
  on(what: Told, listener: () => void): () => void {
    this.told[what].add(listener);
    return () => this.told[what].delete(listener);
  }

  /** Keeps the stream while the page is looked at. Gives what ends it. */
  start(): () => void {
    if (typeof EventSource === 'undefined') return () => undefined;
    const look = () => {
      if (document.visibilityState !== 'visible') this.stop();
      else if (!this.open && !this.oneTooMany) this.connect();
    };
    const turnedTo = () => {
      this.oneTooMany = false;
      look();
    };
    const changed = () => {
      this.stop();
      look();
    };
    const watch = setInterval(look, SILENT_MS / 2);
    document.addEventListener('visibilitychange', turnedTo);
    window.addEventListener('online', changed);
    look();
    return () => {
      clearInterval(watch);
      document.removeEventListener('visibilitychange', turnedTo);
      window.removeEventListener('online', changed);
      this.stop();
    };
  }

  private connect(): void {
    this.stop();
    const source = new EventSource(`/api/jobs/${this.jobId}/live?page=${this.page}`);
    this.source = source;
    this.heardAt = Date.now();
    const heard = (work: (data: string) => void) => (event: MessageEvent<string>) => {
      this.heardAt = Date.now();
      this.againMs = FIRST_AGAIN_MS;
      work(event.data);
    };
    for (const what of TOLD) {
      source.addEventListener(
        what,
        heard(() => {
          for (const listener of this.told[what]) listener();
        }),
      );
    }
    source.addEventListener(
      'here',
      heard((data) => this.tell(JSON.parse(data) as readonly HereNow[])),
    );
    source.addEventListener('too-many', () => {
      this.oneTooMany = true;
      this.stop();
      for (const listener of this.listeners) listener();
    });
    source.addEventListener(
      'beat',
      heard(() => undefined),
    );
    // The browser's own way back gives up on some answers; ours does not.
    source.onerror = () => {
      if (this.source !== source) return;
      this.stop();
      this.timer = setTimeout(() => {
        if (document.visibilityState === 'visible') this.connect();
      }, this.againMs);
      this.againMs = Math.min(2 * this.againMs, LONGEST_AGAIN_MS);
    };
  }

  private stop(): void {
    if (this.timer) clearTimeout(this.timer);
    this.timer = null;
    this.source?.close();
    this.source = null;
    this.tell([]);
  }

  private tell(people: readonly HereNow[]): void {
    if (people.length === 0 && this.people.length === 0) return;
    this.people = people;
    for (const listener of this.listeners) listener();
  }
}

const streams = new Map<string, LiveNews>();

/** The one stream of a job on this page. */
export function liveNews(jobId: string): LiveNews {
  const known = streams.get(jobId) ?? new LiveNews(jobId);
  streams.set(jobId, known);
  return known;
}
