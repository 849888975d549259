/** A job's log as its pages hold it: what the server has confirmed, and behind it what is still on its way. */
import { ENTRY_VERSION, type EventBody, type JobEvent, LARGEST_INTEGER, type Problem } from '#core/format';
import { type JobState, jobState, type LogEvent } from '#core/log';
import { whoIsHere } from '@/sync/who';
import { whenShown } from '@/ui/atRest';
import { newId } from '@/ui/newId';
import type { Refusal, Sender, Sending, Waiting } from './sender';

/** The check of entries; until it is there the server's own, which every entry meets, is the only one. */
let check: typeof import('./checks')['checkEvent'] | null = null;

/** Fetches the check, which is large; a server that is away is asked again at the next entry. */
export async function loadChecks(): Promise<void> {
  if (check) return;
  try {
    const loaded = await import('./checks');
    check = loaded.checkEvent;
    loaded.warmUp();
  } catch {
    check = null;
  }
}

/** So long after a job is open, and not before what is looked at is there, the check is fetched; milliseconds. */
const CHECK_AFTER_MS = 800;

export interface JobSnapshot {
  readonly events: readonly LogEvent[];
  readonly job: JobState;
  readonly sending: Sending;
  /** Pictures that are still only in this browser. */
  readonly pictures: ReadonlyMap<string, Blob>;
  readonly refusals: readonly Refusal[];
}

/** What became of an entry: in the log, or not made at all and why. */
export type Recorded =
  | { readonly ok: true; readonly ids: readonly string[] }
  | {
      readonly ok: false;
      readonly message: string;
      /** The field of the entry that the first reason lies in. */
      readonly field?: string;
    };

/** So long an answer is waited for. */
const LOOK_MS = 10_000;

/** Others' entries are asked for this often while the page is looked at and no news come by themselves. */
const LOOK_EVERY_MS = 4000;

export class JobStore {
  private confirmed: ReadonlyMap<string, LogEvent>;
  private snapshot: JobSnapshot;
  private readonly listeners = new Set<() => void>();
  private looking: Promise<void> | null = null;
  /** Whether it is told of others' entries at the moment, and need not ask. */
  private isTold: () => boolean = () => false;
  /** The last look had no answer: what was told of then is not here yet. */
  private missed = false;

