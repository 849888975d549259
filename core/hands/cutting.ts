/** Before a wire is cut or toned: both its ends read in every state of the feeds, and the place isolated. */

import { KEY_STATE_WORDS, KEY_STATES, type KeyState, liveness, type SlotReading } from '../limits';
import { type IsolationStep, isolationGate } from './isolation';

export interface WireReading {
  readonly id: string;
  readonly wire: string;
  readonly end: 'a' | 'b';
  readonly state: KeyState;
  readonly value: SlotReading['value'];
  readonly testerProved: boolean;
}

export interface CutGate {
  readonly allowed: boolean;
  /** Ends and states that nobody has read. */
  readonly missing: readonly { readonly end: 'a' | 'b'; readonly state: KeyState }[];
  /** Where it is live. */
  readonly live: readonly { readonly end: 'a' | 'b'; readonly state: KeyState }[];
  readonly sentence: string;
}

/** The latest reading of an end in a state; undefined where there is none. */
export function readingAt(
  readings: readonly WireReading[],
  end: 'a' | 'b',
  state: KeyState,
): WireReading | undefined {
  return readings.findLast((one) => one.end === end && one.state === state);
}

/**
 * Whether a wire may be cut. A wire that is live in any state is not cut there: its feed is found and taken off first,
 * and then it is read again.
 */
export function cutGate(
  readings: readonly WireReading[],
  isolated: readonly IsolationStep[],
  nominalVolts: number,
): CutGate {
  const missing: { end: 'a' | 'b'; state: KeyState }[] = [];
  const live: { end: 'a' | 'b'; state: KeyState }[] = [];
  let proved = true;
  for (const end of ['a', 'b'] as const) {
    for (const state of KEY_STATES) {
      const reading = readingAt(readings, end, state);
      if (!reading) missing.push({ end, state });
      else if (liveness(reading.value, nominalVolts) !== 'dead') live.push({ end, state });
      // What was read anew with a proved tester stands instead of what was read before.
      proved &&= reading?.testerProved ?? true;
    }
  }
  const say = (allowed: boolean, sentence: string): CutGate => ({ allowed, missing, live, sentence });
  if (live.length > 0) {
    const [first] = live;
    return say(
      false,
      `Live at end ${first!.end} (${KEY_STATE_WORDS[first!.state].toLowerCase()}). Find that feed and take it off; then read again.`,
    );
  }
  if (missing.length > 0) {
    const ends = new Set(missing.map((one) => one.end));
    const [first] = missing;
    return say(
      false,
      ends.size === 1
        ? `End ${first!.end} still has to be read: ${missing.map((one) => KEY_STATE_WORDS[one.state].toLowerCase()).join(', ')}.`
        : `Both ends still have to be read, ${missing.length} readings in all.`,
    );
  }
  if (!proved) {
    return say(false, 'The tester was not proved before every reading: prove it and read again.');
  }
  const gate = isolationGate('cut-or-solder', isolated);
  return say(gate.allowed, gate.allowed ? 'Dead at both ends in every state, and isolated.' : gate.sentence);
}

/** Whether a tone may be put on: only on a wire that is proved dead and isolated. */
export function toneGate(gate: CutGate): { readonly allowed: boolean; readonly sentence: string } {
  return gate.allowed
    ? { allowed: true, sentence: 'Dead and isolated: a tone may be put on.' }
    : { allowed: false, sentence: `No tone on it yet. ${gate.sentence}` };
}
