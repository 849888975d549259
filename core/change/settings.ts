/** Every setting of key, engine, switches and plugs that either circuit knows, solved in both. */
import type { CircuitFile } from '../format';
import type { KeyState } from '../limits';
import { combinations, type Dial, dialsOf, keyPattern, rowCount } from '../live';
import type { CircuitModel, OperatingPoint } from '../network';
import type { At } from './at';
import { Turned } from './turned';

/** Settings that are all looked at; beyond, every two things are turned together, and who asks is told. */
const MOST_SETTINGS = 16_384;
/** After so many it is told how far it is. */
const TELL_EVERY = 256;

export interface Setting {
  readonly at: At;
  readonly before: OperatingPoint;
  readonly after: OperatingPoint;
}

export interface Looked {
  readonly settings: readonly Setting[];
  /** How many there are; as many as `settings` where all were looked at. */
  readonly count: number;
}

/** How far it is, 0 to 1. */
export type Progress = (share: number) => void;

/**
 * What can be turned after the change, with every position of before too. What only the earlier circuit has stands at rest there:
 * nobody turns it any more.
 */
export function dialsOfBoth(before: CircuitFile, after: CircuitFile): Dial[] {
  const old = new Map(dialsOf(before).map((dial) => [dial.id, dial]));
  const still = new Set(after.parts.map(({ id }) => id));
  const dials = new Map(dialsOf(after).map((dial) => [dial.id, dial]));
  for (const dial of old.values()) {
    const now = dials.get(dial.id);
    const stays = dial.id === 'key' || dial.id === 'engine' || still.has(dial.id);
    if (now) dials.set(dial.id, { ...dial, positions: [...new Set([...dial.positions, ...now.positions])] });
    else if (stays) dials.set(dial.id, dial);
  }
  const order = [...old.keys(), ...dials.keys()];
  return [...dials.values()].sort((one, other) => order.indexOf(one.id) - order.indexOf(other.id));
}

const isKey = ({ id }: Dial) => id === 'key' || id === 'engine';

/** Every setting of key and engine with every two other things turned, the others at rest. */
function inPairs(dials: readonly Dial[]): At[] {
  const keys = combinations(dials.filter(isKey));
  const others = dials.filter((dial) => !isKey(dial));
  const rest = Object.fromEntries(others.map(({ id, positions }) => [id, positions[0]!]));
  const seen = new Map<string, At>();
  for (const [index, one] of others.entries()) {
    for (const other of others.slice(index)) {
      for (const turned of combinations(one === other ? [one] : [one, other])) {
        for (const key of keys) {
          const at = { ...rest, ...turned, ...key };
          seen.set(JSON.stringify(at), at);
        }
      }
    }
  }
  return [...seen.values()];
}

/** The settings of some dials, solved before and after. Dials that are left out stand at rest. */
export function settingsOf(
  before: CircuitModel,
  after: CircuitModel,
  progress: Progress = () => undefined,
  dials: readonly Dial[] = dialsOfBoth(before.circuit, after.circuit),
): Looked {
  const count = rowCount(dials);
  const rows = count <= MOST_SETTINGS ? combinations(dials) : inPairs(dials);
  const [was, is] = [new Turned(before, dials), new Turned(after, dials)];
  const settings = rows.map((at, index) => {
    if (index % TELL_EVERY === 0) progress(index / rows.length);
    return { at, before: was.at(at), after: is.at(at) };
  });
  return { settings, count };
}

/** A setting in words: what does not stand at rest. */
export function settingWords(circuit: CircuitFile, at: At): string {
  const words = Object.entries(at).flatMap(([id, position]) => {
    if (id === 'key') return [`key ${position}`];
    if (id === 'engine') return position === 'running' ? ['engine running'] : [];
    const part = circuit.parts.find((one) => one.id === id);
    if (part?.kind === 'switch') return position === part.rest ? [] : [`${part.name} ${position}`];
    if (part?.kind !== 'socket' || position === 'nothing') return [];
    return [`${part.appliances.find((one) => one.id === position)?.name ?? position} in ${part.name}`];
  });
  return words.length === 0 ? 'with nothing switched' : `with ${words.join(', ')}`;
}

/** In which of the states that feeds are told apart by a setting is. */
export function keyStateOf(at: At): KeyState {
  if (at.engine === 'running') return 'running';
  switch (at.key) {
    case 'run':
    case 'crank':
    case 'accessory':
      return at.key;
    default:
      return 'off';
  }
}

/** Settings that stand for a state of the key: of positions that no contact tells apart one alone is turned. */
export function inState(
  settings: readonly Setting[],
  state: KeyState,
  circuits: readonly CircuitFile[],
): readonly Setting[] {
  const dials = circuits.map(dialsOf);
  const feels = (id: string) => dials.some((all) => all.some((dial) => dial.id === id));
  const key = state === 'running' || state === 'function-on' ? 'run' : state === 'off-waited' ? 'off' : state;
  const alike = (position: string) =>
    circuits.every((circuit) => keyPattern(circuit, key) === keyPattern(circuit, position));
  return settings.filter(({ at }) => {
    if (feels('engine') && (at.engine === 'running') !== (state === 'running')) return false;
    if (at.key === undefined) return true;
    return at.key === key || (!settings.some((one) => one.at.key === key) && alike(at.key));
  });
}
