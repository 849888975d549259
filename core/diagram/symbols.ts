/**
 * Symbols of parts as lines and letters, after IEC 60617 (graphical symbols for diagrams). Units are points of the
 * drawing; every symbol stands upright, fed from above, its terminals on the grid of ten.
 */
import type { CircuitPart } from '../format';

export type Stroke =
  | {
      readonly path: string;
      readonly filled?: boolean;
      readonly dashed?: boolean;
      /** Drawn only while the contact stands so; a drawing without life shows it at rest. */
      readonly when?: 'at-rest' | 'moved';
    }
  | {
      readonly text: string;
      readonly x: number;
      readonly y: number;
      readonly size: number;
      readonly middle?: boolean;
    };

interface Terminal {
  readonly pin: string;
  readonly x: number;
  readonly side: 'NORTH' | 'SOUTH';
}

export interface PartSymbol {
  /** Of the symbol alone; the letters beside it need room of their own. */
  readonly width: number;
  readonly height: number;
  readonly terminals: readonly Terminal[];
  readonly strokes: readonly Stroke[];
}

const circle = (x: number, y: number, r: number) =>
  `M ${x - r} ${y} a ${r} ${r} 0 1 0 ${2 * r} 0 a ${r} ${r} 0 1 0 ${-2 * r} 0`;
const box = (x: number, y: number, width: number, height: number) =>
  `M ${x} ${y} h ${width} v ${height} h ${-width} Z`;

const letter = (text: string, x: number, y: number, size = 11): Stroke => ({
  text,
  x,
  y,
  size,
  middle: true,
});

/** Two terminals above one another, the strokes between them. */
function inline(enter: string, leave: string, strokes: readonly Stroke[], height = 50): PartSymbol {
  return {
    width: 30,
    height,
    terminals: [
      { pin: enter, x: 15, side: 'NORTH' },
      { pin: leave, x: 15, side: 'SOUTH' },
    ],
    strokes,
  };
}

const stem = (height: number, top: number, bottom: number): Stroke => ({
  path: `M 15 0 V ${top} M 15 ${bottom} V ${height}`,
});
const roundLoad = (inside: Stroke): PartSymbol =>
  inline('plus', 'minus', [stem(50, 11, 39), { path: circle(15, 25, 14) }, inside]);

type Draw<K extends CircuitPart['kind']> = (part: Extract<CircuitPart, { kind: K }>) => PartSymbol;

function drawRelay(
  part: Extract<CircuitPart, { kind: 'relay' | 'solenoid' | 'latching-relay' }>,
): PartSymbol {
  const pins = part.pins as Readonly<Record<string, string | undefined>>;
  const coil =
    part.kind === 'relay'
      ? [['86', '85']]
      : part.kind === 'solenoid'
        ? [['control', 'return']]
        : [
            ['set', 'set-return'],
            ['reset', 'reset-return'],
          ];
  const common = part.kind === 'solenoid' ? 'feed' : '30';
  const outs = (part.kind === 'solenoid' ? ['load'] : ['87', '87a', '87b']).filter((pin) => pins[pin]);
  const strokes: Stroke[] = [];
  const terminals: Terminal[] = [];
  coil.forEach(([enter = '', leave = ''], index) => {
    const x = 15 + index * 30;
    terminals.push({ pin: enter, x, side: 'NORTH' }, { pin: leave, x, side: 'SOUTH' });
    strokes.push({ path: `M ${x} 0 V 22 M ${x} 38 V 60 ${box(x - 12, 22, 24, 16)}` });
    strokes.push({ path: `M ${x - 6} 38 L ${x + 6} 22` });
  });
  // Room enough between coil and contact for the volts of both.
  const first = 15 + coil.length * 30 + 26;
  terminals.push({ pin: common, x: first, side: 'NORTH' });
  strokes.push({ path: `M ${first} 0 V 18` });
  outs.forEach((pin, index) => {
    const x = first + index * 24;
    terminals.push({ pin, x, side: 'SOUTH' });
    strokes.push({ path: `M ${x} 60 V 42${index > 0 ? ` M ${x - 6} 42 H ${x}` : ''}` });
  });
  // The blade rests on 87a where there is one, else beside 87.
  const rests = outs.includes('87a') && !outs.includes('87') ? 0 : -10;
  const made = outs.includes('87') || outs.includes('load') ? 0 : -10;
  strokes.push({ path: `M ${first} 18 L ${first + rests} 43`, when: 'at-rest' });
  strokes.push({ path: `M ${first} 18 L ${first + made} 43`, when: 'moved' });
  strokes.push({ path: `M ${15 + (coil.length - 1) * 30 + 12} 30 H ${first - 6}`, dashed: true });
  for (const { pin, x, side } of terminals) {
    strokes.push({ text: pin, x: x + 3, y: side === 'NORTH' ? 9 : 57, size: 7 });
  }
  const width = first + Math.max(1, outs.length) * 24;
  return { width, height: 60, terminals, strokes };
}

