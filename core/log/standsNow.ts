/** How a job stands at the moment: what whoever takes it over in the middle has to know before a hand goes in. */

import { testInLog } from '../diagnosis';
import type { CircuitFile, TestRef } from '../format';
import { STEP_WORDS } from '../hands';
import { entryTime } from './clock';
import { eventWords } from './kinds';
import { partName } from './names';
import { inTheMiddle, leftBy } from './plansOnJob';
import type { SheetLine } from './sheetLines';
import type { JobState } from './state';

const line = (words: string, by: SheetLine['by'] = null): SheetLine => ({ words, by });

/** Covers that are off, what is isolated, exchanged, bridged, set aside; what was done last, and who has it now. */
export function standsNow(job: JobState, circuit: CircuitFile | null, next: TestRef | null): SheetLine[] {
  const { handedOver } = job;
  const last = job.entries.findLast(
    ({ struck, event }) => !struck && event.body.kind !== 'handed-over' && event.body.kind !== 'clock',
  )?.event;
  const place = (id: string) => circuit?.places.find((one) => one.id === id)?.name ?? id;
  const known = [...job.inPlace].flatMap(([part, sits]) => (sits === 'own' ? [] : [[part, sits] as const]));
  return [
    ...(handedOver
      ? [
          line(`Handed over to ${handedOver.to}${handedOver.words ? `: ${handedOver.words}` : ''}`, {
            person: handedOver.by,
            at: handedOver.at,
          }),
        ]
      : []),
    ...(last
      ? [line(`Done last: ${eventWords(circuit, last.body)}`, { person: last.person, ...entryTime(last) })]
      : []),
    ...(job.opened.length > 0 ? [line(`Covers opened: ${job.opened.map(place).join(', ')}`)] : []),
    ...(job.isolated.length > 0
      ? [line(`Isolated: ${job.isolated.map((step) => STEP_WORDS[step].toLowerCase()).join(', ')}`)]
      : []),
    ...inTheMiddle(job).flatMap((one) => [
      line(`In the middle of a change: ${one.plan.name}`),
      ...leftBy(one).map((words) => line(words)),
    ]),
    ...job.swaps.map(({ one, other }) =>
      line(`Exchanged: ${partName(circuit, one)} and ${partName(circuit, other)}`),
    ),
    ...known.map(([part, sits]) =>
      line(
        sits === 'known-good'
          ? `A known good part sits in the place of ${partName(circuit, part)}`
          : `What sits in the place of ${partName(circuit, part)} was not said`,
      ),
    ),
    ...job.temporaries.map(({ words }) => line(`Temporary: ${words}`)),
    ...[...job.setAside.values()].map((words) => line(`In quarantine: ${words}`)),
    ...(next && !job.found ? [line(`To be done next: ${testInLog(circuit, next)}`)] : []),
    ...(job.clockSince === null ? [] : [line('The clock of the work runs')]),
  ];
}
