/**
 * Sends what was recorded in this browser, of whatever job, from whatever page: entries and pictures wait here until the
 * server has confirmed them, or until a person gives up by name what it will not take.
 */
import type { JobEvent } from '#core/format';
import { atMost } from '@/sync/atMost';
import { type Owner, ownerHere } from '@/sync/who';
import { type Answered, deliver, type Receipt, refusedIn } from './deliver';
import {
  dropPicture,
  everythingWaiting,
  markRefused,
  putInOutbox,
  putPicture,
  takeFromOutbox,
  type WaitingEvent,
  type WaitingPicture,
} from './outbox';

export type Sending =
  | { readonly kind: 'idle' }
  | { readonly kind: 'sending'; readonly count: number }
  | { readonly kind: 'waiting'; readonly count: number }
  /** Nobody is signed in here, or somebody else than whose it is: `for` whom it waits, where that is known. */
  | { readonly kind: 'held'; readonly count: number; readonly for: string | null }
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
  readonly arrivedAt: string;
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
/** So long the browser's own store is waited for: one that never answers keeps nothing from being sent. */
const OUTBOX_MS = 1000;
/** Answers that say of what was sent that it will never be taken, however often it comes. */
const NEVER: readonly number[] = [400, 413, 415, 422];

/** Entries and pictures go each on a way of their own: what hangs or fails on one holds back nothing on the other. */
type Way = 'entries' | 'pictures';

interface Progress {
  sending: boolean;
  retryMs: number;
  timer: ReturnType<typeof setTimeout> | null;
}

