/** What is kept beside a job's row so that the next entry can be added to it. */
export interface JobProgress {
  readonly state: 'open' | 'waiting' | 'closed';
  readonly repaired: boolean;
  /** What fails, where, and how, as the complaint says it. */
  readonly asked: {
    readonly function: string;
    readonly condition: string;
    readonly unbidden: boolean;
  } | null;
  /** Whether each proof since the last repair was right, by `function|condition`. */
  readonly proofs: Readonly<Record<string, boolean>>;
  /** Entries that a correction has struck before they came. */
  readonly early: readonly string[];
}
