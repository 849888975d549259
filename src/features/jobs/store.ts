/** The job page's own copy of the log: shows an event at once, sends it when it can, sends it once. */
import { LARGEST_INTEGER } from '#core/format/bounds';
import { checkEvent } from '#core/format/checkEvent';
import type { EventBody, JobEvent } from '#core/format/jobSchema';
import type { Problem } from '#core/format/problem';
import { newId } from '@/ui/newId';
import {
  dropPicture,
  markRefused,
  putInOutbox,
  putPicture,
  takeFromOutbox,
  waitingInOutbox,
  waitingPictures,
} from './outbox';
import { type JobState, jobState, type LogEvent } from './state';

export type Sending =
  | { readonly kind: 'idle' }
  | { readonly kind: 'sending'; readonly count: number }
  | { readonly kind: 'waiting'; readonly count: number }
  /** The server takes nothing of this job as it is. */
  | { readonly kind: 'refused'; readonly count: number; readonly message: string };

/** Something a person made that the server will not take as it is. It is kept here until it is given up by name. */
export interface Refusal {
  readonly id: string;
  readonly message: string;
  /** What it is; a picture is found under its id. */
  readonly what: { readonly entry: JobEvent } | { readonly picture: Blob };
}

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
  | { readonly ok: false; readonly message: string };

/** Most entries, and bytes of them, that are sent at once; a batch of any entries stays far below what is taken. */
const BATCH = 200;
const BATCH_BYTES = 256 * 1024;
const FIRST_RETRY_MS = 1000;
const LONGEST_RETRY_MS = 15_000;
/** Others' entries are asked for this often while the page is looked at. */
const LOOK_EVERY_MS = 4000;
/** Who is still here so long after leaving began has stayed. */
const STAYED_MS = 10_000;
/** Answers that say of what was sent that it will never be taken, however often it comes. */
const NEVER: readonly number[] = [400, 413, 415, 422];
/** Answers of a server that cannot at the moment, besides those of 500 and above. */
const LATER: readonly number[] = [408, 425, 429];

/** Why sending stands still. */
type Trouble = Exclude<Sending, { readonly kind: 'idle' | 'sending' }>;

export class JobStore {
  private snapshot: JobSnapshot;
  private readonly listeners = new Set<() => void>();
  private flushing = false;
  private looking = false;
  /** The page is about to be left. */
  private leaving = false;
  private trouble: Trouble | null = null;
  /** Reasons of the server, by the id of the entry or picture; tried again at the next visit. */
  private readonly reasons = new Map<string, string>();
  /** What this visit has asked the server to take already, without success. */
  private readonly tried = new Set<string>();
  private retryMs = FIRST_RETRY_MS;
  private timer: ReturnType<typeof setTimeout> | null = null;

