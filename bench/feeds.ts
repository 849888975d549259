/** `npm run bench -- feeds`: a feed looked for on a hundred slots and ten circuits, as the worker does it. */
import { findFeeds, groupsOf, WHEN } from '../core/feed';
import type { CircuitFile, Slot } from '../core/format';
import { KEY_STATES, type SlotReading } from '../core/limits';
import { CircuitModel } from '../core/network';
import { DEMO_CIRCUITS, demoCircuit } from '../testing/circuits';
import { boxOf } from '../testing/panels';

const SLOTS = 100;
const CIRCUITS = 10;
const PANEL = 'seat-box';
const RUNS = 15;

/** A demo circuit under names of its own, but for battery and posts, its fuses in the next slots. */
function copy(index: number, takeSlot: () => string): CircuitFile {
  const circuit = demoCircuit(DEMO_CIRCUITS[index % 3]!);
  const battery = circuit.parts.find(({ kind }) => kind === 'battery')!;
  const kept = new Set<string>([circuit.reference, battery.id, ...(Object.values(battery.pins) as string[])]);
  const own = (id: string) => (kept.has(id) ? id : `${id}-${index}`);
  const places = new Map(circuit.places.map(({ id }) => [id, id]));
  return {
    ...circuit,
    id: `${circuit.id}-${index}`,
    nodes: circuit.nodes.map((node) => ({ ...node, id: own(node.id) })),
    functions: circuit.functions.map((one) => ({ ...one, id: own(one.id), load: own(one.load) })),
    conditions: [{ id: 'run', name: 'Run', key: 'run' }],
    parts: circuit.parts.map((part) => {
      const pins = Object.fromEntries(
        Object.entries(part.pins).map(([pin, node]) => [pin, own(node as string)]),
      );
      const { slot: _slot, ...rest } = part;
      const sits = part.kind === 'fuse' ? { slot: { panel: PANEL, slot: takeSlot() } } : {};
      return { ...rest, ...sits, id: own(part.id), pins } as CircuitFile['parts'][number];
    }),
    places: circuit.places.filter(({ id }) => places.has(id)),
  };
}

const median = (values: readonly number[]) =>
  [...values].sort((x, y) => x - y)[Math.floor(values.length / 2)]!;

export function benchFeeds(): void {
  let slot = 0;
  const takeSlot = () => `fuse-${++slot}`;
  const circuits = Array.from({ length: CIRCUITS }, (_, index) => copy(index, takeSlot));
  const { panels } = boxOf(SLOTS, 10);
  // Half of the slots were read in every state.
  const readings: SlotReading[] = panels[0]!.slots.flatMap((one: Slot, index) =>
    index % 2 === 0
      ? []
      : KEY_STATES.slice(0, 6).map((state) => ({
          id: `${one.id} ${state}`,
          panel: PANEL,
          slot: one.id,
          end: 'feed' as const,
          value: { lamp: state === 'off' ? ('off' as const) : ('lit' as const) },
          state,
          fuseOut: false,
          testerProved: true,
        })),
  );
  const groups = groupsOf(circuits);
  const asks = WHEN.map(({ wanted }) => ({
    amps: 5,
    startAmps: null,
    purpose: 'bench',
    wanted,
    place: 'cool' as const,
    duty: 'for-good' as const,
    taps: ['mini' as const],
  }));
  const first: number[] = [];
  const again: number[] = [];
  let found = 0;
  for (let run = 0; run < RUNS; run++) {
    const started = performance.now();
    const models = groups.map(([file]) => new CircuitModel(file!));
    const scene = { panels, readings, models, nominalVolts: 12, said: {} };
    found = findFeeds(scene, asks[0]!).length;
    first.push(performance.now() - started);
    const then = performance.now();
    findFeeds(scene, asks[run % asks.length]!);
    again.push(performance.now() - then);
  }
  console.log(
    `feeds: ${found} slots, ${groups.length} circuits of ${circuits.reduce((sum, one) => sum + one.parts.length, 0)} parts: ` +
      `first question ${median(first).toFixed(0)} ms (median of ${RUNS}, models made), another ${median(again).toFixed(0)} ms; wanted: 200 ms`,
  );
}
