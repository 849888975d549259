/** `npm start -- --share`: the application for phones in the workshop's own network. */
import { X509Certificate } from 'node:crypto';
import { renameSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { Halt, say } from '../lib/shell.mjs';
import { lanAddresses, machineName, stableName } from './addresses.mjs';
import { ensureAuthority, ensureLeaf } from './authority.mjs';
import { openFront } from './front.mjs';
import { answerForName } from './localName.mjs';

/** So often it is looked whether the machine has other addresses. */
const LOOK_MS = 2000;
/** Nobody's clock is before this program was written. */
const EARLIEST = Date.UTC(2026, 0, 1);

/** Where the hosts stand that the application answers to while it is shared. */
export const hostsFile = (folder) => path.join(folder, 'share', 'hosts');

/**
 * Opens the front before the application and keeps it while addresses come and go. `folder`: that of the data. Gives a way
 * to stop all of it.
 */
export async function share({ folder, app, secret, port, plainPort }) {
  if (Date.now() < EARLIEST) {
    throw new Halt(
      `The clock of this machine says ${new Date().toISOString().slice(0, 10)}. Set it: phones refuse certificates of another time.`,
    );
  }
  const home = path.join(folder, 'share');
  const machine = machineName();
  const stable = stableName(machine);
  let addresses = lanAddresses();
  if (addresses.length === 0) {
    throw new Halt(
      'This machine has no address in a local network, so no phone can reach it. Connect it to the workshop’s network and start again; without --share it works on this machine alone.',
    );
  }
  const authority = await ensureAuthority(home, machine);
  const names = [stable, `${machine}.local`, machine, 'localhost'];
  const leafFor = () =>
    ensureLeaf(home, authority, names, [...addresses.map(({ address }) => address), '127.0.0.1']);
  const hostsNow = () =>
    [...names.slice(0, 3), ...addresses.map(({ address }) => address)].map((one) => `${one}:${port}`);
  const writeHosts = () => {
    const file = hostsFile(folder);
    writeFileSync(`${file}.part`, `${hostsNow().join('\n')}\n`);
    renameSync(`${file}.part`, file);
  };
  let leaf = await leafFor();
  const fingerprint = new X509Certificate(authority.pem).fingerprint256;
  writeHosts();
  say(
    [
      '',
      'Opening to the local network:',
      ...addresses.map(
        ({ name, address }) => `  ${name}: ${address}, port ${port} (TLS) and ${plainPort} (how to trust it)`,
      ),
      'Whoever comes that way signs in.',
    ].join('\n'),
  );
  const front = await openFront({
    app,
    secret,
    port,
    plainPort,
    now: () => ({ leaf, machine, authority, fingerprint, hosts: hostsNow(), port, stable }),
  });
  const named = await answerForName(stable);
  await named.look(addresses.map(({ address }) => address));
  await announce();

  async function announce() {
    const { default: qr } = await import('qrcode');
    const trust = `http://${addresses[0].address}:${plainPort}/`;
    say(
      [
        '',
        `In the network: https://${stable}:${port}/ (stays the same)`,
        ...addresses.map(({ address }) => `                https://${address}:${port}/`),
        `First on a new phone: ${trust}`,
        await qr.toString(trust, { type: 'terminal', small: true }),
        `Fingerprint of the authority: ${fingerprint}`,
      ].join('\n'),
    );
  }

  let looking = false;
  let stopped = false;
  let gone = false;
  const watch = setInterval(async () => {
    if (looking) return;
    looking = true;
    try {
      const found = lanAddresses();
      if (found.length === 0) {
        if (!gone) say('\nThe local network is gone. Phones come back by themselves when it does.');
        gone = true;
      } else if (gone || JSON.stringify(found) !== JSON.stringify(addresses)) {
        gone = false;
        addresses = found;
        leaf = await leafFor();
        front.show(leaf);
        writeHosts();
        await named.look(addresses.map(({ address }) => address));
        say('\nThe network is there again, or gave this machine another address.');
        await announce();
      }
    } catch (error) {
      say(error instanceof Halt ? error.message : String(error));
    } finally {
      looking = false;
    }
  }, LOOK_MS);
  return {
    async stop() {
      if (stopped) return;
      stopped = true;
      clearInterval(watch);
      rmSync(hostsFile(folder), { force: true });
      await Promise.all([front.stop(), named.stop()]);
    },
  };
}
