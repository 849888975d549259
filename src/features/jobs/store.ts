/** The job page's own copy of the log: shows an event at once, sends it when it can, sends it once. */
import type { EventBody, JobEvent } from '#core/format/jobSchema';
import {
  dropPicture,
  newId,
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

export class JobStore {
  private snapshot: JobSnapshot;
  private readonly listeners = new Set<() => void>();
  private flushing = false;
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
      void this.flush();
    };
    window.addEventListener('online', retry);
    void waitingPictures(this.jobId).then((waiting) => {
      if (waiting.length > 0) this.showPictures(new Map(waiting.map((one) => [one.id, one.blob])));
    });
    void waitingInOutbox(this.jobId).then((waiting) => {
      this.add(waiting.map((event) => this.unsent(event)));
      void this.flush();
    });
    return () => {
      window.removeEventListener('online', retry);
      if (this.timer) clearTimeout(this.timer);
    };
  }

  /** Records events, in this order; they are in the log before this returns. */
  record(...bodies: readonly EventBody[]): readonly string[] {
    let order = Math.max(-1, ...this.snapshot.events.map((event) => event.clientOrder));
    const made = bodies.map((body): JobEvent => {
      order += 1;
      return { id: newId(), jobId: this.jobId, madeAt: new Date().toISOString(), clientOrder: order, body };
    });
    this.add(made.map((event) => this.unsent(event)));
    void Promise.all(made.map(putInOutbox)).then(() => this.flush());
    return made.map((event) => event.id);
  }

  /** Keeps a picture here until the server has it; it is sent before the entries that name it. */
  async keepPicture(id: string, blob: Blob): Promise<void> {
    await putPicture({ id, jobId: this.jobId, blob });
    this.showPictures(new Map([...this.snapshot.pictures, [id, blob]]));
  }

  private showPictures(pictures: ReadonlyMap<string, Blob>): void {
    this.snapshot = { ...this.snapshot, pictures };
    for (const listener of this.listeners) listener();
  }

  private unsent(event: JobEvent): LogEvent {
    const { id, madeAt, clientOrder, body } = event;
    return { id, seq: null, person: this.personName, madeAt, clientOrder, body };
  }

  private add(events: readonly LogEvent[]): void {
    const known = new Set(this.snapshot.events.map((event) => event.id));
    const fresh = events.filter((event) => !known.has(event.id));
    if (fresh.length > 0) this.change([...this.snapshot.events, ...fresh], this.snapshot.sending);
  }

  private change(events: readonly LogEvent[], sending: Sending): void {
    const same = events === this.snapshot.events;
    const { pictures, job } = this.snapshot;
    this.snapshot = { events, job: same ? job : jobState(events), sending, pictures };
    for (const listener of this.listeners) listener();
  }

  private async flush(): Promise<void> {
    if (this.flushing) return;
    this.flushing = true;
    try {
      if (!(await this.sendPictures())) return;
      for (;;) {
        const waiting = (await waitingInOutbox(this.jobId)).slice(0, BATCH);
        if (waiting.length === 0) {
          this.change(this.snapshot.events, { kind: 'idle' });
          return;
        }
        if (!(await this.send(waiting))) return;
      }
    } finally {
      this.flushing = false;
    }
  }

  /** Sends the pictures that wait, one after another; false when sending has to stop for now. */
  private async sendPictures(): Promise<boolean> {
    for (const { id, blob } of await waitingPictures(this.jobId)) {
      let response: Response;
      try {
        response = await fetch(`/api/photos?job=${this.jobId}&id=${id}`, { method: 'POST', body: blob });
      } catch {
        this.retryLater(1);
        return false;
      }
      if (response.status >= 500) {
        this.retryLater(1);
        return false;
      }
      if (!response.ok) {
        const { message } = (await response.json()) as { message?: string };
        this.change(this.snapshot.events, {
          kind: 'refused',
          count: 1,
          message: message ?? 'The server refused a photo.',
        });
      }
      await dropPicture(id);
      const pictures = new Map(this.snapshot.pictures);
      pictures.delete(id);
      this.showPictures(pictures);
    }
    return true;
  }

  /** Sends one batch; false when sending has to stop for now. */
  private async send(waiting: readonly JobEvent[]): Promise<boolean> {
    const count = waiting.length;
    this.change(this.snapshot.events, { kind: 'sending', count });
    let response: Response;
    try {
      response = await fetch('/api/events', {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify({ events: waiting }),
      });
    } catch {
      this.retryLater(count);
      return false;
    }
    if (response.status >= 500) {
      this.retryLater(count);
      return false;
    }
    const answer = (await response.json()) as {
      stored?: { id: string; seq: number; person: string }[];
      problems?: { message: string }[];
    };
    if (!response.ok || !answer.stored) {
      const message =
        answer.problems?.map((one) => one.message).join(' ') ?? 'The server refused the entries.';
      this.change(this.snapshot.events, { kind: 'refused', count, message });
      return false;
    }
    this.retryMs = FIRST_RETRY_MS;
    const receipts = new Map(answer.stored.map((one) => [one.id, one]));
    await takeFromOutbox([...receipts.keys()]);
    const events = this.snapshot.events.map((event) => {
      const receipt = receipts.get(event.id);
      return receipt ? { ...event, seq: receipt.seq, person: receipt.person } : event;
    });
    this.change(events, { kind: 'idle' });
    return true;
  }

  private retryLater(count: number): void {
    this.change(this.snapshot.events, { kind: 'waiting', count });
    if (this.timer) clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.flush(), this.retryMs);
    this.retryMs = Math.min(this.retryMs * 2, LONGEST_RETRY_MS);
  }
}
