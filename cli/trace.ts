/** `npm run -s trace -- VERB …`: the core on the command line. Exit 0 fine, 1 the input has problems, 2 wrong use. */
import { readFileSync } from 'node:fs';
import { examine, undoSteps } from '../core/change';
import { DiagnosisSession, testId } from '../core/diagnosis';
import { type Fault, parseFault } from '../core/faults';
import {
  type CircuitFile,
  checkPanelSetText,
  checkPlanText,
  checkReadingsText,
  type Problem,
} from '../core/format';
import {
  CircuitFileSchema,
  JobFileSchema,
  PanelSetFileSchema,
  PlanFileSchema,
  ReadingsFileSchema,
  ShopManifestSchema,
  SurveyFileSchema,
  WaitingFileSchema,
} from '../core/format/schemas';
import { INTERVENTION_FORMS, type Intervention, intervene, parseIntervention } from '../core/hands';
import { stateOf } from '../core/live';
import { CircuitModel, spiceNetlist } from '../core/network';
import { readCircuitText, writeNotation } from '../core/notation';
import { formatQuantity } from '../core/quantity';

const SCHEMAS: Readonly<Record<string, object>> = {
  circuit: CircuitFileSchema,
  'panel-set': PanelSetFileSchema,
  job: JobFileSchema,
  plan: PlanFileSchema,
  readings: ReadingsFileSchema,
  survey: SurveyFileSchema,
  shop: ShopManifestSchema,
  waiting: WaitingFileSchema,
};

const USAGE = `Usage:
  FILE: a circuit as JSON or in the notation of docs/notation.md
  check FILE                                             a circuit or panel-set file
  text FILE [--short]                                    the circuit in the notation
  json FILE                                              the circuit as a file
  solve FILE --condition C [--after C] [--fault PART:MODE[:VALUE]]… [--do WHAT]… [--open-fuses] [--json]
  spice FILE --condition C [--after C] [--fault PART:MODE[:VALUE]]… [--do WHAT]…   a netlist for ngspice
      VALUE: ohms, or ampere for wrong-rating
      WHAT: ${INTERVENTION_FORMS.join(', ')}
  next FILE --readings FILE [--json]                     suspects, next test, why
  plan CIRCUIT PLAN [--json]                             a plan played: sentences, findings in every setting, how to undo it
  schema ${Object.keys(SCHEMAS).join('|')}`;

class WrongUse extends Error {}
class BadInput extends Error {
  constructor(readonly problems: readonly Problem[]) {
    super('The input has problems.');
  }
}

interface Options {
  readonly positional: readonly string[];
  readonly named: ReadonlyMap<string, readonly string[]>;
}

function parseArguments(
  args: readonly string[],
  flags: readonly string[],
  valued: readonly string[],
): Options {
  const positional: string[] = [];
  const named = new Map<string, string[]>();
  for (let i = 0; i < args.length; i++) {
    const arg = args[i]!;
    if (!arg.startsWith('--')) positional.push(arg);
    else if (flags.includes(arg)) named.set(arg, ['']);
    else if (valued.includes(arg)) {
      const value = args[++i];
      if (value === undefined) throw new WrongUse(`${arg} needs a value.`);
      named.set(arg, [...(named.get(arg) ?? []), value]);
    } else throw new WrongUse(`${arg} is not an option here.`);
  }
  return { positional, named };
}

function readText(path: string): string {
  try {
    return readFileSync(path, 'utf8');
  } catch {
    throw new BadInput([{ code: 'no-file', path, message: 'The file cannot be read.' }]);
  }
}

function readCircuit(path: string): CircuitFile {
  return circuitOfText(readText(path));
}

/** A circuit from its file: JSON, or the notation of docs/notation.md. */
function circuitOfText(text: string): CircuitFile {
  const checked = readCircuitText(text);
  if (!checked.ok) throw new BadInput(checked.problems);
  return checked.value;
}

function onlyPath(options: Options): string {
  const [path, ...rest] = options.positional;
  if (path === undefined || rest.length > 0) throw new WrongUse('One FILE is wanted.');
  return path;
}

function check(args: readonly string[]): void {
  const path = onlyPath(parseArguments(args, [], []));
  const text = readText(path);
  const isPanelSet = /"format"\s*:\s*"every-trace\/panel-set"/.test(text.slice(0, 2000));
  const checked = isPanelSet ? checkPanelSetText(text) : null;
  if (checked && !checked.ok) throw new BadInput(checked.problems);
  const value = checked?.ok ? checked.value : circuitOfText(text);
  console.log(
    'panels' in value
      ? `${value.name}: ${value.panels.length} panels, ${value.panels.reduce((sum, panel) => sum + panel.slots.length, 0)} slots. No problems.`
      : `${value.name}: ${value.parts.length} parts, ${value.nodes.length} nodes, ${value.functions.length} functions. No problems.`,
  );
}

