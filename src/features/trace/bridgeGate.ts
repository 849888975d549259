import { mayBridge, type Proposal, testId } from '#core/diagnosis';
import { useDiagnosis, useJob } from '@/job/JobProvider';
import type { CardGate } from './TestCard';

/** What stands against the card: a relay is bridged only where a reading has shown which terminal brings the supply. */
export function useBridgeGate(card: Proposal | null, onChoose: (testId: string) => void): CardGate | null {
  const { circuit, job, record } = useJob();
  const diagnosis = useDiagnosis();
  if (card?.ref.kind !== 'bridge' || !circuit) return null;
  const { part, condition } = card.ref;
  const duty = diagnosis.relayDuties[part];
  if (!duty || job.begun.some((one) => one.task === 'bridge' && one.part === part && one.override)) {
    return null;
  }
  const answer = mayBridge(circuit, part, '30', '87', duty, condition, diagnosis.readings);
  if (answer.allowed) return null;
  const rows = diagnosis.assessment?.switched.find((one) => one.part === part)?.rows ?? [];
  const test = rows.find((row) => row.role === 'feed' && row.test)?.test;
  return {
    sentence: answer.sentence,
    onRead: test ? () => onChoose(testId(test)) : null,
    onOverride: (override) => record({ kind: 'task-begun', task: 'bridge', part, override }),
  };
}
