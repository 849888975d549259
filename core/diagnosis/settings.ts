/** What has to be set before a test: key, switches, plugs, engine, each with a sign and in words. */
import type { CircuitFile, Condition } from '../format';

export interface Setting {
  readonly sign: 'key' | 'switch' | 'plug' | 'engine' | 'other';
  /** "Key: run", "Cabinet fan switch: on". */
  readonly words: string;
}

export function set(sign: Setting['sign'], words: string): Setting {
  return { sign, words };
}

const KEY_WORDS: Readonly<Record<Condition['key'], string>> = {
  lock: 'lock, key out',
  off: 'off',
  accessory: 'accessory',
  run: 'run',
  crank: 'crank',
};

/** Key and switch positions of a condition, every switch that is not at rest named. */
export function conditionSettings(circuit: CircuitFile, conditionId: string): Setting[] {
  const condition = circuit.conditions.find((one) => one.id === conditionId);
  if (!condition) return [];
  const switches = Object.entries(condition.switches ?? {}).map(([id, position]) => {
    const part = circuit.parts.find((one) => one.id === id);
    return set('switch', `${part?.name ?? id}: ${position}`);
  });
  const plugs = Object.entries(condition.pluggedIn ?? {}).map(([socket, appliance]) =>
    set('plug', pluggedWords(circuit, socket, appliance)),
  );
  const all = [
    ...(hasKey(circuit) ? [set('key', `Key: ${KEY_WORDS[condition.key]}`)] : []),
    ...switches,
    ...plugs,
    ...(condition.engineRunning ? [set('engine', 'Engine running')] : []),
  ];
  return all.length > 0 ? all : [set('other', condition.name)];
}

/** Whether anything in a circuit hangs on the key; a boat may have none. */
function hasKey({ parts }: CircuitFile): boolean {
  return parts.some(
    (part) =>
      part.kind === 'key-contact' ||
      (part.kind === 'module-output' && part.rule.some((line) => line.key !== undefined)),
  );
}

export function pluggedWords(circuit: CircuitFile, socket: string, appliance: string): string {
  const part = circuit.parts.find(({ id }) => id === socket);
  const name = part?.kind === 'socket' ? part.appliances.find(({ id }) => id === appliance)?.name : undefined;
  return `Plugged in: ${name ?? appliance}`;
}

/** Those of a test's settings that do not stand so after another condition, "seen so" left to the person. */
export function settingsToMake(
  settings: readonly Setting[],
  circuit: CircuitFile,
  stands: string | null,
): ReadonlySet<string> {
  const already = new Set(
    stands === null ? [] : conditionSettings(circuit, stands).map(({ words }) => words),
  );
  return new Set(settings.map(({ words }) => words).filter((words) => !already.has(words)));
}
