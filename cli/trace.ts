/** `npm run -s trace -- VERB …`: the core on the command line. Exit 0 fine, 1 the input has problems, 2 wrong use. */
import { readFileSync } from 'node:fs';
import { CircuitModel } from '../core/circuit/model';
import { DiagnosisSession } from '../core/diagnosis/session';
import { testId } from '../core/diagnosis/tests';
import { type Fault, faultAlteration, parseFault } from '../core/faults/faults';
import { checkCircuitText } from '../core/format/checkCircuit';
import { checkPanelSetText } from '../core/format/checkPanelSet';
import { checkReadingsText } from '../core/format/checkReadings';
import { type CircuitFile, CircuitFileSchema } from '../core/format/circuitSchema';
import { JobFileSchema } from '../core/format/jobSchema';
import { PanelSetFileSchema } from '../core/format/panelSchema';
import type { Problem } from '../core/format/problem';
import { ReadingsFileSchema } from '../core/format/readingsSchema';
import { formatQuantity } from '../core/instruments/quantity';
import { combineAlterations } from '../core/network/solve';
import { spiceNetlist } from '../core/network/spice';

const SCHEMAS: Readonly<Record<string, object>> = {
  circuit: CircuitFileSchema,
  'panel-set': PanelSetFileSchema,
  job: JobFileSchema,
  readings: ReadingsFileSchema,
};

const USAGE = `Usage:
  check FILE                                             a circuit or panel-set file
  solve FILE --condition C [--fault PART:MODE[:OHMS]]… [--json]
  spice FILE --condition C [--fault PART:MODE[:OHMS]]…   a netlist for ngspice
  next FILE --readings FILE [--json]                     suspects, next test, why
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
  const checked = checkCircuitText(readText(path));
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
  const checked = isPanelSet ? checkPanelSetText(text) : checkCircuitText(text);
  if (!checked.ok) throw new BadInput(checked.problems);
  const { value } = checked;
  console.log(
    'panels' in value
      ? `${value.name}: ${value.panels.length} panels, ${value.panels.reduce((sum, panel) => sum + panel.slots.length, 0)} slots. No problems.`
      : `${value.name}: ${value.parts.length} parts, ${value.nodes.length} nodes, ${value.functions.length} functions. No problems.`,
  );
}

function parseFaults(options: Options): Fault[] {
  return (options.named.get('--fault') ?? []).map((text) => {
    const fault = parseFault(text);
    if ('error' in fault) throw new WrongUse(fault.error);
    return fault;
  });
}

/** The model, condition and faults that `solve` and `spice` are asked about. */
function readQuestion(options: Options) {
  const circuit = readCircuit(onlyPath(options));
  const conditionId = options.named.get('--condition')?.[0];
  const condition = circuit.conditions.find((one) => one.id === conditionId);
  if (!condition) {
    throw new WrongUse(`--condition must be one of ${circuit.conditions.map((one) => one.id).join(', ')}.`);
  }
  const model = new CircuitModel(circuit);
  const faults = parseFaults(options);
  try {
    const alteration = combineAlterations(...faults.map((fault) => faultAlteration(model.network, fault)));
    return { circuit, condition, model, alteration };
  } catch (error) {
    throw new WrongUse((error as Error).message);
  }
}

function spice(args: readonly string[]): void {
  const { model, condition, alteration } = readQuestion(parseArguments(args, [], ['--condition', '--fault']));
  process.stdout.write(spiceNetlist(model.network, condition, alteration).text);
}

function solve(args: readonly string[]): void {
  const options = parseArguments(args, ['--json'], ['--condition', '--fault']);
  const { circuit, condition, model, alteration } = readQuestion(options);
  const point = model.solve(condition.id, alteration);
  const relays = model.network.relays.map((relay, index) => ({
    part: relay.part,
    energised: point.energised[index] === 1,
  }));
  const nodes = circuit.nodes.map((node) => {
    const index = model.network.nodeIndex.get(node.id)!;
    return { node: node.id, volts: point.volts[index]!, floating: point.floating[index] === 1 };
  });
  const functions = circuit.functions.map((one) => ({ function: one.id, state: model.outcome(one, point) }));
  if (options.named.has('--json')) {
    console.log(
      JSON.stringify(
        {
          condition: condition.id,
          start: 'relays at rest',
          oscillating: point.oscillating,
          nodes,
          relays,
          functions,
        },
        null,
        2,
      ),
    );
    return;
  }
  console.log(`${circuit.name}, ${condition.name}. Relays start at rest.`);
  for (const one of nodes) {
    console.log(`  ${one.node.padEnd(20)} ${one.floating ? 'floating' : formatQuantity(one.volts, 'V')}`);
  }
  for (const one of relays)
    console.log(`  ${one.part.padEnd(20)} ${one.energised ? 'pulled in' : 'at rest'}`);
  for (const one of functions) console.log(`  ${one.function.padEnd(20)} ${one.state}`);
  if (point.oscillating.length > 0)
    console.log(`  No steady state: ${point.oscillating.join(', ')} would buzz.`);
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
      testerProved: true,
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
  const [proposal] = assessment.next;
  if (proposal) console.log(`Next: ${proposal.id} at ${proposal.lead}. ${proposal.why}`);
}

function schema(args: readonly string[]): void {
  const name = args[0] ?? '';
  const found = SCHEMAS[name];
  if (!found) throw new WrongUse(`There are the schemas ${Object.keys(SCHEMAS).join(', ')}.`);
  console.log(JSON.stringify(found, null, 2));
}

const VERBS: Readonly<Record<string, (args: readonly string[]) => void>> = {
  check,
  solve,
  spice,
  next,
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