function parseAll<T extends object>(
  texts: readonly string[],
  parse: (text: string) => T | { error: string },
): T[] {
  return texts.map((text) => {
    const parsed = parse(text);
    if ('error' in parsed) throw new WrongUse((parsed as { error: string }).error);
    return parsed as T;
  });
}

const QUESTION_OPTIONS = ['--condition', '--after', '--fault', '--do'];

/** The model, condition, faults and interventions that `solve` and `spice` are asked about. */
function readQuestion(options: Options) {
  const circuit = readCircuit(onlyPath(options));
  const model = new CircuitModel(circuit);
  const conditionOf = (id: string | undefined, option: string) => {
    const found = circuit.conditions.find((one) => one.id === id);
    if (found) return found;
    throw new WrongUse(`${option} must be one of ${circuit.conditions.map((one) => one.id).join(', ')}.`);
  };
  const condition = conditionOf(options.named.get('--condition')?.[0], '--condition');
  const named = options.named.get('--after')?.[0];
  const after = named === undefined ? condition.after : conditionOf(named, '--after').id;
  const faults = parseAll<Fault>(options.named.get('--fault') ?? [], parseFault);
  const interventions = parseAll<Intervention>(options.named.get('--do') ?? [], parseIntervention);
  try {
    return { circuit, condition, after, model, alteration: intervene(model.network, faults, interventions) };
  } catch (error) {
    throw new WrongUse((error as Error).message);
  }
}

function spice(args: readonly string[]): void {
  const { model, condition, after, alteration } = readQuestion(parseArguments(args, [], QUESTION_OPTIONS));
  const start = model.start(condition.id, alteration, after);
  const latches = model.solve(condition.id, alteration, after).sensed;
  process.stdout.write(spiceNetlist(model.network, condition, alteration, { start, latches }).text);
}

function solve(args: readonly string[]): void {
  const options = parseArguments(args, ['--json', '--open-fuses'], QUESTION_OPTIONS);
  const { circuit, condition, after, model, ...asked } = readQuestion(options);
  const state = stateOf(model, condition.id, asked.alteration, {
    fusesOpen: options.named.has('--open-fuses'),
    ...(after === undefined ? {} : { after }),
  });
  const { nodes, branches, sensors, functions, overloaded, blown, oscillating } = state;
  const start = after === undefined ? 'relays at rest' : `relays as ${after} left them`;
  if (options.named.has('--json')) {
    const answer = {
      condition: condition.id,
      start,
      oscillating,
      nodes,
      branches,
      sensors,
      functions,
      overloaded,
      blown,
    };
    console.log(JSON.stringify(answer, null, 2));
    return;
  }
  console.log(`${circuit.name}, ${condition.name}. Start: ${start}.`);
  for (const one of nodes) {
    console.log(
      `  ${one.node.padEnd(20)} ${one.floating ? 'floating' : formatQuantity(Math.abs(one.volts) < 5e-5 ? 0 : one.volts, 'V')}`,
    );
  }
  for (const one of branches) {
    if (Math.abs(one.amps) >= 0.001) {
      console.log(`  ${`${one.part} ${one.branch}`.padEnd(20)} ${one.amps.toFixed(3)} A`);
    }
  }
  for (const one of sensors)
    console.log(`  ${`${one.part} ${one.sensor}`.padEnd(20)} ${one.on ? 'on' : 'off'}`);
  for (const one of functions) console.log(`  ${one.function.padEnd(20)} ${one.state}`);
  for (const part of blown) console.log(`  ${part.padEnd(20)} opened`);
  for (const one of overloaded) {
    console.log(
      `  ${one.part.padEnd(20)} overloaded: ${one.amps.toFixed(1)} A on ${one.ratingAmps ?? '?'} A; ${one.opens}`,
    );
  }
  if (oscillating.length > 0) console.log(`  No steady state: ${oscillating.join(', ')} would buzz.`);
}

