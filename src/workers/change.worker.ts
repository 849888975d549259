/** A thin shell around a plan being played: every setting before and after, then what it shows and the work it is. */
import { changeTable, examine, halfDone, sumsBehind, workOrder } from '#core/change';
import type { ChangeAnswer, ChangeRequest } from './changeMessages';

self.onmessage = ({ data }: MessageEvent<ChangeRequest>) => {
  const { request, circuit, plan, done } = data;
  const say = (answer: ChangeAnswer) => self.postMessage(answer);
  try {
    const looked = examine(circuit, plan, (progress) => say({ request, progress }));
    const steps = workOrder(looked);
    const known = new Set(done);
    say({
      request,
      answer: {
        findings: looked.findings,
        steps,
        half: halfDone(looked, steps, (id) => known.has(id)),
        table: changeTable(looked),
        sums: sumsBehind(looked),
        settings: { count: looked.settingCount, looked: looked.scene.settings.length },
      },
    });
  } catch (error) {
    say({ request, problem: error instanceof Error ? error.message : 'The plan cannot be played.' });
  }
};
