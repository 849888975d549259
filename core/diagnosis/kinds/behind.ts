/** What is taken apart behind a fuse or relay to find out where a short is. */

import { partsBehind } from '../../circuit';
import { type Fault, faultAlteration } from '../../faults';
import type { CircuitFile, CircuitPart } from '../../format';
import { withoutPart } from '../../hands';
import { type Alteration, type CircuitModel, combineAlterations } from '../../network';
import type { Access, Names } from './kind';

/** Plugs and loads behind a fuse or relay: what may be taken apart to find out where a short is. */
function apartBehind(model: CircuitModel, fuse: string): readonly CircuitPart[] {
  return partsBehind(model.circuit, fuse).filter(
    (part) => part.kind === 'connector' || model.network.loads.has(part.id),
  );
}

/** More loads than these nobody takes apart at once. */
const MOST_LOADS = 4;

/** Loads behind a fuse or relay. */
function loadsBehind(model: CircuitModel, fuse: string): readonly CircuitPart[] {
  return partsBehind(model.circuit, fuse).filter((part) => model.network.loads.has(part.id));
}

/** What a test behind a fuse or relay has apart: one plug or load, every load, or nothing. */
export interface Apart {
  readonly part: string;
  readonly unplugged?: string;
  readonly apart?: 'loads';
}

/** Every way of having something apart behind a fuse or relay, nothing apart not among them. */
export function waysApart(model: CircuitModel, fuse: string): readonly Omit<Apart, 'part'>[] {
  const single = apartBehind(model, fuse).map(({ id }) => ({ unplugged: id }));
  const loads = loadsBehind(model, fuse);
  return loads.length > 1 && loads.length <= MOST_LOADS ? [...single, { apart: 'loads' as const }] : single;
}

/** Fuses of the run: those in whose place a lamp would be. */
export function fusesConcerned(
  { parts }: Pick<CircuitFile, 'parts'>,
  concerned: (part: string) => boolean,
): readonly CircuitPart[] {
  return parts.filter((part) => part.kind === 'fuse' && concerned(part.id));
}

/** Ids of what is apart. */
export function apartOf(model: CircuitModel, { part, unplugged, apart }: Apart): readonly string[] {
  if (apart === 'loads') return loadsBehind(model, part).map(({ id }) => id);
  return unplugged === undefined ? [] : [unplugged];
}

/**
 * Where it is done: at what comes apart, so many minutes for each, or at the fuse itself. A second cover that something
 * lies behind is opened as well.
 */
export function apartAccess(
  model: CircuitModel,
  apart: Apart,
  lead: string,
  minutes: number,
  minutesEach: number,
): Access {
  const { circuit, network } = model;
  const ids = apartOf(model, apart);
  const [first, ...others] = [...new Set(ids.flatMap((id) => network.parts.get(id)?.place ?? []))];
  const opening = others.reduce(
    (sum, id) => sum + (circuit.places.find((place) => place.id === id)?.minutesToOpen ?? 0),
    0,
  );
  const place = first ?? network.parts.get(apart.part)?.place ?? null;
  return { place, lead, minutes: minutes + ids.length * minutesEach + opening };
}

/** "Unplug the heater and the lamp."; nothing where nothing comes apart. */
export function apartSteps(names: Names, { part, unplugged, apart }: Apart): string[] {
  if (apart === 'loads') return [`Unplug every load behind ${names.part(part)}.`];
  return unplugged ? [`Unplug ${names.part(unplugged)}.`] : [];
}

/** "the heater", "every load behind fuse 4"; null where nothing comes apart. */
export function apartWords(names: Names, { part, unplugged, apart }: Apart): string | null {
  if (apart === 'loads') return `every load behind ${names.part(part)}`;
  return unplugged ? names.part(unplugged) : null;
}

/**
 * The circuit with its faults, which together make `altered`, and plugs or loads apart; a load that is apart takes its
 * own short with it.
 */
export function withApart(
  model: CircuitModel,
  faults: readonly Fault[],
  altered: Alteration,
  apart: readonly string[],
): Alteration {
  if (apart.length === 0) return altered;
  const left = faults.filter(({ part, mode }) => mode !== 'shorted' || !apart.includes(part));
  return combineAlterations(
    ...(left.length === faults.length
      ? [altered]
      : left.map((fault) => faultAlteration(model.network, fault))),
    ...apart.map((part) => withoutPart(model.network, part)),
  );
}
