/**
 * Plays every single fault of a demo circuit by the engine's own proposals and prints what came of it as JSON. A
 * process of its own: the test that reads it runs its modules in a sandbox that makes such arithmetic slow.
 */

import { buildHypotheses, type Complaint, DiagnosisSession, followEngine } from '../core/diagnosis';
import { CircuitModel } from '../core/network';
import { demoCircuit } from '../testing/circuits';
import { habitualWalk } from './habitualWalk';

export interface DemoResult {
  readonly played: number;
  readonly proved: number;
  readonly wrong: readonly string[];
  readonly tests: number;
  readonly minutes: number;
  readonly habitMinutes: number;
}

function play(name: Parameters<typeof demoCircuit>[0], every: number): DemoResult {
  const circuit = demoCircuit(name);
  const model = new CircuitModel(circuit);
  const sessions = new Map<string, DiagnosisSession>();
  const sessionFor = (complaint: Complaint) => {
    const key = `${complaint.function}|${complaint.condition}`;
    const known = sessions.get(key) ?? new DiagnosisSession(circuit, complaint);
    sessions.set(key, known);
    return known;
  };
  const result = { played: 0, proved: 0, wrong: [] as string[], tests: 0, minutes: 0, habitMinutes: 0 };
  let met = 0;
  for (const hypothesis of buildHypotheses(model)) {
    const [fault] = hypothesis.faults;
    if (!fault || hypothesis.intermittent || hypothesis.second) continue;
    met += 1;
    if (met % every !== 0) continue;
    const end = followEngine(sessionFor, model, fault);
    if (!end) continue;
    result.played += 1;
    result.tests += end.tests;
    result.minutes += end.minutes;
    if (end.assessment.verdict.strength === 'proved') result.proved += 1;
    if (!end.right) result.wrong.push(`${hypothesis.words}: ${end.trail.join('; ')}`);
    result.habitMinutes += habitualWalk(model, end.complaint, fault).minutes;
  }
  return result;
}

const [name = '', every = '1'] = process.argv.slice(2);
console.log(JSON.stringify(play(name as Parameters<typeof demoCircuit>[0], Number(every))));
