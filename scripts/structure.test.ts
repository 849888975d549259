/** The folders keep their order: nothing of core/ or src/ imports what stands behind it, and no files go in circles. */
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';

const SCRIPT = path.resolve('scripts/structure.mjs');
/** The folders as the script itself has them in their order. */
const ordered = (name: string) =>
  new RegExp(`${name} = \\[([^\\]]+)\\]`).exec(readFileSync(SCRIPT, 'utf8'))![1]!.match(/[a-z]+/g)!;
const FOLDERS = [
  ...ordered('CORE_ORDER').map((one) => `core/${one}`),
  ...ordered('SRC_ORDER').map((one) => `src/${one}`),
];

function structure(cwd: string): string {
  return spawnSync(process.execPath, [SCRIPT], { cwd, encoding: 'utf8' }).stdout;
}

/** A tree of its own with some files in it. */
function planted(files: Readonly<Record<string, string>>): string {
  const folder = mkdtempSync(path.join(tmpdir(), 'every-trace-structure-'));
  try {
    for (const one of [...FOLDERS, 'cli', 'bench', 'testing', 'e2e', 'scripts']) {
      mkdirSync(path.join(folder, one), { recursive: true });
    }
    for (const [file, text] of Object.entries(files)) writeFileSync(path.join(folder, file), text);
    return structure(folder);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

test('no import runs back up, and no files go in circles', () => {
  const said = structure(process.cwd());
  expect(said).toContain('imports that run back up in core/: 0\n');
  expect(said).toContain('imports that run back up in src/: 0\n');
  expect(said).toContain('imports that reach past a door of core/: 0\n');
  expect(said).toContain('circles of files: 0\n');
});

test('one that does is seen, by its name', () => {
  const said = planted({
    'core/format/a.ts': "import { b } from '../circuit/b';\nexport const a = b;\n",
    'core/circuit/b.ts': "import { a } from '../format/a';\nexport const b = a;\n",
    'src/ui/c.ts': "import type { D } from '@/features/d';\nexport type C = D;\n",
    'src/features/d.ts': 'export type D = 1;\n',
  });
  expect(said).toContain('imports that run back up in core/: 1\n  core/format/a.ts imports core/circuit/b');
  expect(said).toContain('imports that run back up in src/: 1\n  src/ui/c.ts imports src/features/d');
  expect(said).toContain('imports that reach past a door of core/: 2\n');
  expect(said).toContain('circles of files: 1\n  core/circuit/b.ts ↔ core/format/a.ts');
});

test('the paths that the architecture names are there', () => {
  const text = readFileSync('docs/architecture.md', 'utf8');
  const named = [...text.matchAll(/`((?:core|src|testing|scripts)\/[\w/.-]+?\.(?:ts|tsx|mjs))`/g)].map(
    ([, file]) => file!,
  );
  expect(named.length).toBeGreaterThan(20);
  expect(named.filter((file) => !existsSync(file))).toEqual([]);
});
