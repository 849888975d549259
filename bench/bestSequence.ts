/**
 * The best possible sequence of tests on a small circuit, by dynamic programming over noise-free results, and the
 * engine's own sequence in the same world. Both stop when one repair group is left; neither confirms.
 */

import {
  candidateTests,
  type DiagnosisSession,
  type TakenReading,
  testId,
  type VoltsColumn,
} from '../core/diagnosis';
import type { ReadingValue, TestRef } from '../core/format';

/** A test with the result that each hypothesis gives it, noise-free. */
interface SureTest {
  readonly id: string;
  readonly ref: TestRef;
  readonly results: Int16Array;
  readonly accesses: readonly { readonly place: number; readonly minutes: number }[];
}

export interface SmallWorld {
  readonly hypotheses: readonly number[];
  readonly weight: Float64Array;
  readonly group: Int32Array;
  readonly tests: readonly SureTest[];
  readonly openMinutes: readonly number[];
  readonly places: readonly string[];
}

/** Kinds of test with sure results that disturb nothing. */
const PLAYED: readonly TestRef['kind'][] = ['volts', 'lamp', 'led', 'function', 'click', 'look'];

/** Predicted volts as classes that a meter tells apart: a gap of twice the error between them. */
function distinguishable(hypotheses: readonly number[], { mean, spread }: VoltsColumn): Int16Array {
  const order = hypotheses.map((h, i) => ({ h, i })).sort((x, y) => mean[x.h]! - mean[y.h]!);
  const results = new Int16Array(hypotheses.length);
  let current = 0;
  order.forEach(({ h, i }, rank) => {
    const before = order[rank - 1]?.h;
    if (before !== undefined) {
      const error = Math.hypot(Math.max(spread[h]!, 0.02), Math.max(spread[before]!, 0.02));
      if (mean[h]! - mean[before]! > 2 * error) current += 1;
    }
    results[i] = current;
  });
  return results;
}

/** Everything noise-free about a session: suspects that show the complaint, and what each test would show. */
export function smallWorld(session: DiagnosisSession, state: string): SmallWorld {
  const { predictions, complaint, model } = session;
  const asked: TestRef = { kind: 'function', ...complaint };
  const shown = predictions.of(testId(asked), asked);
  const stateIndex = ['works', 'weak', 'dead'].indexOf(state);
  const likeliest = (clean: Float32Array, h: number, outcomes: number) => {
    let best = 0;
    for (let k = 1; k < outcomes; k++) if (clean[h * outcomes + k]! > clean[h * outcomes + best]!) best = k;
    return best;
  };
  const { groups } = session.groups([]);
  const groupOf = new Map(groups.flatMap((group, g) => group.members.map((h) => [h, g] as const)));
  const hypotheses = [...session.hypotheses.keys()].filter((h) => {
    const one = session.hypotheses[h]!;
    return (
      one.faults.length > 0 &&
      one.lasting === null &&
      one.second === undefined &&
      likeliest(shown.clean, h, shown.outcomes) === stateIndex
    );
  });
  const places = model.circuit.places.map((place) => place.id);
  const tests = candidateTests(model, complaint).flatMap((test): SureTest[] => {
    const prediction = predictions.of(test.id, test.ref);
    if (!PLAYED.includes(test.ref.kind) || test.disturbs || test.id === testId(asked)) return [];
    if (!prediction.tells) return [];
    const results = prediction.volts
      ? distinguishable(hypotheses, prediction.volts)
      : Int16Array.from(hypotheses, (h) => likeliest(prediction.clean, h, prediction.outcomes));
    if (results.every((one) => one === results[0])) return [];
    const accesses = test.accesses.map((access) => ({
      place: access.place === null ? -1 : places.indexOf(access.place),
      minutes: access.minutes,
    }));
    return [{ id: test.id, ref: test.ref, results, accesses }];
  });
  const total = hypotheses.reduce((sum, h) => sum + session.hypotheses[h]!.prior, 0);
  return {
    hypotheses,
    weight: Float64Array.from(hypotheses, (h) => session.hypotheses[h]!.prior / total),
    group: Int32Array.from(hypotheses, (h) => groupOf.get(h)!),
    tests,
    openMinutes: model.circuit.places.map((place) => place.minutesToOpen),
    places,
  };
}

/** Suspects that every test and every repair treats alike, as one: the set that the search is over. */
function classes(world: SmallWorld): { weight: number[]; group: number[]; results: number[][] } {
  const byKey = new Map<string, number>();
  const weight: number[] = [];
  const group: number[] = [];
  const results: number[][] = [];
  world.hypotheses.forEach((_, i) => {
    const row = world.tests.map((test) => test.results[i]!);
    const key = `${world.group[i]} ${row.join(' ')}`;
    const known = byKey.get(key);
    if (known === undefined) {
      byKey.set(key, weight.push(world.weight[i]!) - 1);
      group.push(world.group[i]!);
      results.push(row);
    } else weight[known] = weight[known]! + world.weight[i]!;
  });
  return { weight, group, results };
}

/**
 * Expected minutes of the best possible sequence, or null when the search needs more than `limit` states. What no
 * test separates ends a branch at no cost, for both sides.
 */
