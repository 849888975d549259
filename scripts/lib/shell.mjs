/** Small helpers around child processes and files; Node's own modules only, for they run before `npm ci`. */
import { spawn, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, statSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = path.resolve(path.dirname(fileURLToPath(import.meta.url)), '../..');
export const isRoot = process.getuid?.() === 0;

/** Stops with a sentence and no stack: a person caused it or can mend it. */
export class Halt extends Error {}

export function say(text) {
  process.stdout.write(`${text}\n`);
}

/** Runs to the end; throws with what the command said when it fails. */
export function run(command, args, options = {}) {
  const result = spawnSync(command, args, { cwd: root, encoding: 'utf8', stdio: 'pipe', ...options });
  if (result.error) throw new Halt(`${command} could not be run: ${result.error.message}`);
  if (result.status !== 0) {
    const said = `${result.stdout ?? ''}${result.stderr ?? ''}`.trim().split('\n').slice(-25).join('\n');
    throw new Halt(`${command} ${args.join(' ')} failed:\n${said}`);
  }
  return result.stdout ?? '';
}

export function succeeds(command, args, options = {}) {
  return spawnSync(command, args, { cwd: root, stdio: 'ignore', ...options }).status === 0;
}

/** Runs with its output shown; gives the exit code. */
export function show(command, args, options = {}) {
  return new Promise((resolve) => {
    const child = spawn(command, args, { cwd: root, stdio: ['ignore', 'inherit', 'inherit'], ...options });
    child.on('exit', (code) => resolve(code ?? 1));
    child.on('error', () => resolve(1));
  });
}

/** Runs beside others; gives the exit code and all that it said, for when its turn to be shown comes. */
export function hear(command, args, options = {}) {
  return new Promise((resolve) => {
    const child = spawn(command, args, { cwd: root, stdio: ['ignore', 'pipe', 'pipe'], ...options });
    let said = '';
    for (const stream of [child.stdout, child.stderr]) {
      stream.setEncoding('utf8').on('data', (text) => {
        said += text;
      });
    }
    child.on('close', (code) => resolve({ code: code ?? 1, said: said.trim() }));
    child.on('error', (error) => resolve({ code: 1, said: error.message }));
  });
}

export function bin(name) {
  return path.join(root, 'node_modules', '.bin', name);
}

/** One hash over the contents of files and folders. */
export function hashOf(paths) {
  const hash = createHash('sha256');
  const walk = (file) => {
    if (!existsSync(file)) return;
    if (statSync(file).isDirectory()) {
      // What is made from the sources is none of them.
      for (const name of readdirSync(file).sort()) if (name !== 'generated') walk(path.join(file, name));
    } else hash.update(path.relative(root, file)).update(readFileSync(file));
  };
  for (const one of paths) walk(path.join(root, one));
  return hash.digest('hex');
}

export function delay(ms) {
  return new Promise((resolve) => setTimeout(resolve, ms));
}
