/**
 * `npm run bench -- sheets`: how long the sheet of a job with thousands of entries takes, the first time and again, beside
 * that of a usual job, in this process as in the thread that makes sheets.
 */
import { mergeCircuits } from '../core/circuit';
import { jobState, sheetOf, workedScene } from '../core/log';
import { sheetPdf } from '../src/workers/sheetPdf';
import { PredictionsInMemory } from '../src/workers/sheetPredictions';
import { demoCircuit } from '../testing/circuits';
import { longJobLog } from '../testing/longJob';

const FAN = { function: 'cabinet-fan', condition: 'fan-on' };
const ROUNDS = 3;

export async function benchSheets(): Promise<void> {
  const files = (['van-proving-cabinet', 'van-hatch-fridge', 'van-demist'] as const).map(demoCircuit);
  const { circuit } = mergeCircuits(files);
  const maps = { circuits: files, panelSet: null, vehicle: { nominalVolts: 12 } };
  console.log('Seconds for the sheet of a job on the demo van, everything worked out by one thread:');
  for (const [readings, notes] of [
    [13, 6],
    [130, 69],
    [1300, 699],
  ] as const) {
    const events = longJobLog({ circuit, complaint: FAN, readings, notes });
    const store = new PredictionsInMemory();
    const rounds: string[] = [];
    for (let round = 0; round < ROUNDS; round++) {
      const times = [performance.now()];
      const stop = () => times.push(performance.now());
      const job = jobState(events);
      stop();
      const scene = workedScene(maps, job, { store });
      stop();
      const sheet = sheetOf(scene);
      stop();
      const pdf = await sheetPdf(sheet, {
        kind: 'Hand-over sheet',
        title: 'Fan dead',
        vehicle: 'Demo van',
        shop: 'Every Trace',
        beneath: [],
        moment: ({ madeAt }) => madeAt,
      });
      stop();
      const parts = times.slice(1).map((time, at) => ((time - times[at]!) / 1000).toFixed(2));
      const whole = ((times.at(-1)! - times[0]!) / 1000).toFixed(2);
      rounds.push(
        `${whole} (${['log', 'diagnosis', 'lines', 'paper'].map((name, at) => `${name} ${parts[at]}`).join(', ')}; ${Math.round(pdf.length / 1024)} kB)`,
      );
    }
    console.log(`  ${events.length} entries, ${readings} of them readings: ${rounds.join('; again ')}`);
  }
}