  constructor(
    private readonly jobId: string,
    private readonly personName: string,
    events: readonly LogEvent[],
  ) {
    this.snapshot = {
      events,
      job: jobState(events),
      sending: { kind: 'idle' },
      pictures: new Map(),
      refusals: [],
    };
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  readonly read = (): JobSnapshot => this.snapshot;

  /** Brings back what an earlier visit could not send, and begins sending. Gives what ends it. */
  start(): () => void {
    const retry = () => {
      this.retryMs = FIRST_RETRY_MS;
      void this.flush().then(() => this.catchUp());
    };
    const seen = () => {
      if (document.visibilityState === 'visible') retry();
    };
    let stayed: ReturnType<typeof setTimeout> | undefined;
    // The next page may already be made, without what is confirmed from here on: it finds that in the outbox.
    const leave = () => {
      this.leaving = true;
      stayed = setTimeout(() => {
        this.leaving = false;
      }, STAYED_MS);
    };
    const look = setInterval(() => {
      if (document.visibilityState === 'visible') void this.catchUp();
    }, LOOK_EVERY_MS);
    window.addEventListener('online', retry);
    window.addEventListener('beforeunload', leave);
    document.addEventListener('visibilitychange', seen);
    void Promise.all([waitingPictures(this.jobId), waitingInOutbox(this.jobId)])
      .then(([pictures, entries]) => {
        for (const { id, refused } of [...pictures, ...entries]) if (refused) this.reasons.set(id, refused);
        this.showPictures(
          new Map([...pictures.map((one) => [one.id, one.blob] as const), ...this.snapshot.pictures]),
        );
        this.takeIn(entries.map((event) => this.unsent(event)));
        const waiting = new Set(this.waiting.map((event) => event.id));
        return takeFromOutbox(entries.map((event) => event.id).filter((id) => !waiting.has(id)));
      })
      .catch(noOutbox)
      .then(() => this.flush())
      .then(() => this.catchUp());
    return () => {
      window.removeEventListener('online', retry);
      window.removeEventListener('beforeunload', leave);
      document.removeEventListener('visibilitychange', seen);
      if (this.timer) clearTimeout(this.timer);
      clearInterval(look);
      clearTimeout(stayed);
      this.leaving = false;
    };
  }

  /**
   * Asks for what the server has and this page has not: recorded by others, or by the page before this one, whose last
   * entries were still on their way while this page was made.
   */
  private async catchUp(): Promise<void> {
    if (this.looking) return;
    this.looking = true;
    const known = new Set(this.snapshot.events.map((event) => event.seq));
    let after = 0;
    while (known.has(after + 1)) after += 1;
    try {
      const response = await fetch(`/api/events?job=${this.jobId}&after=${after}`);
      if (response.ok) this.takeIn(((await response.json()) as { events: LogEvent[] }).events);
    } catch {
      // Away; asked again in a moment, and when the page is looked at or the network is back.
    } finally {
      this.looking = false;
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
      return { id: newId(), jobId: this.jobId, madeAt: new Date().toISOString(), clientOrder: order, body };
    });
    for (const event of made) {
      const checked = checkEvent(event);
      if (!checked.ok) return { ok: false, message: problemWords(checked.problems) };
    }
    this.takeIn(made.map((event) => this.unsent(event)));
    // Sent also where the browser keeps nothing.
    void putInOutbox(made)
      .catch(noOutbox)
      .then(() => this.flush());
    return { ok: true, ids: made.map((event) => event.id) };
  }

  /** Takes back what the server refused: the entry or picture is gone from here on. Only by a person, and by name. */
  async giveUp(id: string): Promise<void> {
    this.reasons.delete(id);
    const pictures = new Map(this.snapshot.pictures);
    if (pictures.delete(id)) {
      await dropPicture(id).catch(noOutbox);
      this.change({ pictures });
      return;
    }
    await takeFromOutbox([id]).catch(noOutbox);
    this.change({ events: this.snapshot.events.filter((event) => event.id !== id || event.seq !== null) });
  }

  /** Asks the server once more for what it has refused. */
  tryAgain(): void {
    this.tried.clear();
    this.trouble = null;
    void this.flush();
  }

  /** Keeps a picture here until the server has it; it is sent before the entries that name it. */
  async keepPicture(id: string, blob: Blob): Promise<void> {
    await putPicture({ id, jobId: this.jobId, blob }).catch(noOutbox);
    this.showPictures(new Map([...this.snapshot.pictures, [id, blob]]));
  }

  private showPictures(pictures: ReadonlyMap<string, Blob>): void {
    this.change({ pictures });
  }

  private unsent(event: JobEvent): LogEvent {
    const { id, madeAt, clientOrder, body } = event;
    return { id, seq: null, person: this.personName, madeAt, clientOrder, body };
  }

  /** Entries from elsewhere: of this browser, of the server, of other people. What is known already is not added again. */
  takeIn(events: readonly LogEvent[]): void {
    const theirs = new Map(events.map((event) => [event.id, event]));
    const known = new Set(this.snapshot.events.map((event) => event.id));
    const fresh = events.filter((event) => !known.has(event.id));
    const confirmed = (event: LogEvent) => event.seq === null && (theirs.get(event.id)?.seq ?? null) !== null;
    if (fresh.length === 0 && !this.snapshot.events.some(confirmed)) return;
    const mine = this.snapshot.events.map((event) => (confirmed(event) ? theirs.get(event.id)! : event));
    this.change({ events: [...mine, ...fresh] });
  }

