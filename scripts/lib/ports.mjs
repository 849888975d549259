/** Ports of this machine: a free one, whether one is taken, and what to say where one cannot be had. */
import { randomInt } from 'node:crypto';
import net from 'node:net';
import { Halt } from './shell.mjs';

/** Below the ports that the system gives to connections going out, which come and go by the hundred. */
const FROM = 20_000;
const UNTIL = 32_000;
/** Given to somebody of this process already, who may not have opened it yet. */
const given = new Set();

/** Opens a port and closes it again; null where that can be done, otherwise why not, as a code of the system. */
function whyNotOpened(port, host) {
  return new Promise((resolve) => {
    const server = net.createServer();
    server.once('error', (error) => resolve(error.code ?? error.message));
    server.listen(port, host, () => server.close(() => resolve(null)));
  });
}

/** A port that nobody has open, on any address of the machine. */
export async function freePort() {
  for (let tries = 0; tries < 1000; tries++) {
    const port = randomInt(FROM, UNTIL);
    if (given.has(port) || (await whyNotOpened(port, '0.0.0.0')) !== null) continue;
    given.add(port);
    return port;
  }
  throw new Halt(`No port between ${FROM} and ${UNTIL} is free.`);
}

export function portTaken(port) {
  return new Promise((resolve) => {
    const socket = net.connect({ port, host: '127.0.0.1' });
    socket.once('connect', () => {
      socket.destroy();
      resolve(true);
    });
    socket.once('error', () => resolve(false));
  });
}

/** What to say of a port that cannot be opened; `name` is the setting that chooses another. Null for any other error. */
export function portWords(code, port, name) {
  if (code === 'EADDRINUSE') {
    return `Port ${port} is taken by another program. Stop it, or choose another with ${name}=${port + 1}.`;
  }
  if (code === 'EACCES')
    return `Port ${port} may not be opened by this user. Choose one above 1023 with ${name}.`;
  return null;
}

/** Stops in words where a port cannot be had. */
export async function needPort(port, host, name) {
  const code = await whyNotOpened(port, host);
  const words = code === null ? null : portWords(code, port, name);
  if (words) throw new Halt(words);
}