export function bestExpectedMinutes(world: SmallWorld, limit = 400_000): number | null {
  const { weight, group, results } = classes(world);
  const count = weight.length;
  if (count > 62) return null;
  const bits = Array.from({ length: count }, (_, i) => 1n << BigInt(i));
  const known = new Map<string, number>();
  let states = 0;
  const indices = (set: bigint) => [...weight.keys()].filter((i) => (set & bits[i]!) !== 0n);

  const solve = (set: bigint, opened: number): number => {
    const key = `${set.toString(36)}|${opened}`;
    const before = known.get(key);
    if (before !== undefined) return before;
    const members = indices(set);
    const first = group[members[0]!]!;
    if (members.every((i) => group[i] === first)) return 0;
    states += 1;
    if (states > limit) throw new Error('too many states');
    const mass = members.reduce((sum, i) => sum + weight[i]!, 0);
    // The same division from the same place is worth its cheapest test only.
    const seen = new Map<string, number>();
    const options: { parts: { set: bigint; mass: number }[]; minutes: number; opens: number }[] = [];
    world.tests.forEach((test, t) => {
      const parts = new Map<number, { set: bigint; mass: number }>();
      for (const i of members) {
        const result = results[i]![t]!;
        const part = parts.get(result) ?? { set: 0n, mass: 0 };
        part.set |= bits[i]!;
        part.mass += weight[i]!;
        parts.set(result, part);
      }
      if (parts.size < 2) return;
      const division = [...parts.values()]
        .map((part) => part.set.toString(36))
        .sort()
        .join(' ');
      for (const { place, minutes } of test.accesses) {
        const closed = place >= 0 && (opened & (1 << place)) === 0;
        const opens = closed ? opened | (1 << place) : opened;
        const cost = minutes + (closed ? world.openMinutes[place]! : 0);
        const same = `${division}|${opens}`;
        const cheapest = seen.get(same);
        if (cheapest !== undefined && cheapest <= cost) continue;
        seen.set(same, cost);
        options.push({ parts: [...parts.values()], minutes: cost, opens });
      }
    });
    let best = Number.POSITIVE_INFINITY;
    for (const option of options.sort((x, y) => x.minutes - y.minutes)) {
      if (option.minutes >= best) break;
      let expected = option.minutes;
      for (const part of option.parts) {
        expected += (part.mass / mass) * solve(part.set, option.opens);
        if (expected >= best) break;
      }
      best = Math.min(best, expected);
    }
    const found = options.length === 0 ? 0 : best;
    known.set(key, found);
    return found;
  };
  try {
    return solve(
      bits.reduce((all, bit) => all | bit, 0n),
      0,
    );
  } catch {
    return null;
  }
}

/** Expected minutes of the engine's own proposals in the same world, by playing every suspect once. */
export function engineExpectedMinutes(session: DiagnosisSession, world: SmallWorld, state: string): number {
  const asked: TestRef = { kind: 'function', ...session.complaint };
  const byId = new Map(world.tests.map((test) => [test.id, test]));
  let expected = 0;
  // Suspects that answer alike are played once: the sequence up to there is the same.
  const walk = (members: readonly number[], readings: TakenReading[], opened: readonly string[]): void => {
    const groups = new Set(members.map((i) => world.group[i]));
    if (groups.size < 2) return;
    const assessment = session.assess({ readings, refused: refusedOf(session, byId), opened });
    const useful = [...assessment.next]
      .map((one) => ({ one, test: byId.get(one.id) }))
      .find(({ test }) => test && members.some((i) => test.results[i] !== test.results[members[0]!]));
    const chosen = useful ?? cheapestUseful(world, members, opened);
    if (!chosen?.test) return;
    const { test } = chosen;
    const place = chosen.one.place;
    const mass = members.reduce((sum, i) => sum + world.weight[i]!, 0);
    expected += mass * chosen.one.minutes;
    const results = new Map<number, number[]>();
    for (const i of members) results.set(test.results[i]!, [...(results.get(test.results[i]!) ?? []), i]);
    for (const part of results.values()) {
      const reading: TakenReading = {
        id: `r${readings.length}`,
        test: test.ref,
        value: shownBy(session, world, test, part[0]!),
      };
      walk(part, [...readings, reading], place && !opened.includes(place) ? [...opened, place] : opened);
    }
  };
  const start: TakenReading = { id: 'complaint', test: asked, value: { state: state as 'dead' } };
  walk([...world.hypotheses.keys()], [start], []);
  return expected;
}

/** Tests that the best sequence may not use either: those that disturb. */
function refusedOf(session: DiagnosisSession, allowed: ReadonlyMap<string, SureTest>): string[] {
  return candidateTests(session.model, session.complaint)
    .map((test) => test.id)
    .filter((id) => !allowed.has(id));
}

function cheapestUseful(world: SmallWorld, members: readonly number[], opened: readonly string[]) {
  const options = world.tests
    .filter((test) => members.some((i) => test.results[i] !== test.results[members[0]!]))
    .flatMap((test) =>
      test.accesses.map((access) => {
        const place = access.place < 0 ? null : world.places[access.place]!;
        const open = place === null || opened.includes(place) ? 0 : world.openMinutes[access.place]!;
        return { test, one: { place, minutes: access.minutes + open } };
      }),
    );
  return options.sort((x, y) => x.one.minutes - y.one.minutes)[0];
}

/** The noise-free value that a suspect gives. */
function shownBy(session: DiagnosisSession, world: SmallWorld, test: SureTest, i: number): ReadingValue {
  const prediction = session.predictions.of(test.id, test.ref);
  const h = world.hypotheses[i]!;
  if (prediction.volts) return { volts: Math.round(prediction.volts.mean[h]! * 100) / 100 };
  const word = test.results[i]!;
  switch (test.ref.kind) {
    case 'lamp':
    case 'led':
      return { lamp: (['lit', 'dim', 'off'] as const)[word]! };
    case 'click':
      return { click: (['clicks', 'silent'] as const)[word]! };
    case 'look':
      return { look: (['whole', 'broken'] as const)[word]! };
    case 'function':
      return { state: (['works', 'weak', 'dead'] as const)[word]! };
    default:
      throw new Error(`${test.ref.kind} is not played here.`);
  }
}
