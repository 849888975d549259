/** Processes that are remembered in files: believed only while they are the very ones that were written down. */
import {
  existsSync,
  linkSync,
  mkdirSync,
  readFileSync,
  rmSync,
  statSync,
  unlinkSync,
  writeFileSync,
} from 'node:fs';
import path from 'node:path';
import { delay, Halt } from './shell.mjs';

/** When a process began, in ticks since the machine did; null when there is none, or it is only not yet buried. */
function begun(pid) {
  try {
    const stat = readFileSync(`/proc/${pid}/stat`, 'utf8');
    // The name stands in brackets and may hold anything; state and start time follow behind the last one.
    const fields = stat.slice(stat.lastIndexOf(')') + 2).split(' ');
    return fields[0] === 'Z' || fields[0] === 'X' ? null : fields[19];
  } catch {
    return null;
  }
}

export function commandOf(pid) {
  try {
    return readFileSync(`/proc/${pid}/cmdline`, 'utf8').split('\0').join(' ').trim();
  } catch {
    return '';
  }
}

/** A process as it is written down: another one that gets its number later began at another time. */
function identify(pid) {
  return { pid, begun: begun(pid) };
}

/** The process that a file remembers, while it lives; null for anything else that stands there. */
export function remembered(file) {
  try {
    const { pid, begun: then } = JSON.parse(readFileSync(file, 'utf8'));
    return Number.isInteger(pid) && then !== null && begun(pid) === then ? pid : null;
  } catch {
    return null;
  }
}

export function remember(file, pid) {
  writeFileSync(file, JSON.stringify(identify(pid)));
}

/** Says of a folder that cannot be written what to do, before anything else is tried. */
export function needFolder(folder) {
  try {
    mkdirSync(folder, { recursive: true });
    const probe = path.join(folder, `.probe-${process.pid}`);
    writeFileSync(probe, '');
    unlinkSync(probe);
  } catch (error) {
    throw new Halt(
      `${folder} cannot be written (${error.code}). The program keeps its data there: give this user the right to, or start a copy of the program in a folder that can be written.`,
    );
  }
}

/** A lock that names nobody is one whose writer was stopped, once it is older than any writing takes. */
const WRITING_MS = 5000;

function age(file) {
  try {
    return Date.now() - statSync(file).mtimeMs;
  } catch {
    return 0;
  }
}

/** Lets one start at a time work on a folder. A lock of a process that is gone, or of none, is taken over. */
export async function withLock(folder, work, longestMs = 10 * 60_000) {
  needFolder(folder);
  const file = path.join(folder, 'start.lock');
  const mine = path.join(folder, `start.lock.${process.pid}`);
  const until = Date.now() + longestMs;
  // Linked whole, so that no other start ever reads half of it.
  remember(mine, process.pid);
  try {
    for (;;) {
      try {
        linkSync(mine, file);
        break;
      } catch (error) {
        if (error.code !== 'EEXIST') throw error;
      }
      const owner = remembered(file);
      if (owner === null && existsSync(file) && (namesOne(file) || age(file) > WRITING_MS)) {
        rmSync(file, { force: true });
      } else if (Date.now() > until) {
        throw new Halt(
          `Another start (process ${owner ?? 'unknown'}) has held ${file} for ten minutes. Stop it and start again; if there is none, remove the file.`,
        );
      } else await delay(300);
    }
  } finally {
    rmSync(mine, { force: true });
  }
  try {
    return await work();
  } finally {
    rmSync(file, { force: true });
  }
}

/** Whether a lock says whose it is, so that it can be believed to be left over when that process is gone. */
function namesOne(file) {
  try {
    return Number.isInteger(JSON.parse(readFileSync(file, 'utf8')).pid);
  } catch {
    return false;
  }
}
