/** Under which names and addresses this machine is reached in its network. */
import os from 'node:os';
import { isPermittedAddress } from './authority.mjs';

/** The name of the machine as a label of a domain name. */
export function machineName(hostname = os.hostname()) {
  const label = hostname
    .split('.')[0]
    .toLowerCase()
    .replace(/[^a-z0-9-]+/g, '-')
    .replace(/^-+|-+$/g, '');
  return label.slice(0, 40) || 'workshop';
}

/** The name that stays the same whatever address the machine gets: the front answers for it itself in the local network. */
export function stableName(machine = machineName()) {
  return `trace-${machine}.local`;
}

/** Private addresses of the machine's interfaces, each with the interface; those that change least first. */
export function lanAddresses(interfaces = os.networkInterfaces()) {
  return Object.entries(interfaces)
    .flatMap(([name, all]) => (all ?? []).map((one) => ({ name, ...one })))
    .filter(({ internal, family, address }) => !internal && family === 'IPv4' && isPermittedAddress(address))
    .map(({ name, address }) => ({ name, address }))
    .sort((one, other) => one.name.localeCompare(other.name) || one.address.localeCompare(other.address));
}
