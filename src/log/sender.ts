/**
 * Sends what was recorded in this browser, of whatever job, from whatever page: entries and pictures wait here until the
 * server has confirmed them, or until a person gives up by name what it will not take.
 */
import type { JobEvent, Problem } from '#core/format';
import {
  dropPicture,
  everythingWaiting,
  markRefused,
  putInOutbox,
  putPicture,
  takeFromOutbox,
  type WaitingPicture,
} from './outbox';

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
  readonly what: { readonly entry: JobEvent } | { readonly picture: Blob };
}

/** What waits of one job. */
export interface Waiting {
  readonly entries: readonly JobEvent[];
  readonly pictures: ReadonlyMap<string, Blob>;
  readonly refusals: readonly Refusal[];
  readonly sending: Sending;
}

/** An entry that the server has confirmed. */
export interface Confirmed {
  readonly event: JobEvent;
  readonly seq: number;
  readonly person: string;
}

/** What happened: entries that were confirmed, in any job, or only that something waits otherwise than before. */
export type SenderListener = (confirmed: readonly Confirmed[]) => void;

/** Most entries, and bytes of them, that are sent at once; a batch of any entries stays far below what is taken. */
const BATCH = 200;
const BATCH_BYTES = 256 * 1024;
const FIRST_RETRY_MS = 1000;
const LONGEST_RETRY_MS = 15_000;
/** Who is still here so long after leaving began has stayed. */
const STAYED_MS = 10_000;
/** Answers that say of what was sent that it will never be taken, however often it comes. */
const NEVER: readonly number[] = [400, 413, 415, 422];
/** Answers of a server that cannot at the moment, besides those of 500 and above. */
const LATER: readonly number[] = [408, 425, 429];

export class Sender {
  private readonly entries = new Map<string, JobEvent>();
  private readonly pictures = new Map<string, WaitingPicture>();
  private readonly listeners = new Set<SenderListener>();
  /** Reasons of the server, by the id of the entry or picture; tried again at the next visit. */
  private readonly reasons = new Map<string, string>();
  /** What this visit has asked the server to take already, without success. */
  private readonly tried = new Set<string>();
  /** Jobs of which the server takes nothing, and why; the others go on. */
  private readonly stuck = new Map<string, string>();
  private away = false;
  private flushing = false;
  /** The page is about to be left. */
  private leaving = false;
  private retryMs = FIRST_RETRY_MS;
  private timer: ReturnType<typeof setTimeout> | null = null;

