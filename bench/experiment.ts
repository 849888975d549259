/**
 * `npm run experiment`: plays a technician who follows the engine on simulated faults whose numbers the engine
 * does not know, and prints how often it was right, how long it took, and how honest its certainty was.
 *
 *   npm run experiment -- [reported|tuning] [faults a circuit, or all] [plain|missing|intermittent|best|outside|first ...]
 *
 * The circuits reported are `vehicleCircuit` seeds 501 to 530; whatever is tuned is tuned on seeds 1 to 30 alone.
 * Values lie within ±10 %, the battery within 12.2 to 12.8 V, meters err, one reading in a hundred is misplaced.
 * The faults come from the examiner's own table. `CALIBRATION_SVG=file` writes the calibration plot.
 */
import { writeFileSync } from 'node:fs';
import {
  type Assessment,
  type Complaint,
  DiagnosisSession,
  endsRight,
  leadToEnd,
  NOT_IN_MAP,
  type Seen,
} from '../core/diagnosis';
import type { Fault, FaultMode } from '../core/faults';
import type { CircuitFile } from '../core/format';
import { CircuitModel } from '../core/network';
import { seeded } from '../testing/randomCircuit';
import { vehicleCircuit } from '../testing/vehicleCircuit';
import { bestExpectedMinutes, engineExpectedMinutes, smallWorld } from './bestSequence';
import { brokenWorld, examinersFaults, handReading } from './examiner';
import { firstCards } from './firstCard';
import { habitualWalk } from './habitualWalk';
import { halveByVoltage } from './halving';
import { casesOf, type OutsidePlay, playOutside } from './outside';
import { outsideCircuit } from './outsideCircuit';
import { besideForgotten, ComesAndGoes, mapWithout, onNet, unmappedShort } from './worlds';

const CIRCUITS = 30;
/** Complaints whose first card is looked at. */
const FIRST_CARDS = 300;
const SECTIONS = ['plain', 'missing', 'intermittent', 'best', 'outside', 'first'] as const;

interface Task {
  readonly first: number;
  readonly most: number;
}

interface Subject {
  readonly seed: number;
  readonly parts: number;
  readonly circuit: CircuitFile;
  readonly model: CircuitModel;
  readonly faults: readonly Fault[];
  readonly random: () => number;
  readonly sessionFor: (complaint: Complaint) => DiagnosisSession;
}

function sessions(circuit: CircuitFile) {
  const known = new Map<string, DiagnosisSession>();
  return ({ function: of, condition }: Complaint) => {
    const key = `${of}|${condition}`;
    const session = known.get(key) ?? new DiagnosisSession(circuit, { function: of, condition });
    known.set(key, session);
    return session;
  };
}

/** The circuits of a task, smallest to largest three times over, with the faults chosen for each. */
function* subjects({ first, most }: Task): Generator<Subject> {
  for (let i = 0; i < CIRCUITS; i++) {
    const seed = first + i;
    const parts = 10 + Math.round((110 * (i % 10)) / 9);
    const circuit = vehicleCircuit(seed, parts);
    const model = new CircuitModel(circuit);
    const random = seeded(seed * 7907);
    const all = examinersFaults(model);
    const faults = all.length <= most ? all : all.filter(() => random() < most / all.length);
    yield { seed, parts, circuit, model, faults, random, sessionFor: sessions(circuit) };
  }
}

function percent(part: number, whole: number): string {
  return whole === 0 ? 'none' : `${((100 * part) / whole).toFixed(1)} %`;
}

function mean(numbers: readonly number[]): number {
  return numbers.reduce((sum, one) => sum + one, 0) / Math.max(1, numbers.length);
}

interface Played {
  readonly right: boolean;
  readonly proved: boolean;
  readonly chance: number;
  readonly tests: number;
  readonly minutes: number;
  readonly habitMinutes: number;
  readonly halvingMinutes: number;
  readonly halvingRight: boolean;
}

function printPlayed(name: string, played: readonly Played[]): void {
  const count = played.length;
  const share = (of: (one: Played) => boolean) => percent(played.filter(of).length, count);
  const minutes = mean(played.map((one) => one.minutes));
  const habit = mean(played.map((one) => one.habitMinutes));
  const halving = mean(played.map((one) => one.halvingMinutes));
  console.log(
    `${name}: ${count} cases, right group first ${share((one) => one.right)}, proved ${share((one) => one.proved)}, proved and wrong ${share((one) => one.proved && !one.right)}; ` +
      `${mean(played.map((one) => one.tests)).toFixed(1)} tests, ${minutes.toFixed(1)} min; habit ${habit.toFixed(1)} min (${percent(minutes, habit)}); ` +
      `halving by voltage ${halving.toFixed(1)} min and right ${share((one) => one.halvingRight)}`,
  );
}

