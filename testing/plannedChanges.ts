/**
 * Changes planted by hand: forty unsafe ones, each with the kind of finding and the words that name its reason, and forty sound
 * ones. Written from what a change does to a vehicle, apart from the code that judges it.
 */
import type { CircuitFile, CircuitPart, PlanEdit, PlanFile } from '../core/format';
import { BATTERY, circuitOf, demoCircuit } from './circuits';

type Facts = Partial<Pick<PlanFile, 'goals' | 'ties' | 'variants' | 'chosen' | 'charging'>>;
export interface Planted {
  readonly name: string;
  readonly circuit: CircuitFile;
  readonly edits: readonly PlanEdit[];
  readonly facts: Facts;
}
export interface Unsafe extends Planted {
  readonly kind: string;
  readonly says: string;
}

const HATCH = demoCircuit('van-hatch-fridge');
const CABINET = demoCircuit('van-proving-cabinet');
const DEMIST = demoCircuit('van-demist');
const TRAILER = demoCircuit('trailer-lamps');

const wire = (id: string, a: string, b: string, sizeMm2: number, lengthMetres = 2): CircuitPart => ({
  id,
  kind: 'wire',
  name: `Wire ${id}`,
  pins: { a, b },
  lengthMetres,
  sizeMm2,
});
export const lamp = (id: string, plus: string, watts: number, minus = 'chassis'): CircuitPart => ({
  id,
  kind: 'lamp',
  name: `Lamp ${id}`,
  pins: { plus, minus },
  watts,
});
export const fuse = (id: string, from: string, to: string, ratingAmps: number): CircuitPart => ({
  id,
  kind: 'fuse',
  name: `Fuse ${id}`,
  pins: { in: from, out: to },
  ratingAmps,
});
const ground = (id: string, lug: string, body = 'minus', carriesAmps?: number): CircuitPart => ({
  id,
  kind: 'ground',
  name: `Earth ${id}`,
  pins: { lug, body },
  ...(carriesAmps === undefined ? {} : { carriesAmps }),
});
const heater = (
  id: string,
  plus: string,
  watts: number,
  onSeconds?: number,
  minus = 'chassis',
): CircuitPart => ({
  id,
  kind: 'heater',
  name: `Heater ${id}`,
  pins: { plus, minus },
  watts,
  ...(onSeconds === undefined ? {} : { onSeconds }),
});
export const button = (
  id: string,
  from: string,
  to: string,
  momentary: boolean,
  name = `Switch ${id}`,
): CircuitPart => ({
  id,
  kind: 'switch',
  name,
  pins: { in: from, out: to },
  positions: ['off', 'on'],
  rest: 'off',
  momentary,
  contacts: [{ from: 'in', to: 'out', closedIn: ['on'] }],
});
const diode = (id: string, anode: string, cathode: string): CircuitPart => ({
  id,
  kind: 'diode',
  name: `Diode ${id}`,
  pins: { anode, cathode },
});
const relay = (id: string, pins: Record<'30' | '85' | '86' | '87', string>, more: object = {}): CircuitPart =>
  ({ id, kind: 'relay', name: `Relay ${id}`, pins, ...more }) as CircuitPart;
const key = (
  id: string,
  from: string,
  to: string,
  ...closedIn: ('accessory' | 'run' | 'crank')[]
): CircuitPart => ({
  id,
  kind: 'key-contact',
  name: `Key contact ${id}`,
  pins: { in: from, out: to },
  closedIn,
});
const module_ = (id: string, plus: string, watts: number, minus = 'chassis'): CircuitPart => ({
  id,
  kind: 'module',
  name: `Module ${id}`,
  pins: { plus, minus },
  watts,
});
const seen = (id: string, load: string, name = id) => ({ id, name, load });

