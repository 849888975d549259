/** What the editor of circuit texts and its worker say to each other. */
import type { CircuitFile } from '#core/format';
import type { ReadText } from '#core/notation';
import type { Remark } from '#core/safety';

export interface TextRequest {
  readonly text: string;
  /** The circuit that the text was made from; what the text does not say is kept from it. */
  readonly base: CircuitFile | null;
}

export interface TextRead {
  /** The text that was read. */
  readonly text: string;
  readonly read: ReadText;
  /** What would burn, can never be on, or has gone; none keeps anybody from saving. */
  readonly remarks: readonly Remark[];
  /** All remarks are there; a large circuit is solved for them once typing rests, and said a second time. */
  readonly whole: boolean;
}
