/** The row of a job that lists read, as a step from one entry to the next; and how far a job has come. */
import type { BodyOf, WATCH_SORTS } from '../format';

export type Stage =
  | 'working'
  | 'done'
  | 'complaint'
  | 'testing'
  | 'found'
  | 'repaired'
  | 'proved'
  | 'closed'
  | 'waiting'
  | 'asked';

export interface Progress {
  readonly complaint: string;
  readonly found: string | null;
  readonly readings: number;
  readonly state: BodyOf<'state'>['state'];
  readonly repaired: boolean;
  /** The job is work and no fault. */
  readonly work?: boolean;
  /** What fails, where, and how, as the complaint says it. */
  readonly asked: {
    readonly function: string;
    readonly condition: string;
    readonly unbidden: boolean;
  } | null;
  /** Whether each proof since the last repair was right, by `function|condition`. */
  readonly proofs: Readonly<Record<string, boolean>>;
}

/** A job without entries. */
export const BEGUN: Progress = {
  complaint: '',
  found: null,
  readings: 0,
  state: 'open',
  repaired: false,
  asked: null,
  proofs: {},
};

export type FollowUpSort = (typeof WATCH_SORTS)[number] | 'temporary';

/** Exchanged parts, an appliance in quarantine, a temporary part, what a closed job left unsafe, a change in the middle. */
export type HazardSort = 'exchanged' | 'appliance' | 'temporary' | 'left' | 'half-done';

/** What an entry leaves in the tables beside the row of its job. */
export type Kept =
  | {
      readonly row: 'follow-up';
      readonly words: string;
      readonly due: string | null;
      readonly sort: FollowUpSort;
    }
  | { readonly row: 'follow-up-later'; readonly of: string; readonly due: string }
  | { readonly row: 'follow-up-done'; readonly of: string }
  /** Something that is not as it should be on the vehicle, until it is put right. */
  | {
      readonly row: 'hazard';
      readonly sort: HazardSort;
      readonly words: string;
      readonly due: string | null;
    }
  /** The one of an entry, or all of this sort that the job has made. */
  | { readonly row: 'hazard-over'; readonly sort: HazardSort; readonly of: string | null }
  /** Taken out of the stock by a line of the entry. */
  | {
      readonly row: 'stock-used';
      readonly line: number;
      readonly item: string;
      readonly place: string;
      readonly count: number;
      readonly name: string;
    }
  | {
      readonly row: 'finding';
      /** Kind of part and mode of fault; null where it was not said. */
      readonly partKind: string | null;
      readonly mode: string | null;
      readonly strength: string;
    }
  | { readonly row: 'slot-sighting'; readonly body: BodyOf<'slot-state'> };

/** How far a job has come. */
export function stageOf(job: {
  readonly state: BodyOf<'state'>['state'];
  readonly repaired: boolean;
  readonly proved: boolean;
  readonly found: boolean;
  readonly tested: boolean;
  readonly work: boolean;
}): Stage {
  if (job.state !== 'open') return job.state;
  if (job.work) return job.repaired ? 'done' : 'working';
  if (job.repaired) return job.proved ? 'proved' : 'repaired';
  if (job.found) return 'found';
  return job.tested ? 'testing' : 'complaint';
}

/** Something was seen since the repair, nothing of it was wrong, and what failed (`asked`) is among it. */
export function isProved(asked: string | null, proofs: ReadonlyMap<string, boolean>): boolean {
  if (proofs.size === 0 || (asked !== null && !proofs.has(asked))) return false;
  return [...proofs.values()].every((right) => right);
}

/** The stage of a row. */
export function stageOfRow({
  state,
  repaired,
  asked,
  proofs,
  found,
  readings,
  work = false,
}: Progress): Stage {
  const failed = asked ? `${asked.function}|${asked.condition}` : null;
  const proved = repaired && isProved(failed, new Map(Object.entries(proofs)));
  return stageOf({ state, repaired, proved, found: found !== null, tested: readings > 0, work });
}