/** A block with its name inside, fed from above, with every terminal named. */
function block(pins: readonly string[], above: (pin: string) => boolean, inside: string): PartSymbol {
  const tops = pins.filter(above);
  const bottoms = pins.filter((pin) => !above(pin));
  const across = Math.max(tops.length, bottoms.length, 1);
  const width = Math.max(50, across * 40);
  const place = (index: number, count: number) =>
    Math.round(((index + 0.5) * width) / Math.max(1, count) / 5) * 5;
  const terminals: Terminal[] = [
    ...tops.map((pin, index): Terminal => ({ pin, x: place(index, tops.length), side: 'NORTH' })),
    ...bottoms.map((pin, index): Terminal => ({ pin, x: place(index, bottoms.length), side: 'SOUTH' })),
  ];
  return {
    width,
    height: 54,
    terminals,
    strokes: [
      { path: box(0, 10, width, 34) },
      ...terminals.flatMap(({ pin, x, side }): Stroke[] => [
        { path: side === 'NORTH' ? `M ${x} 0 V 10` : `M ${x} 44 V 54` },
        { text: pin, x, y: side === 'NORTH' ? 18 : 41, size: 7, middle: true },
      ]),
      letter(inside, width / 2, 31, 9),
    ],
  };
}

/** The blade of a contact between 16 and 36. */
const OPEN = 'M 15 16 L 4 36';
const CLOSED = 'M 15 16 L 15 36';

function drawSwitch(part: Extract<CircuitPart, { kind: 'switch' }>): PartSymbol {
  const pins = Object.keys(part.pins);
  const [only] = part.contacts;
  if (pins.length === 2 && only) {
    const closedAtRest = only.closedIn.includes(part.rest);
    return inline(only.from, only.to, [
      stem(50, 16, 36),
      { path: closedAtRest ? CLOSED : OPEN, when: 'at-rest' },
      { path: closedAtRest ? OPEN : CLOSED, when: 'moved' },
      { path: 'M 2 26 H -6 M -6 21 V 31' },
      ...(part.momentary ? [letter('↧', -10, 29, 9)] : []),
    ]);
  }
  const enters = new Set(part.contacts.map((one) => one.from));
  return block(pins, (pin) => enters.has(pin), part.positions.join(' | '));
}

