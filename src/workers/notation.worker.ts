/** A thin shell around the reader of circuit texts. */
import { readNotation } from '#core/notation';
import type { TextRead, TextRequest } from './notationMessages';

self.onmessage = ({ data: { text, base } }: MessageEvent<TextRequest>) => {
  self.postMessage({ text, read: readNotation(text, base) } satisfies TextRead);
};
