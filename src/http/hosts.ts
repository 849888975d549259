/**
 * The one list of hosts that the program answers to besides those of this machine: the application, the sign-in and the
 * front that shares it read it. `EVERY_TRACE_HOSTS` names them, separated by commas; a share keeps its own in the file
 * that `EVERY_TRACE_HOSTS_FILE` names, which changes with the addresses of the machine.
 */
import { readFileSync, statSync } from 'node:fs';

const named = (text: string | undefined): readonly string[] =>
  (text ?? '')
    .split(/[,\n]/)
    .map((one) => one.trim().toLowerCase())
    .filter((one) => one !== '');

let read: { readonly file: string; readonly at: number; readonly hosts: readonly string[] } | null = null;

/** As a browser names them: with the port where it is not the usual one. */
export function permittedHosts(): readonly string[] {
  return [...named(process.env.EVERY_TRACE_HOSTS), ...fromFile(process.env.EVERY_TRACE_HOSTS_FILE)];
}

function fromFile(file: string | undefined): readonly string[] {
  if (!file) return [];
  try {
    const at = statSync(file).mtimeMs;
    if (read?.file !== file || read.at !== at) {
      read = { file, at, hosts: named(readFileSync(file, 'utf8')) };
    }
    return read.hosts;
  } catch {
    // Nothing is shared at the moment.
    return [];
  }
}
