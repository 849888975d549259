/** Entries of the log of an earlier version, brought up to the newest. */
import type { EventBody } from '../jobSchema';

/** From one version of what an entry says to the next. */
type EntryStep = (body: Readonly<Record<string, unknown>>) => Record<string, unknown>;

/** One step a version, as files have them; entries have had one version so far. */
const STEPS: readonly EntryStep[] = [];

/** The version that is written now; an entry that does not say its own is of version 1. */
export const ENTRY_VERSION = STEPS.length + 1;

/** What an entry of a version says, in the newest form. */
export function upgradedEntry(body: unknown, version: number): EventBody {
  return STEPS.slice(version - 1).reduce(
    (now, step) => step(now),
    body as Record<string, unknown>,
  ) as unknown as EventBody;
}