let count = 0;
const next = (letter: string) => `${letter}${++count}`;
export const add = (nodes: readonly string[], ...parts: CircuitPart[]): PlanEdit => ({
  kind: 'add',
  id: next('a'),
  nodes: nodes.map((id) => ({ id, name: `Point ${id}` })),
  parts,
});
export const tap = (of: string, side: 'supply' | 'load' = 'supply', addedAmps = 5): PlanEdit => ({
  kind: 'tap',
  id: next('t'),
  fuse: of,
  side,
  family: 'mini',
  addedFuse: `T-${of}`,
  addedAmps,
  lead: 'lead',
  name: `Tap at ${of}`,
});
export const join = (one: string, other: string): PlanEdit => ({
  kind: 'join',
  id: next('j'),
  splice: `SP-${count}`,
  name: 'New joint',
  one,
  other,
  joint: 'crimped-sleeve',
});
export const cut = (id: string): PlanEdit => ({
  kind: 'cut',
  id: next('c'),
  wire: id,
  rest: `${id}-far`,
  share: 0.5,
  nodes: { a: `${id}-near-end`, b: `${id}-far-end` },
  caps: { a: true, b: true },
});
export const out = (part: string, kept = true): PlanEdit => ({ kind: 'take-out', id: next('o'), part, kept });
export const move = (part: string, pin: string, to: string): PlanEdit => ({
  kind: 'move',
  id: next('m'),
  part,
  pin,
  to,
});
const label: PlanEdit = { kind: 'label', id: 'l0', on: 'Fuse 34', words: 'Hatch lamp' };
const goal = (
  of: string,
  on: ('off' | 'accessory' | 'run' | 'crank' | 'running')[],
  off: ('off' | 'accessory' | 'run' | 'crank')[],
) => ({
  goals: [{ id: `g-${of}`, of, on, off }],
});