function playPlain({ circuit, model, faults, random, sessionFor }: Subject): Played[] {
  return faults.flatMap((fault): Played[] => {
    const world = brokenWorld(circuit, fault, random);
    if (!world) return [];
    const { broken, complaint } = world;
    const session = sessionFor(complaint);
    const { assessment, tests, minutes } = leadToEnd(session, complaint, (ref) =>
      handReading(broken, ref, random, { meter: true }),
    );
    const halved = halveByVoltage(model, complaint, (ref) =>
      handReading(broken, ref, random, { meter: true }),
    );
    const group = session.groups([]).groups.find((one) => one.units.includes(fault.part));
    return [
      {
        right: endsRight(assessment, fault, broken.blown.length > 0),
        proved: assessment.verdict.strength === 'proved',
        chance: assessment.suspects[0]?.chance ?? 0,
        tests,
        minutes,
        habitMinutes: habitualWalk(model, complaint, fault).minutes,
        halvingMinutes: halved.minutes,
        halvingRight:
          halved.part !== null &&
          (halved.part === fault.part || (group?.parts.includes(halved.part) ?? false)),
      },
    ];
  });
}

/** Stated chance of the first suspect against how often it was right. */
function calibration(played: readonly Played[]) {
  const edges = [0, 0.5, 0.8, 0.9, 0.95, 0.98, 0.99, 0.999, 1.0001];
  return edges.slice(0, -1).flatMap((low, i) => {
    const inside = played.filter((one) => one.chance >= low && one.chance < edges[i + 1]!);
    if (inside.length === 0) return [];
    return [
      {
        count: inside.length,
        stated: mean(inside.map((one) => one.chance)),
        right: mean(inside.map((one) => Number(one.right))),
      },
    ];
  });
}

function calibrationSvg(bins: ReturnType<typeof calibration>): string {
  const x = (value: number) => 50 + 300 * value;
  const y = (value: number) => 350 - 300 * value;
  const dots = bins
    .map(
      (bin) =>
        `<circle cx="${x(bin.stated).toFixed(1)}" cy="${y(bin.right).toFixed(1)}" r="${(3 + 2 * Math.log10(bin.count)).toFixed(1)}"/><text x="${(x(bin.stated) + 10).toFixed(1)}" y="${(y(bin.right) + 4).toFixed(1)}">${bin.count}</text>`,
    )
    .join('');
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 400 400" font-family="sans-serif" font-size="12"><rect width="400" height="400" fill="#fff"/><path d="M50 350L350 50" stroke="#999" stroke-dasharray="4"/><path d="M50 50V350H350" fill="none" stroke="#000"/><text x="130" y="385">stated chance of the first suspect</text><text x="20" y="280" transform="rotate(-90 20 280)">how often it was right</text>${dots}</svg>\n`;
}

function plain(task: Task): void {
  const everything: Played[] = [];
  for (const subject of subjects(task)) {
    const played = playPlain(subject);
    printPlayed(`  ${subject.seed}, ${subject.parts} parts`, played);
    everything.push(...played);
  }
  printPlayed('All', everything);
  const bins = calibration(everything);
  for (const bin of bins) {
    console.log(
      `  stated ${percent(bin.stated, 1)} on average, right ${percent(bin.right, 1)} of ${bin.count}`,
    );
  }
  const file = process.env.CALIBRATION_SVG;
  if (file) writeFileSync(file, calibrationSvg(bins));
}