function next(args: readonly string[]): void {
  const options = parseArguments(args, ['--json'], ['--readings']);
  const circuit = readCircuit(onlyPath(options));
  const readingsPath = options.named.get('--readings')?.[0];
  if (!readingsPath) throw new WrongUse('--readings FILE is wanted.');
  const checked = checkReadingsText(readText(readingsPath), circuit);
  if (!checked.ok) throw new BadInput(checked.problems);
  const { complaint, readings } = checked.value;
  const session = new DiagnosisSession(circuit, complaint);
  const places = new Map(circuit.nodes.map((node) => [node.id, node.access?.[0]?.place]));
  const opened = readings
    .flatMap(({ test }) => ('node' in test ? [places.get(test.node)] : []))
    .filter((id) => id !== undefined);
  const assessment = session.assess({
    readings: readings.map((reading, index) => ({
      ...reading,
      id: `reading ${index + 1}`,
    })),
    refused: [],
    opened,
  });
  if (options.named.has('--json')) {
    console.log(JSON.stringify(assessment, null, 2));
    return;
  }
  console.log(assessment.verdict.sentence);
  for (const suspect of assessment.suspects.slice(0, 6)) {
    console.log(`  ${(suspect.chance * 100).toFixed(1).padStart(5)} %  ${suspect.title}`);
  }
  assessment.effects.forEach((effect, index) => {
    console.log(`  ${testId(readings[index]!.test)}: ${effect.sentence}`);
  });
  if (assessment.contradiction) console.log(assessment.contradiction.sentence);
  if (assessment.stop) console.log(`Stop: ${assessment.stop.sentence}`);
  const [proposal] = assessment.next;
  if (proposal) console.log(`Next: ${proposal.id} at ${proposal.lead}. ${proposal.why}`);
}

function schema(args: readonly string[]): void {
  const name = args[0] ?? '';
  const found = SCHEMAS[name];
  if (!found) throw new WrongUse(`There are the schemas ${Object.keys(SCHEMAS).join(', ')}.`);
  console.log(JSON.stringify(found, null, 2));
}

const LEVEL_SIGNS = { danger: '!', mind: '-', doubt: '?', asked: '+' } as const;

/** A plan played on a circuit: its sentences, what it shows in every setting, and how it is undone. */
function plan(args: readonly string[]): void {
  const { positional, named } = parseArguments(args, ['--json'], []);
  const [circuitPath, planPath, ...rest] = positional;
  if (circuitPath === undefined || planPath === undefined || rest.length > 0) {
    throw new WrongUse('A circuit FILE and a plan FILE are wanted.');
  }
  const checked = checkPlanText(readText(planPath));
  if (!checked.ok) throw new BadInput(checked.problems);
  const { played, findings, scene, settingCount } = examine(readCircuit(circuitPath), checked.value);
  if (played.stuck) {
    const { edit, problem } = played.stuck;
    throw new BadInput([{ code: 'impossible-edit', path: `/edits/${edit.id}`, message: problem }]);
  }
  if (named.has('--json')) {
    console.log(JSON.stringify({ after: played.after, findings, undo: undoSteps(played) }, null, 2));
    return;
  }
  console.log(checked.value.name);
  played.applied.forEach(({ words }, index) => {
    console.log(`  ${index + 1}. ${words}`);
  });
  console.log(
    scene.settings.length === settingCount
      ? `In all ${settingCount} settings of key, switches and plugs:`
      : `In ${scene.settings.length} of ${settingCount} settings, every two things turned together:`,
  );
  for (const { level, words, remedy } of findings)
    console.log(`${LEVEL_SIGNS[level]} ${words}${remedy ? ` ${remedy}` : ''}`);
  console.log('To undo it:');
  for (const words of undoSteps(played)) console.log(`  ${words}`);
}

/** The circuit in the notation: the whole file, or the short text that the editor shows. */
function text(args: readonly string[]): void {
  const options = parseArguments(args, ['--short'], []);
  process.stdout.write(
    writeNotation(readCircuit(onlyPath(options)), { everything: !options.named.has('--short') }),
  );
}

function json(args: readonly string[]): void {
  console.log(JSON.stringify(readCircuit(onlyPath(parseArguments(args, [], []))), null, 2));
}

const VERBS: Readonly<Record<string, (args: readonly string[]) => void>> = {
  check,
  solve,
  spice,
  next,
  plan,
  text,
  json,
  schema,
};

function main(): number {
  const [verb = '', ...args] = process.argv.slice(2);
  try {
    const run = VERBS[verb];
    if (!run) throw new WrongUse(verb ? `"${verb}" is not a verb.` : 'A verb is wanted.');
    run(args);
    return 0;
  } catch (error) {
    if (error instanceof BadInput) {
      for (const problem of error.problems) console.error(`${problem.path || '(file)'}: ${problem.message}`);
      return 1;
    }
    if (error instanceof WrongUse) {
      console.error(`${error.message}\n${USAGE}`);
      return 2;
    }
    throw error;
  }
}

process.exitCode = main();
