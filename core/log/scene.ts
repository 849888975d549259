/** The scene of a sheet where there is no page beside it: everything worked out at once. */
import {
  type Assessment,
  DiagnosisSession,
  expectedStates,
  requiredProofs,
  type SessionOptions,
} from '../diagnosis';
import type { CircuitFile } from '../format';
import { CircuitModel } from '../network';
import { applianceOf } from './appliance';
import { fittedNow } from './fitted';
import type { SheetScene } from './sheetLines';
import type { JobState } from './state';
import {
  complaintOf,
  fusesTaken,
  type JobMaps,
  meantReadings,
  notNowOf,
  onMaps,
  refusedTests,
  seenBefore,
  touchedParts,
  voltsOf,
} from './traced';

/** All that a sheet is written from, worked out at once: for whoever has no worker beside the page. */
export function workedScene(
  maps: JobMaps,
  job: JobState,
  options: Pick<SessionOptions, 'priors' | 'hand'>,
): SheetScene {
  const { panelSet, circuit } = onMaps(maps, job);
  const nominalVolts = voltsOf(job, maps);
  const scene = { job, circuit, panels: panelSet?.panels ?? [], nominalVolts };
  const complaint = complaintOf(job, nominalVolts);
  if (!circuit) return { ...scene, proofs: [], assessment: null, expected: {} };
  const model = new CircuitModel(circuit);
  const expected = expectedStates(model);
  if (!complaint || !circuit.functions.some(({ id }) => id === complaint.function))
    return { ...scene, proofs: [], assessment: null, expected };
  const halted = applianceOf(circuit, panelSet, job, nominalVolts)?.halted ?? false;
  return {
    ...scene,
    proofs: requiredProofs(model, complaint, touchedParts(job), seenBefore(job)),
    assessment: assessed(circuit, complaint, job, options, halted),
    expected,
  };
}

/** Null where a reading is of a point that the circuit has not, a map having changed since: the sheet says then that nothing was worked out. */
function assessed(
  circuit: CircuitFile,
  complaint: { readonly function: string; readonly condition: string },
  job: JobState,
  options: Pick<SessionOptions, 'priors' | 'hand'>,
  halted: boolean,
): Assessment | null {
  const taken = fusesTaken(job);
  const session = new DiagnosisSession(circuit, complaint, {
    ...options,
    appliance: taken > 0 ? { fusesTaken: taken } : null,
    notNow: notNowOf(job),
  });
  const readings = meantReadings(job, circuit);
  const points = new Set(circuit.nodes.map(({ id }) => id));
  const strange = readings.some(({ test }) => 'node' in test && !points.has(test.node));
  if (strange) return null;
  return session.assess({
    readings,
    refused: refusedTests(job, circuit, halted),
    opened: job.opened,
    ...fittedNow(job),
  });
}