/** The faulty part is the one that the map lacks, or the fault is a branch that nobody drew. */
function missing(task: Task): void {
  const ends: { beside: boolean; notInMap: boolean; confident: boolean; inline: boolean }[] = [];
  const judge = (assessment: Assessment, beside: ReadonlySet<string>, inline: boolean) => {
    const [lead] = assessment.suspects;
    const found = lead?.parts.some((part) => beside.has(part)) ?? false;
    ends.push({
      inline,
      beside: found,
      notInMap: lead?.id === NOT_IN_MAP,
      confident: assessment.verdict.strength === 'proved' && lead?.id !== NOT_IN_MAP && !found,
    });
  };
  for (const { circuit, model, faults, random } of subjects(task)) {
    for (const fault of faults) {
      const map = mapWithout(circuit, fault.part);
      const world = map && brokenWorld(circuit, fault, random);
      if (!map || !world) continue;
      const session = new DiagnosisSession(map, world.complaint);
      const { assessment } = leadToEnd(session, world.complaint, (ref) =>
        handReading(world.broken, ref, random, { meter: true }),
      );
      judge(assessment, besideForgotten(circuit, map, fault.part), true);
    }
    for (const one of circuit.functions.slice(0, Math.max(1, Math.ceil(task.most / 4)))) {
      const load = model.network.parts.get(one.load)!;
      const node = (load.pins as Readonly<Record<string, string>>).plus!;
      const world = unmappedShort(circuit, node, random);
      if (!world) continue;
      const session = new DiagnosisSession(circuit, world.complaint);
      const { assessment } = leadToEnd(session, world.complaint, (ref) =>
        handReading(world.broken, ref, random, { meter: true }),
      );
      judge(assessment, onNet(circuit, node), false);
    }
  }
  for (const inline of [true, false]) {
    const of = ends.filter((one) => one.inline === inline);
    const share = (what: (one: (typeof ends)[number]) => boolean) =>
      percent(of.filter(what).length, of.length);
    console.log(
      `${inline ? 'The faulty part is not on the map' : 'A shorted branch is not on the map'}: ${of.length} cases, not in this map leads ${share((one) => one.notInMap)}, ` +
        `a part beside the missing one leads ${share((one) => !one.notInMap && one.beside)}, proved at a wrong place ${share((one) => one.confident)}`,
    );
  }
}

/** Forms that come and go in this examiner's table. */
const LOOSE: readonly FaultMode[] = ['open', 'contact-open'];

function intermittent(task: Task): void {
  let cases = 0;
  let right = 0;
  let proved = 0;
  let wrong = 0;
  let away = 0;
  const minutes: number[] = [];
  for (const { circuit, faults, random, sessionFor } of subjects(task)) {
    for (const fault of faults) {
      const kind = circuit.parts.find((part) => part.id === fault.part)?.kind;
      if (!LOOSE.includes(fault.mode) || kind === 'fuse' || kind === 'fusible-link') continue;
      const world = new ComesAndGoes(circuit, fault, random);
      const { complaint } = world;
      if (!complaint) continue;
      const session = sessionFor(complaint);
      const symptom = (): Seen => {
        const test = {
          kind: 'function' as const,
          function: complaint.function,
          condition: complaint.condition,
        };
        return { test, value: world.read(test) };
      };
      const played = leadToEnd(
        session,
        complaint,
        (ref) => world.read(ref),
        () => (world.stir() ? symptom() : null),
      );
      const isRight = endsRight(played.assessment, fault, false);
      const isProved = played.assessment.verdict.strength === 'proved';
      cases += 1;
      right += Number(isRight);
      proved += Number(isProved);
      wrong += Number(isProved && !isRight);
      away += Number(!isRight && played.assessment.stop?.reason === 'works-now');
      minutes.push(played.minutes);
    }
  }
  console.log(
    `A fault that comes and goes: ${cases} cases, right group first ${percent(right, cases)}, stayed away until given up ${percent(away, cases)}, proved ${percent(proved, cases)}, proved and wrong ${percent(wrong, cases)}, ${mean(minutes).toFixed(1)} min`,
  );
}

/** Circuits of more parts have no best possible sequence that could be computed. */
const SMALL_PARTS = 34;

/** Expected minutes of the best possible sequence for a complaint, and the engine's own; null where it is too large. */
function besideBest(session: DiagnosisSession, state: string) {
  const world = smallWorld(session, state);
  const possible = bestExpectedMinutes(world);
  if (possible === null || possible === 0) return null;
  return { world, possible, engine: engineExpectedMinutes(session, world, state) };
}

function printRatios(ratios: readonly number[], skipped: number): void {
  console.log(
    `Best possible sequence: ${ratios.length} circuits, mean ratio ${mean(ratios).toFixed(3)}, worst ${Math.max(...ratios).toFixed(3)}; ${skipped} too large to compute`,
  );
}

