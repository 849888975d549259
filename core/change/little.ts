/** Where the vehicle has no circuit of it: what a change touches, as a circuit of a few parts; what is not known is listed. */
import type { CircuitFile, CircuitPart } from '../format';

/** What somebody says of it; figures in the units that stand in the names. */
export interface Touched {
  readonly nominalVolts: CircuitFile['nominalVolts'];
  /** What it is that is fed: "roof fan". */
  readonly load: string;
  /** How many, and what each draws; null where nobody knows. */
  readonly count: number;
  readonly amps: number | null;
  /** The fuse it hangs on, its rating and family. */
  readonly fuse: string;
  readonly fuseAmps: number | null;
  readonly family: Extract<CircuitPart, { kind: 'fuse' }>['family'] | null;
  /** What the supply before it may give, ampere, and who says so. */
  readonly supplyAmps: number | null;
  readonly supplySource: string;
  /** The wire that brings it, with what is at its ends. */
  readonly wire: string;
  readonly metres: number | null;
  readonly mm2: number | null;
  readonly endA: string;
  readonly endB: string;
  /** When the fuse is live. */
  readonly live: 'always' | 'accessory' | 'run';
}

export interface Little {
  readonly circuit: CircuitFile;
  readonly unknown: readonly string[];
}

export function littleCircuit(said: Touched, id: string): Little {
  const unknown: string[] = [];
  if (said.amps === null) unknown.push(`What ${said.load} draws is not known.`);
  if (said.fuseAmps === null) unknown.push(`The rating of ${said.fuse} is not known.`);
  if (said.supplyAmps === null)
    unknown.push(`What the supply before ${said.fuse} gives is not known, nor what else hangs on it.`);
  if (said.mm2 === null || said.metres === null) unknown.push(`Size or length of ${said.wire} is not known.`);
  unknown.push(
    'Other circuits of the vehicle are not drawn: what they share with this one is not looked at.',
  );
  const key = said.live !== 'always';
  const supply: CircuitPart[] =
    said.supplyAmps === null
      ? [{ id: 'SUP', kind: 'splice', name: 'Supply', pins: { in: 'bat-plus', out: key ? 'key-in' : 'bus' } }]
      : [
          {
            id: 'SUP',
            kind: 'breaker',
            name: `Supply limit${said.supplySource ? ` (${said.supplySource})` : ''}`.slice(0, 160),
            pins: { in: 'bat-plus', out: key ? 'key-in' : 'bus' },
            ratingAmps: said.supplyAmps,
            reset: 'manual',
          },
        ];
  const loads = Array.from(
    { length: said.count },
    (_, index): CircuitPart => ({
      id: `LD${index + 1}`,
      kind: 'module',
      name: said.count === 1 ? said.load : `${said.load} ${index + 1}`,
      pins: { plus: 'load', minus: 'bat-minus' },
      ...(said.amps === null ? {} : { amps: said.amps }),
    }),
  );
  const nodes = [
    ['bat-plus', 'Battery, plus post'],
    ['bat-minus', 'Battery, minus post'],
    ...(key ? [['key-in', 'Supply before the key']] : []),
    ['bus', 'Supply side of the slot'],
    ['fuse-out', said.endA || 'Load side of the slot'],
    ['load', said.endB || `Plus of ${said.load}`],
  ] as [string, string][];
  return {
    unknown,
    circuit: {
      format: 'every-trace/circuit',
      version: 1,
      id,
      name: `What the change touches: ${said.load}`.slice(0, 160),
      nominalVolts: said.nominalVolts,
      reference: 'bat-minus',
      places: [],
      nodes: nodes.map(([node, name]) => ({ id: node, name: name.slice(0, 160) })),
      conditions: [
        { id: 'off', name: 'Key off', key: 'off' },
        { id: 'run', name: 'Key at run', key: 'run' },
      ],
      functions: loads.map((load) => ({ id: `f-${load.id}`, name: load.name, load: load.id })),
      parts: [
        { id: 'BAT', kind: 'battery', name: 'Battery', pins: { plus: 'bat-plus', minus: 'bat-minus' } },
        ...supply,
        ...(key
          ? [
              {
                id: 'KEY',
                kind: 'key-contact',
                name: 'Key switch',
                pins: { in: 'key-in', out: 'bus' },
                closedIn: said.live === 'run' ? ['run'] : ['accessory', 'run'],
              } satisfies CircuitPart,
            ]
          : []),
        {
          id: 'FU',
          kind: 'fuse',
          name: said.fuse,
          pins: { in: 'bus', out: 'fuse-out' },
          ...(said.fuseAmps === null ? {} : { ratingAmps: said.fuseAmps }),
          ...(said.family ? { family: said.family } : {}),
        },
        {
          id: 'WI',
          kind: 'wire',
          name: said.wire,
          pins: { a: 'fuse-out', b: 'load' },
          ...(said.metres === null ? {} : { lengthMetres: said.metres }),
          ...(said.mm2 === null ? {} : { sizeMm2: said.mm2 }),
        },
        ...loads,
      ],
    },
  };
}
