/** The job page's own copy of the log: shows an event at once, sends it when it can, sends it once. */
import type { EventBody, JobEvent } from '#core/format/jobSchema';
import { newId } from '@/ui/newId';
import {
  dropPicture,
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
  | { readonly kind: 'refused'; readonly count: number; readonly message: string };

export interface JobSnapshot {
  readonly events: readonly LogEvent[];
  readonly job: JobState;
  readonly sending: Sending;
  /** Pictures that are still only in this browser. */
  readonly pictures: ReadonlyMap<string, Blob>;
}

const BATCH = 200;
const FIRST_RETRY_MS = 1000;
const LONGEST_RETRY_MS = 15_000;
/** Who is still here so long after leaving began has stayed. */
const STAYED_MS = 10_000;

/** Why sending stands still. */
type Trouble = Exclude<Sending, { readonly kind: 'idle' | 'sending' }>;

export class JobStore {
  private snapshot: JobSnapshot;
  private readonly listeners = new Set<() => void>();
  private flushing = false;
  /** The page is about to be left. */
  private leaving = false;
  private trouble: Trouble | null = null;
  /** The last photo or entry that was refused for what it is; the others go on. */
  private refusal: Trouble | null = null;
  /** Entries that the server could not read; kept, shown, and tried again at the next visit. */
  private readonly unreadable = new Set<string>();
  private retryMs = FIRST_RETRY_MS;
  private timer: ReturnType<typeof setTimeout> | null = null;

  constructor(
    private readonly jobId: string,
    private readonly personName: string,
    events: readonly LogEvent[],
  ) {
    this.snapshot = { events, job: jobState(events), sending: { kind: 'idle' }, pictures: new Map() };
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
    window.addEventListener('online', retry);
    window.addEventListener('beforeunload', leave);
    document.addEventListener('visibilitychange', seen);
    void Promise.all([waitingPictures(this.jobId), waitingInOutbox(this.jobId)])
      .then(([pictures, entries]) => {
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
      clearTimeout(stayed);
      this.leaving = false;
    };
  }

  /**
   * Asks for what the server has and this page has not: recorded by others, or by the page before this one, whose last
   * entries were still on their way while this page was made.
   */
  private async catchUp(): Promise<void> {
    const known = new Set(this.snapshot.events.map((event) => event.seq));
    let after = 0;
    while (known.has(after + 1)) after += 1;
    try {
      const response = await fetch(`/api/events?job=${this.jobId}&after=${after}`);
      if (response.ok) this.takeIn(((await response.json()) as { events: LogEvent[] }).events);
    } catch {
      // Away; asked again when the page is looked at or the network is back.
    }
  }

  /** Records events, in this order; they are in the log before this returns. */
  record(...bodies: readonly EventBody[]): readonly string[] {
    let order = Math.max(-1, ...this.snapshot.events.map((event) => event.clientOrder));
    const made = bodies.map((body): JobEvent => {
      order += 1;
      return { id: newId(), jobId: this.jobId, madeAt: new Date().toISOString(), clientOrder: order, body };
    });
    this.takeIn(made.map((event) => this.unsent(event)));
    // Sent also where the browser keeps nothing.
    void putInOutbox(made)
      .catch(noOutbox)
      .then(() => this.flush());
    return made.map((event) => event.id);
  }

  /** Keeps a picture here until the server has it; it is sent before the entries that name it. */
  async keepPicture(id: string, blob: Blob): Promise<void> {
    await putPicture({ id, jobId: this.jobId, blob }).catch(noOutbox);
    if (this.unreadable.size === 0) this.refusal = null;
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
    this.snapshot = { events, pictures, job, sending: this.snapshot.sending };
    const count = this.waiting.length + pictures.size;
    // Nothing stands still where nothing waits, whoever has sent it.
    const unsent: Sending = count > 0 ? (this.trouble ?? { kind: 'sending', count }) : { kind: 'idle' };
    this.snapshot = {
      ...this.snapshot,
      sending: unsent.kind === 'waiting' ? unsent : (this.refusal ?? unsent),
    };
    for (const listener of this.listeners) listener();
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
        const waiting = this.waiting
          .filter((event) => !this.unreadable.has(event.id))
          .sort((one, other) => one.clientOrder - other.clientOrder)
          .slice(0, BATCH);
        if (waiting.length === 0 || !(await this.send(waiting))) return;
      }
    } finally {
      this.flushing = false;
    }
  }

  /** Sends the pictures that wait, one after another; false when sending has to stop for now. */
  private async sendPictures(): Promise<boolean> {
    for (const [id, blob] of this.snapshot.pictures) {
      const response = await this.post<{ message?: string }>(`/api/photos?job=${this.jobId}&id=${id}`, blob);
      if (!response) return false;
      if (!response.ok) {
        const { message } = response.answer;
        this.refusal = { kind: 'refused', count: 1, message: message ?? 'The server refused a photo.' };
      }
      await dropPicture(id).catch(noOutbox);
      const pictures = new Map(this.snapshot.pictures);
      pictures.delete(id);
      this.showPictures(pictures);
    }
    return true;
  }

  /** Sends one batch; false when sending has to stop for now. */
  private async send(waiting: readonly LogEvent[]): Promise<boolean> {
    const events = waiting.map(
      ({ id, madeAt, clientOrder, body }): JobEvent => ({ id, jobId: this.jobId, madeAt, clientOrder, body }),
    );
    const response = await this.post<{
      stored?: { id: string; seq: number; person: string }[];
      problems?: { message: string }[];
    }>('/api/events', JSON.stringify({ events }));
    if (!response) return false;
    const { answer } = response;
    if (!response.ok || !answer.stored?.length) {
      // One entry that cannot be read keeps no other back.
      if (response.status === 400 && waiting.length > 1) {
        for (const one of waiting) if (!(await this.send([one]))) return false;
        return true;
      }
      const message =
        answer.problems?.map((one) => one.message).join(' ') ?? 'The server refused the entries.';
      if (response.status !== 400) {
        this.stand({ kind: 'refused', count: waiting.length, message });
        return false;
      }
      this.unreadable.add(waiting[0]!.id);
      this.refusal = { kind: 'refused', count: this.unreadable.size, message };
      this.change({});
      return true;
    }
    this.retryMs = FIRST_RETRY_MS;
    this.trouble = null;
    const receipts = new Map(answer.stored.map((one) => [one.id, one]));
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
  private async post<T>(
    url: string,
    body: BodyInit,
  ): Promise<{ readonly ok: boolean; readonly status: number; readonly answer: T } | null> {
    const headers = typeof body === 'string' ? { 'Content-Type': 'application/json' } : undefined;
    try {
      const response = await fetch(url, { method: 'POST', body, ...(headers ? { headers } : {}) });
      const { ok, status } = response;
      if (status < 500) return { ok, status, answer: (await response.json()) as T };
    } catch {
      // Away, like a server that cannot answer.
    }
    this.stand({ kind: 'waiting', count: this.waiting.length + this.snapshot.pictures.size });
    if (this.timer) clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.flush(), this.retryMs);
    this.retryMs = Math.min(this.retryMs * 2, LONGEST_RETRY_MS);
    return null;
  }
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
