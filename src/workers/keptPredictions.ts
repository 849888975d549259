/**
 * What every fault of a circuit would show, as this browser keeps it from one visit to the next (IndexedDB): for one person
 * of one shop, by the circuit and the program that worked it out. A browser that keeps nothing works it out each time.
 */
import { type DBSchema, type IDBPDatabase, openDB } from 'idb';
import { type Complaint, type KeptPredictions, packPredictions, unpackPredictions } from '#core/diagnosis';
import type { CircuitFile } from '#core/format';
import { atMost } from '@/sync/atMost';
import { PREDICTIONS_DB } from '@/sync/predictionsPlace';

/** For whom it is kept. */
export interface KeptFor {
  readonly person: string;
  readonly shop: string;
}

interface KeptRecord {
  /** Owner, program, circuit and complaint. */
  readonly key: string;
  /** The same without the complaint. */
  readonly circuit: string;
  readonly usedAt: number;
  /** Packed, and compressed where the browser can. */
  readonly data: Uint8Array<ArrayBuffer>;
  readonly compressed: boolean;
}

interface Schema extends DBSchema {
  predictions: { key: string; value: KeptRecord; indexes: { byCircuit: string; byUse: number } };
}

/** So long the browser's own store is waited for: one that never answers keeps no card back. */
const STORE_MS = 1000;
/** So many complaints about a circuit are looked through for what another one shares with them. */
const MOST_SOURCES = 3;
/** The program that worked it out: a hash of the core's sources, put in when the application is built. */
const PROGRAM = process.env.NEXT_PUBLIC_CORE ?? '';

let opening: Promise<IDBPDatabase<Schema>> | null = null;

function predictionsDb(): Promise<IDBPDatabase<Schema>> {
  opening ??= openDB<Schema>(PREDICTIONS_DB, 1, {
    blocking(_now, _wanted, event) {
      (event.target as IDBDatabase).close();
      opening = null;
    },
    terminated() {
      opening = null;
    },
    upgrade(db) {
      const made = db.createObjectStore('predictions', { keyPath: 'key' });
      made.createIndex('byCircuit', 'circuit');
      made.createIndex('byUse', 'usedAt');
    },
  });
  return opening;
}

async function hashOf(text: string): Promise<string> {
  const hash = await crypto.subtle.digest('SHA-256', new TextEncoder().encode(text));
  return [...new Uint8Array(hash)].map((byte) => byte.toString(16).padStart(2, '0')).join('');
}

async function through(bytes: Uint8Array<ArrayBuffer>, stream: GenericTransformStream) {
  const all = new Response(new Blob([bytes]).stream().pipeThrough(stream));
  return new Uint8Array(await all.arrayBuffer());
}

const COMPRESSES = typeof CompressionStream !== 'undefined';

/** What is kept of one circuit for one owner. */
export class KeptOfCircuit {
  /** So much is kept for all circuits together, bytes; what was used longest ago makes room. */
  static mostBytes = 24 * 1024 * 1024;
  private readonly place: Promise<string | null>;
  private readonly records: Promise<readonly KeptRecord[]>;

  /** Begins to fetch what there is. Nothing is kept for nobody, and over a connection without TLS. */
  constructor(circuit: CircuitFile, owner: KeptFor | null) {
    const secure = typeof crypto !== 'undefined' && crypto.subtle !== undefined;
    const text = JSON.stringify(circuit);
    this.place =
      owner && secure && PROGRAM !== ''
        ? hashOf(text).then((hash) => [owner.shop, owner.person, PROGRAM, hash].join('|'))
        : Promise.resolve(null);
    this.records = this.fetch();
  }

  private async fetch(): Promise<readonly KeptRecord[]> {
    let records: readonly KeptRecord[] = [];
    try {
      await atMost(
        STORE_MS,
        this.readRecords().then((found) => {
          records = found;
        }),
      );
    } catch (error) {
      keepsNothing(error);
    }
    return records;
  }

  private async readRecords(): Promise<readonly KeptRecord[]> {
    const place = await this.place;
    return place === null ? [] : (await predictionsDb()).getAllFromIndex('predictions', 'byCircuit', place);
  }

  /** What helps with a complaint: what was kept of the same first, which is the whole of it, or the latest of others. */
  async of(complaint: Complaint): Promise<{ kept: readonly KeptPredictions[]; whole: boolean }> {
    const key = await this.keyOf(complaint);
    const records = [...(await this.records)].sort(
      (one, other) => Number(other.key === key) - Number(one.key === key) || other.usedAt - one.usedAt,
    );
    const same = records[0]?.key === key;
    if (same) void this.touch(records[0]!);
    const read = await Promise.all(
      // The same complaint has all of it.
      records.slice(0, same ? 1 : MOST_SOURCES).map(async ({ data, compressed }) => {
        try {
          return unpackPredictions(compressed ? await through(data, new DecompressionStream('gzip')) : data);
        } catch {
          return null;
        }
      }),
    );
    const kept = read.filter((one) => one !== null);
    return { kept, whole: same && kept.length > 0 };
  }

  async keep(complaint: Complaint, predictions: KeptPredictions): Promise<void> {
    try {
      const place = await this.place;
      const key = await this.keyOf(complaint);
      if (place === null || key === null) return;
      const packed = packPredictions(predictions);
      const data = COMPRESSES ? await through(packed, new CompressionStream('gzip')) : packed;
      const db = await predictionsDb();
      await db.put('predictions', { key, circuit: place, usedAt: Date.now(), data, compressed: COMPRESSES });
      await makeRoom(db);
    } catch (error) {
      keepsNothing(error);
    }
  }

  private async keyOf({ function: name, condition }: Complaint): Promise<string | null> {
    const place = await this.place;
    return place === null ? null : `${place}|${name}|${condition}`;
  }

  private async touch(record: KeptRecord): Promise<void> {
    try {
      await (await predictionsDb()).put('predictions', { ...record, usedAt: Date.now() });
    } catch (error) {
      keepsNothing(error);
    }
  }
}

/** Lets go of what another program worked out, and of what was used longest ago where there is too much. */
async function makeRoom(db: IDBPDatabase<Schema>): Promise<void> {
  const all = await db.getAllFromIndex('predictions', 'byUse');
  let bytes = 0;
  for (const { key, circuit, data } of all.reverse()) {
    bytes += data.byteLength;
    if (bytes > KeptOfCircuit.mostBytes || circuit.split('|')[2] !== PROGRAM)
      await db.delete('predictions', key);
  }
}

function keepsNothing(error: unknown): void {
  console.warn('This browser keeps nothing of a diagnosis between visits.', error);
}
