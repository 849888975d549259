/**
 * What hypotheses predict for tests, as it is kept from one visit to the next: by the ids of hypotheses and tests, so that
 * another complaint about the same circuit takes over what it shares with the one before. Valid for the circuit that it
 * was worked out on, and for this program, alone.
 */

import type { RepairGroup } from './repairGroup';

/** Numbers of one test, hypothesis by hypothesis; what is zero for all of them is left out. */
export type Column =
  | 'clean'
  | 'mixed'
  | 'swayed'
  | 'mean'
  | 'spread'
  | 'swing'
  | 'floating'
  | 'otherChance'
  | 'otherMean';
type Numbers = Float64Array | Float32Array | Uint8Array;

export interface KeptTest {
  readonly id: string;
  /** Numbers that each hypothesis has in the columns of chances; 1 for volts. */
  readonly outcomes: number;
  readonly columns: Readonly<Partial<Record<Column, Numbers>>>;
}

/** Repair groups as some tests tell them apart. */
interface KeptGroups {
  /** Ids of those tests. */
  readonly tests: readonly string[];
  readonly groups: readonly RepairGroup[];
}

export interface KeptPredictions {
  /** Ids of the hypotheses, in the order of the columns. */
  readonly rows: readonly string[];
  readonly tests: ReadonlyMap<string, KeptTest>;
  readonly groups?: KeptGroups | undefined;
}

/** Where the numbers of one hypothesis for one test stand. */
export interface KeptRow {
  readonly test: KeptTest;
  readonly row: number;
}

/** Finds the numbers of a list of hypotheses in what was kept, in the order given. */
export class KeptRows {
  private readonly sources: {
    readonly kept: KeptPredictions;
    readonly rowOf: Int32Array;
    readonly same: boolean;
  }[] = [];

  constructor(
    kept: readonly KeptPredictions[],
    private readonly hypotheses: readonly { readonly id: string }[],
  ) {
    for (const one of kept) this.add(one);
  }

  /** Looks in this too, after all that it has. */
  add(kept: KeptPredictions): void {
    const index = new Map(kept.rows.map((id, row) => [id, row]));
    const rowOf = Int32Array.from(this.hypotheses, ({ id }) => index.get(id) ?? -1);
    const same = kept.rows.length === this.hypotheses.length && rowOf.every((row, h) => row === h);
    this.sources.push({ kept, rowOf, same });
  }

  /** Whether anything was kept of a hypothesis. */
  holds(hypothesis: number): boolean {
    return this.sources.some(({ rowOf }) => rowOf[hypothesis]! >= 0);
  }

  /** The groups that exactly these hypotheses form where these tests can be made; null where they were not kept. */
  groups(tests: readonly { readonly id: string }[]): readonly RepairGroup[] | null {
    for (const { kept, same } of this.sources) {
      const groups = same ? kept.groups : undefined;
      if (groups?.tests.length === tests.length && groups.tests.every((id, at) => id === tests[at]!.id)) {
        return groups.groups;
      }
    }
    return null;
  }

  /** A test that was kept of exactly these hypotheses in this order; null where none was. */
  whole(testId: string): KeptTest | null {
    for (const { kept, same } of this.sources) {
      const test = same ? kept.tests.get(testId) : undefined;
      if (test) return test;
    }
    return null;
  }

  /** What was kept of one of them for a test; null where nothing was. */
  find(testId: string, hypothesis: number): KeptRow | null {
    for (const { kept, rowOf } of this.sources) {
      const row = rowOf[hypothesis]!;
      const test = row < 0 ? undefined : kept.tests.get(testId);
      if (test) return { test, row };
    }
    return null;
  }
}

/** A column where it says anything at all. */
export function unlessZero(numbers: Numbers): Numbers | undefined {
  return numbers.some((one) => one !== 0) ? numbers : undefined;
}

/** Copies what was kept of one hypothesis into the columns of a test that is being made. */
export function copyRow(
  { test, row }: KeptRow,
  into: Readonly<Partial<Record<Column, Numbers>>>,
  hypothesis: number,
): void {
  const { outcomes } = test;
  for (const [name, numbers] of Object.entries(into)) {
    const from = test.columns[name as Column];
    if (!from) continue;
    for (let k = 0; k < outcomes; k++) {
      numbers[hypothesis * outcomes + k] = from[row * outcomes + k]!;
    }
  }
}

const KINDS = { f64: Float64Array, f32: Float32Array, u8: Uint8Array } as const;
type Kind = keyof typeof KINDS;
/** Version of the packed form; one that is packed otherwise is not read. */
const PACKED = 1;

interface Head {
  readonly packed: number;
  readonly rows: readonly string[];
  readonly groups?: KeptGroups | undefined;
  readonly tests: readonly {
    readonly id: string;
    readonly outcomes: number;
    readonly columns: readonly (readonly [Column, Kind])[];
  }[];
}

function kindOf(numbers: Numbers): Kind {
  return numbers instanceof Float64Array ? 'f64' : numbers instanceof Float32Array ? 'f32' : 'u8';
}

/**
 * All of it as one block of bytes: the length of the head (four bytes), the head as JSON, then the columns one after
 * another in the order of the head, each in the byte order of the machine. For this browser alone.
 */
export function packPredictions({ rows, tests, groups }: KeptPredictions): Uint8Array<ArrayBuffer> {
  const all = [...tests.values()].map(({ id, outcomes, columns }) => ({
    id,
    outcomes,
    columns: Object.entries(columns) as [Column, Numbers][],
  }));
  const head: Head = {
    packed: PACKED,
    rows,
    groups,
    tests: all.map((one) => ({
      ...one,
      columns: one.columns.map(([name, numbers]) => [name, kindOf(numbers)] as const),
    })),
  };
  const headBytes = new TextEncoder().encode(JSON.stringify(head));
  const blocks = all.flatMap(({ columns }) => columns.map(([, numbers]) => numbers));
  const length = blocks.reduce((sum, { byteLength }) => sum + byteLength, 4 + headBytes.length);
  const bytes = new Uint8Array(length);
  new DataView(bytes.buffer).setUint32(0, headBytes.length);
  bytes.set(headBytes, 4);
  let at = 4 + headBytes.length;
  for (const block of blocks) {
    bytes.set(new Uint8Array(block.buffer, block.byteOffset, block.byteLength), at);
    at += block.byteLength;
  }
  return bytes;
}

/** The reverse of `packPredictions`; null for what is damaged or was packed by another version. */
export function unpackPredictions(bytes: Uint8Array): KeptPredictions | null {
  try {
    const headLength = new DataView(bytes.buffer, bytes.byteOffset).getUint32(0);
    const head = JSON.parse(new TextDecoder().decode(bytes.subarray(4, 4 + headLength))) as Head;
    if (head.packed !== PACKED) return null;
    let at = 4 + headLength;
    const tests = head.tests.map(({ id, outcomes, columns }): KeptTest => {
      const read = columns.map(([name, kind]) => {
        const length = head.rows.length * outcomes;
        const size = length * KINDS[kind].BYTES_PER_ELEMENT;
        if (at + size > bytes.length) throw new RangeError('cut short');
        // Copied, so that each column begins where its kind of number may.
        const numbers = new KINDS[kind](bytes.slice(at, at + size).buffer);
        at += size;
        return [name, numbers] as const;
      });
      return { id, outcomes, columns: Object.fromEntries(read) };
    });
    if (at !== bytes.length) return null;
    return { rows: head.rows, groups: head.groups, tests: new Map(tests.map((one) => [one.id, one])) };
  } catch {
    return null;
  }
}