/** Main beam by a stalk with a flash from a constant fuse; side lamps by another switch. */
const BEAM = circuitOf({
  parts: [
    BATTERY,
    wire('W0', 'plus', 'bus', 6, 0.15),
    fuse('FM', 'bus', 'fm', 10),
    fuse('FX', 'bus', 'fx', 15),
    fuse('FS', 'bus', 'fs', 5),
    {
      id: 'SL',
      kind: 'switch',
      name: 'Light switch',
      pins: { in: 'fm', head: 'head', side: 'side' },
      positions: ['off', 'side', 'head'],
      rest: 'off',
      contacts: [
        { from: 'in', to: 'head', closedIn: ['head'] },
        { from: 'in', to: 'side', closedIn: ['side', 'head'] },
      ],
    },
    {
      id: 'ST',
      kind: 'switch',
      name: 'Stalk',
      pins: { head: 'head', const: 'fx', main: 'main' },
      positions: ['dip', 'main', 'flash'],
      rest: 'dip',
      contacts: [
        { from: 'head', to: 'main', closedIn: ['main'] },
        { from: 'const', to: 'main', closedIn: ['flash'] },
      ],
    },
    wire('WM', 'main', 'mb', 1.5),
    lamp('MB', 'mb', 60, 'minus'),
    wire('WS', 'side', 'sl', 1),
    lamp('SD', 'sl', 5, 'minus'),
    button('SW', 'fs', 'work', false, 'Work lamp switch'),
    wire('WW', 'work', 'wl', 1),
    lamp('WL', 'wl', 21, 'minus'),
  ],
  functions: [
    seen('main', 'MB', 'Main beam'),
    seen('side', 'SD', 'Side lamp'),
    seen('work', 'WL', 'Work lamp'),
  ],
});
/** Two blocks of 12 V in a row, a load on both. */
const PACK: CircuitFile = {
  ...circuitOf({
    parts: [
      { ...BATTERY, id: 'BL', name: 'Lower block', pins: { plus: 'mid', minus: 'minus' } } as CircuitPart,
      { ...BATTERY, id: 'BU', name: 'Upper block', pins: { plus: 'plus', minus: 'mid' } } as CircuitPart,
      fuse('FP', 'plus', 'fp', 10),
      wire('WP', 'fp', 'p', 2.5),
      { id: 'PU', kind: 'pump', name: 'Bilge pump', pins: { plus: 'p', minus: 'minus' }, watts: 100 },
      fuse('FC', 'plus', 'fc', 10),
      wire('WC', 'fc', 'c', 2.5),
      { id: 'IN', kind: 'connector', name: 'Charging inlet', pins: { a: 'c', b: 'c-in' }, carriesAmps: 20 },
    ],
    functions: [seen('pump', 'PU', 'Bilge pump')],
  }),
  nominalVolts: 24,
};
/** A fan that a controller pulses, awake by an input; a cabin lamp beside it. */
export const FAN: CircuitFile = circuitOf({
  parts: [
    BATTERY,
    fuse('F1', 'plus', 'f1', 15),
    fuse('F2', 'plus', 'f2', 5),
    key('K', 'f2', 'acc', 'accessory', 'run'),
    wire('W1', 'f1', 'c-plus', 2.5),
    {
      id: 'MO',
      kind: 'module-output',
      name: 'Fan controller',
      pins: { plus: 'c-plus', minus: 'minus', out: 'c-out', wake: 'c-wake' },
      side: 'high',
      rule: [{ inputs: { wake: 'high' } }],
      duty: 0.6,
    },
    button('SF', 'acc', 'c-wake', false, 'Fan switch'),
    wire('W2', 'c-out', 'fan', 2.5),
    { id: 'MF', kind: 'motor', name: 'Fan motor', pins: { plus: 'fan', minus: 'minus' }, watts: 60 },
    button('SC', 'f2', 'lamp', false, 'Cabin lamp switch'),
    wire('W3', 'lamp', 'cl', 1),
    lamp('CL', 'cl', 10, 'minus'),
  ],
  functions: [seen('fan', 'MF', 'Engine-room fan'), seen('cabin', 'CL', 'Cabin lamp')],
});
/** A buzzer that two contacts call through a diode each; a lamp on one of them. */
const BUZZ: CircuitFile = circuitOf({
  parts: [
    BATTERY,
    fuse('FB', 'plus', 'fb', 5),
    button('SD', 'fb', 'd', false, 'Hatch contact'),
    button('SE', 'fb', 'e', false, 'Ramp contact'),
    diode('D1', 'd', 'buzz'),
    diode('D2', 'e', 'buzz'),
    lamp('LD', 'd', 5, 'minus'),
    lamp('LE', 'e', 5, 'minus'),
    module_('BZ', 'buzz', 3, 'minus'),
  ],
  functions: [
    seen('hatch', 'LD', 'Hatch lamp'),
    seen('ramp', 'LE', 'Ramp lamp'),
    seen('buzzer', 'BZ', 'Buzzer'),
  ],
});
/** A mixer that runs only with its lid shut, beside an earth that says what it carries. */
const MIXER: CircuitFile = circuitOf({
  parts: [
    BATTERY,
    fuse('FX', 'plus', 'fx', 20),
    button('SL', 'fx', 'lid', false, 'Lid contact'),
    button('SR', 'lid', 'run', false, 'Mixer switch'),
    wire('WX', 'run', 'mx', 4),
    { id: 'MX', kind: 'motor', name: 'Dough mixer', pins: { plus: 'mx', minus: 'gx' }, watts: 150 },
    ground('GX', 'gx', 'minus', 20),
    fuse('FA', 'plus', 'fa', 15),
    {
      id: 'SO',
      kind: 'solenoid',
      name: 'Lift solenoid',
      pins: { feed: 'fa', load: 'sl', control: 'so', return: 'minus' },
    },
    button('SB', 'fa', 'so', true, 'Lift button'),
    wire('WL', 'sl', 'lift', 4),
    { id: 'ML', kind: 'motor', name: 'Tray lift', pins: { plus: 'lift', minus: 'minus' }, watts: 90 },
  ],
  functions: [seen('mixer', 'MX', 'Dough mixer'), seen('lift', 'ML', 'Tray lift')],
});
/** A plate that a controller switches, a lamp that is earthed through the controller, a diode-quenched relay. */
export const PLATE: CircuitFile = circuitOf({
  parts: [
    { ...BATTERY, innerOhms: 0.01 } as CircuitPart,
    fuse('FP', 'plus', 'fp', 50),
    wire('WA', 'fp', 'k-in', 10, 1.5),
    {
      id: 'KC',
      kind: 'module-output',
      name: 'Plate controller',
      pins: { plus: 'k-in', minus: 'minus', out: 'plate', call: 'call' },
      side: 'high',
      rule: [{ inputs: { call: 'high' } }],
    },
    fuse('FL', 'plus', 'fl', 5),
    button('SC', 'fl', 'call', true, 'Steam button'),
    heater('HP', 'plate', 480, 20, 'minus'),
    {
      id: 'KM',
      kind: 'splice',
      name: 'Earth strap of the controller',
      pins: { lamp: 'l-minus', out: 'minus' },
    },
    button('SL', 'fl', 'l-in', false, 'Proving lamp switch'),
    lamp('PL', 'l-in', 10, 'l-minus'),
    button('SQ', 'fl', 'q86', false, 'Vent switch'),
    relay('RQ', { '30': 'fl', '85': 'minus', '86': 'q86', '87': 'vent' }, { suppression: 'diode' }),
    lamp('VL', 'vent', 5, 'minus'),
  ],
  functions: [
    seen('plate', 'HP', 'Steam plate'),
    seen('proving-lamp', 'PL', 'Proving lamp'),
    seen('vent', 'VL', 'Vent lamp'),
  ],
});
/** Two points for a scale, always live; a feed that dies with the key and carries little, and one that carries enough. */
export const SCALE: CircuitFile = circuitOf({
  parts: [
    BATTERY,
    fuse('FC', 'plus', 'fc', 10),
    wire('WC', 'fc', 'scale', 1.5),
    { id: 'HS', kind: 'module', name: 'Hive scale', pins: { plus: 'scale', minus: 'minus' }, watts: 20 },
    fuse('FK', 'plus', 'fk', 15),
    key('K', 'fk', 'run', 'run'),
    fuse('FR', 'run', 'fr', 10),
    wire('WR', 'fr', 'rad', 1.5),
    lamp('LR', 'rad', 5, 'minus'),
  ],
  functions: [seen('scale', 'HS', 'Hive scale'), seen('cab-lamp', 'LR', 'Cab lamp')],
});

