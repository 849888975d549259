/** Debian's ngspice, one process for many netlists: the independent judge of the solver. */
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';

/** Node voltages of every netlist, by SPICE node name; null where ngspice found no operating point. */
export function runNgspice(netlists: readonly string[]): (ReadonlyMap<string, number> | null)[] {
  const folder = mkdtempSync(path.join(tmpdir(), 'every-trace-spice-'));
  try {
    const driver = ['* driver', '.control', 'set filetype=ascii', 'set noaskquit'];
    netlists.forEach((text, index) => {
      writeFileSync(path.join(folder, `${index}.cir`), text);
      driver.push(`source ${index}.cir`, 'op', `write ${index}.raw`, 'destroy all', 'remcirc');
    });
    driver.push('quit 0', '.endc', '.end');
    writeFileSync(path.join(folder, 'driver.cir'), driver.join('\n'));
    const result = spawnSync('ngspice', ['-b', 'driver.cir'], {
      cwd: folder,
      encoding: 'utf8',
      maxBuffer: 1 << 28,
    });
    if (result.error) throw new Error(`ngspice could not be run: ${result.error.message}`);
    return netlists.map((_, index) => {
      try {
        return parseRaw(readFileSync(path.join(folder, `${index}.raw`), 'utf8'));
      } catch {
        return null;
      }
    });
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

/** Reads the ASCII raw file of an operating point. */
function parseRaw(text: string): ReadonlyMap<string, number> {
  const lines = text.split('\n');
  const from = lines.findIndex((line) => line.startsWith('Variables:'));
  const values = lines.findIndex((line) => line.startsWith('Values:'));
  const names = lines.slice(from + 1, values).map((line) => line.trim().split(/\s+/)[1] ?? '');
  const numbers = lines
    .slice(values + 1)
    .map((line) => line.trim())
    .filter((line) => line !== '')
    .map((line) => Number(line.split(/\s+/).at(-1)));
  const found = new Map<string, number>();
  names.forEach((name, index) => {
    const node = /^v\((.+)\)$/.exec(name)?.[1];
    if (node) found.set(node, numbers[index] ?? Number.NaN);
  });
  return found;
}
