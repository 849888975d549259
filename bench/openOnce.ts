/** One opening of a job, as cold as a page: `bench/opening.ts` runs it in a process of its own, and it prints milliseconds. */
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { mergeCircuits } from '../core/circuit';
import { DiagnosisSession, packPredictions, unpackPredictions } from '../core/diagnosis';
import { demoCircuit } from '../testing/circuits';
import type { Way } from './ways';

const NOTHING_KNOWN = { readings: [], refused: [], opened: [] };
const FAN = { function: 'cabinet-fan', condition: 'fan-on' };

/** The demo van, its three circuits joined. */
const van = () =>
  mergeCircuits((['van-proving-cabinet', 'van-hatch-fridge', 'van-demist'] as const).map(demoCircuit))
    .circuit;

/** Milliseconds from the circuit to the first card. `file` holds what was kept; written where it is not there yet. */
function opened(way: Way, file: string): number {
  const circuit = van();
  const began = performance.now();
  const kept = way === 'kept' ? [unpackPredictions(Uint8Array.from(readFileSync(file)))!] : undefined;
  const session = new DiagnosisSession(circuit, FAN, kept ? { kept } : {});
  if (way === 'cold') {
    for (const _piece of session.prepareFirst());
    if (!session.firstCard(NOTHING_KNOWN)) throw new Error('No first card.');
    return performance.now() - began;
  }
  for (const _piece of session.prepare());
  if (!session.assess(NOTHING_KNOWN).next[0]) throw new Error('No card.');
  const took = performance.now() - began;
  const fresh = session.toKeep();
  if (fresh && !existsSync(file)) writeFileSync(file, packPredictions(fresh));
  return took;
}

const [, , way, file] = process.argv;
console.log(opened(way as Way, file!));
