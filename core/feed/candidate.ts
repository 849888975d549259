/** A slot where current may be taken, what is known of it, and what speaks against it. */
import type { Slot } from '../format';
import type { KeyState } from '../limits';
import type { Headroom } from '../sizing';
import type { FeedFinding } from './classify';
import type { StateOfFeed } from './scene';
import type { SupplySide } from './supplySide';

export interface Candidate {
  readonly panel: string;
  readonly slot: Slot;
  readonly panelName: string;
  readonly minutesToOpen: number;
  /** Where it is in the box, upright. */
  readonly where: string;
  readonly states: readonly StateOfFeed[];
  readonly finding: FeedFinding;
  /** From where its class is known. */
  readonly from: 'readings' | 'circuit' | 'both' | 'nothing';
  /** States in which reading and circuit differ: the reading counts. */
  readonly conflicts: readonly KeyState[];
  /** Verdict of the box test that names two feeds. */
  readonly conflict: 'fed-backwards' | null;
  readonly module: string | null;
  readonly pulsed: boolean;
  /** A safety function that the map has behind it, by name. */
  readonly safetyBehind: string | null;
  readonly droppedAfter: number | null;
  readonly side: SupplySide;
  readonly headroom: Headroom;
  readonly roomWords: string;
  /** States that were asked for and are not known yet. */
  readonly unread: readonly KeyState[];
  /** What is still open besides readings, in words. */
  readonly open: readonly string[];
  readonly against: readonly Reason[];
  readonly verdict: 'fits' | 'to-read' | 'refused';
  readonly sentence: string;
  /** The fuse for what is added, ampere; null where its family has none. */
  readonly addedFuse: number | null;
}

export interface Reason {
  readonly id: string;
  readonly words: string;
  /** Not to be used; else only to be minded. */
  readonly refuses: boolean;
}
