/** Ports that tests and starts take, and what is said where one cannot be had. */
import { readFileSync } from 'node:fs';
import net, { type AddressInfo } from 'node:net';
import { freePort, needPort, portWords } from './lib/ports.mjs';

test('a free port can be opened, is given once, and is none that the system gives to connections going out', async () => {
  const [from = 0] = readFileSync('/proc/sys/net/ipv4/ip_local_port_range', 'utf8').split(/\s+/).map(Number);
  const ports = await Promise.all(Array.from({ length: 50 }, () => freePort()));
  expect(new Set(ports).size).toBe(50);
  for (const port of ports) {
    expect(port).toBeGreaterThan(1023);
    expect(port).toBeLessThan(from);
    await expect(needPort(port, '0.0.0.0', 'PORT')).resolves.toBeUndefined();
  }
});

test('a port that another program has is said with the setting that chooses another', async () => {
  const other = net.createServer();
  await new Promise<void>((resolve) => other.listen(0, '127.0.0.1', resolve));
  const { port } = other.address() as AddressInfo;
  await expect(needPort(port, '127.0.0.1', 'PORT')).rejects.toThrow(
    `Port ${port} is taken by another program. Stop it, or choose another with PORT=${port + 1}.`,
  );
  // On all addresses of the machine it is taken as well.
  await expect(needPort(port, '0.0.0.0', 'SHARE_PORT')).rejects.toThrow(`SHARE_PORT=${port + 1}`);
  await new Promise((resolve) => other.close(resolve));
});

test('a port that this user may not open is said so; any other trouble is not taken for either', () => {
  expect(portWords('EACCES', 443, 'SHARE_PORT')).toMatch(/may not be opened by this user.*SHARE_PORT/);
  expect(portWords('EADDRNOTAVAIL', 443, 'SHARE_PORT')).toBeNull();
});
