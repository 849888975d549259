/** The readings of a log as the diagnosis takes them. */
import { byProbe, type TakenReading, UNSURE } from '../diagnosis';
import type { BodyOf } from '../format';
import { cellKey } from './event';
import { FittedThen } from './fitted';
import type { JobState } from './state';

/**
 * What the diagnosis reasons from: the complaint, the function checks and the readings that stand, in the
 * order in which they were made.
 */
export function takenReadings(job: JobState): TakenReading[] {
  const taken: TakenReading[] = [];
  const mended = mendedParts(job);
  const checks = latestChecks(job);
  const parts = new FittedThen();
  for (const { event, struck } of job.entries) {
    if (struck) continue;
    const { body } = event;
    parts.step(event.id, body);
    const before = { ...mended.before(event.id), ...parts.now };
    if (body.kind === 'proof' && mended.goesOn) {
      taken.push({
        id: event.id,
        test: { kind: 'function', function: body.function, condition: body.condition },
        value: { state: body.state },
        ...before,
      });
    }
    if (body.kind === 'complaint' && body === job.complaint && body.function && body.condition) {
      if (body.heard) {
        taken.push({
          id: heardId(event.id),
          test: { kind: 'sound', function: body.function, condition: body.condition },
          value: { sound: body.heard },
          sure: UNSURE,
          ...before,
        });
      }
      // What was seen at the vehicle stands in for what was reported.
      if (checks.inOwnPlaces.has(cellKey(body.function, body.condition))) continue;
      taken.push({
        id: event.id,
        test: { kind: 'function', function: body.function, condition: body.condition },
        value: { state: body.state ?? 'dead' },
        sure: UNSURE,
        ...before,
      });
    } else if (body.kind === 'function-check' && checks.latest.has(event.id)) {
      taken.push({
        id: event.id,
        test: { kind: 'function', function: body.function, condition: body.condition },
        value: { state: body.state },
        ...before,
      });
    } else if (body.kind === 'reading') {
      taken.push({ id: event.id, test: body.test, value: body.value, ...surenessOf(body), ...before });
    }
  }
  return taken;
}

/** Of the checks of one function in one condition the latest counts, for every way that parts stood. */
function latestChecks({ entries }: JobState): {
  latest: ReadonlySet<string>;
  inOwnPlaces: ReadonlySet<string>;
} {
  const found = new Map<string, string>();
  const inOwnPlaces = new Set<string>();
  const parts = new FittedThen();
  for (const { event, struck } of entries) {
    if (struck) continue;
    parts.step(event.id, event.body);
    if (event.body.kind !== 'function-check') continue;
    const { fitted } = parts.now;
    const cell = cellKey(event.body.function, event.body.condition);
    if (!fitted) inOwnPlaces.add(cell);
    found.set(`${cell} ${JSON.stringify(fitted ?? null)}`, event.id);
  }
  return { latest: new Set(found.values()), inOwnPlaces };
}

/**
 * What was mended while the complaint remained: readings from before the repair were taken on a circuit that had
 * that fault as well. As long as the repair has not been seen to fail, nothing is set apart.
 */
function mendedParts(job: JobState): {
  goesOn: boolean;
  before: (eventId: string) => Pick<TakenReading, 'before'>;
} {
  const { complaint } = job;
  const places = new Map<string, number>();
  const mends: { at: number; parts: readonly string[] }[] = [];
  let repairAt = -1;
  let latest: readonly string[] = [];
  job.entries.forEach(({ event, struck }, index) => {
    places.set(event.id, index);
    if (struck) return;
    const { body } = event;
    if (body.kind === 'found') latest = body.parts;
    if (body.kind === 'repair') repairAt = index;
    const asks =
      body.kind === 'proof' &&
      body.function === complaint?.function &&
      body.condition === complaint.condition;
    if (!asks || repairAt < 0) return;
    const remains = complaint?.state === 'on-when-off' ? body.state === 'works' : body.state !== 'works';
    if (remains && !mends.some((mend) => mend.at === repairAt)) mends.push({ at: repairAt, parts: latest });
  });
  return {
    goesOn: mends.length > 0,
    before: (eventId) => {
      const at = places.get(eventId) ?? 0;
      const parts = [...new Set(mends.filter((mend) => mend.at > at).flatMap((mend) => mend.parts))];
      return parts.length > 0 ? { before: parts } : {};
    },
  };
}

/** Name of what was heard with a complaint, as a reading of its own. */
export function heardId(complaint: string): string {
  return `${complaint}-heard`;
}

/** What was made sure of; nothing where all was. */
function surenessOf({ test, testerProved, setUpSeen = true }: BodyOf<'reading'>): Pick<TakenReading, 'sure'> {
  // Eyes, ears and hands need no tester; proving one on a live point and its earth proves both.
  const tester = testerProved || !byProbe(test);
  return tester && setUpSeen ? {} : { sure: { tester, reference: tester, setUp: setUpSeen } };
}
