'use client';

import type { Assessment, Complaint, RelayDuty, TakenReading } from '#core/diagnosis';
import type { CircuitFile } from '#core/format';
import { RelayPanel } from './RelayPanel';
import { Substitutions } from './Substitutions';
import { Suspects } from './Suspects';

/** Beside the card: suspects and what is cleared, the relay that is read pin by pin, the tables of exchanges. */
export function WhatIsKnown({
  circuit,
  complaint,
  assessment,
  duties,
  readings,
  readingNames,
  exchanges,
  onChoose,
  onNote,
}: {
  circuit: CircuitFile;
  complaint: Complaint;
  assessment: Assessment;
  duties: Readonly<Record<string, RelayDuty>>;
  readings: readonly TakenReading[];
  readingNames: ReadonlyMap<string, string>;
  /** Whether a part may be exchanged for one of the same kind: not where something runs unbidden. */
  exchanges: boolean;
  onChoose: (testId: string) => void;
  onNote: (words: string) => void;
}) {
  return (
    <>
      <Suspects circuit={circuit} assessment={assessment} readingNames={readingNames} />
      <RelayPanel
        circuit={circuit}
        switched={assessment.switched}
        condition={complaint.condition}
        duties={duties}
        failed={complaint.function}
        readings={readings}
        exchanges={exchanges}
        onChoose={onChoose}
        onNote={onNote}
      />
      <Substitutions circuit={circuit} tables={assessment.substitutions} onChoose={onChoose} />
    </>
  );
}
