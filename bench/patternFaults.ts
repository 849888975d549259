/**
 * Vehicles that nobody has mapped: every single fault of every pattern, on circuits whose lengths, sizes, ratings and
 * powers the engine does not know. Prints how often it names the right repair, as JSON. A process of its own, as
 * everyDemoFault.ts is.
 */

import { buildHypotheses, type Complaint, DiagnosisSession, followEngine } from '../core/diagnosis';
import type { CircuitFile } from '../core/format';
import { CircuitModel } from '../core/network';
import { circuitOfPattern, LOAD_WORDS, type LoadWord, PATTERNS } from '../core/notation';
import { seeded } from '../testing/randomCircuit';

export interface PatternResult {
  readonly pattern: string;
  readonly played: number;
  readonly right: number;
  readonly proved: number;
  readonly provedWrong: number;
  readonly tests: number;
  readonly minutes: number;
  readonly wrong: readonly string[];
}

const LOADS: readonly string[] = LOAD_WORDS.map(([kind]) => kind);

/**
 * The vehicle as it is: what the pattern leaves open has some value. Loads from 4 to 90 W, wires of half a metre to
 * five, of a size that somebody would have chosen for the current.
 */
function asItIs(circuit: CircuitFile, random: () => number): CircuitFile {
  const between = (low: number, high: number) => low * (high / low) ** random();
  const watts = between(4, 90);
  const amps = watts / circuit.nominalVolts;
  const sizeMm2 = amps < 2 ? 0.5 : amps < 5 ? 1 : 1.5;
  return {
    ...circuit,
    parts: circuit.parts.map((part) => {
      if (part.kind === 'wire') return { ...part, lengthMetres: between(0.5, 5), sizeMm2 };
      if (part.kind === 'fuse') return { ...part, ratingAmps: random() < 0.5 ? 15 : 30 };
      if (LOADS.includes(part.kind)) return { ...part, watts: part.id === 'L1' ? watts : between(4, 60) };
      if (part.kind === 'socket') {
        return { ...part, appliances: part.appliances.map((one) => ({ ...one, watts })) };
      }
      return part;
    }) as CircuitFile['parts'],
  };
}

function play(
  pattern: (typeof PATTERNS)[number],
  kinds: readonly LoadWord[],
  seed: number,
  every: number,
): PatternResult {
  const random = seeded(seed);
  const result = {
    pattern: pattern.id,
    played: 0,
    right: 0,
    proved: 0,
    provedWrong: 0,
    tests: 0,
    minutes: 0,
  };
  const wrong: string[] = [];
  let met = 0;
  for (const kind of kinds) {
    const { circuit } = circuitOfPattern(pattern, { load: 'Load', kind, nominalVolts: 12 });
    const model = new CircuitModel(asItIs(circuit, random));
    const sessions = new Map<string, DiagnosisSession>();
    const sessionFor = (complaint: Complaint) => {
      const key = `${complaint.function}|${complaint.condition}`;
      const known = sessions.get(key) ?? new DiagnosisSession(circuit, complaint);
      sessions.set(key, known);
      return known;
    };
    for (const hypothesis of buildHypotheses(model)) {
      const [fault] = hypothesis.faults;
      if (!fault || hypothesis.intermittent || hypothesis.second) continue;
      met += 1;
      if (met % every !== 0) continue;
      const end = followEngine(sessionFor, model, fault);
      if (!end) continue;
      const proved = end.assessment.verdict.strength === 'proved';
      result.played += 1;
      result.tests += end.tests;
      result.minutes += end.minutes;
      if (end.right) result.right += 1;
      else wrong.push(`${kind}: ${hypothesis.words}: ${end.trail.join('; ')}`);
      if (proved) result.proved += 1;
      if (proved && !end.right) result.provedWrong += 1;
    }
  }
  return { ...result, wrong };
}

const [seed = '1', every = '1', ...kinds] = process.argv.slice(2);
const chosen = LOAD_WORDS.map(([kind]) => kind).filter((kind) => kinds.length === 0 || kinds.includes(kind));
console.log(JSON.stringify(PATTERNS.map((pattern) => play(pattern, chosen, Number(seed), Number(every)))));
