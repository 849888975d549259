/**
 * Whose sheet is made next. Of each workshop one is made and two wait, people before guests; who asks for the same sheet
 * waits with the first. What is finished is kept by everything that it depends on, so that asking again costs nothing.
 */
import { createHash } from 'node:crypto';
import { LRUCache } from 'lru-cache';
import PQueue from 'p-queue';
import { NotNow } from '@/http/notNow';
import type { SheetMade, SheetTask } from './sheetMessages';

const MOST_WAITING = 2;
const PERSON = 1;
const GUEST = 0;
const MOST_BYTES = 32 * 1024 * 1024;
const AGAIN_SECONDS = 5;

export interface Turn {
  readonly shop: string;
  readonly guest: boolean;
  /** Everything that the sheet depends on (`keyOf`). */
  readonly key: string;
}

/** A name for all that a sheet is made of; `photos` are the ids of the pictures that are there. */
export function keyOf({ pictures: _, ...task }: SheetTask, photos: readonly string[]): string {
  return createHash('sha256')
    .update(JSON.stringify([task, photos]))
    .digest('hex');
}

export class SheetTurns {
  private readonly lines = new Map<string, PQueue>();
  private readonly underWay = new Map<string, Promise<SheetMade>>();
  private readonly finished: LRUCache<string, SheetMade>;

  constructor(mostBytes = MOST_BYTES) {
    this.finished = new LRUCache({
      maxSize: mostBytes,
      sizeCalculation: (made) =>
        Math.max(1, 'byteLength' in made ? made.byteLength : JSON.stringify(made).length),
    });
  }

  /** The sheet, kept or made. Throws `NotNow` where this workshop waits for so many that this one has to come again. */
  async made({ shop, guest, key }: Turn, make: () => Promise<SheetMade>): Promise<SheetMade> {
    const kept = this.finished.get(key) ?? this.underWay.get(key);
    if (kept) return kept;
    const line = this.lines.get(shop) ?? new PQueue({ concurrency: 1 });
    // Guests who wait keep nobody of the workshop from waiting.
    const waiting = guest ? line.size : line.sizeBy({ priority: PERSON });
    if (waiting >= MOST_WAITING) {
      throw new NotNow(
        'Other sheets of this workshop are being made, and two wait already. Nothing is lost; ask again in a moment.',
        AGAIN_SECONDS,
      );
    }
    this.lines.set(shop, line);
    const turn = line.add(make, { priority: guest ? GUEST : PERSON }).then((sheet) => {
      this.finished.set(key, sheet);
      return sheet;
    });
    this.underWay.set(key, turn);
    try {
      return await turn;
    } finally {
      this.underWay.delete(key);
      if (line.size === 0 && line.pending === 0) this.lines.delete(shop);
    }
  }
}