  /** What is shown as recorded is what the server has confirmed, nothing less. */
  private change(made: Partial<Pick<JobSnapshot, 'events' | 'pictures'>>): void {
    const { events, pictures } = { ...this.snapshot, ...made };
    const job = events === this.snapshot.events ? this.snapshot.job : jobState(events);
    const refusals = this.refusalsIn(events, pictures);
    const count = events.filter((event) => event.seq === null).length + pictures.size - refusals.length;
    // Nothing stands still where nothing waits, whoever has sent it.
    const sending: Sending = count > 0 ? (this.trouble ?? { kind: 'sending', count }) : { kind: 'idle' };
    this.snapshot = { events, pictures, job, sending, refusals };
    for (const listener of this.listeners) listener();
  }

  private refusalsIn(events: readonly LogEvent[], pictures: ReadonlyMap<string, Blob>): readonly Refusal[] {
    const made: Refusal[] = [];
    for (const event of events) {
      const message = event.seq === null ? this.reasons.get(event.id) : undefined;
      if (message !== undefined) made.push({ id: event.id, message, what: { entry: this.entry(event) } });
    }
    for (const [id, picture] of pictures) {
      const message = this.reasons.get(id);
      if (message !== undefined) made.push({ id, message, what: { picture } });
    }
    return made;
  }

  private entry({ id, madeAt, clientOrder, body }: LogEvent): JobEvent {
    return { id, jobId: this.jobId, madeAt, clientOrder, body };
  }

  /** Entries that the server has not confirmed, as far as this page knows. */
  private get waiting(): readonly LogEvent[] {
    return this.snapshot.events.filter((event) => event.seq === null);
  }

  private stand(trouble: Trouble): void {
    this.trouble = trouble;
    this.change({});
  }

  private async flush(): Promise<void> {
    if (this.flushing) return;
    this.flushing = true;
    try {
      for (;;) {
        if (!(await this.sendPictures())) return;
        const waiting = this.nextBatch();
        if (waiting.length === 0 || !(await this.send(waiting))) return;
      }
    } finally {
      this.flushing = false;
    }
  }

  private nextBatch(): readonly JobEvent[] {
    const batch: JobEvent[] = [];
    let bytes = 0;
    const inOrder = this.waiting
      .filter((event) => !this.tried.has(event.id))
      .sort((one, other) => one.clientOrder - other.clientOrder);
    for (const event of inOrder.slice(0, BATCH)) {
      const entry = this.entry(event);
      bytes += JSON.stringify(entry).length;
      if (batch.length > 0 && bytes > BATCH_BYTES) break;
      batch.push(entry);
    }
    return batch;
  }

  /** Sends the pictures that wait, one after another; false when sending has to stop for now. */
  private async sendPictures(): Promise<boolean> {
    for (const [id, blob] of this.snapshot.pictures) {
      if (this.tried.has(id)) continue;
      const response = await this.post(`/api/photos?job=${this.jobId}&id=${id}`, blob);
      if (!response) return false;
      if (!response.ok) {
        const message = response.answer.message ?? 'The server refused this photo.';
        this.refused(id, message);
        await putPicture({ id, jobId: this.jobId, blob, refused: message }).catch(noOutbox);
        this.change({});
        continue;
      }
      this.reasons.delete(id);
      await dropPicture(id).catch(noOutbox);
      const pictures = new Map(this.snapshot.pictures);
      pictures.delete(id);
      this.showPictures(pictures);
    }
    return true;
  }

  private refused(id: string, message: string): void {
    this.tried.add(id);
    this.reasons.set(id, message);
  }

