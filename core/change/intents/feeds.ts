/** Intents about where something is fed from. */
import type { CircuitPart, PartOf } from '../../format';
import { figure } from '../../sizing';
import { type Intent, type IntentField, Unanswered } from './intent';
import {
  ampsOf,
  earthOf,
  FEED_FUSE,
  fusesBefore,
  goalFor,
  labelOf,
  METRES,
  newWire,
  SIZE,
  sized,
  THROUGH,
  tapOf,
  WHEN_LIVE,
} from './pieces';

const ADDED_AMPS: IntentField = {
  id: 'amps',
  label: 'What hangs on it draws',
  kind: 'number',
  unit: 'A',
  hint: 'All of it at once.',
};

/** Something live from one feed is to be live from another, only when the key says so. */
export const liveWithKey: Intent = {
  id: 'live-with-key',
  name: 'Make this live only with the key',
  fields: [
    {
      id: 'wire',
      label: 'The wire that brings its feed now',
      kind: 'part',
      hint: 'Both its ends are freed; the new wire goes to its far end.',
      fits: (part, circuit) =>
        part.kind === 'wire' &&
        (fusesBefore(circuit, part.pins.a).length > 0 || fusesBefore(circuit, part.pins.b).length > 0),
    },
    FEED_FUSE,
    WHEN_LIVE,
    ADDED_AMPS,
    METRES,
    SIZE,
    THROUGH,
  ],
  make: (ask) => {
    const wire = ask.part<'wire'>('wire');
    const fuse = ask.part<'fuse'>('feed');
    const { circuit } = ask;
    // Without the wire one of its ends still has the old fuse before it; the other is where the new feed goes.
    const without = { ...circuit, parts: circuit.parts.filter((part) => part !== wire) };
    const [a, b] = [fusesBefore(without, wire.pins.a), fusesBefore(without, wire.pins.b)];
    if (a.length > 0 && b.length > 0)
      throw new Unanswered(
        'wire',
        `${wire.name} has a fuse at both its ends: say which feed is to go, edit by edit.`,
      );
    const [old] = [...a, ...b];
    if (!old) throw new Unanswered('wire', `No fuse stands before ${wire.name}.`);
    if (old.id === fuse.id) throw new Unanswered('feed', 'That is the feed it has now.');
    const target = a.length > 0 ? wire.pins.b : wire.pins.a;
    const of = ask.nameOf(target);
    const size = sized(ask, ask.number('amps')!, 'module', false);
    const tap = tapOf(ask, fuse, size.fuseAmps, `Added fuse for ${of}`);
    return {
      edits: [
        { kind: 'take-out', id: ask.fresh('out-'), part: old.id, kept: true },
        { kind: 'take-out', id: ask.fresh('out-'), part: wire.id, kept: false },
        tap.edit,
        {
          kind: 'add',
          id: ask.fresh('add-'),
          nodes: [],
          parts: [newWire(ask, tap.lead, target, size, `New feed of ${of}`)],
        },
        labelOf(ask, old.name, `Out. ${of} is fed from the slot of ${fuse.name} now: do not refit.`),
      ],
      goals: [goalFor(ask, target)],
      worked: size.worked,
    };
  },
};

const LOADS: IntentField = {
  id: 'kind',
  label: 'What it is',
  kind: 'choice',
  choices: [
    ['module', 'electronics'],
    ['lamp', 'lamp'],
    ['led', 'LED lamp'],
    ['motor', 'motor, fan'],
    ['pump', 'pump'],
    ['heater', 'heater, plate'],
  ],
};
const SWITCHED: IntentField = {
  id: 'switch',
  label: 'Its switch',
  kind: 'choice',
  choices: [
    ['none', 'none, on with its feed'],
    ['latching', 'stays where it is put'],
    ['momentary', 'springs back'],
  ],
};
const LOAD_FIELDS: readonly IntentField[] = [
  { id: 'name', label: 'What is to be fed', kind: 'words' },
  LOADS,
  { id: 'amps', label: 'It draws', kind: 'number', unit: 'A', optional: true },
  { id: 'watts', label: 'or', kind: 'number', unit: 'W', optional: true },
  {
    id: 'seconds',
    label: 'On at most',
    kind: 'number',
    unit: 's',
    optional: true,
    hint: 'Only for what its maker lets run for seconds.',
  },
  SWITCHED,
];

/** The load with its switch, wire and return, behind a point that is live. */
function loadBehind(
  ask: Parameters<Intent['make']>[0],
  from: string,
  amps: number,
  size: ReturnType<typeof sized>,
) {
  const name = ask.words('name');
  const seconds = ask.number('seconds');
  const id = ask.fresh('NL');
  const plus = ask.fresh('n-');
  const kind = ask.choice('switch');
  const switched = kind === 'none' ? null : ask.fresh('n-');
  const load = {
    id,
    kind: ask.choice('kind'),
    name,
    pins: { plus, minus: earthOf(ask.circuit) },
    amps,
    ...(seconds === null ? {} : { onSeconds: seconds }),
  } as CircuitPart;
  const parts: CircuitPart[] = [
    ...(switched === null
      ? []
      : [
          {
            id: ask.fresh('NS'),
            kind: 'switch',
            name: `Switch of ${name}`,
            pins: { in: from, out: switched },
            positions: ['off', 'on'],
            rest: 'off',
            ...(kind === 'momentary' ? { momentary: true } : {}),
            contacts: [{ from: 'in', to: 'out', closedIn: ['on'] }],
          } satisfies CircuitPart,
        ]),
    newWire(ask, switched ?? from, plus, size, `Feed of ${name}`),
    load,
  ];
  const of = ask.fresh('f-');
  return {
    edit: {
      kind: 'add' as const,
      id: ask.fresh('add-'),
      nodes: [
        ...(switched === null ? [] : [{ id: switched, name: `${name}, behind its switch` }]),
        { id: plus, name: `${name}, plus` },
      ],
      parts,
      functions: [{ id: of, name, load: id }],
    },
    of,
  };
}

