/**
 * Remarks on a circuit as it is written: what would burn, what can never be on, what is asked to stay on and must not.
 * Each says what would mend it; none keeps anybody from saving.
 */

import { PROTECTORS } from '../circuit';
import { largestCurrent } from '../faults';
import type { CircuitFile, CircuitPart } from '../format';
import { ampacity, sizeFor } from '../limits';
import { CircuitModel } from '../network';
import { mayBeOnSeconds } from './duty';

export interface Remark {
  /** The part or condition that it is about. */
  readonly about: string;
  readonly words: string;
  readonly mend: string;
}

/** What breaks a short. */
const PROTECTS: readonly CircuitPart['kind'][] = PROTECTORS;
/** What current passes through on its way to what uses it. */
const PASSES: readonly CircuitPart['kind'][] = [
  'wire',
  'connector',
  'splice',
  'switch',
  'key-contact',
  'relay',
  'latching-relay',
  'solenoid',
  'flasher',
  'cut-off',
  'module-output',
  'diode',
  'resistor',
];

export function remarksOn(circuit: CircuitFile): Remark[] {
  const model = new CircuitModel(circuit);
  return [...unfused(model), ...neverOn(model), ...tooThin(model), ...staysOn(model)];
}

/** Loads that the battery reaches without anything that breaks a short. */
function unfused({ circuit, network }: CircuitModel): Remark[] {
  const sources = circuit.parts.filter(({ kind }) => kind === 'battery' || kind === 'charging-source');
  const reached = new Set(sources.map(({ pins }) => (pins as { plus: string }).plus));
  for (const point of reached) {
    for (const part of circuit.parts) {
      if (!PASSES.includes(part.kind)) continue;
      for (const points of waysThrough(part))
        if (points.includes(point)) for (const next of points) reached.add(next);
    }
  }
  const guarded = new Set(circuit.parts.filter(({ kind }) => PROTECTS.includes(kind)).map(({ id }) => id));
  return circuit.parts.flatMap((part) => {
    if (!network.loads.has(part.id) || guarded.has(part.id)) return [];
    const { plus } = part.pins as { plus?: string };
    return plus !== undefined && reached.has(plus) && plus !== circuit.reference
      ? [
          {
            about: part.id,
            words: `${part.name} is reached from the battery without a fuse.`,
            mend: 'Put a fuse on its way, within 180 mm of the source, no larger than the smallest wire behind it carries.',
          },
        ]
      : [];
  });
}

/** Points that current passes between inside a part: a relay's coil and its contacts share none. */
function waysThrough(part: CircuitPart): string[][] {
  const pins = part.pins as Readonly<Record<string, string>>;
  if (part.kind !== 'relay') return [Object.values(pins)];
  const { 85: _one, 86: _other, ...contacts } = pins;
  return [Object.values(contacts)];
}

/** Functions that no condition has on, and conditions that switch something and have nothing on. */
function neverOn(model: CircuitModel): Remark[] {
  const { circuit, conditions } = model;
  const runs = (of: (typeof circuit.functions)[number], condition: string) => model.expectedOn(of, condition);
  const functions = circuit.functions
    .filter((one) => !conditions.some(({ id }) => runs(one, id)))
    .map(
      (one): Remark => ({
        about: one.id,
        words: `No condition has ${one.name} on, so it can never be traced.`,
        mend: 'Write a condition with key and switches as they stand when it works, or look for what is not joined on its way.',
      }),
    );
  const empty = conditions
    .filter(
      ({ id, switches }) =>
        Object.keys(switches ?? {}).length > 0 &&
        circuit.functions.length > 0 &&
        !circuit.functions.some((one) => runs(one, id)),
    )
    .map(
      ({ id, name }): Remark => ({
        about: id,
        words: `In “${name}” nothing is on, although something is switched.`,
        mend: 'Look at the key position it names, and at the ways of the switch in it.',
      }),
    );
  return [...functions, ...empty];
}

/** Wires that carry more than they may for good. */
function tooThin(model: CircuitModel): Remark[] {
  return model.circuit.parts.flatMap((part): Remark[] => {
    if (part.kind !== 'wire' || part.sizeMm2 === undefined) return [];
    const amps = largestCurrent(model, model.network.branchesOfPart.get(part.id) ?? []);
    const carries = ampacity(part.sizeMm2);
    if (amps <= carries) return [];
    const size = sizeFor(amps);
    return [
      {
        about: part.id,
        words: `${part.name} of ${part.sizeMm2} mm² carries ${amps.toFixed(1)} A here, and ${carries} A for good.`,
        mend: size
          ? `${size} mm² carries it in free air; bundled or hot it takes more.`
          : 'No single wire of the table carries it.',
      },
    ];
  });
}

/** Loads made for seconds on a switch that stays where it is put. */
function staysOn(model: CircuitModel): Remark[] {
  const { circuit, conditions } = model;
  return circuit.functions.flatMap((one): Remark[] => {
    const seconds = mayBeOnSeconds(circuit, one.id);
    if (seconds === null) return [];
    const set = conditions
      .filter(({ id }) => model.expectedOn(one, id))
      .flatMap(({ switches = {} }) => Object.entries(switches));
    const latching = circuit.parts.find(
      (part) =>
        part.kind === 'switch' &&
        part.momentary !== true &&
        set.some(([id, position]) => id === part.id && position !== part.rest),
    );
    return latching
      ? [
          {
            about: one.id,
            words: `${one.name} is made for ${seconds} s at a time, and ${latching.name} stays where it is put.`,
            mend: 'A push button, or a timer that ends it.',
          },
        ]
      : [];
  });
}

/** What a saved circuit has and a text of it has no more: functions and conditions that would go without a word. */
export function goneFrom(
  saved: Pick<CircuitFile, 'functions' | 'conditions'>,
  now: Pick<CircuitFile, 'functions' | 'conditions'>,
): Remark[] {
  const gone = (kind: 'function' | 'condition', before: readonly Named[], after: readonly Named[]) =>
    before
      .filter(({ id }) => !after.some((one) => one.id === id))
      .map(
        ({ id, name }): Remark => ({
          about: id,
          words: `The ${kind} “${name}” of the saved circuit is not in this text.`,
          mend: 'Write its line again, or let it go by saving.',
        }),
      );
  return [
    ...gone('function', saved.functions, now.functions),
    ...gone('condition', saved.conditions, now.conditions),
  ];
}

type Named = { readonly id: string; readonly name: string };