  readonly subscribe = (listener: SenderListener): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  /** Brings back what earlier visits could not send, and begins sending. Gives what ends it. */
  start(): () => void {
    const retry = () => {
      this.retryMs = FIRST_RETRY_MS;
      void this.flush();
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
    void everythingWaiting()
      .then(({ events, pictures }) => {
        for (const { refused, ...event } of events) {
          if (!this.entries.has(event.id)) this.entries.set(event.id, event);
          if (refused) this.reasons.set(event.id, refused);
        }
        for (const picture of pictures) {
          this.pictures.set(picture.id, picture);
          if (picture.refused) this.reasons.set(picture.id, picture.refused);
        }
        this.tell();
      })
      .catch(noOutbox)
      .then(() => this.flush());
    return () => {
      window.removeEventListener('online', retry);
      window.removeEventListener('beforeunload', leave);
      document.removeEventListener('visibilitychange', seen);
      if (this.timer) clearTimeout(this.timer);
      clearTimeout(stayed);
      this.leaving = false;
    };
  }

  /** Entries that belong together, all or none; sent also where the browser keeps nothing. */
  add(events: readonly JobEvent[]): void {
    for (const event of events) this.entries.set(event.id, event);
    this.tell();
    void putInOutbox(events)
      .catch(noOutbox)
      .then(() => this.flush());
  }

  /** Keeps a picture here until the server has it; it is sent with the next entries, before them. */
  async addPicture(picture: WaitingPicture): Promise<void> {
    await putPicture(picture).catch(noOutbox);
    this.pictures.set(picture.id, picture);
    this.tell();
  }

  /** The server has these, as somebody else has seen: another page, or the next one. */
  known(ids: readonly string[]): void {
    const gone = ids.filter((id) => this.entries.delete(id));
    if (gone.length === 0) return;
    for (const id of gone) this.reasons.delete(id);
    void takeFromOutbox(gone).catch(noOutbox);
    this.tell();
  }

  /** Takes back what the server refused: the entry or picture is gone from here on. Only by a person, and by name. */
  async giveUp(id: string): Promise<void> {
    this.reasons.delete(id);
    if (this.pictures.delete(id)) await dropPicture(id).catch(noOutbox);
    else if (this.entries.delete(id)) await takeFromOutbox([id]).catch(noOutbox);
    this.tell();
  }

  /** Asks the server once more for what it has refused. */
  tryAgain(): void {
    this.tried.clear();
    this.stuck.clear();
    void this.flush();
  }

  /** What waits of a job. */
  of(jobId: string): Waiting {
    const entries = [...this.entries.values()].filter((event) => event.jobId === jobId);
    const pictures = [...this.pictures.values()].filter((picture) => picture.jobId === jobId);
    const refusals: Refusal[] = [];
    for (const entry of entries) this.refusalOf(entry.id, { entry }, refusals);
    for (const { id, blob } of pictures) this.refusalOf(id, { picture: blob }, refusals);
    return {
      entries: entries.sort((one, other) => one.clientOrder - other.clientOrder),
      pictures: new Map(pictures.map(({ id, blob }) => [id, blob])),
      refusals,
      sending: this.sendingOf(jobId, entries.length + pictures.length - refusals.length),
    };
  }

  /** How much of each job stands still: the server is away, or will not take it. */
  standing(): ReadonlyMap<string, number> {
    const counts = new Map<string, number>();
    for (const { id, jobId } of [...this.entries.values(), ...this.pictures.values()]) {
      if (this.away || this.stuck.has(jobId) || this.reasons.has(id)) {
        counts.set(jobId, (counts.get(jobId) ?? 0) + 1);
      }
    }
    return counts;
  }

  private refusalOf(id: string, what: Refusal['what'], into: Refusal[]): void {
    const message = this.reasons.get(id);
    if (message !== undefined) into.push({ id, message, what });
  }

  private sendingOf(jobId: string, count: number): Sending {
    // Nothing stands still where nothing waits, whoever has sent it.
    if (count === 0) return { kind: 'idle' };
    const message = this.stuck.get(jobId);
    if (message !== undefined) return { kind: 'refused', count, message };
    return this.away ? { kind: 'waiting', count } : { kind: 'sending', count };
  }

  private tell(confirmed: readonly Confirmed[] = []): void {
    for (const listener of this.listeners) listener(confirmed);
  }

  private async flush(): Promise<void> {
    if (this.flushing) return;
    this.flushing = true;
    try {
      for (;;) {
        if (!(await this.sendPictures())) return;
        const batch = this.nextBatch();
        if (batch.length === 0 || !(await this.send(batch))) return;
      }
    } finally {
      this.flushing = false;
    }
  }

  /** The next entries of one job, in their order; one job at a time, so that what is wrong with one keeps no other back. */
  private nextBatch(): readonly JobEvent[] {
    const open = [...this.entries.values()].filter(
      ({ id, jobId }) => !this.tried.has(id) && !this.stuck.has(jobId),
    );
    const [first] = open;
    if (!first) return [];
    const batch: JobEvent[] = [];
    let bytes = 0;
    const own = open.filter((event) => event.jobId === first.jobId);
    for (const event of own.sort((one, other) => one.clientOrder - other.clientOrder).slice(0, BATCH)) {
      bytes += JSON.stringify(event).length;
      if (batch.length > 0 && bytes > BATCH_BYTES) break;
      batch.push(event);
    }
    return batch;
  }

  /** Sends the pictures that wait, one after another; false when sending has to stop for now. */
  private async sendPictures(): Promise<boolean> {
    for (const picture of [...this.pictures.values()]) {
      const { id, jobId, blob } = picture;
      if (this.tried.has(id)) continue;
      const response = await this.post(`/api/photos?job=${jobId}&id=${id}`, blob);
      if (!response) return false;
      if (response.ok) {
        this.reasons.delete(id);
        await dropPicture(id).catch(noOutbox);
        this.pictures.delete(id);
      } else {
        const message = response.answer.message ?? 'The server refused this photo.';
        this.refused(id, message);
        await putPicture({ ...picture, refused: message }).catch(noOutbox);
      }
      this.tell();
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
    if (response.ok && answer.stored?.length) return this.receive(events, answer.stored);
    const named = refusedIn(events, answer.problems ?? []);
    if (named.size === 0 && NEVER.includes(status)) {
      // Somewhere in it; one entry that is refused keeps no other back.
      if (events.length > 1) {
        for (const one of events) if (!(await this.send([one]))) return false;
        return true;
      }
      named.set(events[0]!.id, answer.message ?? 'The server refused this entry.');
    }
    if (named.size === 0)
      this.stuck.set(events[0]!.jobId, answer.message ?? 'The server refused the entries.');
    for (const [id, message] of named) {
      this.refused(id, message);
      await markRefused(id, message).catch(noOutbox);
    }
    this.tell();
    return true;
  }

  private async receive(events: readonly JobEvent[], stored: readonly Receipt[]): Promise<boolean> {
    this.retryMs = FIRST_RETRY_MS;
    const sent = new Map(events.map((event) => [event.id, event]));
    const confirmed = stored.flatMap(({ id, seq, person }): Confirmed[] => {
      const event = sent.get(id);
      this.entries.delete(id);
      this.reasons.delete(id);
      return event ? [{ event, seq, person }] : [];
    });
    this.tell(confirmed);
    if (!this.leaving) await takeFromOutbox(stored.map((one) => one.id)).catch(noOutbox);
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
        const answer = (await response.json()) as Answered['answer'];
        this.away = false;
        return { ok, status, answer };
      }
    } catch {
      // Away, like a server that cannot answer.
    }
    this.away = true;
    this.tell();
    if (this.timer) clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.flush(), this.retryMs);
    this.retryMs = Math.min(this.retryMs * 2, LONGEST_RETRY_MS);
    return null;
  }
}

interface Receipt {
  readonly id: string;
  readonly seq: number;
  readonly person: string;
}

interface Answered {
  readonly ok: boolean;
  readonly status: number;
  readonly answer: {
    readonly stored?: readonly Receipt[];
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

/** A browser that keeps nothing still shows and sends; what it cannot do is bring back after a reload. */
function noOutbox(error: unknown): void {
  console.warn('This browser keeps no entries between visits.', error);
}

let shared: Sender | null = null;

/** The one sender of this browser page. */
export function sender(): Sender {
  shared ??= new Sender();
  return shared;
}