const DRAW: { readonly [K in CircuitPart['kind']]: Draw<K> } = {
  battery: () => ({
    width: 80,
    height: 40,
    terminals: [
      { pin: 'plus', x: 10, side: 'SOUTH' },
      { pin: 'minus', x: 70, side: 'SOUTH' },
    ],
    strokes: [
      { path: 'M 10 40 V 16 H 36 M 36 2 V 30 M 44 9 V 23 M 44 16 H 70 V 40' },
      { text: '+', x: 24, y: 11, size: 11 },
      { text: '−', x: 50, y: 11, size: 11 },
    ],
  }),
  'charging-source': () => ({
    width: 80,
    height: 40,
    terminals: [
      { pin: 'plus', x: 10, side: 'SOUTH' },
      { pin: 'minus', x: 70, side: 'SOUTH' },
    ],
    strokes: [{ path: `M 10 40 V 16 H 26 M 54 16 H 70 V 40 ${circle(40, 16, 14)}` }, letter('G', 40, 20, 12)],
  }),
  fuse: () => inline('in', 'out', [{ path: 'M 15 0 V 50' }, { path: box(9, 12, 12, 26) }]),
  'fusible-link': () => inline('in', 'out', [{ path: 'M 15 0 V 12 q 10 6 0 13 q -10 6 0 13 V 50' }]),
  breaker: () =>
    inline('in', 'out', [stem(50, 16, 36), { path: 'M 15 16 L 4 36 M 12 33 l 6 6 M 18 33 l -6 6' }]),
  polyfuse: () =>
    inline('in', 'out', [
      { path: 'M 15 0 V 50' },
      { path: box(9, 12, 12, 26) },
      { path: 'M 1 36 H 6 L 26 12' },
    ]),
  wire: () => inline('a', 'b', [{ path: 'M 15 0 V 50' }]),
  connector: () =>
    inline(
      'a',
      'b',
      [{ path: 'M 15 0 V 18 M 15 26 V 40' }, { path: 'M 7 14 L 15 22 L 23 14 M 7 20 L 15 28 L 23 20' }],
      40,
    ),
  splice: () => inline('a', 'b', [{ path: circle(15, 5, 4), filled: true }], 10),
  ground: () =>
    ({
      width: 30,
      height: 34,
      terminals: [{ pin: 'lug', x: 15, side: 'NORTH' }],
      strokes: [{ path: 'M 15 0 V 16 M 2 16 H 28 M 7 22 H 23 M 11 28 H 19' }],
    }) satisfies PartSymbol,
  switch: drawSwitch,
  'key-contact': () =>
    inline('in', 'out', [
      stem(50, 16, 36),
      { path: OPEN, when: 'at-rest' },
      { path: CLOSED, when: 'moved' },
      { path: `${circle(-6, 26, 4)} M 3 26 H -2` },
    ]),
  relay: drawRelay,
  'latching-relay': drawRelay,
  solenoid: drawRelay,
  flasher: (part) => block(Object.keys(part.pins), (pin) => pin === '49', 'flasher'),
  'cut-off': (part) => block(Object.keys(part.pins), (pin) => pin === 'in', 'U <'),
  'module-output': (part) =>
    block(Object.keys(part.pins), (pin) => pin !== 'out' && pin !== 'minus', 'module'),
  lamp: () => roundLoad({ path: 'M 5 15 L 25 35 M 25 15 L 5 35' }),
  motor: () => roundLoad(letter('M', 15, 30, 14)),
  pump: () => roundLoad({ path: 'M 3 18 L 15 39 L 27 18' }),
  horn: () =>
    inline('plus', 'minus', [stem(50, 13, 37), { path: `${box(9, 13, 8, 24)} M 17 17 L 28 9 V 41 L 17 33` }]),
  heater: () =>
    inline('plus', 'minus', [
      stem(50, 9, 41),
      { path: `${box(8, 9, 14, 32)} M 8 17 H 22 M 8 25 H 22 M 8 33 H 22` },
    ]),
  module: () =>
    inline('plus', 'minus', [stem(50, 10, 40), { path: box(2, 10, 26, 30) }, letter('IC', 15, 29, 11)]),
  led: () =>
    inline('plus', 'minus', [
      stem(50, 15, 35),
      { path: 'M 5 15 H 25 L 15 34 Z M 5 35 H 25' },
      { path: 'M 26 22 l 7 -5 M 33 17 l -4 0 M 33 17 l -1 4 M 27 29 l 7 -5 M 34 24 l -4 0 M 34 24 l -1 4' },
    ]),
  resistor: () => inline('a', 'b', [stem(50, 9, 41), { path: box(9, 9, 12, 32) }]),
  socket: () =>
    inline('plus', 'minus', [
      stem(50, 12, 38),
      { path: 'M 15 12 a 13 13 0 0 1 0 26 M 15 12 V 38' },
      { path: 'M 15 25 H 22' },
    ]),
  diode: () => inline('anode', 'cathode', [stem(50, 15, 35), { path: 'M 5 15 H 25 L 15 34 Z M 5 35 H 25' }]),
};

export function symbolOf(part: CircuitPart): PartSymbol {
  return (DRAW[part.kind] as (one: CircuitPart) => PartSymbol)(part);
}
