/** Intents about what switches: a switch for a controller, a cut-off, something put into a way, a unit bypassed. */
import type { CircuitPart } from '../../format';
import { partMayBeOnSeconds } from '../../safety';
import { type Intent, Unanswered } from './intent';
import { earthOf, labelOf } from './pieces';

export const switchForController: Intent = {
  id: 'switch-for-controller',
  name: 'Put a switch in place of a controller',
  fields: [
    {
      id: 'unit',
      label: 'The controller',
      kind: 'part',
      fits: ({ kind }) => kind === 'module-output' || kind === 'relay',
    },
    {
      id: 'switch',
      label: 'The switch',
      kind: 'choice',
      choices: [
        ['momentary', 'springs back'],
        ['latching', 'stays where it is put'],
      ],
    },
    {
      id: 'fuse',
      label: 'Fuse before it',
      kind: 'number',
      unit: 'A',
      optional: true,
      hint: 'Left open where the old one stays and suits.',
    },
  ],
  make: (ask) => {
    const unit = ask.part('unit');
    const pins = unit.pins as Record<string, string>;
    const low = unit.kind === 'module-output' && unit.side === 'low';
    const [from, to] =
      unit.kind === 'module-output'
        ? low
          ? [pins.out, pins.minus]
          : [pins.plus, pins.out]
        : [pins['30'], pins['87']];
    if (!from || !to)
      throw new Unanswered('unit', `${unit.name} has no output that a switch could stand for.`);
    const fuseAmps = ask.number('fuse');
    const between = fuseAmps === null ? null : ask.fresh('n-');
    const parts: CircuitPart[] = [
      ...(between === null
        ? []
        : [
            {
              id: ask.fresh('NF'),
              kind: 'fuse',
              name: `Fuse in place of ${unit.name}`,
              pins: { in: from, out: between },
              ratingAmps: fuseAmps!,
            } satisfies CircuitPart,
          ]),
      {
        id: ask.fresh('NS'),
        kind: 'switch',
        name: `Switch in place of ${unit.name}`,
        pins: { in: between ?? from, out: to },
        positions: ['off', 'on'],
        rest: 'off',
        ...(ask.choice('switch') === 'momentary' ? { momentary: true } : {}),
        contacts: [{ from: 'in', to: 'out', closedIn: ['on'] }],
      },
    ];
    const fed = ask.circuit.parts.filter(
      (part) => Object.values(part.pins as Record<string, string>).includes(to) && part !== unit,
    );
    const limited = fed
      .map((part) => partMayBeOnSeconds(ask.circuit, part))
      .find((seconds) => seconds !== null);
    return {
      edits: [
        { kind: 'take-out', id: ask.fresh('out-'), part: unit.id, kept: true },
        {
          kind: 'add',
          id: ask.fresh('add-'),
          nodes:
            between === null
              ? []
              : [{ id: between, name: `Between fuse and switch in place of ${unit.name}` }],
          parts,
        },
        labelOf(
          ask,
          unit.name,
          'Disabled, a switch stands for it. Kept: it can be put back. Why it failed is open.',
        ),
      ],
      goals: [],
      worked:
        limited === undefined || limited === null
          ? []
          : [
              `What hangs on it may be on for ${limited} s at a time: only a switch that springs back, and somebody who watches.`,
            ],
    };
  },
};

