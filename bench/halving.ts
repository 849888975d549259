/**
 * Halving by voltage: the other habit that the product is measured against. Volts in the middle of the run; live,
 * and the fault lies towards earth; dead, and it lies towards the battery; until one part is left. A relay that is
 * left has its control run halved in turn. It knows no back-feed, no resistance and no shared earth.
 */

import { functionRuns, KINDS, type Run } from '../core/diagnosis';
import type { ReadingValue, TestRef } from '../core/format';
import type { CircuitModel } from '../core/network';

/** Share of the supply from which a probe says "live". */
const LIVE = 0.75;

export interface Halved {
  readonly part: string | null;
  readonly tests: number;
  readonly minutes: number;
}

/** Walks one complaint by halving; `read` gives what the meter shows. */
export function halveByVoltage(
  model: CircuitModel,
  complaint: { function: string; condition: string },
  read: (ref: TestRef) => ReadingValue,
): Halved {
  const { circuit } = model;
  const runs = functionRuns(model, complaint.function, complaint.condition);
  const minutesToOpen = new Map(circuit.places.map((place) => [place.id, place.minutesToOpen]));
  const opened = new Set<string>();
  let tests = 0;
  let minutes = 0;
  const isLive = (node: string): boolean | null => {
    const access = circuit.nodes.find((one) => one.id === node)?.access ?? [];
    const cost = (place: string | null) =>
      place === null || opened.has(place) ? 0 : (minutesToOpen.get(place) ?? 0);
    const [best] = access.slice().sort((x, y) => cost(x.place) - cost(y.place));
    if (!best || node === circuit.reference) return null;
    tests += 1;
    minutes += (best.minutes ?? 0) + KINDS.volts.minutes + cost(best.place);
    if (best.place !== null) opened.add(best.place);
    const value = read({
      kind: 'volts',
      node,
      against: circuit.reference,
      condition: complaint.condition,
    });
    return 'volts' in value && value.volts > LIVE * circuit.nominalVolts;
  };
  const halve = (run: Run): string | null => {
    let low = 0;
    let high = run.stops.length - 1;
    while (high - low > 1) {
      const middle = Math.floor((low + high) / 2);
      // A stop that cannot be reached is passed over, towards the nearer end.
      let at = middle;
      let live = isLive(run.stops[at]!);
      for (let off = 1; live === null && off < high - low; off++) {
        at =
          [middle + off, middle - off].find(
            (one) =>
              one > low &&
              one < high &&
              one !== at &&
              circuit.nodes.some((node) => node.id === run.stops[one]),
          ) ?? -1;
        if (at < 0) break;
        live = isLive(run.stops[at]!);
      }
      if (live === null || at < 0) break;
      if (live) low = at;
      else high = at;
    }
    return run.stations[low]?.part ?? null;
  };
  let part = runs[0] ? halve(runs[0]) : null;
  for (const control of runs.slice(1)) {
    if (part !== control.id) continue;
    const found = halve(control);
    // Coil or contact: the relay itself when its control is whole.
    if (found !== null && found !== part) part = found;
    break;
  }
  return { part, tests, minutes };
}
