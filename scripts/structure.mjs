/**
 * `npm run structure`: the folders of core/ and src/ in their order, what runs back up, what goes in circles, which files
 * are long and why, and how much of each folder is tests. A test holds the first two at none.
 */
import { readdirSync, readFileSync, statSync } from 'node:fs';
import path from 'node:path';
import { pathToFileURL } from 'node:url';

/** Each folder imports only folders that stand before it. */
export const CORE_ORDER = [
  'quantity',
  'format',
  'limits',
  'circuit',
  'network',
  'faults',
  'sizing',
  'hands',
  'repair',
  'stock',
  'vehicle',
  'instruments',
  'safety',
  'live',
  'panel',
  'feed',
  'change',
  'notation',
  'diagram',
  'diagnosis',
  'log',
];
export const SRC_ORDER = [
  'clock',
  'journal',
  'db',
  'access',
  'http',
  'ui',
  'sync',
  'workers',
  'log',
  'job',
  'features',
  'app',
];

/** Longest file without a reason, lines. */
const LONG = 400;
/** One idea all the same, and why. */
const REASONS = {
  'src/log/sender.ts': 'what waits here, whose it is and when it goes is one state',
  'core/notation/pieces.ts': 'one reader of lines, with all that it has read so far',
  'testing/plannedChanges.ts': 'one line for each of eighty planted changes',
  'testing/kindCircuits.ts': 'one circuit for each kind of part',
  'core/circuit/expand.ts': 'one function for each kind of part, all of one form',
  'core/format/circuitSchema.ts': 'the schema of the circuit file is one object',
  'core/format/jobSchema.ts': 'the schema of the job file is one object',
};

function sources(folder) {
  const found = [];
  for (const name of readdirSync(folder).sort()) {
    const file = path.join(folder, name);
    if (statSync(file).isDirectory()) {
      if (name !== 'generated' && name !== 'migrations') found.push(...sources(file));
    } else if (/\.tsx?$/.test(name)) found.push(file);
  }
  return found;
}

const isTest = (file) => /\.(test|spec)\.tsx?$/.test(file);

/** What a file imports of this repository, as paths from its root. */
function importsOf(file) {
  const text = readFileSync(file, 'utf8');
  return [...text.matchAll(/(?:from|import)\s*\(?\s*'([^']+)'/g)].flatMap(([, spec]) => {
    if (spec.startsWith('#core/')) return [`core/${spec.slice(6)}`];
    if (spec.startsWith('@/')) return [`src/${spec.slice(2)}`];
    return spec.startsWith('.') ? [path.normalize(path.join(path.dirname(file), spec))] : [];
  });
}

/** Imports between folders of one tree that run back up its order; tests may look anywhere. */
export function backRunning(tree, order) {
  const wrong = [];
  for (const file of sources(tree).filter((one) => !isTest(one))) {
    const own = order.indexOf(file.split(path.sep)[1]);
    for (const to of importsOf(file)) {
      const [root, folder] = to.split('/');
      const at = order.indexOf(folder);
      if (root === tree && own >= 0 && at > own) wrong.push(`${file} imports ${to}`);
    }
  }
  return wrong;
}

/** A second door: the schemas themselves, which pages must not carry. */
const OTHER_DOORS = ['core/format/schemas'];

/** Imports from outside of a folder of core/ that reach past its door; tests may look anywhere. */
export function pastDoors() {
  return ['core', 'src', 'cli', 'bench', 'testing']
    .flatMap(sources)
    .filter((one) => !isTest(one))
    .flatMap((file) =>
      importsOf(file)
        .filter((to) => {
          const [root, folder, ...inside] = to.split('/');
          const past = inside.length > 0 && !OTHER_DOORS.includes(to);
          return root === 'core' && past && !file.startsWith(`core/${folder}/`);
        })
        .map((to) => `${file} imports ${to}`),
    );
}

/** Files of core/ and src/ that import one another in a circle, types too: each circle once. */
export function cycles() {
  const files = ['core', 'src'].flatMap(sources).filter((one) => !isTest(one));
  const known = new Set(files);
  const resolve = (to) =>
    [`${to}.ts`, `${to}.tsx`, `${to}/index.ts`, `${to}/index.tsx`].find((one) => known.has(one));
  const reaches = (file) => importsOf(file).flatMap((to) => resolve(to) ?? []);
  const state = new Map();
  const found = new Set();
  const visit = (file, way) => {
    state.set(file, 'open');
    for (const next of reaches(file)) {
      if (state.get(next) === 'open') {
        const circle = [...way.slice(way.indexOf(next)), file].filter(
          (one, index, all) => all.indexOf(one) === index,
        );
        found.add(circle.sort().join(' ↔ '));
      } else if (!state.has(next)) visit(next, [...way, next]);
    }
    state.set(file, 'done');
  };
  for (const file of files) if (!state.has(file)) visit(file, [file]);
  return [...found];
}

function linesOf(file) {
  return readFileSync(file, 'utf8')
    .split('\n')
    .filter((line) => !/^\s*($|\/\/|\*|\/\*)/.test(line)).length;
}

function print() {
  const say = (text = '') => process.stdout.write(`${text}\n`);
  for (const [tree, order] of [
    ['core', CORE_ORDER],
    ['src', SRC_ORDER],
  ]) {
    say(`${tree}/ in order, lines of code, share of tests`);
    for (const folder of order) {
      const files = sources(path.join(tree, folder));
      const count = (list) => list.reduce((sum, file) => sum + linesOf(file), 0);
      const tests = count(files.filter(isTest));
      const all = count(files);
      say(
        `  ${folder.padEnd(12)} ${String(all).padStart(6)}   ${Math.round((100 * tests) / Math.max(1, all))} %`,
      );
    }
  }
  const everything = ['core', 'src', 'cli', 'bench', 'testing', 'e2e', 'scripts'].flatMap(sources);
  const testing = everything.filter((file) => isTest(file) || /^(testing|e2e)/.test(file));
  const count = (list) => list.reduce((sum, file) => sum + linesOf(file), 0);
  say(
    `tests, with what they are made from: ${Math.round((100 * count(testing)) / count(everything))} % of ${count(everything)} lines`,
  );
  for (const [title, list] of [
    ['imports that run back up in core/', backRunning('core', CORE_ORDER)],
    ['imports that run back up in src/', backRunning('src', SRC_ORDER)],
    ['imports that reach past a door of core/', pastDoors()],
    ['circles of files', cycles()],
  ]) {
    say(`${title}: ${list.length}`);
    for (const one of list) say(`  ${one}`);
  }
  say(`files over ${LONG} lines`);
  for (const file of ['core', 'src', 'cli', 'bench', 'testing'].flatMap(sources)) {
    const lines = readFileSync(file, 'utf8').split('\n').length;
    if (lines > LONG && !isTest(file)) say(`  ${file} ${lines}: ${REASONS[file] ?? 'no reason yet'}`);
  }
}

if (import.meta.url === pathToFileURL(process.argv[1] ?? '').href) print();
