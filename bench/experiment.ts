/**
 * `npm run experiment`: plays a technician who follows the engine on simulated faults whose numbers the engine
 * does not know, and prints how often it was right, how long it took, and how honest its certainty was.
 *
 * The circuits reported here are `vehicleCircuit` seeds 501 to 530; whatever is tuned is tuned on seeds 1 to 30.
 * `npm run experiment -- tuning` plays those. A second word limits the faults a circuit: `reported 20`.
 */
import { writeFileSync } from 'node:fs';
import { CircuitModel } from '../core/circuit/model';
import { endsRight, leadToEnd } from '../core/diagnosis/followEngine';
import { type Complaint, DiagnosisSession } from '../core/diagnosis/session';
import type { CircuitFile } from '../core/format/circuitSchema';
import { seeded } from '../testing/randomCircuit';
import { vehicleCircuit } from '../testing/vehicleCircuit';
import { brokenWorld, examinersFaults, handReading } from './examiner';
import { habitualWalk } from './habitualWalk';

const CIRCUITS = 30;

interface Played {
  readonly right: boolean;
  readonly proved: boolean;
  readonly chance: number;
  readonly tests: number;
  readonly minutes: number;
  readonly habitMinutes: number;
}

interface Sum {
  cases: number;
  right: number;
  proved: number;
  provedWrong: number;
  tests: number;
  minutes: number;
  habitMinutes: number;
}

function playCircuit(circuit: CircuitFile, seed: number, most: number): Played[] {
  const model = new CircuitModel(circuit);
  const sessions = new Map<string, DiagnosisSession>();
  const sessionFor = ({ function: of, condition }: Complaint) => {
    const key = `${of}|${condition}`;
    const known = sessions.get(key) ?? new DiagnosisSession(circuit, { function: of, condition });
    sessions.set(key, known);
    return known;
  };
  const random = seeded(seed * 7907);
  const all = examinersFaults(model);
  const chosen = all.length <= most ? all : all.filter(() => random() < most / all.length);
  return chosen.flatMap((fault): Played[] => {
    const world = brokenWorld(circuit, fault, random);
    if (!world) return [];
    const session = sessionFor(world.complaint);
    const { broken, complaint } = world;
    const { assessment, tests, minutes } = leadToEnd(session, complaint, (ref) =>
      handReading(broken, ref, random, { meter: true }),
    );
    const [lead] = assessment.suspects;
    return [
      {
        right: endsRight(session, assessment, fault, broken.blown.length > 0),
        proved: assessment.verdict.strength === 'proved',
        chance: lead?.chance ?? 0,
        tests,
        minutes,
        habitMinutes: habitualWalk(model, world.complaint, fault).minutes,
      },
    ];
  });
}

function sumOf(played: readonly Played[]): Sum {
  const sum: Sum = { cases: 0, right: 0, proved: 0, provedWrong: 0, tests: 0, minutes: 0, habitMinutes: 0 };
  for (const one of played) {
    sum.cases += 1;
    sum.right += Number(one.right);
    sum.proved += Number(one.proved);
    sum.provedWrong += Number(one.proved && !one.right);
    sum.tests += one.tests;
    sum.minutes += one.minutes;
    sum.habitMinutes += one.habitMinutes;
  }
  return sum;
}

function percent(part: number, whole: number): string {
  return `${((100 * part) / Math.max(1, whole)).toFixed(1)} %`;
}

function print(name: string, sum: Sum): void {
  console.log(
    `${name}: ${sum.cases} cases, right group first ${percent(sum.right, sum.cases)}, proved ${percent(sum.proved, sum.cases)}, proved and wrong ${percent(sum.provedWrong, sum.cases)}; ` +
      `${(sum.tests / Math.max(1, sum.cases)).toFixed(1)} tests, ${(sum.minutes / Math.max(1, sum.cases)).toFixed(1)} min, ${percent(sum.minutes, sum.habitMinutes)} of the habitual order's`,
  );
}

/** Stated chance against how often it was true, as a drawing. */
function calibrationSvg(played: readonly Played[]): string {
  const bins = Array.from({ length: 10 }, (_, i) => {
    const inside = played.filter((one) => Math.min(9, Math.floor(one.chance * 10)) === i);
    const mean = inside.reduce((sum, one) => sum + one.chance, 0) / Math.max(1, inside.length);
    return {
      count: inside.length,
      mean,
      true: inside.filter((one) => one.right).length / Math.max(1, inside.length),
    };
  });
  const x = (value: number) => 50 + 300 * value;
  const y = (value: number) => 350 - 300 * value;
  const dots = bins
    .filter((bin) => bin.count > 0)
    .map(
      (bin) =>
        `<circle cx="${x(bin.mean).toFixed(1)}" cy="${y(bin.true).toFixed(1)}" r="${(3 + 2 * Math.log10(bin.count)).toFixed(1)}"/><text x="${(x(bin.mean) + 10).toFixed(1)}" y="${(y(bin.true) + 4).toFixed(1)}">${bin.count}</text>`,
    )
    .join('');
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 400 400" font-family="sans-serif" font-size="12"><rect width="400" height="400" fill="#fff"/><path d="M50 350L350 50" stroke="#999" stroke-dasharray="4"/><path d="M50 50V350H350" fill="none" stroke="#000"/><text x="130" y="385">stated chance of the first suspect</text><text x="20" y="280" transform="rotate(-90 20 280)">how often it was right</text>${dots}</svg>\n`;
}

function main(): void {
  const [which = 'reported', most = '12'] = process.argv.slice(2);
  const first = which === 'tuning' ? 1 : 501;
  const everything: Played[] = [];
  console.log(
    `${which} circuits, at most ${most} faults each; values ±10 %, battery 12.2 to 12.8 V, meter error, 1 % misplaced`,
  );
  for (let i = 0; i < CIRCUITS; i++) {
    const parts = 10 + Math.round((110 * (i % 10)) / 9);
    const played = playCircuit(vehicleCircuit(first + i, parts), first + i, Number(most));
    print(`  ${first + i}, ${parts} parts`, sumOf(played));
    everything.push(...played);
  }
  print('All', sumOf(everything));
  const file = process.env.CALIBRATION_SVG;
  if (file) writeFileSync(file, calibrationSvg(everything));
}

main();
