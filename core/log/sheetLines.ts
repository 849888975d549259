/** What the parts of a sheet are made of. */
import type { Assessment, RequiredProof } from '../diagnosis';
import type { CircuitFile, Panel } from '../format';
import { type EntryTime, entryTime } from './clock';
import type { LogEvent } from './event';
import { eventWords } from './kinds';
import type { JobState } from './state';

export interface SheetLine {
  readonly words: string;
  /** Who, and when; null where it is no entry of the log. */
  readonly by: ({ readonly person: string } & EntryTime) | null;
  /** What the reading means, or why something was not done. */
  readonly more?: string;
}

export interface SheetPart {
  readonly title: string;
  readonly lines: readonly SheetLine[];
  /** Said where there are no lines; null where the part is then left out. */
  readonly empty: string | null;
}

export interface Sheet {
  /** "OPEN: not handed over", "Closed and verified". */
  readonly standing: string;
  /** From the first entry to the last; null where there is none. */
  readonly from: string | null;
  readonly until: string | null;
  /** Where the work was done; null while nobody has confirmed it. */
  readonly place: string | null;
  /** What is still open, each in words; closing is blocked by the same. */
  readonly open: readonly string[];
  readonly parts: readonly SheetPart[];
}

/** What stands beside the log when the sheet is written. */
export interface SheetScene {
  readonly job: JobState;
  readonly circuit: CircuitFile | null;
  readonly panels: readonly Panel[];
  readonly nominalVolts: number | null;
  readonly proofs: readonly RequiredProof[];
  /** Null where nothing could be assessed. */
  readonly assessment: Assessment | null;
  /** What a sound circuit does, by `function|condition`. */
  readonly expected: Readonly<Record<string, 'works' | 'weak' | 'dead'>>;
}

export const plain = (words: string, more?: string): SheetLine => ({
  words,
  by: null,
  ...(more ? { more } : {}),
});
export const entered = (event: LogEvent, words: string, more?: string): SheetLine => ({
  words,
  by: { person: event.person, ...entryTime(event) },
  ...(more ? { more } : {}),
});

/** Entries that stand, of some kinds, each as a line in its own words. */
export function entriesOf(
  { job, circuit }: SheetScene,
  kinds: readonly LogEvent['body']['kind'][],
): SheetLine[] {
  return job.entries.flatMap(({ event, struck }) =>
    !struck && kinds.includes(event.body.kind) ? [entered(event, eventWords(circuit, event.body))] : [],
  );
}