/** On the circuits small enough: the engine's expected minutes over those of the best possible sequence. */
function best(task: Task): void {
  const ratios: number[] = [];
  let skipped = 0;
  for (const { seed, parts, model, sessionFor } of subjects(task)) {
    if (parts > SMALL_PARTS) continue;
    const [one] = model.circuit.functions;
    const condition = model.conditions.find((entry) => one && model.expectedOn(one, entry.id));
    if (!one || !condition) continue;
    const session = sessionFor({ function: one.id, condition: condition.id });
    const beside = besideBest(session, 'dead');
    if (!beside) {
      skipped += 1;
      continue;
    }
    const { world, possible, engine } = beside;
    ratios.push(engine / possible);
    console.log(
      `  ${seed}, ${parts} parts, ${world.hypotheses.length} faults, ${world.tests.length} tests: best ${possible.toFixed(2)} min, engine ${engine.toFixed(2)} min, ratio ${(engine / possible).toFixed(3)}`,
    );
  }
  printRatios(ratios, skipped);
}

/** Cases that share nothing with the engine's lists, by class; the first name counts as well as the group. */
function outside({ first, most }: Task): void {
  const played: (OutsidePlay & { readonly habit: number })[] = [];
  const ratios: number[] = [];
  let skipped = 0;
  for (let i = 0; i < CIRCUITS; i++) {
    // Another line of numbers than the other sections have.
    const random = seeded((first + i) * 104_729 + 17);
    const map = outsideCircuit(random, 10 + Math.round((110 * (i % 10)) / 9));
    const model = new CircuitModel(map);
    const sessionFor = sessions(map);
    const cases = casesOf(map, random, most);
    if (map.parts.length <= SMALL_PARTS && cases[0]) {
      const beside = besideBest(sessionFor(cases[0].complaint), cases[0].complaint.state);
      if (beside) ratios.push(beside.engine / beside.possible);
      else skipped += 1;
    }
    for (const one of cases) {
      const play = playOutside(sessionFor(one.complaint), one, random);
      played.push({ ...play, habit: habitualWalk(model, one.complaint, one.fault).minutes });
    }
  }
  const print = (name: string, of: typeof played) => {
    const share = (what: (one: (typeof played)[number]) => boolean) =>
      percent(of.filter(what).length, of.length).padStart(8);
    const minutes = mean(of.map((one) => one.minutes));
    const habit = mean(of.map((one) => one.habit));
    console.log(
      `  ${name.padEnd(10)} ${String(of.length).padStart(5)} ${share((one) => one.name)} ${share((one) => one.group)} ${minutes.toFixed(1).padStart(7)} ${habit > 0 ? (minutes / habit).toFixed(2).padStart(6) : '  none'} ` +
        `${share((one) => one.chance > 0.95 && !one.group)} ${share((one) => one.chance > 0.95 && !one.name)} ${share((one) => one.proved && !one.group)} ${share((one) => one.cleared)}`,
    );
  };
  console.log('Outside: class, cases, first name right, true part in the leading group, minutes, of habit,');
  console.log(
    '  above 0.95 and group wrong, above 0.95 and name wrong, proved and group wrong, part at fault called cleared',
  );
  for (const of of [...new Set(played.map((one) => one.of))].sort()) {
    print(
      of,
      played.filter((one) => one.of === of),
    );
  }
  print('all', played);
  printRatios(ratios, skipped);
}

/** The card that stands before everything is worked out. */
function first({ first: seed }: Task): void {
  const cards = firstCards(seed, FIRST_CARDS);
  const lost = cards.map((one) => one.lost);
  console.log(
    `First card before everything is worked out: ${cards.length} complaints, the same card in ${percent(cards.filter((one) => one.same).length, cards.length)}, ` +
      `at most ${Math.max(...lost).toFixed(3)} bits a minute less, mean ${mean(lost).toFixed(4)}; ` +
      `stands after ${mean(cards.map((one) => one.of)).toFixed(2)} of the time`,
  );
}

function main(): void {
  const words = process.argv.slice(2);
  const which = words.includes('tuning') ? 'tuning' : 'reported';
  const number = words.find((word) => /^\d+$/.test(word));
  const most = words.includes('all') ? Number.POSITIVE_INFINITY : Number(number ?? 12);
  const sections = SECTIONS.filter((section) => words.includes(section));
  const task = { first: which === 'tuning' ? 1 : 501, most };
  console.log(
    `${which} circuits, ${most === Number.POSITIVE_INFINITY ? 'every fault' : `at most ${most} faults each`}; values ±10 %, battery 12.2 to 12.8 V, meter error, 1 % misplaced`,
  );
  const run = { plain, missing, intermittent, best, outside, first };
  for (const section of sections.length > 0 ? sections : SECTIONS) run[section](task);
}

main();
