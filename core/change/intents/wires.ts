/** Intents about wires: out of the loom, to another cavity. */
import type { CircuitPart } from '../../format';
import type { Intent } from './intent';
import { labelOf } from './pieces';

/** Leftovers: a wire that nothing needs, with both its ends. */
export const takeOutWire: Intent = {
  id: 'take-out-wire',
  name: 'Take a dead wire out',
  fields: [
    { id: 'wire', label: 'The wire', kind: 'part', fits: ({ kind }) => kind === 'wire' },
    {
      id: 'how',
      label: 'How',
      kind: 'choice',
      choices: [
        ['out', 'out of the loom'],
        ['stays', 'stays in the loom, both ends freed, capped and labelled'],
      ],
    },
  ],
  make: (ask) => {
    const wire = ask.part<'wire'>('wire');
    const stays = ask.choice('how') === 'stays';
    return {
      edits: [
        { kind: 'take-out', id: ask.fresh('out-'), part: wire.id, kept: false },
        ...(stays
          ? [
              labelOf(
                ask,
                `${wire.name}, end at ${ask.nameOf(wire.pins.a)}`,
                'Not used, capped at both ends.',
              ),
              labelOf(
                ask,
                `${wire.name}, end at ${ask.nameOf(wire.pins.b)}`,
                'Not used, capped at both ends.',
              ),
            ]
          : []),
      ],
      goals: [],
      worked: [],
    };
  },
};

/** Something that an earlier person left in the loom: written down as found, its ends unknown until they are read. */
export const leftover: Intent = {
  id: 'leftover',
  name: 'Write down a leftover wire',
  fields: [
    { id: 'name', label: 'What it looks like', kind: 'words', hint: 'thick red wire beside the water tank' },
    { id: 'colour', label: 'Colour, base/tracer', kind: 'words', optional: true },
    { id: 'a', label: 'One end is found at', kind: 'words' },
    {
      id: 'b',
      label: 'The other end is found at',
      kind: 'words',
      optional: true,
      hint: 'Open: not found yet, and owed.',
    },
  ],
  make: (ask) => {
    const name = ask.words('name').slice(0, 160);
    const [a, b] = [ask.words('a'), ask.said('b')];
    const [one, other] = [ask.fresh('n-'), ask.fresh('n-')];
    const colour = ask.said('colour').slice(0, 20);
    return {
      edits: [
        {
          kind: 'add',
          id: ask.fresh('add-'),
          nodes: [
            { id: one, name: `${name}, end at ${a}`.slice(0, 160) },
            { id: other, name: `${name}, ${b ? `end at ${b}` : 'end not found yet'}`.slice(0, 160) },
          ],
          parts: [
            {
              id: ask.fresh('NW'),
              kind: 'wire',
              name,
              pins: { a: one, b: other },
              state: 'unknown',
              endA: a.slice(0, 200),
              endB: (b || 'not found yet').slice(0, 200),
              ...(colour ? { colour } : {}),
            },
          ],
        },
      ],
      goals: [],
      worked: [],
    };
  },
};

export const takeOutPart: Intent = {
  id: 'take-out-part',
  name: 'Take a part out, or disable it',
  fields: [
    {
      id: 'part',
      label: 'The part',
      kind: 'part',
      fits: ({ kind }) => kind !== 'battery' && kind !== 'wire',
    },
    {
      id: 'how',
      label: 'How',
      kind: 'choice',
      choices: [
        ['kept', 'unplugged or pulled, kept so that it can go back'],
        ['out', 'out for good'],
      ],
    },
  ],
  make: (ask) => {
    const part = ask.part('part');
    const kept = ask.choice('how') === 'kept';
    return {
      edits: [
        { kind: 'take-out', id: ask.fresh('out-'), part: part.id, kept },
        ...(kept
          ? [labelOf(ask, part.name, 'Disabled, kept: not to be put back without a look at the plan.')]
          : []),
      ],
      goals: [],
      worked: [],
    };
  },
};

/** Where a pin of a part goes, for the list of ends. */
const ENDS = [
  ['a', 'end a'],
  ['b', 'end b'],
] as const;

