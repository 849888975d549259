'use client';

import type { CircuitFile } from '#core/format';
import { SYSTEM_WORDS, safetyQuestions } from '#core/safety';
import { SafetyQuestion } from '@/ui/SafetyQuestion';
import { useLearn } from './useLearn';

/** Names in the circuit that suggest a safety function, one question at a time; the answer stays with the vehicle. */
export function SafetyQuestions({ circuit }: { circuit: CircuitFile }) {
  const learn = useLearn();
  const [question] = safetyQuestions(circuit);
  const part = circuit.parts.find(({ id }) => id === question?.part);
  if (!question || !part) return null;
  return (
    <SafetyQuestion
      key={question.part}
      name={question.name}
      system={SYSTEM_WORDS[question.system]}
      onAnswer={async (critical) => {
        const said = critical ? `serves a safety function (${question.system})` : 'serves no safety function';
        const answer = await learn(part, { safetyCritical: critical }, said);
        return answer.ok ? null : answer.message;
      }}
    />
  );
}
