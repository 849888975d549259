/**
 * A job as the work views have it: from what this browser holds, at once; then from the server, where it answers. One
 * for each job for as long as the program runs.
 */
import type { LogEvent } from '#core/log';
import { atMost } from '@/sync/atMost';
import { holdEntries, holdJob, letGo, readHeld } from './held';
import type { HeldJob } from './heldJob';
import { liveNews } from './live';
import { sender } from './sender';
import { JobStore } from './store';

export type OpenJob =
  | { readonly kind: 'opening' }
  | { readonly kind: 'open'; readonly job: HeldJob; readonly store: JobStore }
  /** Not held here, and the server does not answer. */
  | { readonly kind: 'away' }
  /** Not held here, and nobody is signed in who could have it from the server. */
  | { readonly kind: 'signed-out' }
  /** The server answers and has no such job. */
  | { readonly kind: 'unknown' };

/** So long new maps wait for the entries that belong to them. */
const ENTRIES_MS = 2000;
/** So long an answer is waited for; a large job over a weak signal takes its time. */
const ANSWER_MS = 30_000;
/** A job that could not be opened is asked for this often. */
const RETRY_MS = 4000;
/** One that is open and of which no news come by themselves, at least this often while it is looked at. */
const UNTOLD_MS = 20_000;
/** Changes that follow each other within this time are asked for together. */
const TOGETHER_MS = 250;

const OPENING: OpenJob = { kind: 'opening' };

class JobOpener {
  private state: OpenJob = OPENING;
  private readonly listeners = new Set<() => void>();
  private asking: Promise<void> | null = null;
  private begun = false;
  /** What begins when that which is on its way has come. */
  private next: Promise<void> | null = null;
  /** The server has answered since the job was opened here; until then what is shown is what was held. */
  private answered = false;
  private askedAt = 0;
  /** The last question had no answer. */
  private missed = false;
  private told: ReturnType<typeof setTimeout> | null = null;

  constructor(private readonly jobId: string) {}

  readonly read = (): OpenJob => this.state;

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  /** Opens the job, and asks again by itself while the server is away. Gives what ends it. */
  start(): () => void {
    const retry = () => {
      if (this.asking) return;
      const { kind } = this.state;
      if (kind === 'away' || kind === 'signed-out' || !this.answered || this.mayBeOld()) void this.refresh();
    };
    const timer = setInterval(retry, RETRY_MS);
    window.addEventListener('online', retry);
    void this.open();
    return () => {
      clearInterval(timer);
      window.removeEventListener('online', retry);
    };
  }

  private async open(): Promise<void> {
    if (!this.begun) {
      this.begun = true;
      const held = await readHeld(this.jobId);
      if (held && this.state.kind !== 'open') this.show(held.job, held.events);
    }
    await this.refresh();
  }

  /** What was told of was not had; or nobody tells what changes, and it was not asked for some time. */
  private mayBeOld(): boolean {
    if (document.visibilityState !== 'visible') return false;
    return this.missed || (!liveNews(this.jobId).open && Date.now() - this.askedAt > UNTOLD_MS);
  }

  /** Somebody else has changed what is held here, once or several times in a row. */
  readonly lookAgain = (): void => {
    this.told ??= setTimeout(() => {
      this.told = null;
      void this.refresh();
    }, TOGETHER_MS);
  };

  /**
   * Takes in what the server has now; what is here stays where it does not answer. A question that is on its way may have
   * been asked before the change that this one is about: it is asked again after that.
   */
  refresh(): Promise<void> {
    this.next ??= (this.asking ?? Promise.resolve()).then(() => {
      this.next = null;
      this.asking = this.ask().finally(() => {
        this.asking = null;
      });
      return this.asking;
    });
    return this.next;
  }

  private async ask(): Promise<void> {
    this.askedAt = Date.now();
    // Not one after the other: each way to the server and back is time before the first card.
    const entries = this.state.kind === 'open' ? null : this.get(`/api/events?job=${this.jobId}&after=0`);
    const answer = await this.get(`/api/jobs/${this.jobId}`);
    this.missed = answer === null;
    if (answer === null) {
      if (this.state.kind !== 'open') this.tell({ kind: 'away' });
      return;
    }
    if (answer.status === 401) {
      // What is held here stands; it says for whom it waits.
      if (this.state.kind !== 'open') this.tell({ kind: 'signed-out' });
      return;
    }
    if (answer.status === 404) {
      await letGo(this.jobId);
      this.tell({ kind: 'unknown' });
      return;
    }
    const told = (await answer.json()) as HeldJob;
    // Weights that change in the middle of a trace would take the card out of the hand.
    const job =
      this.answered && this.state.kind === 'open' ? { ...told, priors: this.state.job.priors } : told;
    this.answered = true;
    if (this.state.kind === 'open') {
      // Entries first: maps may be those that an entry has made.
      await atMost(ENTRIES_MS, this.state.store.catchUp());
      this.show(job, []);
      return void holdJob(job);
    }
    const log = await entries;
    if (!log?.ok) return this.tell({ kind: 'away' });
    const { events } = (await log.json()) as { events: readonly LogEvent[] };
    await Promise.all([holdJob(job), holdEntries(this.jobId, events)]);
    this.show(job, events);
  }

  /** An answer that says something of the job; null for any other, and for none. */
  private async get(url: string): Promise<Response | null> {
    try {
      const response = await fetch(url, { signal: AbortSignal.timeout(ANSWER_MS) });
      const says = response.ok || response.status === 404 || response.status === 401;
      return says && response.headers.get('content-type')?.includes('json') ? response : null;
    } catch {
      return null;
    }
  }

  private show(job: HeldJob, events: readonly LogEvent[]): void {
    if (this.state.kind !== 'open') {
      const keep = (entries: readonly LogEvent[]) => void holdEntries(this.jobId, entries);
      this.tell({ kind: 'open', job, store: new JobStore(this.jobId, events, sender(), keep) });
      return;
    }
    const { store, job: before } = this.state;
    const next = sameWhereEqual(before, job);
    if (next !== before) this.tell({ kind: 'open', job: next, store });
  }

  private tell(state: OpenJob): void {
    this.state = state;
    for (const listener of this.listeners) listener();
  }
}

/** The later one with those parts of the earlier that say the same, so that nothing is worked out anew for them. */
function sameWhereEqual(before: HeldJob, now: HeldJob): HeldJob {
  const fields = (Object.keys(now) as (keyof HeldJob)[]).filter(
    (key) => JSON.stringify(before[key]) !== JSON.stringify(now[key]),
  );
  if (fields.length === 0) return before;
  return { ...before, ...Object.fromEntries(fields.map((key) => [key, now[key]])) };
}

const openers = new Map<string, JobOpener>();

export function jobOpener(jobId: string): JobOpener {
  const known = openers.get(jobId);
  if (known) return known;
  const made = new JobOpener(jobId);
  openers.set(jobId, made);
  return made;
}
