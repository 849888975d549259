/** What flows in every part with the new load on, in every combination, against ngspice; and the worst that is found without looking at all. */
import { DEMO_CIRCUITS, demoCircuit } from '../../testing/circuits';
import { KIND_CIRCUITS } from '../../testing/kindCircuits';
import { runNgspice } from '../../testing/ngspice';
import { vehicleCircuit } from '../../testing/vehicleCircuit';
import type { CircuitFile } from '../format';
import { combinations, conditionOf, dialsOf } from '../live';
import { CircuitModel, spiceNetlist } from '../network';
import { presentIn } from './present';
import { carrying, conditionIn } from './simulated';

const ADDED_AMPS = 5;
const STATE = 'run' as const;
/** Combinations of one circuit that are compared. */
const MOST_ROWS = 32;

const CIRCUITS: readonly (readonly [string, CircuitFile])[] = [
  ...DEMO_CIRCUITS.map((name) => [name, demoCircuit(name)] as const),
  ...[...KIND_CIRCUITS].filter(([, circuit]) => circuit.parts.some(({ kind }) => kind === 'fuse')),
  ...Array.from({ length: 40 }, (_, k) => [`vehicle ${k + 1}`, vehicleCircuit(k + 1, 20 + k)] as const),
];

const switched = (circuit: CircuitFile) =>
  dialsOf(circuit).filter(({ id }) => id !== 'key' && id !== 'engine');

interface Case {
  readonly name: string;
  readonly row: string;
  readonly model: CircuitModel;
  readonly node: number;
  readonly ohms: number;
  readonly carriers: ReturnType<typeof carrying>;
  readonly present: Float64Array;
  readonly netlist: ReturnType<typeof spiceNetlist>;
}

/** Up to three feeds of a circuit, in every combination of its switches, with five ampere more on each. */
function casesOf(name: string, circuit: CircuitFile): Case[] {
  const model = new CircuitModel(circuit);
  const { network } = model;
  const rows = combinations(switched(circuit));
  if (rows.length > MOST_ROWS) return [];
  const points = [
    ...new Set(circuit.parts.flatMap((part) => (part.kind === 'fuse' ? [part.pins.in] : []))),
  ].slice(0, 3);
  const present = presentIn(model, [STATE]);
  return points.flatMap((point) => {
    const carriers = carrying(model, point, STATE, ADDED_AMPS);
    if (carriers.length === 0) return [];
    const node = network.nodeIndex.get(point)!;
    const ohms = circuit.nominalVolts / ADDED_AMPS;
    const alteration = { changes: [], bridges: [{ a: node, b: network.datum, ohms }] };
    return rows.map((row): Case => {
      const { switches, pluggedIn } = conditionOf(switched(circuit), row);
      const id = model.adopt({
        ...conditionIn(model, STATE),
        ...(switches ? { switches } : {}),
        ...(pluggedIn ? { pluggedIn } : {}),
      });
      const start = model.start(id, alteration);
      const netlist = spiceNetlist(network, model.condition(id), alteration, {
        ...(start ? { start } : {}),
        latches: model.solve(id, alteration).sensed,
      });
      return {
        name: `${name}, ${point}`,
        row: JSON.stringify(row),
        model,
        node,
        ohms,
        carriers,
        present: present.amps,
        netlist,
      };
    });
  });
}

test('present and added together are what ngspice finds in every part, at its worst and never less', () => {
  const cases = CIRCUITS.flatMap(([name, circuit]) => casesOf(name, circuit));
  const answers = runNgspice(cases.map(({ netlist }) => netlist.text));
  /** Largest share of what is said that flows in any combination, by feed and part. */
  const reached = new Map<string, number>();
  const wrong: string[] = [];
  let compared = 0;
  cases.forEach((one, index) => {
    const answer = answers[index];
    if (!answer) return;
    const volts = (node: number) =>
      node === one.model.network.datum ? 0 : (answer.get(one.netlist.nodes[node]!) ?? Number.NaN);
    const drawn = volts(one.node) / one.ohms;
    for (const { branch, part, share } of one.carriers) {
      const { a, b, ohms, emfVolts, control } = one.model.network.branches[branch]!;
      // A contact that opens carries nothing: its ends tell no current.
      if (emfVolts !== 0 || (control !== null && part.kind !== 'key-contact')) continue;
      const flows = Math.abs(volts(a) - volts(b)) / ohms;
      const said = one.present[branch]! + share * drawn;
      compared += 1;
      // Other loads sag a little under the new one, so that more is said than flows; a thousandth is the precision of the netlist.
      if (flows > said * 1.005 + 0.02)
        wrong.push(`${one.name} ${one.row} ${part.id}: ${flows} flows, ${said} said`);
      const key = `${one.name} ${part.id} ${branch}`;
      reached.set(key, Math.max(reached.get(key) ?? 0, flows / said));
    }
  });
  expect(wrong.slice(0, 10)).toEqual([]);
  // Nor is it exaggerated: in one of the combinations nearly all of it flows.
  const slack = [...reached].filter(([, share]) => share < 0.9);
  expect(slack.slice(0, 10)).toEqual([]);
  const circuits = new Set(cases.map(({ name }) => name.split(',')[0]));
  process.stdout.write(
    `${compared} currents of ${reached.size} parts in ${circuits.size} circuits compared with ngspice\n`,
  );
  // The trailer hangs on switches of the towing vehicle: with nothing switched nothing of it is live, and no feed is there.
  expect(DEMO_CIRCUITS.filter((name) => !circuits.has(name))).toEqual(['trailer-lamps']);
  expect(circuits.size).toBeGreaterThanOrEqual(24);
}, 240_000);

test('turned one at a time the worst is found as by looking at every combination', () => {
  let compared = 0;
  for (const [name, circuit] of CIRCUITS) {
    const dials = switched(circuit);
    if (dials.length < 2 || combinations(dials).length > 256) continue;
    const model = new CircuitModel(circuit);
    const every = presentIn(model, [STATE]);
    const climbed = presentIn(model, [STATE], 1);
    expect([every.whole, climbed.whole]).toEqual([true, false]);
    every.amps.forEach((amps, branch) => {
      if (amps < 0.05) return;
      compared += 1;
      if (climbed.amps[branch]! < 0.995 * amps)
        throw new Error(
          `${name}, ${model.network.branches[branch]!.part}: ${climbed.amps[branch]} of ${amps} A`,
        );
    });
  }
  expect(compared).toBeGreaterThan(60);
});
