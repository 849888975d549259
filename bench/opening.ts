/**
 * `npm run bench -- diagnosis`: what a person waits for when a job is opened, each in a process of its own, as cold as a
 * page. Before predictions were kept and before a first card stood early, every opening took what `everything` takes.
 */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { buildSync } from 'esbuild';
import { WAYS, type Way } from './ways';

const ROUNDS = 7;

const middle = (all: readonly number[]) => all.slice().sort((a, b) => a - b)[Math.floor(all.length / 2)]!;

export function benchOpening(): void {
  const folder = mkdtempSync(path.join(tmpdir(), 'every-trace-bench-'));
  try {
    const program = path.join(folder, 'opening.mjs');
    buildSync({
      entryPoints: ['bench/openOnce.ts'],
      bundle: true,
      platform: 'node',
      format: 'esm',
      outfile: program,
      alias: { '#core': path.resolve('core') },
    });
    const file = path.join(folder, 'kept');
    const times: Record<Way, number[]> = { everything: [], cold: [], kept: [] };
    for (let round = 0; round < ROUNDS; round++) {
      for (const way of WAYS) {
        const said = execFileSync(process.execPath, [program, way, file], { encoding: 'utf8' });
        times[way].push(Number(said));
      }
    }
    const of = (way: Way) => (middle(times[way]) / middle(times.everything)).toFixed(2);
    console.log(
      `Opening a job on the demo van, processor alone, each in a fresh process, median of ${ROUNDS}: first card ${middle(times.cold).toFixed(0)} ms cold, ${middle(times.kept).toFixed(0)} ms from what is kept; everything worked out ${middle(times.everything).toFixed(0)} ms, as every opening did before. Ratios ${of('cold')} and ${of('kept')}`,
    );
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}
