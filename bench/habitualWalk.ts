/**
 * The habit that the product is measured against: fuses first, then relays, switches, the load, its earth, and
 * only then connectors and wires one by one, opening whatever is in the way.
 */

import { functionRuns, KINDS } from '../core/diagnosis';
import type { Fault } from '../core/faults';
import type { CircuitModel } from '../core/network';

const ORDER: readonly (readonly string[])[] = [
  ['fuse', 'fusible-link'],
  ['relay'],
  ['switch', 'key-contact'],
  ['lamp', 'motor', 'heater', 'module'],
  ['ground'],
  ['connector'],
  ['wire', 'splice'],
  ['battery', 'diode'],
];

/** Minutes of one habitual check of a kind of part, its place being open. */
const CHECK_MINUTES: Readonly<Record<string, number>> = {
  fuse: KINDS.continuity.minutes,
  'fusible-link': KINDS.continuity.minutes,
  relay: KINDS.substitute.minutes,
  switch: 2 * KINDS.volts.minutes,
  'key-contact': 2 * KINDS.volts.minutes,
  lamp: KINDS.continuity.minutes,
  motor: 2 * KINDS.volts.minutes,
  heater: 2 * KINDS.volts.minutes,
  module: 2 * KINDS.volts.minutes,
  ground: KINDS.volts.minutes,
  connector: 2 * KINDS.volts.minutes,
  wire: 2 * KINDS.volts.minutes,
  splice: 2 * KINDS.volts.minutes,
  battery: KINDS.volts.minutes,
  diode: KINDS.continuity.minutes,
};

/** Minutes and checks until the habit comes to the faulty part; all of them when it lies off the run. */
export function habitualWalk(
  model: CircuitModel,
  complaint: { function: string; condition: string },
  fault: Fault,
): { checks: number; minutes: number } {
  const runs = functionRuns(model, complaint.function, complaint.condition);
  const parts = [...new Set(runs.flatMap((run) => run.stations.map((station) => station.part)))];
  const minutesToOpen = new Map(model.circuit.places.map((place) => [place.id, place.minutesToOpen]));
  const nodePlace = new Map(model.circuit.nodes.map((node) => [node.id, node.access?.[0]?.place]));
  const opened = new Set<string>();
  let checks = 0;
  let minutes = 0;
  for (const kinds of ORDER) {
    for (const id of parts) {
      const part = model.network.parts.get(id)!;
      if (!kinds.includes(part.kind)) continue;
      // A wire is measured at both of its ends, which may lie behind two covers.
      const ends = Object.values(part.pins).map((node) => nodePlace.get(node as string));
      const places = part.place ? [part.place] : ends;
      for (const place of places) {
        if (place === undefined || opened.has(place)) continue;
        opened.add(place);
        minutes += minutesToOpen.get(place) ?? 0;
      }
      checks += 1;
      minutes += CHECK_MINUTES[part.kind] ?? 1;
      if (id === fault.part) return { checks, minutes };
    }
  }
  return { checks, minutes };
}