/** A point that is there already: the wake lead of a controller, a switch that has no feed. */
export const feedPoint: Intent = {
  id: 'feed-point',
  name: 'Bring a feed to a point that is there',
  fields: [
    { id: 'to', label: 'The point', kind: 'point' },
    FEED_FUSE,
    WHEN_LIVE,
    ADDED_AMPS,
    METRES,
    SIZE,
    THROUGH,
  ],
  make: (ask) => {
    const to = ask.point('to');
    const fuse = ask.part<'fuse'>('feed');
    const of = ask.nameOf(to);
    const size = sized(ask, ask.number('amps')!, 'module', false);
    const tap = tapOf(ask, fuse, size.fuseAmps, `Added fuse for ${of}`);
    return {
      edits: [
        tap.edit,
        {
          kind: 'add',
          id: ask.fresh('add-'),
          nodes: [],
          parts: [newWire(ask, tap.lead, to, size, `New feed of ${of}`)],
        },
        labelOf(ask, fuse.name, `Tapped: ${of}, ${figure(size.fuseAmps, 'A')}.`),
      ],
      goals: [goalFor(ask, to)],
      worked: size.worked,
    };
  },
};

export const feedLoad: Intent = {
  id: 'feed-load',
  name: 'Feed something new',
  fields: [...LOAD_FIELDS, FEED_FUSE, WHEN_LIVE, METRES, SIZE, THROUGH],
  make: (ask) => {
    const fuse = ask.part<'fuse'>('feed');
    const amps = ampsOf(ask);
    const size = sized(ask, amps, ask.choice('kind') as CircuitPart['kind'], ask.number('seconds') !== null);
    const name = ask.words('name');
    const tap = tapOf(ask, fuse, size.fuseAmps, `Added fuse for ${name}`);
    const { edit, of } = loadBehind(ask, tap.lead, amps, size);
    return {
      edits: [tap.edit, edit, labelOf(ask, fuse.name, `Tapped: ${name}, ${figure(size.fuseAmps, 'A')}.`)],
      goals: [goalFor(ask, of)],
      worked: size.worked,
    };
  },
};

/** More current than a feed gives: the coil on the feed, the load through a fuse of its own beside the battery. */
export const relayLoad: Intent = {
  id: 'relay-load',
  name: 'Feed something heavy by a relay',
  fields: [...LOAD_FIELDS, { ...FEED_FUSE, label: 'Feed of the coil' }, WHEN_LIVE, METRES, SIZE, THROUGH],
  make: (ask) => {
    const fuse = ask.part<'fuse'>('feed');
    const battery = ask.circuit.parts.find((part): part is PartOf<'battery'> => part.kind === 'battery');
    if (!battery) throw new Unanswered('feed', 'There is no battery in this circuit.');
    const amps = ampsOf(ask);
    const short = ask.number('seconds') !== null;
    const size = sized(ask, amps, ask.choice('kind') as CircuitPart['kind'], short);
    const name = ask.words('name');
    const [p, q, out] = [ask.fresh('n-'), ask.fresh('n-'), ask.fresh('n-')];
    const coil = tapOf(ask, fuse, 3, `Added fuse for the coil of ${name}`);
    const called = short || ask.choice('switch') !== 'none';
    const { edit, of } = loadBehind(ask, called ? coil.lead : out, amps, size);
    // With a switch it is the coil that is switched: the wire of the load starts at the contact.
    const parts = edit.parts.map((part) =>
      called && part.kind === 'wire' ? { ...part, pins: { ...part.pins, a: out } } : part,
    );
    const switched = edit.parts.find((part) => part.kind === 'switch');
    const coilPlus = called && switched ? (switched.pins as Record<string, string>).out! : coil.lead;
    return {
      edits: [
        {
          kind: 'add',
          id: ask.fresh('add-'),
          nodes: [
            { id: p, name: `Fuse of ${name}, towards the battery` },
            { id: q, name: `Fuse of ${name}, towards the relay` },
            { id: out, name: `Relay of ${name}, 87` },
          ],
          parts: [
            {
              id: ask.fresh('NW'),
              kind: 'wire',
              name: `Lead from the battery to the fuse of ${name}`,
              pins: { a: battery.pins.plus, b: p },
              lengthMetres: 0.15,
              sizeMm2: size.mm2,
            },
            {
              id: ask.fresh('NF'),
              kind: 'fuse',
              name: `Fuse of ${name}`,
              pins: { in: p, out: q },
              ratingAmps: size.fuseAmps,
            },
          ],
        },
        coil.edit,
        { ...edit, parts },
        {
          kind: 'add',
          id: ask.fresh('add-'),
          nodes: [],
          parts: [
            {
              id: ask.fresh('NR'),
              kind: 'relay',
              name: `Relay of ${name}`,
              pins: { '30': q, '87': out, '86': coilPlus, '85': earthOf(ask.circuit) },
              contactRatingAmps: Math.max(30, size.fuseAmps),
            },
          ],
        },
        labelOf(ask, fuse.name, `Tapped: coil of ${name}, 3 A.`),
      ],
      goals: [goalFor(ask, of)],
      worked: [...size.worked, 'The coil of a small relay draws about 0.15 A.'],
    };
  },
};
