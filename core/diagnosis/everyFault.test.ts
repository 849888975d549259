import { habitualWalk } from '../../bench/habitualWalk';
import { DEMO_CIRCUITS, demoCircuit } from '../../testing/circuits';
import { CircuitModel } from '../circuit/model';
import { followEngine } from './followEngine';
import { buildHypotheses } from './hypotheses';
import { type Complaint, DiagnosisSession } from './session';

describe('every single fault of every demo circuit, by the engine’s own proposals', () => {
  test.each(DEMO_CIRCUITS)('%s', (name) => {
    const circuit = demoCircuit(name);
    const sessions = new Map<string, DiagnosisSession>();
    const sessionFor = (complaint: Complaint) => {
      const key = `${complaint.function}|${complaint.condition}`;
      const known = sessions.get(key) ?? new DiagnosisSession(circuit, complaint);
      sessions.set(key, known);
      return known;
    };
    const model = new CircuitModel(circuit);
    const wrong: string[] = [];
    let played = 0;
    let tests = 0;
    let minutes = 0;
    let proved = 0;
    let habitMinutes = 0;
    let habitChecks = 0;
    for (const hypothesis of buildHypotheses(model)) {
      const [fault] = hypothesis.faults;
      if (!fault || hypothesis.intermittent || hypothesis.second) continue;
      const result = followEngine(sessionFor, model, fault);
      if (!result) continue;
      played += 1;
      tests += result.tests;
      minutes += result.minutes;
      if (result.assessment.verdict.strength === 'proved') proved += 1;
      if (!result.right) wrong.push(`${hypothesis.words}: ${result.trail.join('; ')}`);
      const habit = habitualWalk(model, result.complaint, fault);
      habitChecks += habit.checks;
      habitMinutes += habit.minutes;
    }
    process.stdout.write(
      `${name}: ${played} faults, ${played - wrong.length} right, ${proved} proved; ` +
        `${(tests / played).toFixed(1)} tests and ${(minutes / played).toFixed(1)} min each, ` +
        `by habit ${(habitChecks / played).toFixed(1)} checks and ${(habitMinutes / played).toFixed(1)} min; ` +
        `minutes ${((100 * minutes) / habitMinutes).toFixed(0)} % of habit\n`,
    );
    expect(wrong).toEqual([]);
    expect(played).toBeGreaterThan(35);
    expect(minutes).toBeLessThan(habitMinutes);
  });
});
