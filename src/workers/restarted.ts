/**
 * One worker behind the questions of a page: begun with the first of them, and begun again after it ended with an error. Whoever
 * asks says what stands open then; the first time in a row it is asked again, after that it is said that it cannot be had. One whose
 * program cannot be fetched is tried for some time.
 */

/** What is told to whoever asked when a question cannot be answered. */
export const STOPPED =
  'The computation stopped, and again when it was started anew. The next change starts it once more; nothing that was entered is lost.';

/** So long until a program that could not be fetched is fetched again, longer each time, milliseconds. */
const FETCH_AGAIN_MS = 500;
const MOST_FETCHES = 6;

export class Restarted<Said> {
  private worker: Worker | null = null;
  /** How often it broke since its last answer. */
  private broke = 0;
  private later: ReturnType<typeof setTimeout> | undefined;

  /**
   * `hear` is given what it says, and tells whether that was an answer. `broken` is told that a worker is gone, with all that it was told: ask what stands open
   * once more (`again`), or give it up.
   */
  constructor(
    private readonly begin: () => Worker,
    private readonly hear: (said: Said) => boolean,
    private readonly broken: (again: boolean) => void,
  ) {}

  post(asked: unknown): void {
    // What stands open is asked again in a moment, this with it: a worker begun now would hear of this alone.
    if (this.later !== undefined) return;
    this.worker ??= this.begun();
    this.worker.postMessage(asked);
  }

  /** Ends it; what it has not said is not said any more. The next question begins another. */
  end(): void {
    clearTimeout(this.later);
    this.later = undefined;
    this.worker?.terminate();
    this.worker = null;
  }

  private begun(): Worker {
    const made = this.begin();
    let hasSaid = false;
    made.onmessage = ({ data }: MessageEvent<Said>) => {
      // One that was ended may still have said something.
      if (this.worker !== made) return;
      hasSaid = true;
      if (this.hear(data)) this.broke = 0;
    };
    const broke = () => {
      if (this.worker !== made) return;
      this.end();
      this.broke += 1;
      if (hasSaid) this.broken(this.broke === 1);
      else this.fetchAgain();
    };
    made.onerror = broke;
    made.onmessageerror = broke;
    return made;
  }

  /** One that never said a word has most likely not been fetched: the signal may be back in a moment. */
  private fetchAgain(): void {
    const pauseMs = FETCH_AGAIN_MS * 2 ** (this.broke - 1);
    if (this.broke >= MOST_FETCHES) this.broken(false);
    else {
      this.later = setTimeout(() => {
        this.later = undefined;
        this.broken(true);
      }, pauseMs);
    }
  }
}