const plant = (
  name: string,
  circuit: CircuitFile,
  edits: readonly PlanEdit[],
  facts: Facts = {},
): Planted => ({
  name,
  circuit,
  edits,
  facts,
});
const unsafe = (
  name: string,
  circuit: CircuitFile,
  edits: readonly PlanEdit[],
  kind: string,
  says: string,
  facts: Facts = {},
): Unsafe => ({ ...plant(name, circuit, edits, facts), kind, says });
const withSafety = (circuit: CircuitFile, id: string): CircuitFile => ({
  ...circuit,
  parts: circuit.parts.map((part) => (part.id === id ? { ...part, safetyCritical: true } : part)),
});
const sourceAt = (plus: string, minus: string, name: string): CircuitPart => ({
  id: 'CS',
  kind: 'charging-source',
  name,
  pins: { plus, minus },
  active: 'always',
});
const KEYED = goal('scale', ['run'], ['off', 'accessory']);
/** The scale’s points fed anew behind the key; the old feed is broken as `breaks` says. */
const rewired = (...breaks: PlanEdit[]): PlanEdit[] => [
  ...breaks,
  { ...tap('FR', 'supply', 5), family: 'mini' } as PlanEdit,
  add([], wire('NW', 'lead', 'scale', 1.5, 2)),
];

