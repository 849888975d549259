/** The words of the notation: one entry for each kind of part, with the way through it and what its numbers mean. */

import type { PartKind } from '../format';
import { SLOT_FAMILIES } from '../format';

export type Unit = 'A' | 'W' | 'V' | 'ohm' | 'm' | 'mm²' | 'min' | 's';

export interface Way {
  /** What the way is called, where a part has several: "contact", "coil". */
  readonly word?: string;
  readonly enter: string;
  readonly leave: string;
}

export interface KindWord {
  readonly kind: PartKind;
  /** The word that is written; the others are read as well. */
  readonly word: string;
  readonly also: readonly string[];
  /** Ids made up for parts without one start with it. */
  readonly prefix: string;
  /** Ways through the part; the first is meant when none is named, unless `mustSay`. */
  readonly ways: readonly Way[];
  readonly mustSay?: boolean;
  /** The field that a number with a unit fills. */
  readonly numbers: Readonly<Partial<Record<Unit, string>>>;
  /** The field that a bare word fills, by the words it may be. */
  readonly choices?: Readonly<Record<string, readonly string[]>>;
  /** Fields that a file must have, with the words that ask for them. */
  readonly needs?: Readonly<Record<string, string>>;
  /** Pins are free names: legs of a splice, terminals of a switch. */
  readonly anyPins?: boolean;
}

export const KEY_POSITIONS = ['lock', 'off', 'accessory', 'run', 'crank'] as const;

const through = (enter: string, leave: string, word?: string): Way => ({
  enter,
  leave,
  ...(word ? { word } : {}),
});
const LOAD = { A: 'amps', W: 'watts', ohm: 'ohms' } as const;
const load = (kind: PartKind, prefix: string, also: readonly string[] = []): Omit<KindWord, 'kind'> => ({
  word: kind,
  also,
  prefix,
  ways: [through('plus', 'minus')],
  numbers: LOAD,
});

