/** `npm run bench`: what the program claims of its speed, measured side by side in one run. */
import { execFileSync, spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { mergeCircuits } from '../core/circuit/merge';
import { CircuitModel } from '../core/circuit/model';
import type { TakenReading } from '../core/diagnosis/evidence';
import { breakCircuit, readingOf } from '../core/diagnosis/playback';
import { DiagnosisSession } from '../core/diagnosis/session';
import { faultAlteration, faultModes } from '../core/faults/faults';
import type { Alteration } from '../core/network/solve';
import { spiceNetlist } from '../core/network/spice';
import { demoCircuit } from '../testing/circuits';
import { randomCircuit } from '../testing/randomCircuit';

function median(values: readonly number[]): number {
  const sorted = values.slice().sort((a, b) => a - b);
  return sorted[Math.floor(sorted.length / 2)] ?? Number.NaN;
}

function percentile95(values: readonly number[]): number {
  const sorted = values.slice().sort((a, b) => a - b);
  return sorted[Math.floor(sorted.length * 0.95)] ?? Number.NaN;
}

/** Every fault of every part of a circuit, as alterations; contacts left out so that states stay comparable. */
function alterationsOf(model: CircuitModel): Alteration[] {
  return model.circuit.parts.flatMap((part) =>
    faultModes(part)
      .filter((mode) => mode === 'open' || mode === 'high-resistance' || mode === 'weak')
      .map((mode) => faultAlteration(model.network, { part: part.id, mode, ohms: 2 })),
  );
}

function pointsPerSecond(model: CircuitModel, alterations: readonly Alteration[]): number {
  const solver = model.solver('all');
  for (const alteration of alterations) solver.solve(alteration);
  const until = performance.now() + 1500;
  const started = performance.now();
  let solved = 0;
  while (performance.now() < until) {
    for (const alteration of alterations) solver.solve(alteration);
    solved += alterations.length;
  }
  return (1000 * solved) / (performance.now() - started);
}

/**
 * One ngspice process, one circuit loaded once, then `alterpar`-free repeats of `.op`: the circuit's first
 * resistor is altered before each, which is what a fault is to it. Loading and starting are subtracted by
 * timing a process that does all but the analyses.
 */
function ngspicePointsPerSecond(model: CircuitModel, repeats: number): number {
  const folder = mkdtempSync(path.join(tmpdir(), 'every-trace-bench-'));
  try {
    const condition = model.conditions.find((one) => one.id === 'all')!;
    const { text } = spiceNetlist(model.network, condition, { changes: [], bridges: [] });
    writeFileSync(path.join(folder, 'circuit.cir'), text);
    const resistor = /^(R\d+) /m.exec(text)?.[1]?.toLowerCase() ?? 'r1';
    const driver = (analyses: boolean) =>
      [
        '* bench',
        '.control',
        'source circuit.cir',
        `repeat ${repeats}`,
        `alter ${resistor} = 0.5`,
        ...(analyses ? ['op', 'destroy all'] : []),
        'end',
        'quit 0',
        '.endc',
        '.end',
      ].join('\n');
    const time = (analyses: boolean) => {
      writeFileSync(path.join(folder, 'driver.cir'), driver(analyses));
      const started = performance.now();
      spawnSync('ngspice', ['-b', 'driver.cir'], { cwd: folder });
      return performance.now() - started;
    };
    const idle = time(false);
    return (1000 * repeats) / Math.max(1, time(true) - idle);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

function benchSolver(): void {
  console.log(
    'Operating points per second, every fault of a random circuit; ngspice: one process, `alter` and `op` repeated',
  );
  const sizes: number[] = [];
  const times: number[] = [];
  for (const size of [10, 40, 120, 300]) {
    const model = new CircuitModel(randomCircuit(size, size));
    const ours = pointsPerSecond(model, alterationsOf(model));
    const theirs = ngspicePointsPerSecond(model, size > 100 ? 300 : 1000);
    sizes.push(size);
    times.push(1 / ours);
    console.log(
      `  ${String(size).padStart(4)} parts, ${model.network.nodeCount} nodes: ${ours.toFixed(0)} here, ${theirs.toFixed(0)} in ngspice, ratio ${(ours / theirs).toFixed(1)}`,
    );
  }
  const exponent = Math.log(times[3]! / times[1]!) / Math.log(sizes[3]! / sizes[1]!);
  console.log(`  growth of time with size, 40 to 300 parts: exponent ${exponent.toFixed(2)}`);
}

function benchDiagnosis(): void {
  console.log('Milliseconds per diagnosis step (all readings taken in, ranking, next tests)');
  const van = (['van-proving-cabinet', 'van-hatch-fridge', 'van-demist'] as const).map(demoCircuit);
  for (const files of [[van[0]!], van]) {
    const { circuit } = mergeCircuits(files);
    const complaint = { function: 'cabinet-fan', condition: 'fan-on' };
    const started = performance.now();
    const session = new DiagnosisSession(circuit, complaint);
    session.assess({ readings: [], refused: [], opened: [] });
    const first = performance.now() - started;
    const steps: number[] = [];
    for (const hypothesis of session.hypotheses.filter((one) => one.faults.length > 0).slice(0, 40)) {
      const broken = breakCircuit(session.model, hypothesis.faults);
      const readings: TakenReading[] = [];
      for (let step = 0; step < 6; step++) {
        const before = performance.now();
        const { next } = session.assess({ readings, refused: [], opened: [] });
        steps.push(performance.now() - before);
        const [proposal] = next;
        if (!proposal) break;
        const value = readingOf(broken, proposal.ref);
        readings.push({ id: `r${step}`, test: proposal.ref, value, testerProved: true });
      }
    }
    console.log(
      `  ${circuit.parts.length} parts: first card ${first.toFixed(0)}, then median ${median(steps).toFixed(1)}, p95 ${percentile95(steps).toFixed(1)}`,
    );
  }
}

try {
  execFileSync('ngspice', ['--version'], { stdio: 'ignore' });
  benchSolver();
} catch {
  console.log('ngspice is not installed; npm test installs it. The comparison is left out.');
}
benchDiagnosis();
