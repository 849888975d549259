/**
 * Everything that could be wrong: single faults that would show as the complaint does, a short with the fuse it
 * blew, forms that come and go, the likeliest pairs, nothing, and what nobody drew.
 */

import {
  burns,
  type Fault,
  type FaultMode,
  faultAlteration,
  faultId,
  faultsOfPart,
  faultWords,
  OVERCURRENT_MODES,
  SHORT_MODES,
  withBlownFuses,
} from '../../faults';
import type { PartKind } from '../../format';
import { functionChances } from '../../limits';
import { type Alteration, type CircuitModel, combineAlterations, seenAmps, UNALTERED } from '../../network';
import { byAppliance, type TookFuses } from './appliance';
import type { Hypothesis, Weighted } from './hypothesis';
import { type PriorTable, priorWeight } from './priors';

export const NO_FAULT = 'none';
export const NOT_IN_MAP = 'not-in-map';
/** Chance before any reading that the fault lies in something nobody drew. */
const NOT_IN_MAP_PRIOR = 0.03;
/** Chance before any reading that nothing is wrong but the use of it. */
const NO_FAULT_PRIOR = 0.02;
/** Forms that come and go are met so often for each one that stays. */
const INTERMITTENT_SHARE = 0.15;
/** Parts that work loose. */
const LOOSE_KINDS: readonly PartKind[] = [
  'connector',
  'ground',
  'wire',
  'splice',
  'switch',
  'key-contact',
  'relay',
  'solenoid',
  'socket',
  'motor',
  'pump',
  'breaker',
  'lamp',
  'led',
  'horn',
  'heater',
  'module',
  'diode',
];
/** How they fail while they do. */
const LOOSE_FORMS: readonly FaultMode[] = ['open', 'contact-open', 'coil-open'];
/** So many of the likeliest faults are also supposed two at a time. */
const PAIRED = 8;
/** Two at once are met this much more rarely than chance has it: the first is complained of before the second comes. */
const PAIR_SHARE = 0.2;
/** Chances of a function's results must differ by so much from a sound circuit's for a fault to be a suspect. */
const SHOWS = 0.15;

export interface ComplaintScene {
  readonly function: string;
  readonly condition: string;
}

/** What would be repaired: a fault that blew a fuse has two remedies, and is a unit of its own. */
export function repairUnit(fault: Fault, blewFuse: boolean): string {
  if (blewFuse && fault.mode !== 'wrong-rating') return `short:${fault.part}`;
  // The legs of a splice go different ways; what cannot be told from one says nothing of the other.
  return fault.branch?.startsWith('leg:') ? `${fault.part}#${fault.branch}` : fault.part;
}

/** Whether a fault would show as the complaint does; without a complaint, whether it shows anywhere. */
function shower(model: CircuitModel, complaint: ComplaintScene | undefined) {
  if (!complaint) {
    const signature = (alteration: Alteration) =>
      model.conditions
        .map((condition) => {
          const point = model.solve(condition.id, alteration);
          return model.circuit.functions.map((one) => model.outcome(one, point)).join(' ');
        })
        .join('/');
    const sound = signature(UNALTERED);
    return (alteration: Alteration) => signature(alteration) !== sound;
  }
  const load = model.network.loads.get(model.function(complaint.function).load)!;
  const chances = (alteration: Alteration) => {
    const amps = seenAmps(model, complaint.condition, alteration, load.branch);
    const fraction = Math.abs(amps) / load.nominalAmps;
    return functionChances(fraction, load.weakBelow, load.deadBelow);
  };
  const sound = chances(UNALTERED);
  return (alteration: Alteration) => {
    const found = chances(alteration);
    return found.reduce((sum, chance, k) => sum + Math.abs(chance - sound[k]!), 0) / 2 > SHOWS;
  };
}

