/** Proves that the layer lint sees what it is meant to see, by planting imports that are forbidden. */
import { spawnSync } from 'node:child_process';
import { cpSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';

const PLANTED = [
  ['core/planted.ts', "import { useState } from 'react';\nexport const a = useState;\n"],
  ['core/planted.ts', "import { readFileSync } from 'node:fs';\nexport const a = readFileSync;\n"],
  ['core/planted.ts', "import { database } from '@/db/client';\nexport const a = database;\n"],
  ['core/planted.ts', "import { database } from '../src/db/client';\nexport const a = database;\n"],
  ['src/ui/planted.ts', "import { jobState } from '@/features/jobs/state';\nexport const a = jobState;\n"],
  ['src/db/planted.ts', "import { TraceView } from '@/features/trace';\nexport const a = TraceView;\n"],
  [
    'src/features/trace/planted.ts',
    "import { jobState } from '@/features/jobs/state';\nexport const a = jobState;\n",
  ],
  ['src/http/planted.ts', "import { jobState } from '@/features/jobs/state';\nexport const a = jobState;\n"],
  ['src/sync/planted.ts', "import { jobState } from '@/features/jobs/state';\nexport const a = jobState;\n"],
  ['src/features/trace/planted.ts', "import TodayPage from '@/app/page';\nexport const a = TodayPage;\n"],
] as const;

/** What the lint says of a text under that name, in a folder of its own with the same rules. */
function lint(file: string, text: string): string {
  const folder = mkdtempSync(path.join(tmpdir(), 'every-trace-lint-'));
  try {
    for (const rules of ['biome.json', 'scripts/lint'])
      cpSync(rules, path.join(folder, rules), { recursive: true });
    mkdirSync(path.dirname(path.join(folder, file)), { recursive: true });
    writeFileSync(path.join(folder, file), text);
    const result = spawnSync(path.resolve('node_modules/.bin/biome'), ['lint', '--vcs-enabled=false', file], {
      encoding: 'utf8',
      cwd: folder,
    });
    return `${result.stdout}${result.stderr}`;
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

test.each(PLANTED)('%s may not hold %j', (file, text) => {
  expect(lint(file, text)).toContain('noRestrictedImports');
});

const IN_TRANSACTIONS = [
  'export const a = all(async (tx) => [tx, await database().select()]);',
  'export async function a(tx: Transaction, id: string) {\n  return [tx, id, await database().select()];\n}',
  'export const a = all((tx) => tx.select(connections()));',
  'export const a = database().transaction(async (tx) => tx.select());',
  'export const a = db.transaction((tx) => read(tx));',
] as const;

test.each(IN_TRANSACTIONS)('the pool is not asked inside a transaction: %j', (text) => {
  expect(lint('src/features/jobs/planted.ts', text)).toMatch(
    /The pool is not asked inside|A transaction is begun by/,
  );
});

test('what is asked beside transactions, a savepoint and the browser’s own store pass', () => {
  const text = `export async function a(id: string) {
  const rows = await database().select();
  return transaction(async (tx) => [rows, id, await tx.transaction((savepoint) => read(savepoint))]);
}
export const b = (await browserDb()).transaction(['jobs'], 'readonly');
`;
  expect(lint('src/features/jobs/planted.ts', text)).not.toContain('ransaction');
});

test('what the layers allow passes', () => {
  for (const file of ['src/features/trace/TraceView.tsx', 'core/diagnosis/session.ts']) {
    const said = lint(file, readFileSync(file, 'utf8'));
    expect(said).toContain('Checked 1 file');
    expect(said).not.toContain('noRestrictedImports');
  }
});
