/** The rows that lists read of a job: as the log says, by code that the program does not use, and as they are kept. */
import { asc, eq } from 'drizzle-orm';
import type { EventBody } from '../core/format';
import { database } from '../src/db/client';
import { findings, followUps, hazards, jobEvents, jobSummaries, slotSightings } from '../src/db/schema';

/** What the rows must hold, worked out from the log by code of its own. */
export async function expectedRows(jobId: string) {
  const log = await database()
    .select()
    .from(jobEvents)
    .where(eq(jobEvents.jobId, jobId))
    .orderBy(asc(jobEvents.seq));
  const struck = new Set(log.flatMap((one) => (one.body.kind === 'correction' ? [one.body.of] : [])));
  const standing = log.filter((one) => !struck.has(one.id));
  const of = <K extends EventBody['kind']>(kind: K) =>
    standing.flatMap((one) =>
      one.body.kind === kind ? [{ ...one, body: one.body as Extract<EventBody, { kind: K }> }] : [],
    );
  const complaint = of('complaint').at(-1)?.body;
  const repair = of('repair').at(-1);
  const proofs = new Map<string, boolean>();
  /** An exchange after it takes back what was seen of its functions. */
  const undone = (one: { seq: number; body: { function: string } }) =>
    of('swapped').some(({ seq, body }) => seq > one.seq && body.functions.includes(one.body.function));
  for (const one of of('proof')) {
    if (undone(one)) continue;
    if (!repair || one.seq > repair.seq)
      proofs.set(`${one.body.function} ${one.body.condition}`, one.body.state === 'works');
  }
  const asked = complaint?.function ? proofs.has(`${complaint.function} ${complaint.condition}`) : true;
  const state = of('state').at(-1)?.body.state ?? 'open';
  const stage =
    state !== 'open'
      ? state
      : complaint?.work
        ? repair
          ? 'done'
          : 'working'
        : repair
          ? proofs.size > 0 && asked && [...proofs.values()].every(Boolean)
            ? 'proved'
            : 'repaired'
          : of('found').length > 0
            ? 'found'
            : of('reading').length > 0
              ? 'testing'
              : 'complaint';
  const dealtWith = (of_: string) => of('watch-done').some((one) => one.body.of === of_);
  const temporary = of('repair').filter(({ body }) => body.temporary);
  const endedTemporary = new Set([
    ...of('temporary-ended').map(({ body }) => body.of),
    ...of('repair').flatMap(({ body }) => body.ends ?? []),
  ]);
  const ended = {
    has: (id: string) => dealtWith(id),
  };
  const dueNow = (id: string) => of('watch-snoozed').findLast(({ body }) => body.of === id)?.body.due;
  return {
    summary: {
      stage,
      complaint: complaint?.words ?? '',
      found: of('found').at(-1)?.body.fault ?? null,
      readings: of('reading').length,
      lastSeq: log.at(-1)?.seq ?? 0,
    },
    finding: of('found').at(-1)?.id ?? null,
    watches: [
      ...of('watch').map((one) => ({ id: one.id, due: one.body.due })),
      ...temporary.map((one) => ({ id: one.id, due: one.body.due })),
    ]
      .map(({ id, due }) => `${id} ${dueNow(id) ?? due ?? null} ${ended.has(id) || endedTemporary.has(id)}`)
      .sort(),
    hazards: [
      ...of('swapped').map(
        (one) => `${one.id} exchanged ${of('swap-restored').some(({ body }) => body.of === one.id)}`,
      ),
      ...of('appliance-set-aside').map(
        (one) => `${one.id} appliance ${of('appliance-released').some(({ body }) => body.of === one.id)}`,
      ),
      ...temporary.map((one) => `${one.id} temporary ${endedTemporary.has(one.id)}`),
      ...of('state')
        .filter(({ body }) => body.state === 'closed' && body.override && body.ending !== 'not-found')
        .map((one) => `${one.id} left ${of('state').some(({ seq }) => seq > one.seq)}`),
    ].sort(),
    sightings: of('slot-state')
      .map((one) => one.id)
      .sort(),
  };
}

export async function keptRows(jobId: string) {
  const db = database();
  const [summary] = await db.select().from(jobSummaries).where(eq(jobSummaries.jobId, jobId));
  const [finding] = await db.select().from(findings).where(eq(findings.jobId, jobId));
  const watches = await db.select().from(followUps).where(eq(followUps.jobId, jobId));
  const sightings = await db.select().from(slotSightings).where(eq(slotSightings.jobId, jobId));
  const open = await db.select().from(hazards).where(eq(hazards.jobId, jobId));
  const { stage, complaint, found: fault, readings, lastSeq } = summary!;
  return {
    summary: { stage, complaint, found: fault, readings, lastSeq },
    finding: finding?.eventId ?? null,
    watches: watches.map((one) => `${one.eventId} ${one.due} ${one.done}`).sort(),
    hazards: open.map((one) => `${one.eventId} ${one.sort} ${one.over}`).sort(),
    sightings: sightings.map((one) => one.eventId).sort(),
  };
}
