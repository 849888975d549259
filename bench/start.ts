/** How long the demo takes to come up, here and at another revision, side by side: what of it got slower is seen. */
import { type ChildProcess, spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { freePort } from '../scripts/lib/ports.mjs';
import { root, run } from '../scripts/lib/shell.mjs';

/** Later starts of each; the quickest of them counts, for the noise of a machine only adds. */
const AGAIN = 3;
const GIVE_UP_MS = 15 * 60_000;

type Seconds = Readonly<Record<'first' | 'again', number>>;

async function timed(work: () => unknown): Promise<number> {
  const began = performance.now();
  await work();
  return (performance.now() - began) / 1000;
}

/** `npm start` until the page of today is there; then stopped, as somebody at the terminal stops it. */
async function startOnce(folder: string): Promise<number> {
  const port = await freePort();
  const { DATABASE_URL: _elsewhere, ...rest } = process.env;
  const env = { ...rest, PORT: String(port) };
  const child: ChildProcess = spawn('npm', ['start'], { cwd: folder, env, stdio: 'ignore', detached: true });
  const left = new Promise<'left'>((resolve) => child.once('exit', () => resolve('left')));
  try {
    return await timed(async () => {
      const until = performance.now() + GIVE_UP_MS;
      for (;;) {
        const answer = await Promise.race([
          fetch(`http://127.0.0.1:${port}/`).then(
            (response) => (response.ok ? 'there' : 'not yet'),
            () => 'not yet',
          ),
          left,
        ]);
        if (answer === 'there') return;
        if (answer === 'left' || performance.now() > until) throw new Error(`npm start in ${folder} failed`);
        await new Promise((resolve) => setTimeout(resolve, 50));
      }
    });
  } finally {
    if (child.pid !== undefined && child.exitCode === null) process.kill(-child.pid, 'SIGINT');
    await left;
  }
}

/** Compares this revision with another, `HEAD` with `other`. */
export async function benchStart(other: string): Promise<void> {
  const folder = mkdtempSync(path.join(tmpdir(), 'every-trace-start-'));
  const places = [other, 'HEAD'].map((revision, index) => ({
    revision,
    at: path.join(folder, String(index)),
    seconds: { first: 0, again: Number.POSITIVE_INFINITY },
  }));
  try {
    for (const { revision, at } of places) {
      run('git', ['clone', '-q', root, at]);
      run('git', ['checkout', '-q', revision], { cwd: at });
    }
    for (const { at, seconds } of places) {
      seconds.first = await startOnce(at);
    }
    // One after the other in turns: what slows the machine slows both.
    for (let turn = 0; turn < AGAIN; turn++) {
      for (const { at, seconds } of places) seconds.again = Math.min(seconds.again, await startOnce(at));
    }
    const [before, here] = places.map((one): Seconds => one.seconds) as [Seconds, Seconds];
    const line = (what: string, key: keyof Seconds) =>
      console.log(
        `${what}: ${before[key].toFixed(1)} s at ${other}, ${here[key].toFixed(1)} s here, ratio ${(here[key] / before[key]).toFixed(2)}`,
      );
    line('the first start of a fresh clone: modules, build, database, demo, first page', 'first');
    line(`a later start until the first page, the quickest of ${AGAIN}`, 'again');
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}
