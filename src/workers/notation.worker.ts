/** A thin shell around the reader of circuit texts. */
import { readNotation } from '#core/notation';
import { goneFrom, remarksOn } from '#core/safety';
import type { TextRead, TextRequest } from './notationMessages';

/** Larger circuits take longer to solve than a key to be pressed: they are once typing rests. */
const MOST_PARTS = 120;
const RESTS_MS = 500;

let later: ReturnType<typeof setTimeout> | undefined;

self.onmessage = ({ data: { text, base } }: MessageEvent<TextRequest>) => {
  clearTimeout(later);
  const read = readNotation(text, base);
  const { circuit } = read;
  const gone = circuit && base ? goneFrom(base, circuit) : [];
  const say = (remarks: TextRead['remarks'], whole: boolean) =>
    self.postMessage({ text, read, remarks, whole } satisfies TextRead);
  if (!circuit) say([], true);
  else if (circuit.parts.length <= MOST_PARTS) say([...gone, ...remarksOn(circuit)], true);
  else {
    say(gone, false);
    later = setTimeout(() => say([...gone, ...remarksOn(circuit)], true), RESTS_MS);
  }
};
