/** What is newer than what the job is traced on. */
export interface NewerMaps {
  /** The boxes of the vehicle were drawn, or drawn anew. */
  readonly boxes: boolean;
  /** Names of circuits that have a newer version, or are new. */
  readonly circuits: readonly string[];
  /** What the job is traced on and the newest circuits have no more: then they are not taken. */
  readonly lost: string | null;
}