const begun = (): Progress => ({ sending: false, retryMs: FIRST_RETRY_MS, timer: null });

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
  /** Whose each entry is. */
  private readonly owners = new Map<string, Owner>();
  /** People whose entries the server did not take of who is signed in here. */
  private readonly others = new Set<string>();
  /** The server has said that nobody is signed in here. */
  private nobody = false;
  /** The page is about to be left. */
  private leaving = false;
  /** The server did not answer when it was last asked to take an entry. */
  private away = false;
  /** Pictures of which that is so. */
  private readonly unanswered = new Set<string>();
  private readonly ways: Readonly<Record<Way, Progress>> = { entries: begun(), pictures: begun() };

  readonly subscribe = (listener: SenderListener): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  /** Brings back what earlier visits could not send, and begins sending. Gives what ends it. */
  start(): () => void {
    const retry = () => {
      for (const way of Object.values(this.ways)) way.retryMs = FIRST_RETRY_MS;
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
        for (const { refused, by, ...event } of events) {
          if (!this.entries.has(event.id)) this.entries.set(event.id, event);
          if (by) this.owners.set(event.id, by);
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
      for (const { timer } of Object.values(this.ways)) if (timer) clearTimeout(timer);
      clearTimeout(stayed);
      this.leaving = false;
    };
  }

  /** Entries that belong together, all or none; sent also where the browser keeps nothing. */
  add(events: readonly JobEvent[]): void {
    const by = ownerHere();
    for (const event of events) {
      this.entries.set(event.id, event);
      if (by) this.owners.set(event.id, by);
    }
    this.tell();
    void kept(putInOutbox(by ? events.map((event) => ({ ...event, by })) : events)).then(() => this.flush());
  }

  /** Keeps a picture here until the server has it; it is sent after the next entries. */
  async addPicture(made: WaitingPicture): Promise<void> {
    const by = made.by ?? ownerHere();
    const picture = by ? { ...made, by } : made;
    await kept(putPicture(picture));
    this.pictures.set(picture.id, picture);
    this.tell();
  }

  /** The server has these, as somebody else has seen: another page, or the next one. */
  known(ids: readonly string[]): void {
    const gone = ids.filter((id) => this.entries.delete(id));
    if (gone.length === 0) return;
    for (const id of gone) this.reasons.delete(id);
    void kept(takeFromOutbox(gone));
    this.tell();
  }

  /** Takes back what the server refused: the entry or picture is gone from here on. Only by a person, and by name. */
  async giveUp(id: string): Promise<void> {
    this.reasons.delete(id);
    this.unanswered.delete(id);
    if (this.pictures.delete(id)) await kept(dropPicture(id));
    else if (this.entries.delete(id)) await kept(takeFromOutbox([id]));
    this.tell();
  }

  /** Asks the server once more for what it has refused. */
  tryAgain(): void {
    this.tried.clear();
    this.stuck.clear();
    void this.flush();
  }

  /** Takes in what waited in another place, as it was there: entries and pictures with whose they are. */
  async bring(events: readonly WaitingEvent[], pictures: readonly WaitingPicture[]): Promise<void> {
    for (const picture of pictures) await this.addPicture(picture);
    const fresh = events.filter((event) => !this.entries.has(event.id));
    for (const { refused: _refused, by, ...event } of fresh) {
      this.entries.set(event.id, event);
      if (by) this.owners.set(event.id, by);
    }
    for (const event of fresh) await kept(putInOutbox([event]));
    this.tell();
    void this.flush();
  }

  /** Who made an entry that waits; null where that was never said. */
  ownerOf(id: string): Owner | null {
    return this.owners.get(id) ?? null;
  }

  /** Everything that waits in this browser, as it is kept. */
  everything(): { readonly events: readonly WaitingEvent[]; readonly pictures: readonly WaitingPicture[] } {
    const events = [...this.entries.values()].map((event): WaitingEvent => {
      const by = this.owners.get(event.id);
      return by ? { ...event, by } : event;
    });
    return {
      events: events.sort((one, other) => one.clientOrder - other.clientOrder),
      pictures: [...this.pictures.values()],
    };
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
      sending: this.sendingOf(
        jobId,
        entries.length + pictures.length - refusals.length,
        [...entries, ...pictures].map(({ id }) => id),
      ),
    };
  }

  /** How much of each job stands still: the server is away, will not take it, or takes it of somebody else. */
  standing(): ReadonlyMap<string, number> {
    const counts = new Map<string, number>();
    for (const { id, jobId } of [...this.entries.values(), ...this.pictures.values()]) {
      if (
        this.isAway(id) ||
        this.nobody ||
        this.stuck.has(jobId) ||
        this.reasons.has(id) ||
        this.isOthers(id)
      ) {
        counts.set(jobId, (counts.get(jobId) ?? 0) + 1);
      }
    }
    return counts;
  }

  /** For whom what waits in this browser waits; null where it waits for nobody to sign in. */
  heldFor(): readonly string[] {
    const ids = [...this.entries.keys(), ...this.pictures.keys()];
    const names = ids
      .filter((id) => this.nobody || this.isOthers(id))
      .map((id) => this.nameOf(id))
      .filter((name) => name !== null);
    return [...new Set(names)];
  }

  private whose(id: string): Owner | null {
    return this.owners.get(id) ?? this.pictures.get(id)?.by ?? null;
  }

  /** Whose something is, in words; with the shop where that is another one than is worked for here. */
  private nameOf(id: string): string | null {
    const by = this.whose(id);
    if (!by?.shopName || by.shop === ownerHere()?.shop) return by?.name ?? null;
    return `${by.name} of ${by.shopName}`;
  }

  /** Whether something is somebody else's than who is signed in here. */
  private isOthers(id: string): boolean {
    const by = this.whose(id);
    return by !== null && this.others.has(by.person);
  }

  /** Whether the server did not answer when it was last asked to take this, or its like. */
  private isAway(id: string): boolean {
    return this.pictures.has(id) ? this.unanswered.has(id) : this.away;
  }

  private refusalOf(id: string, what: Refusal['what'], into: Refusal[]): void {
    const message = this.reasons.get(id);
    if (message !== undefined) into.push({ id, message, what });
  }

  private sendingOf(jobId: string, count: number, ids: readonly string[]): Sending {
    // Nothing stands still where nothing waits, whoever has sent it.
    if (count === 0) return { kind: 'idle' };
    const held = ids.find((id) => this.nobody || this.isOthers(id));
    if (held !== undefined) return { kind: 'held', count, for: this.nameOf(held) };
    const message = this.stuck.get(jobId);
    if (message !== undefined) return { kind: 'refused', count, message };
    const away = ids.some((id) => !this.reasons.has(id) && this.isAway(id));
    return { kind: away ? 'waiting' : 'sending', count };
  }

  private tell(confirmed: readonly Confirmed[] = []): void {
    for (const listener of this.listeners) listener(confirmed);
  }

  /** Entries first; pictures are large, and what is read off a meter does not wait for them. */
  private async flush(): Promise<void> {
    await this.along('entries', () => this.sendEntries());
    await this.along('pictures', () => this.sendPictures());
  }

  /** Sends on one way, once at a time; where not everything could be sent it is tried again later. */
  private async along(way: Way, send: () => Promise<boolean>): Promise<void> {
    const progress = this.ways[way];
    if (progress.sending) return;
    progress.sending = true;
    try {
      if (await send()) return;
      if (progress.timer) clearTimeout(progress.timer);
      progress.timer = setTimeout(() => void this.flush(), progress.retryMs);
      progress.retryMs = Math.min(progress.retryMs * 2, LONGEST_RETRY_MS);
    } finally {
      progress.sending = false;
    }
  }

  /** Sends the entries that wait, batch by batch; false when sending has to stop for now. */
  private async sendEntries(): Promise<boolean> {
    for (;;) {
      const batch = this.nextBatch();
      if (batch.length === 0) return true;
      if (!(await this.send(batch))) return false;
    }
  }

  /** The next entries of one job, in their order; one job at a time, so that what is wrong with one keeps no other back. */
  private nextBatch(): readonly JobEvent[] {
    const open = [...this.entries.values()].filter(
      ({ id, jobId }) => !this.tried.has(id) && !this.stuck.has(jobId) && !this.isOthers(id),
    );
    const [first] = open;
    if (!first) return [];
    const person = this.whose(first.id)?.person;
    const batch: JobEvent[] = [];
    let bytes = 0;
    const own = open.filter(
      (event) => event.jobId === first.jobId && this.whose(event.id)?.person === person,
    );
    for (const event of own.sort((one, other) => one.clientOrder - other.clientOrder).slice(0, BATCH)) {
      bytes += JSON.stringify(event).length;
      if (batch.length > 0 && bytes > BATCH_BYTES) break;
      batch.push(event);
    }
    return batch;
  }

  /** Sends the pictures that wait, one after another; false where one has to be sent again later. */
  private async sendPictures(): Promise<boolean> {
    const asked = new Set<string>();
    for (;;) {
      const picture = [...this.pictures.values()].find(
        ({ id }) => !asked.has(id) && !this.tried.has(id) && !this.isOthers(id),
      );
      if (!picture) return this.unanswered.size === 0;
      const { id, jobId, blob } = picture;
      asked.add(id);
      const response = await this.post(`/api/photos?job=${jobId}&id=${id}`, blob, this.whose(id));
      if (this.nobody) return false;
      if (response) this.unanswered.delete(id);
      else this.unanswered.add(id);
      this.tell();
      if (!response || response === 'others') continue;
      if (response.ok) {
        this.reasons.delete(id);
        this.ways.pictures.retryMs = FIRST_RETRY_MS;
        await kept(dropPicture(id));
        this.pictures.delete(id);
      } else {
        const message = response.answer.message ?? 'The server refused this photo.';
        this.refused(id, message);
        await kept(putPicture({ ...picture, refused: message }));
      }
      this.tell();
    }
  }

  private refused(id: string, message: string): void {
    this.tried.add(id);
    this.reasons.set(id, message);
  }

  /** Sends one batch; false when sending has to stop for now. */
  private async send(events: readonly JobEvent[]): Promise<boolean> {
    const whose = this.whose(events[0]!.id);
    const response = await this.post('/api/events', JSON.stringify({ events }), whose);
    this.away = response === null && !this.nobody;
    this.tell();
    if (!response) return false;
    if (response === 'others') return true;
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
      await kept(markRefused(id, message));
    }
    this.tell();
    return true;
  }

  private async receive(events: readonly JobEvent[], stored: readonly Receipt[]): Promise<boolean> {
    this.ways.entries.retryMs = FIRST_RETRY_MS;
    const sent = new Map(events.map((event) => [event.id, event]));
    const confirmed = stored.flatMap(({ id, seq, person, arrivedAt }): Confirmed[] => {
      const event = sent.get(id);
      this.entries.delete(id);
      this.owners.delete(id);
      this.reasons.delete(id);
      return event ? [{ event, seq, person, arrivedAt }] : [];
    });
    this.tell(confirmed);
    if (!this.leaving) await kept(takeFromOutbox(stored.map((one) => one.id)));
    return true;
  }

  /**
   * What the server answers; `others` where it takes this of somebody else only; null when it is away, nobody is signed
   * in, or it answers nothing that can be read, and sending goes on later.
   */
  private async post(
    url: string,
    body: string | Blob,
    whose: Owner | null,
  ): Promise<Answered | 'others' | null> {
    const answered = await deliver(url, body, whose?.person ?? null);
    if (answered !== 'away') this.nobody = answered === 'nobody';
    if (answered === 'others' && whose) {
      this.others.add(whose.person);
      this.tell();
      return 'others';
    }
    return typeof answered === 'object' ? answered : null;
  }
}

/** A browser that keeps nothing still shows and sends; what it cannot do is bring back after a reload. */
function noOutbox(error: unknown): void {
  console.warn('This browser keeps no entries between visits.', error);
}

/** Waits for the browser's own store, and not for ever. */
const kept = (work: Promise<unknown>): Promise<void> => atMost(OUTBOX_MS, work).catch(noOutbox);

let shared: Sender | null = null;

/** The one sender of this browser page. */
export function sender(): Sender {
  shared ??= new Sender();
  return shared;
}
