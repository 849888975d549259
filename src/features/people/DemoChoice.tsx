'use client';

import { useState } from 'react';
import type { Role } from '#core/format';
import { Button, Problem } from '@/ui/controls';
import { goOn, sent } from './send';
import { ROLE_WORDS } from './words';

export interface DemoPerson {
  readonly personId: string;
  readonly personName: string;
  readonly role: Role;
}

/** Opens the demo as one of its people; each role sees what it may. */
export function DemoChoice({ people, here = null }: { people: readonly DemoPerson[]; here?: string | null }) {
  const [problem, setProblem] = useState<string | null>(null);
  const open = async (person: string) => {
    const taken = await sent('/api/access/demo', { person });
    if (!taken.ok) return setProblem(taken.message);
    await goOn('/');
  };
  return (
    <div className="grid gap-2">
      <ul className="flex flex-wrap gap-2">
        {people.map(({ personId, personName, role }) => (
          <li key={personId}>
            <Button
              onClick={() => void open(personId)}
              aria-pressed={personId === here}
              look={personId === here ? 'primary' : 'plain'}
            >
              {personName}, {ROLE_WORDS[role]}
            </Button>
          </li>
        ))}
      </ul>
      {problem ? <Problem>{problem}</Problem> : null}
    </div>
  );
}
