/** A log as long as a job may become in years: readings of every kind on a broken circuit, and notes between them. */
import { DiagnosisSession, readingOf } from '../core/diagnosis';
import { breakCircuit } from '../core/faults';
import type { CircuitFile, EventBody } from '../core/format';
import type { LogEvent } from '../core/log';

export interface LongJob {
  readonly circuit: CircuitFile;
  readonly complaint: { readonly function: string; readonly condition: string };
  readonly readings: number;
  readonly notes: number;
}

/** The bodies, in the order in which they were recorded: the complaint, then readings and notes mixed evenly. */
export function longJobBodies({ circuit, complaint, readings, notes }: LongJob): EventBody[] {
  const session = new DiagnosisSession(circuit, complaint);
  const broken = breakCircuit(session.model, session.hypotheses[0]!.faults);
  const still = session.permitted.filter((test) => !test.disturbs);
  const bodies: EventBody[] = [{ kind: 'complaint', words: 'It is dead.', ...complaint, state: 'dead' }];
  const between = Math.max(1, Math.round(readings / Math.max(1, notes)));
  let noted = 0;
  for (let count = 0; count < readings; count++) {
    const { ref } = still[count % still.length]!;
    const value = readingOf(broken, ref);
    bodies.push({ kind: 'reading', test: ref, value, raw: '', testerProved: true });
    if (count % between !== 0) continue;
    for (const last = count + between >= readings ? notes : noted + 1; noted < last && noted < notes; noted++)
      bodies.push({ kind: 'note', words: `Note ${noted + 1}: looked along the loom, nothing seen.` });
  }
  for (; noted < notes; noted++) bodies.push({ kind: 'note', words: `Note ${noted + 1}.` });
  return bodies;
}

/** The same as entries that the server has confirmed, a minute apart. */
export function longJobLog(job: LongJob): LogEvent[] {
  const first = Date.parse('2026-03-02T08:00:00.000Z');
  return longJobBodies(job).map((body, at) => {
    const time = new Date(first + at * 60_000).toISOString();
    return {
      id: `00000000-0000-4000-8000-${String(at).padStart(12, '0')}`,
      seq: at + 1,
      person: 'Imre Vale',
      madeAt: time,
      arrivedAt: time,
      clientOrder: at,
      body,
    };
  });
}
