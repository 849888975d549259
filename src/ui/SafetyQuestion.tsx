'use client';

import { useState } from 'react';
import { Button, Problem } from '@/ui/controls';

/** A printed name that suggests a safety function: asked once, with one tap; not sure counts as yes. */
export function SafetyQuestion({
  name,
  system,
  onAnswer,
}: {
  name: string;
  system: string;
  onAnswer: (critical: boolean) => Promise<string | null> | string | null;
}) {
  const [problem, setProblem] = useState<string | null>(null);
  const say = async (critical: boolean) => setProblem(await onAnswer(critical));
  return (
    <section
      className="mb-3 border-l-4 border-caution bg-caution-wash px-3 py-2"
      data-testid="safety-question"
      aria-label={`Safety of ${name}`}
    >
      <p>
        <strong>
          “{name}” looks like a part of {system}.
        </strong>{' '}
        Is it? Until you say, it counts as a safety circuit: no lamp, no lead, no exchange, no tap.
      </p>
      <div className="mt-2 flex flex-wrap gap-2">
        <Button onClick={() => void say(true)}>It is, or not sure</Button>
        <Button onClick={() => void say(false)}>It is not</Button>
      </div>
      {problem ? <Problem>{problem}</Problem> : null}
    </section>
  );
}
