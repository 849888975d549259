/**
 * What a kind of entry is: one object that says what the entry does to the job, how it reads, and what the rows of lists
 * keep of it. Its shape stands in `format/entries/`. Offline all kinds are alike: an entry is in the log on the page at
 * once and is sent when the server answers, behind the pictures that wait.
 */
import type { CircuitFile } from '../format';
import type { JobDraft } from './draft';
import type { LogEvent } from './event';
import type { Kept, Progress } from './progress';

export interface EventKindOf<Body extends { readonly kind: string }> {
  /** What an entry that stands does to the job. */
  readonly fold?: (job: JobDraft, body: Body, event: LogEvent) => void;
  /** The entry in one line; part and function names by the circuit that the job is traced on. */
  readonly words: (body: Body, circuit: CircuitFile | null) => string;
  /** The row of its job behind it. */
  readonly step?: (row: Progress, body: Body) => Progress;
  /** Rows of their own that it leaves beside the row of its job. */
  readonly keeps?: (body: Body) => Kept | readonly Kept[];
  /**
   * Struck, it brings back what stood before it, so that the rows of its job have to be made anew from the log. Of other
   * kinds only what they added is taken away.
   */
  readonly standsBehind?: true;
}
