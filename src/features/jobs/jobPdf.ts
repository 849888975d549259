/** The sheets of a job as PDF, from the same log and the same functions as the page. */
import { and, eq } from 'drizzle-orm';
import sharp from 'sharp';
import { isUuid } from '#core/format';
import type { Sheet } from '#core/log';
import type { Actor } from '@/access';
import { database } from '@/db/client';
import { photos } from '@/db/schema';
import { handOf, learnedPriors } from '@/features/shop/server';
import { journal } from '@/journal/journal';
import { dayOf, workshopZone } from '@/ui/dates';
import { plainName } from '@/ui/fileResponse';
import type { SheetAsked } from '@/workers/sheet.thread';
import { headLines, vehicleWords } from '@/workers/sheetHead';
import { makeSheet } from '@/workers/sheetMaker';
import type { SheetMade, SheetTask } from '@/workers/sheetMessages';
import { keyOf, SheetTurns } from '@/workers/sheetTurns';
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

// One for the process; kept across reloads of the development server.
const holder = globalThis as unknown as { everyTraceSheetTurns?: SheetTurns };

/** A sheet as it was made before of the same log, maps and pictures, or made in its turn. */
async function inTurn(actor: SheetActor, task: SheetTask, withPictures: boolean): Promise<SheetMade> {
  const there = withPictures ? await pictureIds(actor, task.id) : [];
  holder.everyTraceSheetTurns ??= new SheetTurns();
  const turn = { shop: actor.shopId, guest: actor.guest === true, key: keyOf(task, there) };
  return holder.everyTraceSheetTurns.made(turn, async () => {
    const pictures = withPictures ? await picturesOf(actor, task.id) : task.pictures;
    return makeSheet({ ...task, pictures });
  });
}

/** Who reads a sheet: somebody of the workshop, or a guest of theirs. */
export type SheetActor = Actor & { readonly guest?: true };

/** Null where this shop has no such job. */
export async function jobPdf(
  actor: SheetActor,
  jobId: string,
  what: SheetAsked['what'],
  more: Pick<SheetAsked, 'sheet' | 'first' | 'plan'> = {},
): Promise<JobPdf | null> {
  const made = await asked(actor, jobId, what);
  if (!made) return null;
  const pictured = what === 'technician' || what === 'customer';
  const bytes = (await inTurn(actor, { ...made.asked, ...more }, pictured)) as Uint8Array;
  const last = made.job.events.at(-1)?.madeAt ?? made.job.openedAt;
  const file = { technician: 'hand-over', customer: 'customer', labels: 'labels', work: 'work-order' }[what];
  return { bytes, name: `${jobFileName(made.job, last, file)}.pdf` };
}

/** The same sheet as lines, with what stands at its head; null where this shop has no such job. */
export async function jobSheet(actor: SheetActor, jobId: string, what: 'technician' | 'customer') {
  const made = await asked(actor, jobId, what);
  if (!made) return null;
  const sheet = (await inTurn(actor, { ...made.asked, as: 'lines' }, false)) as Sheet;
  const { title, vehicle } = made.asked;
  return { sheet, title, vehicle, lines: headLines(made.job, sheet) };
}

/** What the maker of sheets needs of a job, without its pictures. */
async function asked(
  actor: Actor,
  jobId: string,
  what: SheetAsked['what'],
): Promise<{
  readonly job: NonNullable<Awaited<ReturnType<typeof loadJob>>>;
  readonly asked: SheetAsked;
} | null> {
  if (!isUuid(jobId)) return null;
  const [job, priors, hand] = await Promise.all([loadJob(actor, jobId), learnedPriors(actor), handOf(actor)]);
  if (!job) return null;
  const { nominalVolts } = job.vehicle;
  return {
    job,
    asked: {
      what,
      maps: { circuits: job.circuits, panelSet: job.panelSet, vehicle: { nominalVolts } },
      events: job.events,
      pictures: new Map(),
      priors,
      hand,
      title: job.title,
      vehicle: vehicleWords(job.vehicle),
      shop: `${actor.shopName}, ${actor.town}`,
      id: job.id,
      openedAt: job.openedAt,
      zone: workshopZone(),
    },
  };
}

/** Pictures of a job that are there. */
async function pictureIds(actor: Actor, jobId: string): Promise<string[]> {
  const rows = await database()
    .select({ id: photos.id })
    .from(photos)
    .where(and(eq(photos.jobId, jobId), eq(photos.shopId, actor.shopId)))
    .orderBy(photos.id);
  return rows.map(({ id }) => id);
}

/** Longest side of a picture on paper, pixels: two beside each other are printed sharp with it. */
const PRINTED = 1000;

/** Pictures of a job as JPEG, which PDF takes. One that cannot be read is left out: its words stand in the log. */
async function picturesOf(actor: Actor, jobId: string): Promise<SheetAsked['pictures']> {
  const rows = await database()
    .select({ id: photos.id, bytes: photos.bytes })
    .from(photos)
    .where(and(eq(photos.jobId, jobId), eq(photos.shopId, actor.shopId)));
  const made = new Map<string, { jpeg: Uint8Array; width: number; height: number }>();
  for (const { id, bytes } of rows) {
    const printed = await sharp(bytes)
      .resize({ width: PRINTED, height: PRINTED, fit: 'inside', withoutEnlargement: true })
      .jpeg({ quality: 80 })
      .toBuffer({ resolveWithObject: true })
      .catch((error: unknown) => {
        journal.warn({ err: error, photo: id }, 'a picture cannot be printed');
        return null;
      });
    if (!printed) continue;
    const { width, height } = printed.info;
    made.set(id, { jpeg: new Uint8Array(printed.data), width, height });
  }
  return made;
}