export const UNSAFE: readonly Unsafe[] = [
  unsafe(
    'second break forgotten: the old fuse only pulled',
    SCALE,
    rewired(out('FC')),
    'second-break',
    'once somebody puts it back',
    KEYED,
  ),
  unsafe('old feed left on beside the new one', SCALE, rewired(), 'back-feeds', 'two sources meet', KEYED),
  unsafe(
    'constant and accessory feed joined',
    CABINET,
    [join('f32-out', 'f33-out')],
    'back-feeds',
    'two sources meet',
  ),
  unsafe(
    'two feeds tied through a lamp’s way back',
    BEAM,
    [add([], lamp('X1', 'side', 10, 'work'))],
    'functions',
    'Side lamp: off before',
  ),
  unsafe('tap turned round', HATCH, [tap('F34', 'load')], 'taps', 'wrong way round'),
  unsafe(
    'turned tap overloads the old fuse',
    HATCH,
    [tap('F34', 'load', 10), add(['x'], wire('N1', 'lead', 'x', 2.5), lamp('N2', 'x', 100))],
    'overloads',
    'Fuse 34',
  ),
  unsafe('tap on a safety circuit', withSafety(HATCH, 'L3'), [tap('F34')], 'taps', 'a safety function'),
  unsafe(
    'wrong height of blade',
    HATCH,
    [{ ...tap('F34'), family: 'low-profile-mini' } as PlanEdit],
    'taps',
    'does not seat',
  ),
  unsafe(
    'wrong size of blade',
    HATCH,
    [{ ...tap('F34'), family: 'regular' } as PlanEdit],
    'taps',
    'does not seat',
  ),
  unsafe(
    'fuse above the thinnest wire',
    HATCH,
    [add(['x'], wire('N1', 'f35-out', 'x', 0.5), lamp('N2', 'x', 10))],
    'protection',
    'which carries 11 A',
  ),
  unsafe(
    'added fuse above its own wire',
    HATCH,
    [tap('F34', 'supply', 20), add(['x'], wire('N1', 'lead', 'x', 0.75), lamp('N2', 'x', 10))],
    'protection',
    'which carries 14 A',
  ),
  unsafe(
    'fuse above a wire in a hot bundle',
    HATCH,
    [
      tap('F34', 'supply', 20),
      add(['x'], { ...wire('N1', 'lead', 'x', 1.5), bundled: true } as CircuitPart, lamp('N2', 'x', 10)),
    ],
    'protection',
    'where it lies',
  ),
  unsafe(
    'lead straight from the battery',
    HATCH,
    [add(['x'], wire('N1', 'bat-plus', 'x', 2.5), lamp('N2', 'x', 10))],
    'protection',
    'without a fuse over 2 m',
  ),
  unsafe(
    'fuse more than 180 mm from the battery',
    HATCH,
    [
      add(
        ['p', 'q', 'x'],
        wire('N0', 'bat-plus', 'p', 2.5, 0.4),
        fuse('NF', 'p', 'q', 15),
        wire('N1', 'q', 'x', 2.5),
        lamp('N2', 'x', 60),
      ),
    ],
    'protection',
    'without a fuse over 0.4 m',
  ),
  unsafe(
    'two short leads that are long together',
    HATCH,
    [
      add(
        ['p', 'r', 'q', 'x'],
        wire('N0', 'bat-plus', 'p', 2.5, 0.15),
        wire('N9', 'p', 'r', 2.5, 0.15),
        fuse('NF', 'r', 'q', 15),
        wire('N1', 'q', 'x', 2.5),
        lamp('N2', 'x', 60),
      ),
    ],
    'protection',
    'without a fuse over 0.3 m',
  ),
  unsafe(
    'latching switch on a heater for seconds',
    HATCH,
    [
      add(
        ['x', 'y'],
        button('N1', 'f35-out', 'x', false),
        wire('N2', 'x', 'y', 4),
        heater('N3', 'y', 100, 20),
      ),
    ],
    'short-time',
    'stays on by itself',
  ),
  unsafe(
    'solenoid of short duty held on',
    MIXER,
    [out('SB'), add([], button('N1', 'fa', 'so', false))],
    'short-time',
    'Lift solenoid',
  ),
  unsafe(
    'lamp moved to a module’s output',
    FAN,
    [move('W3', 'a', 'c-out')],
    'modules',
    'Fan controller would feed Lamp CL',
  ),
  unsafe(
    'lamp moved to where the flash does nothing',
    BEAM,
    [move('WM', 'a', 'head')],
    'lights',
    'no longer answers the flash',
  ),
  unsafe(
    'shared supply overdrawn by two half loads',
    CABINET,
    [
      add(
        ['x', 'y'],
        wire('N1', 'f33-in', 'x', 1.5),
        lamp('N2', 'x', 60),
        wire('N3', 'f33-in', 'y', 1.5),
        lamp('N4', 'y', 60),
      ),
    ],
    'overloads',
    'Fuse 5',
  ),
  unsafe('cut end left live', HATCH, [cut('W51')], 'live-ends', 'open end with 12'),
  unsafe('load taken out, its wire left', HATCH, [out('FR1')], 'live-ends', 'open end'),
  unsafe(
    'wire that looks dead, live in one state',
    CABINET,
    [cut('W37')],
    'live-ends',
    'Shelf-light switch on',
  ),
  unsafe('wire that looks dead, live with the key', DEMIST, [cut('W61')], 'live-ends', 'key run'),
  unsafe(
    'earth point overloaded',
    MIXER,
    [
      add(['x'], fuse('N1', 'plus', 'x', 20), {
        ...heater('N2', 'x', 130),
        pins: { plus: 'x', minus: 'gx' },
      } as CircuitPart),
    ],
    'overloads',
    'Earth GX',
  ),
  unsafe(
    'heavy load on a thin earth that others share',
    CABINET,
    [
      add(['z'], fuse('N0', 'bay-bus', 'z', 60), {
        ...heater('N1', 'z', 500),
        pins: { plus: 'z', minus: 'sp2-earth' },
      } as CircuitPart),
    ],
    'returns',
    'what is new shares it',
  ),
  unsafe(
    'diode missing between two controls',
    BUZZ,
    [out('D1', false), join('d', 'buzz'), out('D2', false), join('e', 'buzz')],
    'functions',
    'Ramp lamp: off before, on after',
  ),
  unsafe(
    'cut-off mistaken for a key feed',
    SCALE,
    [
      add(['co'], {
        id: 'CO',
        kind: 'cut-off',
        name: 'Voltage cut-off',
        pins: { in: 'scale', out: 'co', minus: 'minus' },
        carriesAmps: 20,
      }),
      move('HS', 'plus', 'co'),
    ],
    'goals',
    'was to be off (key off)',
    goal('co', ['run'], ['off']),
  ),
  unsafe(
    'return through a controller that is removed',
    PLATE,
    [out('KM', false)],
    'functions',
    'Proving lamp: on before, off after',
  ),
  unsafe(
    'steps of two builds mixed',
    HATCH,
    [{ ...tap('F34'), variant: 'one' } as PlanEdit, { ...label, variant: 'two' } as PlanEdit],
    'variants',
    'belong to different builds',
    {
      variants: [
        { id: 'one', name: 'Early loom' },
        { id: 'two', name: 'Late loom' },
      ],
    },
  ),
  unsafe(
    'nobody has said which build',
    HATCH,
    [{ ...tap('F34'), variant: 'one' } as PlanEdit],
    'variants',
    'Nobody has said',
    {
      variants: [
        { id: 'one', name: 'Early loom' },
        { id: 'two', name: 'Late loom' },
      ],
    },
  ),
  unsafe(
    'socket left feeding backwards',
    TRAILER,
    [add([], sourceAt('p7-trl', 'spe-left', 'Trailer pack'))],
    'back-feeds',
    'flows backwards through Fuse 1',
  ),
  unsafe(
    'interlock fed round',
    MIXER,
    [add([], wire('N1', 'fx', 'lid', 4))],
    'interlocks',
    'Lid contact no longer holds',
  ),
  unsafe(
    'one block of a pack loaded alone',
    PACK,
    [add(['x'], fuse('N1', 'mid', 'x', 5), lamp('N2', 'x', 10, 'minus'))],
    'packs',
    'One block of the pack',
  ),
  unsafe(
    'quenched coil turned round',
    PLATE,
    [move('RQ', '86', 'minus'), move('RQ', '85', 'q86')],
    'coils',
    'stands',
  ),
  unsafe(
    'switch bridged',
    HATCH,
    [join('s9-in', 's9-out')],
    'functions',
    'Serving-hatch lamp: off before, on after',
  ),
  unsafe('earth of two lamps lost', CABINET, [out('W38')], 'functions', 'shelf light'),
  unsafe(
    'receptacle changed without a word of its charger',
    PACK,
    [
      add(['n-in'], {
        id: 'NI',
        kind: 'connector',
        name: 'New charging receptacle',
        pins: { a: 'c', b: 'n-in' },
      }),
    ],
    'charging',
    'has to be said',
  ),
  unsafe(
    'charger of other volts',
    PACK,
    [
      add(['n-in'], {
        id: 'NI',
        kind: 'connector',
        name: 'New charging receptacle',
        pins: { a: 'c', b: 'n-in' },
      }),
    ],
    'charging',
    'does not belong',
    {
      charging: {
        variant: 'Two blocks',
        chargerVolts: 14.4,
        battery: 'agm',
        receptacle: '24 V only',
        lockedOut: true,
      },
    },
  ),
  unsafe(
    'module on a feed that never dies',
    SCALE,
    [add([], module_('N1', 'scale', 1, 'minus'))],
    'sleep',
    'Module N1',
  ),
];

