'use client';

import type { Diagnosis } from '@/job/useDiagnosisWorker';
import { Button, Problem } from '@/ui/controls';

/** Why there is no diagnosis just now, and a way to start it again where that is not done by itself. */
export function Stopped({ diagnosis }: { diagnosis: Diagnosis }) {
  return (
    <div>
      <Problem>{diagnosis.failure}</Problem>
      {diagnosis.startAgain ? (
        <Button className="mt-2" onClick={diagnosis.startAgain}>
          Start it again
        </Button>
      ) : null}
    </div>
  );
}
