/** What the page and the worker that looks for feeds say to each other. */
import type { Candidate, EngineVariant, FeedAsk, FeedScene, RelayVariant } from '#core/feed';
import type { CircuitFile } from '#core/format';

export interface FeedRequest {
  /** Only when they are others than before. */
  readonly circuits?: readonly CircuitFile[];
  readonly request: number;
  readonly scene: Omit<FeedScene, 'models'>;
  readonly ask: FeedAsk;
  /** To where it goes, metres; null where nobody has said. */
  readonly metres: number | null;
}

export interface FoundFeeds {
  readonly candidates: readonly Candidate[];
  /** Where no slot gives the current and one gives that of a coil. */
  readonly relay: RelayVariant | null;
  readonly engine: EngineVariant | null;
}

export type FeedAnswer =
  | { readonly request: number; readonly answer: FoundFeeds }
  | { readonly request: number; readonly problem: string };