const NOTHING_LIVE = goal('scale', ['run'], ['off', 'accessory', 'crank']);
export const SOUND: readonly Planted[] = [
  plant('a label', HATCH, [label]),
  plant(
    'points live only with the key, both breaks made',
    SCALE,
    rewired(out('FC'), out('WC', false)),
    NOTHING_LIVE,
  ),
  plant(
    'the same by a key contact of its own',
    SCALE,
    [out('FC'), out('WC', false), add(['n'], fuse('NF', 'run', 'n', 5), wire('NW', 'n', 'scale', 1.5, 2))],
    NOTHING_LIVE,
  ),
  plant('tap on the supply side', HATCH, [
    tap('F34'),
    add(['x'], wire('N1', 'lead', 'x', 1), lamp('N2', 'x', 10)),
  ]),
  plant('tap of 10 A with 1.5 mm²', HATCH, [
    tap('F35', 'supply', 10),
    add(['x'], wire('N1', 'lead', 'x', 1.5), lamp('N2', 'x', 60)),
  ]),
  plant('a lamp more behind the hatch switch', HATCH, [
    add(['x'], wire('N1', 's9-out', 'x', 1), lamp('N2', 'x', 5)),
  ]),
  plant('a fused lead from the battery', HATCH, [
    add(
      ['p', 'q', 'x'],
      wire('N0', 'bat-plus', 'p', 2.5, 0.15),
      fuse('NF', 'p', 'q', 15),
      wire('N1', 'q', 'x', 2.5),
      lamp('N2', 'x', 60),
    ),
  ]),
  plant('a sheathed lead of 1.2 m before its fuse', HATCH, [
    add(
      ['p', 'q', 'x'],
      { ...wire('N0', 'bat-plus', 'p', 4, 1.2), sheathed: true } as CircuitPart,
      fuse('NF', 'p', 'q', 15),
      wire('N1', 'q', 'x', 2.5),
      lamp('N2', 'x', 60),
    ),
  ]),
  plant('a heater for seconds on a button', HATCH, [
    add(
      ['x', 'y'],
      button('N1', 'f35-out', 'x', true),
      wire('N2', 'x', 'y', 4),
      heater('N3', 'y', 60, 20, 'bat-minus'),
    ),
  ]),
  plant('a wire cut and joined again', HATCH, [cut('W54'), join('W54-near-end', 'W54-far-end')]),
  plant('a thicker wire beside the fridge’s', HATCH, [add([], wire('N1', 'f35-out', 'c14-box', 4, 3))]),
  plant('a wire taken out with both its ends', HATCH, [
    out('L3', false),
    out('W53', false),
    out('W52', false),
  ]),
  plant('the fridge and its wires out, the fuse too', HATCH, [
    out('FR1', false),
    out('C14', false),
    out('W54', false),
    out('W55', false),
    out('F35', false),
  ]),
  plant('a relay for a work lamp, coil behind the hatch switch', HATCH, [
    add(
      ['p', 'q', 'x', 'c'],
      wire('N0', 'bat-plus', 'p', 2.5, 0.15),
      fuse('NF', 'p', 'q', 15),
      wire('NC', 's9-out', 'c', 0.75, 1),
      relay('NR', { '30': 'q', '85': 'chassis', '86': 'c', '87': 'x' }, { contactRatingAmps: 30 }),
      lamp('N2', 'x', 55),
    ),
  ]),
  plant(
    'a second switch beside the hatch switch, asked for',
    HATCH,
    [add([], button('N1', 's9-in', 's9-out', false))],
    goal('hatch-lamp', ['off', 'run'], []),
  ),
  plant(
    'buzzer called by a third contact through a diode',
    BUZZ,
    [add(['n'], button('N1', 'fb', 'n', false), diode('N2', 'n', 'buzz'))],
    goal('buzzer', ['off', 'run'], []),
  ),
  plant('a lamp more on the ramp contact', BUZZ, [add([], lamp('N1', 'e', 5, 'minus'))]),
  plant('work lamp moved to a fuse of its own', BEAM, [
    add(['nf'], fuse('N1', 'bus', 'nf', 5)),
    move('SW', 'in', 'nf'),
  ]),
  plant('work lamp’s wire to a larger one', BEAM, [
    out('WW', false),
    add(['wl2'], wire('N1', 'work', 'wl2', 1.5)),
    move('WL', 'plus', 'wl2'),
  ]),
  plant('a lamp beside the work lamp', BEAM, [
    add(['x'], wire('N1', 'work', 'x', 1), lamp('N2', 'x', 10, 'minus')),
  ]),
  plant('main beam on a thicker wire beside the old', BEAM, [add([], wire('N1', 'main', 'mb', 2.5))]),
  plant('an inline fuse in the lamp’s feed', HATCH, [
    add(['n'], fuse('N1', 's9-out', 'n', 5)),
    move('W52', 'a', 'n'),
  ]),
  plant('an earth of its own for the hatch lamp', HATCH, [move('W53', 'b', 'bat-minus')]),
  plant('fridge on an earth of its own', HATCH, [
    out('W55', false),
    add(['g9'], wire('N1', 'fr-minus', 'g9', 2.5, 1), { ...ground('N2', 'g9', 'chassis') }),
  ]),
  plant(
    'fan motor straight to a switch, controller kept, asked for',
    FAN,
    [
      out('MO'),
      out('W2', false),
      add(['n'], button('N1', 'c-plus', 'n', false), wire('N2', 'n', 'fan', 2.5)),
    ],
    goal('fan', ['off', 'accessory', 'run', 'crank'], []),
  ),
  plant('a lamp on the accessory side', FAN, [
    add(['x'], fuse('NF', 'acc', 'x', 3), lamp('N1', 'x', 5, 'minus')),
  ]),
  plant(
    'a wake wire from a second switch through a diode',
    FAN,
    [add(['n'], button('N1', 'acc', 'n', true), diode('N2', 'n', 'c-wake'))],
    goal('fan', ['accessory', 'run'], []),
  ),
  plant('cabin lamp on a tap of its own', FAN, [tap('F2', 'supply', 3), move('SC', 'in', 'lead')]),
  plant('mixer wire doubled', MIXER, [add([], wire('N1', 'run', 'mx', 4))]),
  plant('a lamp that shows the mixer’s lid', MIXER, [
    add(['x'], wire('N1', 'lid', 'x', 2.5), lamp('N2', 'x', 5, 'minus')),
  ]),
  plant(
    'the tray lift’s button replaced by another that springs back',
    MIXER,
    [out('SB', false), add([], button('N1', 'fa', 'so', true))],
    goal('lift', ['off', 'run'], ['off'].slice(1) as []),
  ),
  plant(
    'a second pump on the whole pack',
    PACK,
    [add(['x'], fuse('N1', 'plus', 'x', 10), wire('N2', 'x', 'y2', 2.5), lamp('N3', 'y2', 40, 'minus'))].map(
      (edit) =>
        edit.kind === 'add' ? { ...edit, nodes: [...edit.nodes, { id: 'y2', name: 'Point y2' }] } : edit,
    ),
  ),
  plant(
    'a receptacle with all that releases it',
    PACK,
    [
      add(['n-in'], {
        id: 'NI',
        kind: 'connector',
        name: 'New charging receptacle',
        pins: { a: 'c', b: 'n-in' },
      }),
      out('IN', false),
      move('NI', 'b', 'c'),
    ],
    {
      charging: {
        variant: 'Two blocks',
        chargerVolts: 28.8,
        battery: 'agm',
        receptacle: '24 V lead-acid only',
        lockedOut: true,
      },
    },
  ),
  plant('vent relay replaced by one like it', PLATE, [
    out('RQ', false),
    add([], relay('NR', { '30': 'fl', '85': 'minus', '86': 'q86', '87': 'vent' }, { suppression: 'diode' })),
  ]),
  plant('proving lamp earthed apart', PLATE, [move('PL', 'minus', 'minus')]),
  plant('a side lamp’s trailer wire doubled', TRAILER, [add([], wire('N1', 'p7-trl', 'left-plus', 1, 5))]),
  plant('trailer earth doubled', TRAILER, [add([], wire('N1', 'spe-out', 'gt', 2.5, 3))]),
  plant('rear screen on a wire beside the old', DEMIST, [add([], wire('N1', 'f15-out', 'h3-plus', 4, 4))]),
  plant('a lamp that shows the demist switch', DEMIST, [
    add(['x'], wire('N1', 's3-out', 'x', 0.75, 1), lamp('N2', 'x', 2)),
  ]),
  plant(
    'split charging, meant, fused at both ends',
    HATCH,
    [
      add(
        ['a2', 'b2', 'aux'],
        fuse('NA', 'bat-plus', 'a2', 40),
        wire('NW', 'a2', 'b2', 10, 4),
        fuse('NB', 'aux', 'b2', 40),
        {
          ...BATTERY,
          id: 'B2',
          name: 'House battery',
          pins: { plus: 'aux', minus: 'bat-minus' },
          emfVolts: 12.4,
        } as CircuitPart,
      ),
    ],
    { ties: ['NW'] },
  ),
];