const WORDS: { readonly [K in PartKind]: Omit<KindWord, 'kind'> } = {
  battery: {
    word: 'battery',
    also: [],
    prefix: 'B',
    ways: [through('minus', 'plus')],
    numbers: { V: 'emfVolts', ohm: 'innerOhms' },
  },
  'charging-source': {
    word: 'charger',
    also: ['alternator', 'generator', 'charging-source'],
    prefix: 'AL',
    ways: [through('minus', 'plus')],
    numbers: { V: 'emfVolts', ohm: 'innerOhms' },
    choices: { active: ['engine-running', 'always'] },
    needs: { active: 'when it works, engine-running or always' },
  },
  fuse: {
    word: 'fuse',
    also: [],
    prefix: 'F',
    ways: [through('in', 'out')],
    numbers: { A: 'ratingAmps', ohm: 'ohms' },
    choices: { family: SLOT_FAMILIES },
  },
  'fusible-link': {
    word: 'link',
    also: ['fusible-link'],
    prefix: 'FL',
    ways: [through('in', 'out')],
    numbers: { A: 'ratingAmps', ohm: 'ohms' },
    needs: { ratingAmps: 'its rating, “60 A”' },
  },
  breaker: {
    word: 'breaker',
    also: [],
    prefix: 'CB',
    ways: [through('in', 'out')],
    numbers: { A: 'ratingAmps', ohm: 'ohms' },
    choices: { reset: ['manual', 'automatic'] },
    needs: { ratingAmps: 'its rating, “20 A”', reset: 'how it resets, manual or automatic' },
  },
  polyfuse: {
    word: 'polyfuse',
    also: ['ptc', 'resettable-fuse'],
    prefix: 'PF',
    ways: [through('in', 'out')],
    numbers: { A: 'ratingAmps', ohm: 'ohms' },
    needs: { ratingAmps: 'the current that it holds, “3 A”' },
  },
  wire: {
    word: 'wire',
    also: ['cable'],
    prefix: 'W',
    ways: [through('a', 'b')],
    numbers: { m: 'lengthMetres', 'mm²': 'sizeMm2', ohm: 'ohms' },
  },
  connector: {
    word: 'plug',
    also: ['connector'],
    prefix: 'C',
    ways: [through('a', 'b')],
    numbers: { A: 'carriesAmps', ohm: 'ohms' },
  },
  splice: {
    word: 'splice',
    also: ['joint'],
    prefix: 'SP',
    ways: [],
    numbers: { ohm: 'ohms' },
    anyPins: true,
  },
  ground: {
    word: 'earth',
    also: ['ground'],
    prefix: 'G',
    ways: [through('lug', 'body')],
    numbers: { A: 'carriesAmps', ohm: 'ohms' },
  },
  switch: {
    word: 'switch',
    also: [],
    prefix: 'S',
    ways: [through('in', 'out')],
    numbers: { A: 'carriesAmps', ohm: 'ohms' },
    anyPins: true,
  },
  'key-contact': {
    word: 'key',
    also: ['ignition', 'key-contact'],
    prefix: 'K',
    ways: [through('in', 'out')],
    numbers: { A: 'carriesAmps', ohm: 'ohms' },
    needs: { closedIn: 'in which key positions it is closed, “accessory|run” or “run|crank”' },
  },
  relay: {
    word: 'relay',
    also: [],
    prefix: 'R',
    ways: [
      through('30', '87', 'contact'),
      through('86', '85', 'coil'),
      through('30', '87a', 'rest'),
      through('30', '87b'),
    ],
    mustSay: true,
    numbers: { A: 'contactRatingAmps', ohm: 'coilOhms' },
    choices: { suppression: ['none', 'resistor', 'diode'] },
  },
  'latching-relay': {
    word: 'latch',
    also: ['latching-relay'],
    prefix: 'RL',
    ways: [
      through('30', '87', 'contact'),
      through('set', 'set-return', 'set'),
      through('reset', 'reset-return', 'reset'),
      through('30', '87a', 'rest'),
    ],
    mustSay: true,
    numbers: { A: 'contactRatingAmps', ohm: 'coilOhms' },
  },
  solenoid: {
    word: 'solenoid',
    also: [],
    prefix: 'Z',
    ways: [through('feed', 'load', 'contact'), through('control', 'return', 'coil')],
    mustSay: true,
    numbers: { A: 'contactRatingAmps', ohm: 'coilOhms' },
  },
  flasher: {
    word: 'flasher',
    also: [],
    prefix: 'FU',
    ways: [through('49', '49a'), through('49', '31')],
    numbers: { A: 'carriesAmps', ohm: 'ohms' },
  },
  'cut-off': {
    word: 'cut-off',
    also: ['cutoff'],
    prefix: 'CO',
    ways: [through('in', 'out'), through('in', 'minus')],
    numbers: { A: 'carriesAmps', ohm: 'ohms' },
    choices: { starts: ['connected', 'disconnected'] },
  },
  'module-output': {
    word: 'output',
    also: ['module-output'],
    prefix: 'MO',
    ways: [through('plus', 'out')],
    numbers: { A: 'idleAmps', ohm: 'ohms' },
    choices: { side: ['high', 'low'] },
    needs: {
      side: 'which side it switches, high (to plus) or low (to minus)',
      rule: 'when it is on, for instance rule=[{"key":["run"]}]',
    },
    anyPins: true,
  },
  lamp: load('lamp', 'L', ['bulb', 'light']),
  led: {
    word: 'led',
    also: [],
    prefix: 'LD',
    ways: [through('plus', 'minus')],
    numbers: { A: 'amps', W: 'watts', V: 'forwardVolts' },
  },
  motor: load('motor', 'M', ['fan']),
  pump: load('pump', 'P'),
  horn: load('horn', 'H'),
  heater: load('heater', 'HT'),
  module: load('module', 'MD', ['appliance']),
  resistor: {
    word: 'resistor',
    also: [],
    prefix: 'RS',
    ways: [through('a', 'b')],
    numbers: { ohm: 'ohms' },
    needs: { ohms: 'its resistance, “2 ohm”' },
  },
  socket: {
    word: 'socket',
    also: ['outlet'],
    prefix: 'X',
    ways: [through('plus', 'minus')],
    numbers: { A: 'carriesAmps', ohm: 'ohms' },
  },
  diode: {
    word: 'diode',
    also: [],
    prefix: 'D',
    ways: [through('anode', 'cathode')],
    numbers: { A: 'carriesAmps', ohm: 'seriesOhms' },
  },
};

