/**
 * The pages of this process that have a job before them. Who is on the job is asked once for all of them, however many come
 * and go in a moment, and told only where it has changed. One person has so many pages of a job; another ends the oldest.
 */
import { journal } from '@/journal/journal';
import { type Here, whoIsOn } from './presence';

/** Coming and going within this time is asked about once. */
const GATHERED_MS = 250;
const MOST_PAGES = 6;

/** One page. */
export interface Guest {
  readonly personId: string;
  readonly say: (here: readonly Here[]) => void;
  /** This page hears no more: the person has opened the job on too many others since. */
  readonly tooMany: () => void;
}

class Room {
  /** In the order in which they came. */
  private readonly guests = new Set<Guest>();
  private readonly heard = new WeakMap<Guest, string>();
  private asking: NodeJS.Timeout | null = null;

  constructor(
    private readonly jobId: string,
    private readonly ask: typeof whoIsOn,
  ) {}

  get isEmpty(): boolean {
    return this.guests.size === 0;
  }

  come(guest: Guest): void {
    this.guests.add(guest);
    const own = [...this.guests].filter(({ personId }) => personId === guest.personId);
    for (const oldest of own.slice(0, Math.max(0, own.length - MOST_PAGES))) {
      this.guests.delete(oldest);
      oldest.tooMany();
    }
    this.changed();
  }

  go(guest: Guest): void {
    this.guests.delete(guest);
  }

  /** Somebody came or went, here or in another process. */
  changed(): void {
    this.asking ??= setTimeout(() => {
      this.asking = null;
      this.ask(this.jobId).then(
        (here) => this.tell(here),
        // It is asked again with the next who comes or goes.
        (err: unknown) => journal.warn({ err }, 'who is on a job cannot be said'),
      );
    }, GATHERED_MS);
  }

  private tell(here: readonly Here[]): void {
    const text = JSON.stringify(here);
    for (const guest of this.guests) {
      if (this.heard.get(guest) === text) continue;
      this.heard.set(guest, text);
      guest.say(here);
    }
  }
}

// One set for the process; kept across reloads of the development server.
const holder = globalThis as unknown as { everyTraceRooms?: Map<string, Room> };

/** A page has the job before it. Gives what is called when somebody came or went, and when this page goes. */
export function enterRoom(
  jobId: string,
  guest: Guest,
  ask: typeof whoIsOn = whoIsOn,
): { readonly changed: () => void; readonly leave: () => void } {
  holder.everyTraceRooms ??= new Map();
  const rooms = holder.everyTraceRooms;
  const room = rooms.get(jobId) ?? new Room(jobId, ask);
  rooms.set(jobId, room);
  room.come(guest);
  return {
    changed: () => room.changed(),
    leave: () => {
      room.go(guest);
      if (room.isEmpty && rooms.get(jobId) === room) rooms.delete(jobId);
    },
  };
}