/** Points are kept: a part goes between a pin and the point it is at. */
export const insertPart: Intent = {
  id: 'insert',
  name: 'Put something into a way',
  fields: [
    {
      id: 'part',
      label: 'Before which part',
      kind: 'part',
      fits: ({ kind, pins }) => kind !== 'battery' && ('plus' in pins || 'a' in pins || 'in' in pins),
    },
    {
      id: 'what',
      label: 'What',
      kind: 'choice',
      choices: [
        ['cut-off', 'voltage cut-off'],
        ['fuse', 'inline fuse'],
        ['switch', 'switch that stays'],
        ['button', 'switch that springs back'],
        ['diode', 'diode'],
      ],
    },
    {
      id: 'amps',
      label: 'Rated',
      kind: 'number',
      unit: 'A',
      optional: true,
      hint: 'Of a fuse it is its rating.',
    },
    {
      id: 'volts',
      label: 'Lets go below',
      kind: 'number',
      unit: 'V',
      optional: true,
      hint: 'Of a cut-off; typical 12.0 V.',
    },
  ],
  make: (ask) => {
    const part = ask.part('part');
    const pins = part.pins as Record<string, string>;
    const pin = 'plus' in pins ? 'plus' : 'in' in pins ? 'in' : 'a';
    const from = pins[pin]!;
    const node = ask.fresh('n-');
    const what = ask.choice('what');
    const amps = ask.number('amps');
    const carries = amps === null ? {} : { carriesAmps: amps };
    const made = ((): CircuitPart => {
      switch (what) {
        case 'fuse':
          if (amps === null) throw new Unanswered('amps', 'Rated: write the rating of the fuse in A.');
          return {
            id: ask.fresh('NF'),
            kind: 'fuse',
            name: `Inline fuse of ${part.name}`,
            pins: { in: from, out: node },
            ratingAmps: amps,
          };
        case 'diode':
          return {
            id: ask.fresh('ND'),
            kind: 'diode',
            name: `Diode before ${part.name}`,
            pins: { anode: from, cathode: node },
            ...carries,
          };
        case 'cut-off': {
          const volts = ask.number('volts');
          return {
            id: ask.fresh('NC'),
            kind: 'cut-off',
            name: `Voltage cut-off before ${part.name}`,
            pins: { in: from, out: node, minus: earthOf(ask.circuit) },
            ...(volts === null ? {} : { disconnectVolts: volts }),
            ...carries,
          };
        }
        default:
          return {
            id: ask.fresh('NS'),
            kind: 'switch',
            name: `Switch before ${part.name}`,
            pins: { in: from, out: node },
            positions: ['off', 'on'],
            rest: 'off',
            ...(what === 'button' ? { momentary: true } : {}),
            ...carries,
            contacts: [{ from: 'in', to: 'out', closedIn: ['on'] }],
          };
      }
    })();
    return {
      edits: [
        {
          kind: 'add',
          id: ask.fresh('add-'),
          nodes: [{ id: node, name: `${part.name}, behind ${made.name}`.slice(0, 160) }],
          parts: [made],
        },
        { kind: 'move', id: ask.fresh('move-'), part: part.id, pin, to: node },
      ],
      goals: [],
      worked: [],
    };
  },
};

export const bypassUnit: Intent = {
  id: 'bypass',
  name: 'Bypass a unit and reroute its negative',
  fields: [
    {
      id: 'unit',
      label: 'The unit',
      kind: 'part',
      fits: ({ kind }) =>
        kind === 'module-output' ||
        kind === 'module' ||
        kind === 'cut-off' ||
        kind === 'relay' ||
        kind === 'splice',
    },
    { id: 'one', label: 'Join', kind: 'point', hint: 'Where its feed came in.' },
    { id: 'other', label: 'with', kind: 'point', hint: 'Where it went out.' },
    { id: 'negative', label: 'What was earthed through it', kind: 'point', optional: true },
    { id: 'metres', label: 'Length of the new negative', kind: 'number', unit: 'm', optional: true },
    { id: 'mm2', label: 'Its size', kind: 'number', unit: 'mm²', optional: true },
  ],
  make: (ask) => {
    const unit = ask.part('unit');
    const [one, other] = [ask.point('one'), ask.point('other')];
    if (one === other) throw new Unanswered('other', 'with: another point than the first.');
    const negative = ask.said('negative') === '' ? null : ask.point('negative');
    const metres = ask.number('metres');
    const mm2 = ask.number('mm2');
    return {
      edits: [
        { kind: 'take-out', id: ask.fresh('out-'), part: unit.id, kept: true },
        {
          kind: 'join',
          id: ask.fresh('join-'),
          splice: ask.fresh('NJ'),
          name: `Bypass of ${unit.name}`,
          one,
          other,
          joint: 'crimped-sleeve',
        },
        ...(negative === null
          ? []
          : [
              {
                kind: 'add' as const,
                id: ask.fresh('add-'),
                nodes: [],
                parts: [
                  {
                    id: ask.fresh('NW'),
                    kind: 'wire' as const,
                    name: `Negative rerouted round ${unit.name}`,
                    pins: { a: negative, b: earthOf(ask.circuit) },
                    ...(metres === null ? {} : { lengthMetres: metres }),
                    ...(mm2 === null ? {} : { sizeMm2: mm2 }),
                  },
                ],
              },
            ]),
        labelOf(ask, unit.name, 'Bypassed; kept, and can be put back.'),
      ],
      goals: [],
      worked: [],
    };
  },
};
