/** States of slots as they were seen on jobs: each with its evidence, none without. */
import type { Panel, Slot } from '../format';

export interface SlotStateEntry {
  readonly id: string;
  readonly at: string;
  readonly person: string;
  readonly panel: string;
  readonly slot: string;
  readonly state: Slot['state'];
  readonly found?: NonNullable<Slot['found']>;
  readonly evidence: string;
  /** Answered where its name suggested a safety function. */
  readonly safetyCritical?: boolean;
}

/** States that claim something nobody can see from the front, and so want a source or a trace. */
const WANTS_PROOF: readonly Slot['state'][] = ['not-ordered', 'abandoned'];
export function wantsProof(state: Slot['state']): boolean {
  return WANTS_PROOF.includes(state);
}

/** Evidence that proves nothing about these: the hole being empty is what is to be explained. */
const NO_PROOF = /^(it is |looks? |slot |hole |is )*(empty|nothing (there|in it)|none|-|\?)\.?$/i;

/** Why a state cannot be recorded with this evidence; null when it can. */
export function stateProblem(state: Slot['state'], evidence: string): string | null {
  const words = evidence.trim();
  if (words === '') return 'Say how that is known: seen, lid, manual, traced, measured.';
  if (WANTS_PROOF.includes(state) && NO_PROOF.test(words)) {
    return `That the hole is empty does not show that it is “${state.replace('-', ' ')}”. Give the source: build list, manual, a trace.`;
  }
  return null;
}

/** The box as it stands after what was seen: the map itself stays what it was. */
export function withStates(panel: Panel, entries: readonly SlotStateEntry[]): Panel {
  const latest = new Map(
    entries.filter((entry) => entry.panel === panel.id).map((entry) => [entry.slot, entry]),
  );
  return {
    ...panel,
    slots: panel.slots.map((slot) => {
      const entry = latest.get(slot.id);
      if (!entry) return slot;
      const { found: _before, ...rest } = slot;
      return { ...rest, state: entry.state, ...(entry.found ? { found: entry.found } : {}) };
    }),
  };
}

/** Boxes with what was answered of the safety of their slots, on this job and on others; the latest answer counts. */
export function withSafetyAnswers(panels: readonly Panel[], entries: readonly SlotStateEntry[]): Panel[] {
  const answers = new Map(
    entries.flatMap(({ panel, slot, safetyCritical }) =>
      safetyCritical === undefined ? [] : [[`${panel} ${slot}`, safetyCritical] as const],
    ),
  );
  return panels.map((panel) => ({
    ...panel,
    slots: panel.slots.map((slot) => {
      const safetyCritical = answers.get(`${panel.id} ${slot.id}`);
      return safetyCritical === undefined ? slot : { ...slot, safetyCritical };
    }),
  }));
}
