/**
 * `npm run test:near`: what a change touches, before it is committed: lint and types, the unit tests that reach a changed
 * file, and the plays of the features that it is in. `npm run test:near -- REV` counts everything since REV as changed.
 * `npm test` has all of them.
 */
import { existsSync } from 'node:fs';
import path from 'node:path';
import { ensureBrowserTests } from './lib/setUp.mjs';
import { bin, Halt, hear, root, run, say, show } from './lib/shell.mjs';
import { openTestBed } from './lib/testBed.mjs';

/** A minute of plays for each feature: a file, or words in the names of some. */
const PLAYS = {
  backup: ['people.spec.ts', 'an owner'],
  boxes: ['boxes.spec.ts'],
  changes: ['changes.spec.ts', 'the pickup|the launch'],
  circuits: ['circuits.spec.ts', 'typed|row of the table|live'],
  combinations: ['circuits.spec.ts', 'row of the table'],
  commands: ['views.spec.ts'],
  demo: ['people.spec.ts', 'the demo'],
  feeds: ['feeds.spec.ts'],
  helper: ['people.spec.ts', 'at the key'],
  jobs: ['job.spec.ts'],
  panels: ['boxes.spec.ts'],
  people: ['people.spec.ts', 'an owner|a learner|a guest'],
  shop: ['after.spec.ts', 'stock|label'],
  stock: ['after.spec.ts', 'stock|label'],
  sums: ['views.spec.ts'],
  trace: ['diagnosis.spec.ts', 'first card|refused|comes and goes|kept'],
  vehicles: ['kept.spec.ts'],
  wires: ['hand.spec.ts', 'wires stand'],
};

function changedFiles(since) {
  const differing = run('git', ['diff', '--name-only', '--diff-filter=d', since]);
  const added = run('git', ['ls-files', '--others', '--exclude-standard']);
  return [...new Set(`${differing}${added}`.split('\n'))].filter(
    (file) => file && existsSync(path.join(root, file)),
  );
}

/** The plays of a change: those of its features, and those of its own that it changes itself. */
function playsOf(files) {
  const plays = new Map();
  for (const file of files) {
    const feature = /^src\/features\/([^/]+)\//.exec(file)?.[1];
    if (feature && PLAYS[feature]) plays.set(feature, PLAYS[feature]);
    const spec = /^e2e\/([^/]+\.spec\.ts)$/.exec(file)?.[1];
    if (spec) plays.set(spec, [spec]);
  }
  return [...plays.values()];
}

async function main() {
  const files = changedFiles(process.argv[2] ?? 'HEAD');
  if (files.length === 0) return say('Nothing has changed.');
  const plays = playsOf(files);
  ensureBrowserTests();
  run(bin('tsx'), ['scripts/build-schemas.ts']);
  const bed = await openTestBed();
  const failed = [];
  const told =
    (name) =>
    ({ code, said }) => {
      say(`\n— ${name}: ${code === 0 ? 'clean' : 'not clean'}\n${said}`.trimEnd());
      if (code !== 0) failed.push(name);
    };
  try {
    const code = files.filter((file) => /\.(ts|tsx|mjs|cjs)$/.test(file));
    const related = ['--findRelatedTests', '--passWithNoTests', ...code];
    const checks = [
      hear(bin('biome'), ['ci', '.', '--error-on-warnings']).then(told('lint and layers')),
      hear(bin('tsc'), ['-p', '.']).then(told('types')),
      hear(bin('jest'), related, { env: { ...process.env, TEST_DATABASE_URL: bed.adminUrl } }).then(
        told('unit'),
      ),
    ];
    const env = plays.length > 0 ? await bed.prepareBrowser() : null;
    await Promise.all(checks);
    for (const [file, words] of plays) {
      const only = words ? ['-g', words] : [];
      const ended = await show(bin('playwright'), ['test', '--no-deps', file, ...only], { env });
      if (ended !== 0) failed.push([file, ...only].join(' '));
    }
  } finally {
    bed.close(failed.length > 0);
  }
  say(failed.length === 0 ? '\nAll that the change touches passes.' : `\nFailed: ${failed.join(', ')}`);
  process.exitCode = failed.length === 0 ? 0 : 1;
}

main().catch((error) => {
  process.stderr.write(`${error instanceof Halt ? error.message : error.stack}\n`);
  process.exitCode = 1;
});