/** Single faults of one part that show, each with its weight. */
function faultsThatShow(
  model: CircuitModel,
  partId: string,
  shows: (alteration: Alteration) => boolean,
  table: PriorTable,
): Weighted[] {
  const part = model.network.parts.get(partId)!;
  const nameOf = (id: string) => model.network.parts.get(id)?.name ?? id;
  const kept = faultsOfPart(model, part).flatMap((fault): Omit<Weighted, 'weight'>[] => {
    const blown = OVERCURRENT_MODES.has(fault.mode) ? withBlownFuses(model, fault) : null;
    const alteration = blown?.alteration ?? faultAlteration(model.network, fault);
    if (!shows(alteration) || (!blown && SHORT_MODES.has(fault.mode) && burns(model, alteration))) return [];
    const fuses = blown?.fuses ?? [];
    const blowing = blown ? `, blowing ${fuses.map(nameOf).join(' and ')}` : '';
    return [
      {
        id: faultId(fault),
        faults: [fault, ...fuses.map((fuse): Fault => ({ part: fuse, mode: 'open' }))],
        unit: repairUnit(fault, blown !== null),
        parts: [part.id, ...fuses],
        alteration,
        blows: blown !== null && fault.mode !== 'wrong-rating',
        intermittent: false,
        lasting: null,
        words: `${part.name}: ${faultWords(part, fault)}${blowing}`,
      },
    ];
  });
  const perMode = new Map<FaultMode, number>();
  const modeOf = (one: Omit<Weighted, 'weight'>) => one.faults[0]!.mode;
  for (const one of kept) perMode.set(modeOf(one), (perMode.get(modeOf(one)) ?? 0) + 1);
  return kept.map((one) => ({
    ...one,
    weight: priorWeight(table, part.kind, modeOf(one)) / perMode.get(modeOf(one))!,
  }));
}

/** The same faults as they come and go; `lasting` points into the list given. */
function comingAndGoing(model: CircuitModel, lasting: readonly Weighted[]): Weighted[] {
  return lasting.flatMap((one, index): Weighted[] => {
    const [fault] = one.faults;
    const kind = model.network.parts.get(fault?.part ?? '')?.kind;
    if (!fault || !kind || !LOOSE_KINDS.includes(kind) || !LOOSE_FORMS.includes(fault.mode)) return [];
    return [
      {
        ...one,
        id: `${one.id}:comes-and-goes`,
        intermittent: true,
        lasting: index,
        words: `${one.words}, comes and goes`,
        weight: one.weight * INTERMITTENT_SHARE,
      },
    ];
  });
}

/** The likeliest faults two at a time. */
function pairs(lasting: readonly Weighted[], total: number): Weighted[] {
  const likely = lasting
    .filter((one) => !one.blows && one.alteration)
    .sort((x, y) => y.weight - x.weight || (x.id < y.id ? -1 : 1))
    .slice(0, PAIRED);
  return likely.flatMap((one, i) =>
    likely.slice(i + 1).flatMap((other): Weighted[] =>
      one.unit === other.unit
        ? []
        : [
            {
              id: `${one.id}+${other.id}`,
              faults: [...one.faults, ...other.faults],
              unit: one.unit,
              second: other.unit,
              parts: [...one.parts, ...other.parts],
              alteration: combineAlterations(one.alteration!, other.alteration!),
              blows: false,
              intermittent: false,
              lasting: null,
              words: `${one.words}; and ${other.words}`,
              weight: (PAIR_SHARE * one.weight * other.weight) / total,
            },
          ],
    ),
  );
}

/** Builds the list; faults that could not show as the complaint does are left out. */
export function buildHypotheses(
  model: CircuitModel,
  complaint?: ComplaintScene,
  table: PriorTable = {},
  took: TookFuses | null = null,
): Hypothesis[] {
  const gather = (shows: (alteration: Alteration) => boolean) =>
    model.circuit.parts.flatMap((part) => faultsThatShow(model, part.id, shows, table));
  const showing = gather(shower(model, complaint));
  // A complaint that no fault explains is kept open to all of them.
  const lasting = showing.length > 0 || !complaint ? showing : gather(shower(model, undefined));
  const singles = lasting.reduce((sum, one) => sum + one.weight, 0) || 1;
  const own = [...lasting, ...comingAndGoing(model, lasting), ...pairs(lasting, singles)];
  const weighted = complaint && took ? [...own, ...byAppliance(model, complaint, took, singles)] : own;
  const total = weighted.reduce((sum, one) => sum + one.weight, 0) || 1;
  const share = 1 - NOT_IN_MAP_PRIOR - NO_FAULT_PRIOR;
  const blank = { faults: [], parts: [], blows: false, intermittent: false, lasting: null };
  return [
    ...weighted.map(({ weight, ...hypothesis }) => ({
      ...hypothesis,
      prior: (weight / total) * share,
    })),
    {
      ...blank,
      id: NO_FAULT,
      unit: NO_FAULT,
      prior: NO_FAULT_PRIOR,
      alteration: UNALTERED,
      words: 'Nothing is wrong on the way: key or switch not where it was believed to be',
    },
    {
      ...blank,
      id: NOT_IN_MAP,
      unit: NOT_IN_MAP,
      prior: NOT_IN_MAP_PRIOR,
      alteration: null,
      words: 'Not in this map: a splice, feed or part that nobody drew',
    },
  ];
}
