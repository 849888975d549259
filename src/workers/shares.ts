/**
 * Workers beside the diagnosis worker, for a circuit that nothing is known of yet: each works out what a share of the faults
 * would show. One that cannot be loaded or breaks leaves its share to the diagnosis worker.
 */
import {
  type Complaint,
  type KeptPredictions,
  type SessionOptions,
  unpackPredictions,
} from '#core/diagnosis';
import type { CircuitFile } from '#core/format';

export type ShareRequest =
  | { type: 'open'; circuit: CircuitFile; complaint: Complaint; options: SessionOptions }
  | { type: 'share'; ids: readonly string[] };

export interface ShareAnswer {
  readonly packed: Uint8Array<ArrayBuffer>;
}

/** More workers than this gain nothing: each reads the circuit for itself. */
const MOST_HELPERS = 3;
/** One core is the page's, one that of whoever shares out: with two cores a helper takes away more than it gives. */
const OTHER_CORES = 2;
/** Below so many faults a worker takes longer to begin than the work takes. */
const WORTH_SHARING = 24;

/** One worker, from its beginning to its end; asked once. */
class Helper {
  private readonly worker = new Worker(new URL('./share.worker.ts', import.meta.url));
  private answer: (share: KeptPredictions | null) => void = () => undefined;
  readonly answered = new Promise<KeptPredictions | null>((resolve) => {
    this.answer = resolve;
  });

  constructor(begin: ShareRequest) {
    this.worker.onmessage = ({ data }: MessageEvent<ShareAnswer>) =>
      this.answer(unpackPredictions(data.packed));
    this.worker.onerror = () => this.answer(null);
    this.worker.postMessage(begin);
  }

  ask(ids: readonly string[]): Promise<KeptPredictions | null> {
    this.worker.postMessage({ type: 'share', ids } satisfies ShareRequest);
    return this.answered;
  }

  end(): void {
    this.worker.terminate();
    this.answer(null);
  }
}

export class Shares {
  private readonly helpers: readonly Helper[];

  /** Begins workers for the cores that are free; they read the circuit meanwhile. */
  constructor(cores: number, circuit: CircuitFile, complaint: Complaint, options: SessionOptions) {
    const count = Math.max(0, Math.min(cores - OTHER_CORES, MOST_HELPERS));
    const begin = { type: 'open', circuit, complaint, options } as const;
    this.helpers = Array.from({ length: count }, () => new Helper(begin));
  }

  /**
   * Gives each worker its share; gives the share that is left for whoever asks, and a promise of the others. A share that
   * failed is missing there. Null where there is nobody to share with, or too little to be shared.
   */
  out(
    ids: readonly string[],
  ): { own: readonly string[]; others: Promise<readonly KeptPredictions[]> } | null {
    if (this.helpers.length === 0 || ids.length < WORTH_SHARING) return null;
    const of = this.helpers.length + 1;
    // In turn: faults of one part stand together and take alike long.
    const share = (part: number) => ids.filter((_, at) => at % of === part);
    const others = this.helpers.map((helper, at) => helper.ask(share(at + 1)));
    return {
      own: share(0),
      others: Promise.all(others).then((all) => all.filter((one) => one !== null)),
    };
  }

  /** Ends the workers; what they have not said is not said any more. */
  end(): void {
    for (const helper of this.helpers) helper.end();
  }
}
