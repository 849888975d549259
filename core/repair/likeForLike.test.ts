/** Like for like: cases worked out by hand, right and wrong, part by part. */
import {
  type Alike,
  type ConnectorKind,
  type FuseKind,
  type LampKind,
  likeForLike,
  type PartKind,
  type Place,
  type RelayKind,
  type SwitchKind,
  type WireKind,
} from './likeForLike';

const V12: Place = { nominalVolts: 12, wireMm2: 1.5 };
const V48: Place = { nominalVolts: 48, wireMm2: 1.5 };
const NO_WIRE: Place = { nominalVolts: 12, wireMm2: null };

const fuse = (family: FuseKind['family'], ratingAmps?: number, volts?: number): FuseKind => ({
  kind: 'fuse',
  ...(family ? { family } : {}),
  ...(ratingAmps === undefined ? {} : { ratingAmps }),
  ...(volts === undefined ? {} : { volts }),
});
const MINI_RELAY: RelayKind = {
  kind: 'relay',
  footprint: 'mini',
  layout: 'A',
  contact: 'changeover',
  coilVolts: 12,
  suppression: 'resistor',
  contactAmps: 30,
};
const relay = (more: Partial<RelayKind> = {}): RelayKind => ({ ...MINI_RELAY, ...more });
const lamp = (volts?: number, watts?: number, base?: string): LampKind => ({
  kind: 'lamp',
  volts,
  watts,
  base,
});
const wire = (sizeMm2?: number, celsius?: number, terminalMm2?: number[]): WireKind => ({
  kind: 'wire',
  sizeMm2,
  celsius,
  terminalMm2,
});
const push = (action?: SwitchKind['action'], amps?: number): SwitchKind => ({ kind: 'switch', action, amps });
const plug = (series?: string, cavities?: number, sealed?: boolean): ConnectorKind => ({
  kind: 'connector',
  series,
  cavities,
  sealed,
});

