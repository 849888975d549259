/** A job on its maps: the circuit that it is traced on, and what the diagnosis is asked. */
import { mergeCircuits, withConditions } from '../circuit';
import { asMeant, type SeenBefore, type TakenReading } from '../diagnosis';
import type { CircuitFile, PanelSetFile, Problem } from '../format';
import { withSafetyAnswers } from '../panel';
import { withSlotMarks } from '../safety';
import { fuseFittings } from './appliance';
import type { JobState } from './state';
import { takenReadings } from './taken';

export interface JobMaps {
  readonly circuits: readonly CircuitFile[];
  readonly panelSet: PanelSetFile | null;
  readonly vehicle: { readonly nominalVolts: number | null };
}

/** A job put on its maps. */
export interface OnMaps {
  /** Boxes with the answers that the job gave about safety. */
  readonly panelSet: PanelSetFile | null;
  /** All circuits as one, with what its slots say and with the settings that were seen; null where there is none. */
  readonly circuit: CircuitFile | null;
  /** Where the circuits contradict each other. */
  readonly problems: readonly Problem[];
}

const NO_PROBLEMS: readonly Problem[] = [];

/** What a job is traced, planned and written down on, for the page as for every paper of it. */
export function onMaps(
  maps: Pick<JobMaps, 'circuits' | 'panelSet'>,
  { slotStates, settings }: Pick<JobState, 'slotStates' | 'settings'>,
): OnMaps {
  const panelSet = maps.panelSet && {
    ...maps.panelSet,
    panels: withSafetyAnswers(maps.panelSet.panels, slotStates),
  };
  const joined = maps.circuits.length > 0 ? mergeCircuits([...maps.circuits]) : null;
  const circuit = joined && withConditions(withSlotMarks(joined.circuit, panelSet?.panels ?? []), settings);
  return { panelSet, circuit, problems: joined?.problems ?? NO_PROBLEMS };
}

export function voltsOf(job: JobState, { vehicle }: Pick<JobMaps, 'vehicle'>): number | null {
  return job.identity.nominalVolts ?? vehicle.nominalVolts;
}

/** Readings as the diagnosis takes them. */
export function meantReadings(job: JobState, circuit: CircuitFile | null): readonly TakenReading[] {
  const taken = takenReadings(job);
  return circuit ? taken.map((reading) => asMeant(circuit, reading)) : taken;
}

/** Parts that were found, exchanged or worked on: whoever shares one with them is seen afterwards. */
export function touchedParts(job: Pick<JobState, 'found' | 'exchanged' | 'repairs'>): string[] {
  const worked = job.repairs.flatMap(({ lines = [] }) => lines.flatMap(({ part }) => part ?? []));
  return [...new Set([...(job.found?.parts ?? []), ...job.exchanged, ...worked])];
}

/** Functions as they were seen before the repair. */
export function seenBefore({ checks }: Pick<JobState, 'checks'>): SeenBefore[] {
  return [...checks].map(([key, { state }]) => {
    const [of = '', condition = ''] = key.split('|');
    return { function: of, condition, state };
  });
}

/** Fuses that an appliance took; asked for, it was when two had gone. What it took it took, also when it is put aside. */
export function fusesTaken({ complaint, pluggedIn }: Pick<JobState, 'complaint' | 'pluggedIn'>): number {
  return complaint?.appliance?.fusesTaken ?? (pluggedIn?.appliance ? 2 : 0);
}

/** Cautions that were answered with “not now”. */
export function notNowOf(job: Pick<JobState, 'cautions'>): string[] {
  return [...job.cautions].flatMap(([id, answer]) => (answer.notNow ? [id] : []));
}

/** What is diagnosed; null where nobody has said what fails, or on how many volts. */
export function complaintOf(
  { complaint }: Pick<JobState, 'complaint'>,
  nominalVolts: number | null,
): { readonly function: string; readonly condition: string } | null {
  return complaint?.function && complaint.condition && nominalVolts !== null
    ? { function: complaint.function, condition: complaint.condition }
    : null;
}

/** Tests that are not to be proposed: refused, or barred while an appliance is not dealt with. */
export function refusedTests(job: JobState, circuit: CircuitFile | null, halted: boolean): readonly string[] {
  return [...job.refused, ...(halted && circuit ? fuseFittings(circuit, job) : [])];
}