export const KIND_WORDS: readonly KindWord[] = Object.entries(WORDS).map(([kind, words]) => ({
  ...words,
  kind: kind as PartKind,
}));

const BY_KIND = new Map(KIND_WORDS.map((one) => [one.kind, one]));
const BY_WORD = new Map(KIND_WORDS.flatMap((one) => [one.word, ...one.also].map((word) => [word, one])));

export function wordsOfKind(kind: PartKind): KindWord {
  return BY_KIND.get(kind)!;
}

export function kindOfWord(word: string): KindWord | undefined {
  return BY_WORD.get(word.toLowerCase());
}

export const EVERY_KIND_WORD: readonly string[] = [...BY_WORD.keys()];

/** Kinds that a customer sees work or not. */
export const LOADS: readonly PartKind[] = ['lamp', 'led', 'motor', 'pump', 'horn', 'heater', 'module'];

const UNITS = new Map<string, readonly [unit: Unit, factor: number]>(
  Object.entries({
    a: ['A', 1],
    amp: ['A', 1],
    amps: ['A', 1],
    ampere: ['A', 1],
    ma: ['A', 0.001],
    w: ['W', 1],
    watt: ['W', 1],
    watts: ['W', 1],
    v: ['V', 1],
    volt: ['V', 1],
    volts: ['V', 1],
    ohm: ['ohm', 1],
    ohms: ['ohm', 1],
    ω: ['ohm', 1],
    mohm: ['ohm', 0.001],
    kohm: ['ohm', 1000],
    m: ['m', 1],
    metre: ['m', 1],
    metres: ['m', 1],
    cm: ['m', 0.01],
    'mm²': ['mm²', 1],
    mm2: ['mm²', 1],
    sqmm: ['mm²', 1],
    min: ['min', 1],
    s: ['s', 1],
  }),
);

/** A unit by the word that was written, with the factor to the notation's own; undefined for no unit. */
export function unitOf(word: string): readonly [unit: Unit, factor: number] | undefined {
  return UNITS.get(word.toLowerCase());
}

/** Two-letter colour codes of wires (IEC 60757, and the few that vehicle makers add). */
const COLOURS = ['BK', 'BN', 'RD', 'OG', 'YE', 'GN', 'BU', 'VT', 'GY', 'WH', 'PK', 'TQ', 'SR', 'TN'];

export function isColour(word: string): boolean {
  return word.split('/').length <= 2 && word.split('/').every((half) => COLOURS.includes(half));
}

/** The nearest of the known words, when it is near enough to be a slip of the finger. */
export function nearestWord(word: string, known: Iterable<string>, except?: string): string | null {
  let best: string | null = null;
  let least = Math.max(1, Math.floor(word.length / 3)) + 1;
  const wanted = word.toLowerCase();
  for (const one of known) {
    // What differs more in length alone is no nearer than what was found.
    if (one === except || Math.abs(one.length - word.length) >= least) continue;
    const apart = distance(wanted, one.toLowerCase());
    if (apart < least) {
      least = apart;
      best = one;
    }
  }
  return best;
}

/** Edits between two words (Levenshtein). */
function distance(one: string, other: string): number {
  if (Math.abs(one.length - other.length) > 4) return 9;
  let row = Array.from({ length: other.length + 1 }, (_, i) => i);
  for (let i = 1; i <= one.length; i++) {
    const next = [i];
    for (let j = 1; j <= other.length; j++) {
      next.push(Math.min(next[j - 1]! + 1, row[j]! + 1, row[j - 1]! + (one[i - 1] === other[j - 1] ? 0 : 1)));
    }
    row = next;
  }
  return row[other.length]!;
}

/** An id made of a name: small letters, figures and dashes, at most so many. */
export function slug(name: string, most = 60): string {
  const plain = name
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .slice(0, most);
  return plain || 'one';
}