export const moveWire: Intent = {
  id: 'move-wire',
  name: 'Move a wire to another cavity',
  fields: [
    { id: 'wire', label: 'The wire', kind: 'part', fits: ({ kind }) => kind === 'wire' },
    { id: 'end', label: 'Which of its ends', kind: 'choice', choices: ENDS },
    { id: 'to', label: 'To', kind: 'point' },
  ],
  make: (ask) => {
    const wire = ask.part<'wire'>('wire');
    const end = ask.choice('end');
    const from = (wire.pins as Record<string, string>)[end]!;
    const to = ask.point('to');
    return {
      edits: [
        { kind: 'move', id: ask.fresh('move-'), part: wire.id, pin: end, to },
        labelOf(ask, wire.name, `Moved from ${ask.nameOf(from)} to ${ask.nameOf(to)}.`),
      ],
      goals: [],
      worked: [],
    };
  },
};

export const joinPoints: Intent = {
  id: 'join',
  name: 'Join two points',
  fields: [
    { id: 'one', label: 'One', kind: 'point' },
    { id: 'other', label: 'With', kind: 'point' },
    {
      id: 'joint',
      label: 'Joint',
      kind: 'choice',
      choices: [
        ['crimped-sleeve', 'crimped sleeve, sealed'],
        ['solder-sleeve', 'solder sleeve'],
        ['soldered', 'soldered and supported'],
        ['screwed', 'screwed terminal'],
      ],
    },
  ],
  make: (ask) => ({
    edits: [
      {
        kind: 'join',
        id: ask.fresh('join-'),
        splice: ask.fresh('NJ'),
        name: `Joint of ${ask.nameOf(ask.point('one'))} and ${ask.nameOf(ask.point('other'))}`.slice(0, 160),
        one: ask.point('one'),
        other: ask.point('other'),
        joint: ask.choice('joint') as 'crimped-sleeve',
      },
    ],
    goals: [],
    worked: [],
  }),
};

export const cutWire: Intent = {
  id: 'cut',
  name: 'Cut a wire',
  fields: [
    { id: 'wire', label: 'The wire', kind: 'part', fits: ({ kind }) => kind === 'wire' },
    {
      id: 'percent',
      label: 'At how much of its length from end a',
      kind: 'number',
      hint: 'percent, 50 is the middle',
      optional: true,
    },
  ],
  make: (ask) => {
    const wire = ask.part<'wire'>('wire');
    const percent = Math.min(99, ask.number('percent') ?? 50);
    return {
      edits: [
        {
          kind: 'cut',
          id: ask.fresh('cut-'),
          wire: wire.id,
          rest: ask.fresh(`${wire.id}-far`.slice(0, 70)),
          share: percent / 100,
          nodes: { a: ask.fresh(`${wire.id}-end`.slice(0, 70)), b: ask.fresh(`${wire.id}-end`.slice(0, 70)) },
          caps: { a: true, b: true },
        },
      ],
      goals: [],
      worked: [],
    };
  },
};

export const addWire: Intent = {
  id: 'add-wire',
  name: 'Add a wire',
  fields: [
    { id: 'from', label: 'From', kind: 'point' },
    { id: 'to', label: 'To', kind: 'point' },
    { id: 'metres', label: 'Length', kind: 'number', unit: 'm' },
    { id: 'mm2', label: 'Size', kind: 'number', unit: 'mm²' },
    { id: 'colour', label: 'Colour, base/tracer', kind: 'words', optional: true },
    {
      id: 'lies',
      label: 'It lies',
      kind: 'choice',
      choices: [
        ['free', 'free'],
        ['bundled', 'in a bundle or in heat'],
        ['sheathed', 'sheathed all the way'],
      ],
    },
    { id: 'through', label: 'Through which bulkhead or floor', kind: 'words', optional: true },
  ],
  make: (ask) => {
    const [from, to] = [ask.point('from'), ask.point('to')];
    const lies = ask.choice('lies');
    const [colour, through] = [ask.said('colour'), ask.said('through')];
    const part: CircuitPart = {
      id: ask.fresh('NW'),
      kind: 'wire',
      name: `Wire from ${ask.nameOf(from)} to ${ask.nameOf(to)}`.slice(0, 160),
      pins: { a: from, b: to },
      lengthMetres: ask.number('metres')!,
      sizeMm2: ask.number('mm2')!,
      ...(colour ? { colour: colour.slice(0, 20) } : {}),
      ...(through ? { through } : {}),
      ...(lies === 'bundled' ? { bundled: true } : lies === 'sheathed' ? { sheathed: true } : {}),
    };
    return {
      edits: [{ kind: 'add', id: ask.fresh('add-'), nodes: [], parts: [part] }],
      goals: [],
      worked: [],
    };
  },
};
