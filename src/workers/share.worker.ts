/** Works out a share of what every fault would show, for the diagnosis worker that began it and ends it. */
import { DiagnosisSession, packPredictions } from '#core/diagnosis';
import type { ShareAnswer, ShareRequest } from './shares';

let session: DiagnosisSession | null = null;

self.onmessage = ({ data }: MessageEvent<ShareRequest>) => {
  if (data.type === 'open') {
    session = new DiagnosisSession(data.circuit, data.complaint, data.options);
    return;
  }
  const working = session!.share(data.ids);
  let step = working.next();
  while (!step.done) step = working.next();
  const packed = packPredictions(step.value);
  self.postMessage({ packed } satisfies ShareAnswer, { transfer: [packed.buffer] });
};
