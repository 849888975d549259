/** `npm run bench`: what the program claims of its speed, measured side by side in one run. */
import { execFileSync, spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { mergeCircuits, resolveControl } from '../core/circuit';
import { DiagnosisSession, readingOf, type TakenReading } from '../core/diagnosis';
import { breakCircuit, faultAlteration, faultModes } from '../core/faults';
import type { CircuitFile } from '../core/format';
import {
  type Alteration,
  CircuitModel,
  SmallSystem,
  SparseFactor,
  SparsePattern,
  spiceNetlist,
} from '../core/network';
import { demoCircuit } from '../testing/circuits';
import { randomCircuit } from '../testing/randomCircuit';
import { vehicleCircuit } from '../testing/vehicleCircuit';
import { benchChanges } from './changes';
import { benchFeeds } from './feeds';
import { benchOpening } from './opening';

function median(values: readonly number[]): number {
  const sorted = values.slice().sort((a, b) => a - b);
  return sorted[Math.floor(sorted.length / 2)] ?? Number.NaN;
}

function percentile95(values: readonly number[]): number {
  const sorted = values.slice().sort((a, b) => a - b);
  return sorted[Math.floor(sorted.length * 0.95)] ?? Number.NaN;
}

/** Faults of every part of a circuit that ngspice can be asked about by altering one resistor. */
function alterationsOf(model: CircuitModel): Alteration[] {
  return model.circuit.parts.flatMap((part) =>
    faultModes(part)
      .filter((mode) => mode === 'open' || mode === 'high-resistance' || mode === 'weak')
      .map((mode) => faultAlteration(model.network, { part: part.id, mode, ohms: 2 })),
  );
}

const SLICE_MS = 400;

function pointsPerSecond(model: CircuitModel, alterations: readonly Alteration[]): number {
  const solver = model.solver('all');
  const point = solver.emptyPoint();
  for (const alteration of alterations) solver.solveInto(point, alteration);
  const started = performance.now();
  let solved = 0;
  while (performance.now() - started < SLICE_MS) {
    for (const alteration of alterations) solver.solveInto(point, alteration);
    solved += alterations.length;
  }
  return (1000 * solved) / (performance.now() - started);
}

/**
 * One ngspice process, one circuit loaded once, then `alter` and `op` repeated: a resistor is altered before
 * each, which is what a fault is to it. Loading and starting are subtracted by timing a process that does all
 * but the analyses.
 */
function ngspicePointsPerSecond(model: CircuitModel, repeats: number): number {
  const folder = mkdtempSync(path.join(tmpdir(), 'every-trace-bench-'));
  try {
    const condition = model.conditions.find((one) => one.id === 'all')!;
    const { text } = spiceNetlist(model.network, condition, { changes: [], bridges: [] });
    // Both give the same: volts at every point and the current of every part.
    const withCurrents = text.replace('.options ', '.options savecurrents ');
    writeFileSync(path.join(folder, 'circuit.cir'), withCurrents);
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
    const idle = Math.min(time(false), time(false));
    return (1000 * repeats) / Math.max(1, Math.min(time(true), time(true)) - idle);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

/** Microseconds for factoring the same matrix sparse and dense: what the choice of sparse rests on. */
function factorMicroseconds(size: number): { sparse: number; dense: number } {
  const { network, conditions } = new CircuitModel(vehicleCircuit(1000 * size + 1, size));
  const on = conditions.find((one) => one.id === 'all')!;
  const siemens = network.branches.map((branch) =>
    resolveControl(network, branch.control, on) === 'open' ? 0 : 1 / branch.ohms,
  );
  const a = network.branches.map((branch) => branch.a);
  const b = network.branches.map((branch) => branch.b);
  const all = { from: 0, to: a.length };
  const factor = new SparseFactor(new SparsePattern(network.nodeCount, network.datum, a, b, a.length, all));
  // A tie everywhere keeps both solvable whatever is switched off.
  const ties = new Float64Array(network.nodeCount).fill(1e-6);
  factor.assemble(siemens, ties);
  const dense = new SmallSystem();
  const n = network.nodeCount;
  const fill = () => {
    dense.resize(n);
    dense.matrix.fill(0);
    for (let i = 0; i < n; i++) dense.matrix[i * n + i] = 1e-6;
    siemens.forEach((g, e) => {
      for (const [i, j, value] of [
        [a[e]!, a[e]!, g],
        [b[e]!, b[e]!, g],
        [a[e]!, b[e]!, -g],
        [b[e]!, a[e]!, -g],
      ] as const) {
        dense.matrix[i * n + j] = dense.matrix[i * n + j]! + value;
      }
    });
  };
  const time = (repeats: number, work: () => void) => {
    for (let i = 0; i < repeats; i++) work();
    const started = performance.now();
    for (let i = 0; i < repeats; i++) work();
    return (1000 * (performance.now() - started)) / repeats;
  };
  return {
    sparse: time(2000, () => factor.factor(siemens)),
    dense: time(30, () => {
      fill();
      dense.factor();
    }),
  };
}

const CIRCUITS_PER_SIZE = 5;

function benchSolver(title: string, circuit: (seed: number, size: number) => CircuitFile): void {
  console.log(`Operating points per second, ${title}:`);
  const sizes = [10, 40, 120, 300];
  const times: number[] = [];
  for (const size of sizes) {
    const ratios: number[] = [];
    const ours: number[] = [];
    const theirs: number[] = [];
    const sensors: number[] = [];
    const junctions: number[] = [];
    let stored = 0;
    for (let seed = 1; seed <= CIRCUITS_PER_SIZE; seed++) {
      const model = new CircuitModel(circuit(1000 * size + seed, size));
      const alterations = alterationsOf(model);
      // In turns, and the better of two on either side, so that a busy moment of the machine favours neither.
      const before = pointsPerSecond(model, alterations);
      const other = ngspicePointsPerSecond(model, Math.round(60_000 / (size / 4 + 4)));
      const mine = Math.max(before, pointsPerSecond(model, alterations));
      ours.push(mine);
      theirs.push(other);
      ratios.push(mine / other);
      stored = Math.max(stored, model.solver('all').storedNumbers);
      sensors.push(model.network.sensors.length);
      junctions.push(model.network.junctions.length);
    }
    times.push(1 / median(ours));
    console.log(
      `  ${String(size).padStart(4)} parts (${median(sensors)} relays, ${median(junctions)} diodes): median ${median(ours).toFixed(0)} here, ${median(theirs).toFixed(0)} in ngspice; ratio median ${median(ratios).toFixed(0)}, least ${Math.min(...ratios).toFixed(0)}; at most ${((stored * 8) / 1048576).toFixed(2)} MB kept a condition`,
    );
  }
  const exponent = Math.log(times[3]! / times[1]!) / Math.log(sizes[3]! / sizes[1]!);
  console.log(`  growth of time with size, 40 to 300 parts: exponent ${exponent.toFixed(2)}`);
}

/** Faults played through each circuit for the times of a step, and readings of each. */
const PLAYED = 24;
const STEPS = 7;

interface StepTimes {
  readonly parts: number;
  readonly faults: number;
  readonly first: number;
  readonly steps: readonly number[];
  /** Held by the process with everything predicted, MB; what was made before counts as well. */
  readonly heldMb: number;
}

/** First card, and each further step: one reading taken in, ranking, next tests with their words. */
function stepTimes(circuit: CircuitFile, complaint: { function: string; condition: string }): StepTimes {
  const started = performance.now();
  const session = new DiagnosisSession(circuit, complaint);
  const asked: TakenReading = {
    id: 'complaint',
    test: { kind: 'function', ...complaint },
    value: { state: 'dead' },
  };
  session.assess({ readings: [asked], refused: [], opened: [] });
  const first = performance.now() - started;
  const steps: number[] = [];
  const single = session.hypotheses.filter(
    (one) => one.faults.length > 0 && !one.intermittent && !one.second,
  );
  const every = Math.max(1, Math.floor(single.length / PLAYED));
  for (const hypothesis of single.filter((_, index) => index % every === 0)) {
    const broken = breakCircuit(session.model, hypothesis.faults);
    const readings: TakenReading[] = [asked];
    let { next } = session.assess({ readings, refused: [], opened: [] });
    for (let step = 0; step < STEPS && next[0]; step++) {
      readings.push({ id: `r${step}`, test: next[0].ref, value: readingOf(broken, next[0].ref) });
      const before = performance.now();
      ({ next } = session.assess({ readings, refused: [], opened: [] }));
      steps.push(performance.now() - before);
    }
  }
  const heldMb = process.memoryUsage().heapUsed / 1e6;
  return { parts: circuit.parts.length, faults: session.hypotheses.length, first, steps, heldMb };
}

/** A job of 200 readings: the time of its last ones against that of its first ones. */
function longJob(circuit: CircuitFile, complaint: { function: string; condition: string }): void {
  const session = new DiagnosisSession(circuit, complaint);
  const broken = breakCircuit(session.model, session.hypotheses[0]!.faults);
  const still = session.permitted.filter((test) => !test.disturbs);
  const readings: TakenReading[] = [];
  const times: number[] = [];
  for (let count = 0; count < 200; count++) {
    const { ref } = still[count % still.length]!;
    readings.push({ id: `r${count}`, test: ref, value: readingOf(broken, ref) });
    const before = performance.now();
    session.assess({ readings: readings.slice(), refused: [], opened: [] });
    times.push(performance.now() - before);
  }
  const late = median(times.slice(180));
  console.log(
    `  job of 200 readings on ${circuit.parts.length} parts: median of readings 11 to 30 ${median(times.slice(10, 30)).toFixed(1)} ms, of the last 20 ${late.toFixed(1)} ms, ratio ${(late / median(times.slice(10, 30))).toFixed(1)}`,
  );
}

function benchDiagnosis(): void {
  console.log(
    'Milliseconds per diagnosis step (one reading taken in, ranking, next tests), as in the worker',
  );
  const van = (['van-proving-cabinet', 'van-hatch-fridge', 'van-demist'] as const).map(demoCircuit);
  const demos = [[van[0]!], van].map((files) => mergeCircuits(files).circuit);
  const fan = { function: 'cabinet-fan', condition: 'fan-on' };
  const built = [10, 40, 120, 300].map((size) => vehicleCircuit(700 + size, size));
  const subjects = [
    ...demos.map((circuit) => ({ circuit, complaint: fan })),
    ...built.map((circuit) => ({ circuit, complaint: { function: 'function-2', condition: 'all' } })),
  ];
  const times = subjects.map(({ circuit, complaint }) => {
    const of =
      complaint.function === 'function-2' && circuit.functions.length < 2 ? 'function-1' : complaint.function;
    const one = stepTimes(circuit, { ...complaint, function: of });
    console.log(
      `  ${one.parts} parts, ${one.faults} faults supposed: first card ${one.first.toFixed(0)}, then median ${median(one.steps).toFixed(1)}, p95 ${percentile95(one.steps).toFixed(1)}; ${one.heldMb.toFixed(0)} MB held`,
    );
    return one;
  });
  const [, forty, , largest] = times.slice(demos.length);
  const exponent =
    Math.log(median(largest!.steps) / median(forty!.steps)) / Math.log(largest!.parts / forty!.parts);
  console.log(
    `  growth of a step with size, ${forty!.parts} to ${largest!.parts} parts: exponent ${exponent.toFixed(2)}`,
  );
  longJob(demos[0]!, fan);
}

if (process.argv.includes('backup')) {
  const { benchBackup } = await import('./backup');
  await benchBackup();
  process.exit(0);
}
if (process.argv.includes('start')) {
  const { benchStart } = await import('./start');
  await benchStart(process.argv.at(-1) === 'start' ? 'HEAD~1' : process.argv.at(-1)!);
  process.exit(0);
}
if (process.argv.includes('sheets')) {
  const { benchSheets } = await import('./sheets');
  await benchSheets();
  process.exit(0);
}
if (process.argv.includes('pages')) {
  const { benchPages } = await import('./pages');
  await benchPages();
  process.exit(0);
}
if (process.argv.includes('stock')) {
  const { benchStock } = await import('./stock');
  await benchStock();
  process.exit(process.exitCode ?? 0);
}
if (process.argv.includes('feeds')) {
  benchFeeds();
  process.exit(0);
}
if (process.argv.includes('changes')) {
  benchChanges();
  process.exit(0);
}
if (process.argv.includes('diagnosis')) {
  benchOpening();
  benchDiagnosis();
  process.exit(0);
}
try {
  execFileSync('ngspice', ['--version'], { stdio: 'ignore' });
  console.log(
    `Every open, bad joint and weak battery of ${CIRCUITS_PER_SIZE} circuits a size, all switches on. ngspice: one process per circuit, \`alter\` and \`op\` repeated with savecurrents (volts and currents, as here), loading subtracted; the better of two on either side.`,
  );
  for (const size of [10, 40, 120, 300]) {
    const { sparse, dense } = factorMicroseconds(size);
    console.log(
      `Factoring ${size} parts: ${sparse.toFixed(1)} µs sparse, ${dense.toFixed(1)} µs dense, ratio ${(dense / sparse).toFixed(1)}`,
    );
  }
  benchSolver('circuits built as vehicles are', vehicleCircuit);
  benchSolver('random networks of every kind of part, many diodes', randomCircuit);
} catch {
  console.log('ngspice is not installed; npm test installs it. The comparison is left out.');
}
if (!process.argv.includes('solver')) {
  benchDiagnosis();
  benchFeeds();
  benchChanges();
}
