/** What is repaired as one, and which faults that remedies. */
export interface RepairGroup {
  readonly id: string;
  readonly units: readonly string[];
  /** Indices into the hypotheses. */
  readonly members: readonly number[];
  readonly parts: readonly string[];
}
