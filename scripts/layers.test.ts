/** Proves that the layer lint sees what it is meant to see, by planting imports that are forbidden. */
import { spawnSync } from 'node:child_process';
import { rmSync, writeFileSync } from 'node:fs';

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
  ['src/features/trace/planted.ts', "import TodayPage from '@/app/page';\nexport const a = TodayPage;\n"],
] as const;

function lint(file: string): string {
  const result = spawnSync('node_modules/.bin/biome', ['lint', file], { encoding: 'utf8' });
  return `${result.status} ${result.stdout}${result.stderr}`;
}

test.each(PLANTED)('%s may not hold %j', (file, text) => {
  try {
    writeFileSync(file, text);
    const said = lint(file);
    expect(said).toContain('noRestrictedImports');
    expect(said.startsWith('0')).toBe(false);
  } finally {
    rmSync(file, { force: true });
  }
});

test('what the layers allow passes', () => {
  expect(lint('src/features/trace/TraceView.tsx')).toMatch(/^0 /);
  expect(lint('core/diagnosis/session.ts')).toMatch(/^0 /);
});