  constructor(
    private readonly jobId: string,
    events: readonly LogEvent[],
    private readonly outgoing: Sender,
    /** Holds entries that the server has confirmed and that were not among the first. */
    private readonly hold: (events: readonly LogEvent[]) => void = () => undefined,
  ) {
    this.confirmed = new Map(events.map((event) => [event.id, event]));
    this.snapshot = this.made(this.outgoing.of(jobId), null);
    // For as long as the program runs: a job that is left and opened again is the same.
    this.outgoing.subscribe((news) => {
      const own = news.filter(({ event }) => event.jobId === jobId);
      this.add(own.map(({ event, ...confirmed }) => ({ ...this.unsent(event), ...confirmed })));
      this.show();
    });
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  readonly read = (): JobSnapshot => this.snapshot;

  /** Keeps up with what others record while the page is there. Gives what ends it. */
  start(): () => void {
    const look = () => {
      if (document.visibilityState === 'visible' && !this.looking) void this.catchUp();
    };
    const timer = setInterval(() => {
      if (!this.isTold() || this.missed) look();
    }, LOOK_EVERY_MS);
    window.addEventListener('online', look);
    document.addEventListener('visibilitychange', look);
    this.show();
    void this.catchUp();
    const checking = setTimeout(() => void whenShown().then(loadChecks), CHECK_AFTER_MS);
    return () => {
      clearTimeout(checking);
      clearInterval(timer);
      window.removeEventListener('online', look);
      document.removeEventListener('visibilitychange', look);
    };
  }

  /** Somebody listens for news of others; `open` says whether they come at the moment. */
  toldBy(open: () => boolean): void {
    this.isTold = open;
  }

  /**
   * Asks for what the server has and this page has not: recorded by others, or by the page before this one, whose last
   * entries were still on their way while this page was made.
   */
  async catchUp(): Promise<void> {
    // What is on its way may have been asked before something was recorded.
    if (this.looking) await this.looking;
    this.looking = this.look();
    await this.looking;
    this.looking = null;
  }

  private async look(): Promise<void> {
    const known = new Set([...this.confirmed.values()].map((event) => event.seq));
    let after = 0;
    while (known.has(after + 1)) after += 1;
    try {
      const url = `/api/events?job=${this.jobId}&after=${after}`;
      const response = await fetch(url, { signal: AbortSignal.timeout(LOOK_MS) });
      this.missed = !response.ok;
      if (response.ok) this.takeIn(((await response.json()) as { events: LogEvent[] }).events);
    } catch {
      // Away; asked again in a moment, and when the page is looked at or the network is back.
      this.missed = true;
    }
  }

  /**
   * Records events, in this order; they are in the log before this returns, all of them or, where one could never be
   * kept, none and the reason.
   */
  record(...bodies: readonly EventBody[]): Recorded {
    let order = Math.max(-1, ...this.snapshot.events.map((event) => event.clientOrder));
    const made = bodies.map((body): JobEvent => {
      order = Math.min(order + 1, LARGEST_INTEGER);
      return {
        id: newId(),
        jobId: this.jobId,
        version: ENTRY_VERSION,
        madeAt: new Date().toISOString(),
        clientOrder: order,
        body,
      };
    });
    if (!check) void loadChecks();
    for (const event of made) {
      const checked = check?.(event);
      if (checked && !checked.ok)
        return { ok: false, message: problemWords(checked.problems), ...fieldOf(checked.problems) };
    }
    this.outgoing.add(made);
    return { ok: true, ids: made.map((event) => event.id) };
  }

  /** Keeps a picture here until the server has it; it is sent after the entries that wait. */
  keepPicture(id: string, blob: Blob): Promise<void> {
    return this.outgoing.addPicture({ id, jobId: this.jobId, blob });
  }

  giveUp(id: string): Promise<void> {
    return this.outgoing.giveUp(id);
  }

  tryAgain(): void {
    this.outgoing.tryAgain();
  }

  /** Entries that the server has, as a page or another answer gives them. What is known already is not added again. */
  takeIn(events: readonly LogEvent[]): void {
    if (this.add(events)) this.show();
  }

  private add(events: readonly LogEvent[]): boolean {
    const fresh = events.filter((event) => event.seq !== null && !this.confirmed.has(event.id));
    if (fresh.length === 0) return false;
    this.confirmed = new Map([...this.confirmed, ...fresh.map((event) => [event.id, event] as const)]);
    this.hold(fresh);
    return true;
  }

  private unsent({ id, madeAt, clientOrder, body }: JobEvent): LogEvent {
    return {
      id,
      seq: null,
      person: this.outgoing.ownerOf(id)?.name ?? whoIsHere(),
      madeAt,
      clientOrder,
      body,
    };
  }

  private show(): void {
    const waiting = this.outgoing.of(this.jobId);
    // What the server has does not wait, whoever brought it there.
    const there = waiting.entries.filter((event) => this.confirmed.has(event.id)).map((event) => event.id);
    if (there.length > 0) {
      this.outgoing.known(there);
      return;
    }
    this.snapshot = this.made(waiting, this.snapshot);
    for (const listener of this.listeners) listener();
  }

  private made(waiting: Waiting, before: JobSnapshot | null): JobSnapshot {
    const { pictures, refusals, sending } = waiting;
    const events = [...this.confirmed.values(), ...waiting.entries.map((event) => this.unsent(event))];
    const same =
      before !== null &&
      before.events.length === events.length &&
      events.every((event, index) => isSame(event, before.events[index]!));
    if (same) return { events: before.events, job: before.job, sending, pictures, refusals };
    return { events, job: jobState(events), sending, pictures, refusals };
  }
}

function isSame(one: LogEvent, other: LogEvent): boolean {
  return one.id === other.id && one.seq === other.seq && one.person === other.person;
}

/** The field that the first reason lies in, if it lies in one. */
function fieldOf([first]: readonly Problem[]): { field?: string } {
  const [, field] = /^\/body\/(.+)$/.exec(first?.path ?? '') ?? [];
  return field === undefined ? {} : { field: field.replace(/\//g, '.') };
}

/** Where in an entry, and what: "words: Must have at most 2000 characters." */
function problemWords(problems: readonly Problem[]): string {
  return problems
    .slice(0, 3)
    .map(({ path, message }) => [path.replace(/^\/(body\/)?/, '').replace(/\//g, ', '), message])
    .map(([where, message]) => (where ? `${where}: ${message}` : message))
    .join(' ');
}
