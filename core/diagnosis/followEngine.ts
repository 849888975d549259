/** Plays a fault to its end by the engine's own proposals: for practice scores and for the proof that it works. */
import type { Fault } from '../faults/faults';
import type { TakenReading } from './evidence';
import { repairUnit } from './hypotheses';
import { breakCircuit, complaintOf, readingOf } from './playback';
import type { Assessment, DiagnosisSession } from './session';

export interface PlayedFault {
  readonly fault: Fault;
  readonly complaint: { readonly function: string; readonly condition: string };
  readonly tests: number;
  readonly minutes: number;
  readonly assessment: Assessment;
  /** Whether the group that ends first contains the fault. */
  readonly right: boolean;
  readonly trail: readonly string[];
}

/** More tests than any technician would do on one circuit. */
const TEST_LIMIT = 40;

/** Plays one fault in a session; null when the fault shows in no function. */
export function followEngine(
  sessionFor: (complaint: { function: string; condition: string }) => DiagnosisSession,
  probe: DiagnosisSession,
  fault: Fault,
): PlayedFault | null {
  const broken = breakCircuit(probe.model, [fault]);
  const complaint = complaintOf(broken);
  if (!complaint) return null;
  const session = sessionFor(complaint);
  const readings: TakenReading[] = [
    {
      id: 'complaint',
      test: { kind: 'function', function: complaint.function, condition: complaint.condition },
      value: { state: complaint.state },
      testerProved: true,
    },
  ];
  const opened = new Set<string>();
  const trail: string[] = [];
  let minutes = 0;
  for (;;) {
    const assessment = session.assess({ readings, refused: [], opened: [...opened] });
    const proposal = assessment.next[0];
    if (!proposal || readings.length > TEST_LIMIT) {
      const lead = session.groups([]).groups.find((group) => group.id === assessment.suspects[0]?.id);
      const unit = repairUnit(fault, broken.blown.length > 0);
      return {
        fault,
        complaint,
        tests: readings.length - 1,
        minutes,
        assessment,
        right: lead?.units.includes(unit) ?? false,
        trail,
      };
    }
    minutes += proposal.minutes;
    if (proposal.place) opened.add(proposal.place);
    const value = readingOf(broken, proposal.ref);
    trail.push(`${proposal.id} = ${JSON.stringify(value)}`);
    readings.push({ id: `r${readings.length}`, test: proposal.ref, value, testerProved: true });
  }
}
