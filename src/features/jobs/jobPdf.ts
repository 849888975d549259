/** The sheets of a job as PDF, from the same log and the same functions as the page. */
import { isUuid } from '#core/format';
import type { Actor } from '@/access';
import { handOf, learnedPriors } from '@/features/shop/server';
import { dayOf, workshopZone } from '@/ui/dates';
import { plainName } from '@/ui/fileResponse';
import type { SheetAsked } from '@/workers/sheet.thread';
import { makePdf } from '@/workers/sheetMaker';
import { type LoadedJob, loadJob } from './readJobs';

/** Date, plate and job: how files of a job are called. The date is that of its last entry. */
export function jobFileName(job: LoadedJob, last: string, what: string): string {
  const { plate, name } = job.vehicle;
  return plainName(dayOf(new Date(last)), plate.startsWith('no plate') ? name : plate, job.title, what);
}

export interface JobPdf {
  readonly bytes: Uint8Array;
  readonly name: string;
}

/** Null where this shop has no such job. */
export async function jobPdf(
  actor: Actor,
  jobId: string,
  what: SheetAsked['what'],
  labels: Pick<SheetAsked, 'sheet' | 'first'> = {},
): Promise<JobPdf | null> {
  if (!isUuid(jobId)) return null;
  const [job, priors, hand] = await Promise.all([loadJob(actor, jobId), learnedPriors(actor), handOf(actor)]);
  if (!job) return null;
  const { name, make, model, year, plate, nominalVolts } = job.vehicle;
  const bytes = await makePdf({
    what,
    maps: { circuits: job.circuits, panelSet: job.panelSet, vehicle: { nominalVolts } },
    events: job.events,
    priors,
    hand,
    title: job.title,
    vehicle: [name, `${make} ${model} ${year ?? ''}`.trim(), plate].filter((one) => one !== '').join(' · '),
    shop: `${actor.shopName}, ${actor.town}`,
    opened: job.openedAt,
    reference: job.id.slice(0, 8),
    zone: workshopZone(),
    ...labels,
  });
  const last = job.events.at(-1)?.madeAt ?? job.openedAt;
  const file = { technician: 'hand-over', customer: 'customer', labels: 'labels' }[what];
  return { bytes, name: `${jobFileName(job, last, file)}.pdf` };
}