const CASES: readonly (readonly [
  name: string,
  wanted: PartKind,
  fitted: PartKind,
  place: Place,
  verdict: Alike['verdict'],
  says: string,
])[] = [
  // Fuses: family, height, rating, volts.
  ['the same blade', fuse('mini', 10), fuse('mini', 10), V12, 'alike', ''],
  ['the same, 7.5 A', fuse('mini', 7.5), fuse('mini', 7.5), V12, 'alike', ''],
  ['the same, unwired', fuse('mini', 10), fuse('mini', 10), NO_WIRE, 'alike', ''],
  ['another family', fuse('mini', 10), fuse('regular', 10), V12, 'unlike', 'family regular in place of mini'],
  ['taller than the hole’s cover', fuse('low-profile-mini', 15), fuse('mini', 15), V12, 'unlike', 'family'],
  ['lower than the hole', fuse('mini', 15), fuse('low-profile-mini', 15), V12, 'unlike', 'family'],
  ['three legs for two', fuse('micro-2', 10), fuse('micro-3', 10), V12, 'unlike', 'micro 3'],
  ['next size up', fuse('mini', 7.5), fuse('mini', 10), V12, 'above', '133 % of the design'],
  ['twice the design', fuse('mini', 10), fuse('mini', 20), V12, 'above', '200 %'],
  [
    'above the wire too',
    fuse('mini', 15),
    fuse('mini', 25),
    V12,
    'above',
    'the wire burns before the fuse opens',
  ],
  ['above the design, within the wire', fuse('mini', 15), fuse('mini', 20), V12, 'above', 'carries 21 A'],
  ['above, wire unknown', fuse('mini', 10), fuse('mini', 15), NO_WIRE, 'above', 'not known'],
  ['above, and another family', fuse('mini', 10), fuse('regular', 15), V12, 'above', 'family'],
  ['one size down', fuse('mini', 10), fuse('mini', 7.5), V12, 'unlike', 'it may open for nothing'],
  ['rating of the place unread', fuse('mini'), fuse('mini', 10), V12, 'open', 'rating is not said'],
  ['rating of the new one unread', fuse('mini', 10), fuse('mini'), V12, 'open', 'rating is not said'],
  ['family of the place unsaid', fuse(undefined, 10), fuse('mini', 10), V12, 'open', 'family is not said'],
  ['a car’s blade in a 48 V pack', fuse('mini', 10), fuse('mini', 10), V48, 'unlike', '32 V, less than 48 V'],
  ['a 58 V blade in a 48 V pack', fuse('mini', 10, 58), fuse('mini', 10, 58), V48, 'alike', ''],
  [
    'an 80 V strip in a 48 V pack',
    fuse('strip-small', 80, 80),
    fuse('strip-small', 80, 80),
    V48,
    'alike',
    '',
  ],
  ['cartridge, low for tall', fuse('cartridge-tall', 40), fuse('cartridge-low', 40), V12, 'unlike', 'family'],
  ['maxi alike', fuse('maxi', 60), fuse('maxi', 60), V12, 'alike', ''],
  ['maxi above', fuse('maxi', 40), fuse('maxi', 60), V12, 'above', '150 %'],
  // Relays: number, or footprint, layout, contact, coil, suppression, rating.
  ['the same in all', relay(), relay(), V12, 'alike', ''],
  ['the same number', relay({ number: 'KR 14-2' }), { kind: 'relay', number: 'kr 14-2' }, V12, 'alike', ''],
  ['another number, all else alike', relay({ number: 'KR 14' }), relay({ number: 'PD 3' }), V12, 'alike', ''],
  [
    'a number alone on one side',
    { kind: 'relay', number: 'KR 14' },
    relay(),
    V12,
    'open',
    'footprint is not said',
  ],
  ['another footprint', relay(), relay({ footprint: 'micro' }), V12, 'unlike', 'footprint micro'],
  ['pins exchanged', relay(), relay({ layout: 'B' }), V12, 'unlike', 'pin layout B'],
  ['make for changeover', relay(), relay({ contact: 'make' }), V12, 'unlike', 'contact make'],
  ['changeover for make', relay({ contact: 'make' }), relay(), V12, 'unlike', 'contact changeover'],
  ['24 V coil on 12 V', relay(), relay({ coilVolts: 24 }), V12, 'unlike', 'coil 24 V in place of 12 V'],
  ['12 V coil on 24 V', relay({ coilVolts: 24 }), relay(), V12, 'unlike', 'coil 12 V'],
  ['no suppression', relay(), relay({ suppression: 'none' }), V12, 'unlike', 'suppression none'],
  ['diode for resistor', relay(), relay({ suppression: 'diode' }), V12, 'unlike', 'suppression diode'],
  [
    'diode the same way round',
    relay({ suppression: 'diode', plusPin: '86' }),
    relay({ suppression: 'diode', plusPin: '86' }),
    V12,
    'alike',
    '',
  ],
  [
    'diode the other way round',
    relay({ suppression: 'diode', plusPin: '86' }),
    relay({ suppression: 'diode', plusPin: '85' }),
    V12,
    'unlike',
    'plus of the coil at 85',
  ],
  [
    'diode, nobody looked which way',
    relay({ suppression: 'diode', plusPin: '86' }),
    relay({ suppression: 'diode' }),
    V12,
    'open',
    'which pin of the coil is plus is not said',
  ],
  ['stronger contact', relay(), relay({ contactAmps: 40 }), V12, 'alike', ''],
  ['weaker contact', relay(), relay({ contactAmps: 20 }), V12, 'unlike', '20 A, less than 30 A'],
  [
    'contact rating unread',
    relay(),
    relay({ contactAmps: undefined }),
    V12,
    'open',
    'contact rating is not said',
  ],
  [
    'two differences, both told',
    relay(),
    relay({ coilVolts: 24, contact: 'make' }),
    V12,
    'unlike',
    'coil 24 V',
  ],
  // Lamps: volts, watts, base.
  ['the same lamp', lamp(12, 21, 'BA15s'), lamp(12, 21, 'BA15s'), V12, 'alike', ''],
  ['24 V lamp', lamp(12, 21, 'BA15s'), lamp(24, 21, 'BA15s'), V12, 'unlike', 'volts 24 V'],
  [
    'more watts',
    lamp(12, 5, 'W2.1x9.5d'),
    lamp(12, 10, 'W2.1x9.5d'),
    V12,
    'unlike',
    'watts 10 W in place of 5 W',
  ],
  ['fewer watts', lamp(12, 21, 'BA15s'), lamp(12, 5, 'BA15s'), V12, 'unlike', 'watts'],
  ['another base', lamp(12, 21, 'BA15s'), lamp(12, 21, 'BAU15s'), V12, 'unlike', 'base BAU15s'],
  ['base not looked at', lamp(12, 21, 'BA15s'), lamp(12, 21), V12, 'open', 'base is not said'],
  // Wires: size, insulation, terminal.
  ['the same wire', wire(1.5, 105, [1, 2.5]), wire(1.5, 105), V12, 'alike', ''],
  ['thicker, the terminal takes it', wire(1.5, 105, [1, 2.5]), wire(2.5, 105), V12, 'alike', ''],
  [
    'thicker than the terminal',
    wire(1.5, 105, [1, 2.5]),
    wire(4, 105),
    V12,
    'unlike',
    'outside of the 1 to 2.5',
  ],
  ['thinner', wire(1.5, 105, [1, 2.5]), wire(1, 105), V12, 'unlike', 'size 1 mm², less than 1.5 mm²'],
  [
    'cooler insulation',
    wire(1.5, 105, [1, 2.5]),
    wire(1.5, 85),
    V12,
    'unlike',
    'insulation 85 °C, less than',
  ],
  ['hotter insulation', wire(1.5, 85, [1, 2.5]), wire(1.5, 125), V12, 'alike', ''],
  ['insulation unknown', wire(1.5, 105, [1, 2.5]), wire(1.5), V12, 'open', 'insulation is not said'],
  ['terminal unknown', wire(1.5, 105), wire(1.5, 105), V12, 'open', 'terminal takes is not said'],
  // Switches: how it acts, what it carries.
  ['the same switch', push('momentary', 10), push('momentary', 10), V12, 'alike', ''],
  ['latching for momentary', push('momentary', 10), push('latching', 10), V12, 'unlike', 'action latching'],
  ['momentary for latching', push('latching', 10), push('momentary', 10), V12, 'unlike', 'action momentary'],
  ['weaker switch', push('latching', 16), push('latching', 10), V12, 'unlike', 'rating 10 A'],
  ['stronger switch', push('latching', 10), push('latching', 16), V12, 'alike', ''],
  ['rating unread', push('latching', 10), push('latching'), V12, 'open', 'rating is not said'],
  // Connectors: series, cavities, seal.
  ['the same plug', plug('S2', 4, true), plug('S2', 4, true), V12, 'alike', ''],
  ['another series', plug('S2', 4, true), plug('T1', 4, true), V12, 'unlike', 'series T1'],
  ['more cavities', plug('S2', 4, true), plug('S2', 6, true), V12, 'unlike', 'cavities 6'],
  ['no seal where there was one', plug('S2', 4, true), plug('S2', 4, false), V12, 'unlike', 'no seal'],
  ['a seal where there was none', plug('S2', 4, false), plug('S2', 4, true), V12, 'alike', ''],
  ['seal not looked at', plug('S2', 4, true), plug('S2', 4), V12, 'open', 'seal is not said'],
  // Kinds.
  ['a switch for a relay', relay(), push('latching', 30), V12, 'unlike', 'a switch in place of a relay'],
  ['a wire for a fuse', fuse('mini', 10), wire(1.5, 105), V12, 'unlike', 'a wire in place of a fuse'],
];

test('there are at least sixty of them, each with a name of its own', () => {
  expect(CASES.length).toBeGreaterThanOrEqual(60);
  expect(new Set(CASES.map(([name]) => name)).size).toBe(CASES.length);
});

test.each(CASES)('%s', (_name, wanted, fitted, place, verdict, says) => {
  const answer = likeForLike(wanted, fitted, place);
  expect(answer.verdict).toBe(verdict);
  // Only what is alike is a repair.
  expect(answer.repair).toBe(verdict === 'alike');
  expect(answer.because.join('; ')).toContain(says);
  expect(answer.because.length === 0).toBe(verdict === 'alike');
});

test('a fuse’s figures: of the design, and of what the wire carries for good', () => {
  // 1.5 mm² carries 21 A.
  expect(likeForLike(fuse('mini', 10), fuse('mini', 15), V12)).toMatchObject({
    percentOfDesign: 150,
    percentOfWire: 71,
  });
  expect(likeForLike(fuse('mini', 10), fuse('mini', 30), V12)).toMatchObject({
    percentOfDesign: 300,
    percentOfWire: 143,
  });
  expect(likeForLike(fuse('mini', 10), fuse('mini', 15), NO_WIRE)).toMatchObject({ percentOfWire: null });
});