  /** Sends one batch; false when sending has to stop for now. */
  private async send(events: readonly JobEvent[]): Promise<boolean> {
    const response = await this.post('/api/events', JSON.stringify({ events }));
    if (!response) return false;
    const { answer, status } = response;
    if (!response.ok || !answer.stored?.length) {
      const named = refusedIn(events, answer.problems ?? []);
      if (named.size === 0 && NEVER.includes(status)) {
        // Somewhere in it; one entry that is refused keeps no other back.
        if (events.length > 1) {
          for (const one of events) if (!(await this.send([one]))) return false;
          return true;
        }
        named.set(events[0]!.id, answer.message ?? 'The server refused this entry.');
      }
      if (named.size === 0) {
        const message = answer.message ?? 'The server refused the entries.';
        this.stand({ kind: 'refused', count: events.length, message });
        return false;
      }
      for (const [id, message] of named) {
        this.refused(id, message);
        await markRefused(id, message).catch(noOutbox);
      }
      this.change({});
      return true;
    }
    this.retryMs = FIRST_RETRY_MS;
    this.trouble = null;
    const receipts = new Map(answer.stored.map((one) => [one.id, one]));
    for (const id of receipts.keys()) this.reasons.delete(id);
    this.change({
      events: this.snapshot.events.map((event) => {
        const receipt = receipts.get(event.id);
        return receipt ? { ...event, seq: receipt.seq, person: receipt.person } : event;
      }),
    });
    if (!this.leaving) await takeFromOutbox([...receipts.keys()]).catch(noOutbox);
    return true;
  }

  /** What the server answers; null when it is away or answers nothing that can be read, and sending goes on later. */
  private async post(url: string, body: string | Blob): Promise<Answered | null> {
    const headers = {
      'Content-Type': typeof body === 'string' ? 'application/json' : body.type || 'image/jpeg',
    };
    try {
      const response = await fetch(url, { method: 'POST', body, headers });
      const { ok, status } = response;
      if (status < 500 && !LATER.includes(status)) {
        return { ok, status, answer: (await response.json()) as Answered['answer'] };
      }
    } catch {
      // Away, like a server that cannot answer.
    }
    const count = this.waiting.length + this.snapshot.pictures.size - this.snapshot.refusals.length;
    this.stand({ kind: 'waiting', count });
    if (this.timer) clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.flush(), this.retryMs);
    this.retryMs = Math.min(this.retryMs * 2, LONGEST_RETRY_MS);
    return null;
  }
}

interface Answered {
  readonly ok: boolean;
  readonly status: number;
  readonly answer: {
    readonly stored?: readonly { readonly id: string; readonly seq: number; readonly person: string }[];
    readonly problems?: readonly Problem[];
    readonly message?: string;
  };
}

/** The entries that an answer names, each with its reasons. */
function refusedIn(events: readonly JobEvent[], problems: readonly Problem[]): Map<string, string> {
  const named = new Map<string, string>();
  for (const { id } of events) {
    const own = problems.filter(({ path }) => path === `/events/${id}` || path.startsWith(`/events/${id}/`));
    if (own.length > 0) named.set(id, own.map((one) => one.message).join(' '));
  }
  return named;
}

/** Where in an entry, and what: "words: Must have at most 2000 characters." */
function problemWords(problems: readonly Problem[]): string {
  return problems
    .slice(0, 3)
    .map(({ path, message }) => [path.replace(/^\/(body\/)?/, '').replace(/\//g, ', '), message])
    .map(([where, message]) => (where ? `${where}: ${message}` : message))
    .join(' ');
}

const open = new Map<string, JobStore>();

/**
 * The store of a job, in the browser one for as long as the program runs there: whoever goes elsewhere and comes back
 * finds what was recorded, also where the page itself was kept as it was before.
 */
export function jobStore(jobId: string, personName: string, events: readonly LogEvent[]): JobStore {
  const known = open.get(jobId);
  if (known) return known;
  const made = new JobStore(jobId, personName, events);
  if (typeof window !== 'undefined') open.set(jobId, made);
  return made;
}

/** A browser that keeps nothing still shows and sends; what it cannot do is bring back after a reload. */
function noOutbox(error: unknown): void {
  console.warn('This browser keeps no entries between visits.', error);
}
