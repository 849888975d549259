/** `npm run bench -- changes`: a plan of twenty edits on a vehicle of sixty parts, looked at in 1,024 settings, as the worker does it. */
import { changeTable, examine, workOrder } from '../core/change';
import type { CircuitPart, PlanEdit } from '../core/format';
import { dialsOf, rowCount } from '../core/live';
import { CircuitModel } from '../core/network';
import { BATTERY, circuitOf, fuse, lamp, wire } from '../testing/circuits';
import { SOUND, UNSAFE } from '../testing/plannedChanges';

const BRANCHES = 8;
const RUNS = 15;

/** Eight branches with fuse, switch and lamp, half of them behind the key and with a relay; two to an earth. */
function vehicle() {
  const parts: CircuitPart[] = [
    BATTERY,
    {
      id: 'K',
      kind: 'key-contact',
      name: 'Key, run',
      pins: { in: 'plus', out: 'run' },
      closedIn: ['run', 'crank'],
    },
    {
      id: 'KA',
      kind: 'key-contact',
      name: 'Key, accessory',
      pins: { in: 'plus', out: 'acc' },
      closedIn: ['accessory', 'run'],
    },
  ];
  for (let i = 0; i < BRANCHES; i++) {
    const earth = `g${i >> 1}`;
    parts.push(
      fuse(`F${i}`, i % 2 ? 'run' : 'plus', `a${i}`, 10),
      wire(`W${i}`, `a${i}`, `b${i}`, 0.02),
      {
        id: `S${i}`,
        kind: 'switch',
        name: `Switch ${i}`,
        pins: { in: `b${i}`, out: `c${i}` },
        positions: ['off', 'on'],
        rest: 'off',
        contacts: [{ from: 'in', to: 'out', closedIn: ['on'] }],
      },
      wire(`V${i}`, `c${i}`, `d${i}`, 0.02),
      lamp(`L${i}`, `d${i}`, earth, 7),
      wire(`X${i}`, `d${i}`, `y${i}`, 0.02),
      i % 2
        ? {
            id: `R${i}`,
            kind: 'relay',
            name: `Relay ${i}`,
            pins: { '30': 'plus', '85': earth, '86': `y${i}`, '87': `e${i}` },
          }
        : lamp(`M${i}`, `y${i}`, earth, 14),
    );
  }
  for (let i = 0; i < BRANCHES / 2; i++)
    parts.push({ id: `G${i}`, kind: 'ground', name: `Earth ${i}`, pins: { lug: `g${i}`, body: 'minus' } });
  return circuitOf({
    parts,
    functions: Array.from({ length: BRANCHES }, (_, i) => ({
      id: `f${i}`,
      name: `Lamp ${i}`,
      load: `L${i}`,
    })),
  });
}

/** Four feeds moved to taps in other slots, with both breaks and a label each. */
function plan(): PlanEdit[] {
  return Array.from({ length: 4 }, (_, i): PlanEdit[] => [
    { kind: 'take-out', id: `o${i}`, part: `F${i}`, kept: true },
    {
      kind: 'tap',
      id: `t${i}`,
      fuse: `F${i + 4}`,
      side: 'supply',
      family: 'mini',
      addedFuse: `T${i}`,
      addedAmps: 5,
      lead: `l${i}`,
      name: `Tap ${i}`,
    },
    {
      kind: 'add',
      id: `a${i}`,
      nodes: [],
      parts: [
        {
          id: `N${i}`,
          kind: 'wire',
          name: `New ${i}`,
          pins: { a: `l${i}`, b: `b${i}` },
          sizeMm2: 1.5,
          lengthMetres: 1,
        },
      ],
    },
    { kind: 'take-out', id: `p${i}`, part: `W${i}`, kept: false },
    { kind: 'label', id: `b${i}`, on: `Fuse ${i}`, words: 'Fed from another slot' },
  ]).flat();
}

const median = (values: readonly number[]) =>
  [...values].sort((x, y) => x - y)[Math.floor(values.length / 2)]!;

export function benchChanges(): void {
  const circuit = vehicle();
  const edits = plan();
  const times: number[] = [];
  let settings = 0;
  let findings = 0;
  for (let run = 0; run < RUNS; run++) {
    const started = performance.now();
    const looked = examine(circuit, { edits });
    workOrder(looked);
    changeTable(looked);
    times.push(performance.now() - started);
    settings = looked.scene.settings.length;
    findings = looked.findings.length;
  }
  // Beside it what the same settings take when each is a condition of its own.
  const dials = dialsOf(circuit);
  const model = new CircuitModel(circuit);
  const begun = performance.now();
  for (let each = 0; each < 200; each++)
    model.sound(
      model.adopt({
        key: 'run',
        switches: { S0: each % 2 ? 'on' : 'off', S1: each % 4 > 1 ? 'on' : 'off' },
        secondsIn: each,
      }),
    );
  const straight = ((performance.now() - begun) / 200) * rowCount(dials) * 2;
  console.log(
    `${edits.length} edits on ${circuit.parts.length} parts, ${settings} settings before and after: median ${median(times).toFixed(0)} ms, worst ${Math.max(...times).toFixed(0)} ms (300 are wanted), ${findings} findings; each setting by itself would take ${(straight / median(times)).toFixed(1)} times as long`,
  );
  const dangers = (planted: (typeof SOUND)[number]) =>
    examine(planted.circuit, { edits: [...planted.edits], ...planted.facts }).findings;
  const found = UNSAFE.filter((one) =>
    dangers(one).some(({ kind, words }) => kind === one.kind && words.includes(one.says)),
  );
  const blamed = SOUND.filter((one) => dangers(one).some(({ level }) => level === 'danger'));
  console.log(
    `planted: ${found.length} of ${UNSAFE.length} unsafe changes found and named for their reason; ${blamed.length} of ${SOUND.length} sound ones blamed`,
  );
}
