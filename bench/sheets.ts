/**
 * `npm run bench -- sheets`: how long the sheet of a job with thousands of entries takes, first and again, beside that of a
 * usual job, by the program that the server's own thread runs.
 */
import path from 'node:path';
import { pathToFileURL } from 'node:url';
import { mergeCircuits } from '../core/circuit';
import { type CircuitFile, USUAL_HAND } from '../core/format';
import type { SheetAsked } from '../src/workers/sheet.thread';
import { demoCircuit } from '../testing/circuits';
import { longJobLog } from '../testing/longJob';

const FAN = { function: 'cabinet-fan', condition: 'fan-on' };
const ROUNDS = 3;
/** Readings and notes of the jobs. */
const SIZES = [
  [13, 6],
  [130, 69],
  [1300, 699],
] as const;

type Make = (asked: SheetAsked) => Promise<Uint8Array>;

async function timed(make: Make, asked: SheetAsked): Promise<string> {
  const rounds: string[] = [];
  for (let round = 0; round < ROUNDS; round++) {
    const began = performance.now();
    await make(asked);
    rounds.push(((performance.now() - began) / 1000).toFixed(2));
  }
  return rounds.join(', again ');
}

const asked = (circuits: readonly CircuitFile[], events: SheetAsked['events']): SheetAsked => ({
  what: 'technician',
  maps: { circuits: [...circuits], panelSet: null, vehicle: { nominalVolts: 12 } },
  events,
  pictures: new Map(),
  priors: {},
  hand: USUAL_HAND,
  title: 'Fan dead',
  vehicle: 'Demo van',
  shop: 'Every Trace',
  id: events[0]!.id,
  openedAt: events[0]!.madeAt,
  zone: 'UTC',
});

export async function benchSheets(): Promise<void> {
  const program = path.resolve('core/format/generated/sheet.thread.mjs');
  const { default: make } = (await import(pathToFileURL(program).href)) as { default: Make };
  const van = (['van-proving-cabinet', 'van-hatch-fridge', 'van-demist'] as const).map(demoCircuit);
  const { circuit } = mergeCircuits(van);
  console.log('Seconds for the sheet of a job as PDF, by one thread; nothing kept the first time:');
  for (const [readings, notes] of SIZES) {
    const events = longJobLog({ circuit, complaint: FAN, readings, notes });
    console.log(
      `  demo van, ${events.length} entries, ${readings} of them readings: ${await timed(make, asked(van, events))}`,
    );
  }
  const wide = besideEachOther(van[0]!, 850);
  const few = longJobLog({ circuit: van[0]!, complaint: FAN, readings: 2, notes: 1 });
  console.log(
    `  ${wide.parts.length} parts, most of them wires beside each other, ${few.length} entries: ${await timed(make, asked([wide], few))}`,
  );
}

/** The circuit with its first wire laid so many times, each thinner. */
function besideEachOther(circuit: CircuitFile, count: number): CircuitFile {
  const wire = circuit.parts.find((part) => part.kind === 'wire')!;
  const more = Array.from({ length: count - 1 }, (_, at) => ({
    ...wire,
    id: `${wire.id}-${at}`,
    name: `${wire.name} ${at + 2}`,
  }));
  return { ...circuit, parts: [...circuit.parts, ...more] };
}
