/** The scene of a sheet where there is no page beside it: everything worked out at once. */
import {
  type Assessment,
  type Complaint,
  DiagnosisSession,
  expectedStates,
  type KeptPredictions,
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

/** Where what every fault would show is kept from one sheet to the next. */
export interface PredictionStore {
  of(circuit: CircuitFile, complaint: Complaint): readonly KeptPredictions[];
  keep(circuit: CircuitFile, complaint: Complaint, predictions: KeptPredictions): void;
}

interface SceneOptions extends Pick<SessionOptions, 'priors' | 'hand'> {
  /** Nothing is kept where there is none. */
  readonly store?: PredictionStore;
}

/** All that a sheet is written from, worked out at once: for whoever has no worker beside the page. */
export function workedScene(maps: JobMaps, job: JobState, options: SceneOptions): SheetScene {
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
  complaint: Complaint,
  job: JobState,
  { store, ...options }: SceneOptions,
  halted: boolean,
): Assessment | null {
  const taken = fusesTaken(job);
  const session = new DiagnosisSession(circuit, complaint, {
    ...options,
    appliance: taken > 0 ? { fusesTaken: taken } : null,
    notNow: notNowOf(job),
    ...(store ? { kept: store.of(circuit, complaint) } : {}),
  });
  const readings = meantReadings(job, circuit);
  const points = new Set(circuit.nodes.map(({ id }) => id));
  const strange = readings.some(({ test }) => 'node' in test && !points.has(test.node));
  if (strange) return null;
  const assessment = session.assess({
    readings,
    refused: refusedTests(job, circuit, halted),
    opened: job.opened,
    ...fittedNow(job),
  });
  const fresh = store ? session.toKeep() : null;
  if (fresh) store?.keep(circuit, complaint, fresh);
  return assessment;
}
