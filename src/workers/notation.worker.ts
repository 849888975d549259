/** A thin shell around the reader of circuit texts. */
import { readNotation } from '#core/notation';
import { goneFrom, remarksOn } from '#core/safety';
import type { TextRead, TextRequest } from './notationMessages';

/** Larger circuits are solved when they are saved, not while they are typed. */
const MOST_PARTS = 120;

self.onmessage = ({ data: { text, base } }: MessageEvent<TextRequest>) => {
  const read = readNotation(text, base);
  const remarks = read.circuit
    ? [
        ...(base ? goneFrom(base, read.circuit) : []),
        ...(read.circuit.parts.length <= MOST_PARTS ? remarksOn(read.circuit) : []),
      ]
    : [];
  self.postMessage({ text, read, remarks } satisfies TextRead);
};
