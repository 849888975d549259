/** The scene of a sheet where there is no page beside it: everything worked out at once. */
import { DiagnosisSession, expectedStates, requiredProofs, type SessionOptions } from '../diagnosis';
import { CircuitModel } from '../network';
import { applianceOf } from './appliance';
import { fittedNow } from './fitted';
import type { SheetScene } from './sheetLines';
import type { JobState } from './state';
import {
  answeredPanels,
  complaintOf,
  fusesTaken,
  type JobMaps,
  joinedCircuits,
  meantReadings,
  notNowOf,
  refusedTests,
  seenBefore,
  touchedParts,
  tracedCircuit,
  voltsOf,
} from './traced';

/** All that a sheet is written from, worked out at once: for whoever has no worker beside the page. */
export function workedScene(
  maps: JobMaps,
  job: JobState,
  options: Pick<SessionOptions, 'priors' | 'hand'>,
): SheetScene {
  const answers = job.slotStates.filter(({ safetyCritical }) => safetyCritical !== undefined);
  const panelSet = answeredPanels(maps.panelSet, answers);
  const circuit = tracedCircuit(joinedCircuits(maps.circuits), panelSet, job.settings);
  const nominalVolts = voltsOf(job, maps);
  const scene = { job, circuit, panels: panelSet?.panels ?? [], nominalVolts };
  const complaint = complaintOf(job, nominalVolts);
  if (!circuit) return { ...scene, proofs: [], assessment: null, expected: {} };
  const model = new CircuitModel(circuit);
  const expected = expectedStates(model);
  if (!complaint || !circuit.functions.some(({ id }) => id === complaint.function))
    return { ...scene, proofs: [], assessment: null, expected };
  const taken = fusesTaken(job);
  const session = new DiagnosisSession(circuit, complaint, {
    ...options,
    appliance: taken > 0 ? { fusesTaken: taken } : null,
    notNow: notNowOf(job),
  });
  const halted = applianceOf(circuit, panelSet, job, nominalVolts)?.halted ?? false;
  const assessment = session.assess({
    readings: meantReadings(job, circuit),
    refused: refusedTests(job, circuit, halted),
    opened: job.opened,
    ...fittedNow(job),
  });
  return {
    ...scene,
    proofs: requiredProofs(model, complaint, touchedParts(job), seenBefore(job)),
    assessment,
    expected,
  };
}
