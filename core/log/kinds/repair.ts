/** What was done, what of it is only for a while, and how long it took. */
import type { BodyOf } from '../../format';
import { judgeLine, lineWords, noRepair } from '../../repair';
import type { EventKindOf } from '../kind';

/** What is temporary about it and why, line by line; its own words where no line says it. */
function temporaryWords({ words, lines = [], reason }: BodyOf<'repair'>): string {
  const because = lines.flatMap((line) => {
    const alike = judgeLine(line);
    return alike && noRepair(alike) ? [`${line.name}: ${alike.because[0] ?? ''}`] : [];
  });
  const said = [...(because.length > 0 ? because : [words]), ...(reason ? [reason] : [])];
  return `Temporary: ${said.map(unstopped).join('; ')}`;
}

const unstopped = (words: string) => words.replace(/[.;\s]+$/, '');

export const repair: EventKindOf<BodyOf<'repair'>> = {
  fold: (job, body, { id }) => {
    job.repairs.push({ ...body, eventId: id });
    job.proofs.clear();
    job.answers.clear();
    if (body.temporary) job.temporaries.set(id, { ...body, eventId: id });
    for (const of of body.ends ?? []) job.temporaries.delete(of);
  },
  words: (body) =>
    [
      `Repair: ${body.words}${body.temporary ? ' (temporary)' : ''}`,
      ...(body.lines ?? []).map(lineWords),
    ].join('. '),
  step: (row) => ({ ...row, repaired: true, proofs: {} }),
  keeps: (body) => [
    ...(body.temporary
      ? [
          {
            row: 'follow-up' as const,
            words: temporaryWords(body),
            due: body.due ?? null,
            sort: 'temporary' as const,
          },
          {
            row: 'hazard' as const,
            sort: 'temporary' as const,
            words: temporaryWords(body),
            due: body.due ?? null,
          },
        ]
      : []),
    ...(body.ends ?? []).flatMap(over),
    ...body.partsUsed.flatMap(({ stock, count, name }, line) =>
      stock ? [{ row: 'stock-used' as const, line, item: stock.item, place: stock.place, count, name }] : [],
    ),
  ],
  standsBehind: true,
};

const over = (of: string) => [
  { row: 'hazard-over' as const, sort: 'temporary' as const, of },
  { row: 'follow-up-done' as const, of },
];

export const temporaryEnded: EventKindOf<BodyOf<'temporary-ended'>> = {
  fold: (job, { of }) => {
    job.temporaries.delete(of);
  },
  words: ({ words, decidedBy }) => `The temporary part stays, decided by ${decidedBy}: ${words}`,
  keeps: ({ of }) => over(of),
  standsBehind: true,
};

export const workClock: EventKindOf<BodyOf<'clock'>> = {
  fold: (job, { step }, { madeAt }) => {
    if (step === 'start') job.clockSince ??= madeAt;
    else if (job.clockSince !== null) {
      job.clockedMinutes += Math.max(0, (Date.parse(madeAt) - Date.parse(job.clockSince)) / 60_000);
      job.clockSince = null;
    }
  },
  words: ({ step }) => (step === 'start' ? 'Clock of the work started' : 'Clock of the work stopped'),
};
