/** What was plugged in when it failed, as a job has it; and the tests that wait until it is dealt with. */
import { type ApplianceFinding, applianceFinding, fuseOfNode, secondFuseFinding, testId } from '../diagnosis';
import type { CircuitFile, PanelSetFile } from '../format';
import { openedFuses } from './openedFuses';
import type { JobState } from './state';

/** What the appliance of the complaint means, by the fuse that feeds the failed function. */
export function applianceOf(
  circuit: CircuitFile | null,
  panels: PanelSetFile | null,
  job: JobState,
  nominalVolts: number | null,
): ApplianceFinding | null {
  if (nominalVolts === null) return null;
  const { complaint, pluggedIn, applianceSetAside } = job;
  const opened = openedFuses(job, circuit, panels, nominalVolts);
  const declared = applianceDeclared(job, opened.length);
  if (!complaint || !declared) return secondFuseFinding(opened, pluggedIn !== null);
  const load = circuit?.functions.find((one) => one.id === complaint.function)?.load;
  const pins = circuit?.parts.find((part) => part.id === load)?.pins as Record<string, string> | undefined;
  const plus = pins?.plus ?? Object.values(pins ?? {})[0];
  const fuseAmps = circuit && plus ? fuseOfNode(circuit, plus) : null;
  return applianceFinding({ ...declared, setAside: applianceSetAside }, nominalVolts, fuseAmps, opened);
}

/** The appliance that was declared with the complaint, or when it was asked for; what it took by both counts. */
function applianceDeclared({ complaint, pluggedIn }: JobState, opened: number) {
  const said = complaint?.appliance;
  if (!said && !pluggedIn?.appliance) return null;
  const watts = said?.watts ?? pluggedIn?.watts;
  const fusesTaken = Math.max(said?.fusesTaken ?? 0, opened > 1 || !said ? opened : 0);
  return { fusesTaken, ...(watts === undefined ? {} : { watts }) };
}

/** Every test that would fit another fuse. */
export function fuseFittings(circuit: CircuitFile, { complaint }: JobState): readonly string[] {
  const { function: of, condition } = complaint ?? {};
  if (!of || !condition) return [];
  return circuit.parts
    .filter((part) => part.kind === 'fuse')
    .map((part) => testId({ kind: 'substitute', part: part.id, function: of, condition }));
}
