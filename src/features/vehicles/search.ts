/** Vehicles, jobs, circuits and slots of a shop found by words. One index answers; `core/panel` judges slots. */
import { asc, type SQL, sql } from 'drizzle-orm';
import {
  judgeSlot,
  nameQuestion,
  numberQuery,
  type SearchQuestion,
  slotQuestion,
  wordsOf,
} from '#core/panel';
import type { Actor } from '@/access';
import { database } from '@/db/client';
import { bound } from '@/db/projections/searchRows';
import { type SearchKind, searchEntries } from '@/db/schema';

interface FoundPlace {
  readonly name: string;
  readonly detail: string;
  readonly href: string;
}

export interface FoundVehicle extends FoundPlace {
  readonly id: string;
}

interface FoundSlot extends FoundPlace {
  readonly vehicleId: string;
  readonly slotId: string;
  readonly because: string;
  readonly sentence: string;
}

export interface Found {
  readonly vehicles: readonly FoundVehicle[];
  readonly jobs: readonly FoundPlace[];
  readonly circuits: readonly FoundPlace[];
  readonly slots: readonly FoundSlot[];
  /** More slots answer than were looked at; more words would tell them apart. */
  readonly moreSlots: boolean;
}

/** So many times more rows are looked at than are shown. */
const LOOKED_AT = 8;
/** Slots that are judged for a page of them. */
const JUDGED = 300;
/** Vehicles whose name stands beside a slot in one text. */
const NAMED = 20;

const quoted = (word: string) => `'${word.replace(/\\/g, '').replace(/'/g, "''")}'`;

/** A question in the words of PostgreSQL's index: every term, or the text as it is printed; within some bounds. */
function tsquery({ terms, printed }: SearchQuestion, bounds: readonly (readonly string[])[]): SQL {
  const all = terms.map(({ like, begins }) =>
    [...like.map(quoted), ...(begins === null ? [] : [`${quoted(begins)}:*`])].join(' | '),
  );
  const asked = `((${all.join(') & (')}))${printed === '' ? '' : ` | ${quoted(printed)}:*`}`;
  const within = bounds.map((some) => `(${some.map(quoted).join(' | ')})`).join(' & ');
  return sql`${`${within} & (${asked})`}::tsquery`;
}

function entries(
  actor: Actor,
  kind: SearchKind,
  question: SearchQuestion,
  limit: number,
  vehicleIds?: readonly string[],
) {
  const bounds = [[bound.shop(actor.shopId)], [bound.kind(kind)]];
  if (vehicleIds) bounds.push(vehicleIds.map(bound.vehicle));
  // Of many that answer some are looked at; a word more tells them apart.
  const some = database()
    .select()
    .from(searchEntries)
    .where(sql`${searchEntries.words} @@ ${tsquery(question, bounds)}`)
    .limit(LOOKED_AT * limit)
    .as('some');
  return database().select().from(some).orderBy(asc(some.name), asc(some.key)).limit(limit);
}

async function named(actor: Actor, kind: SearchKind, text: string, limit: number) {
  const question = nameQuestion(text);
  return question ? entries(actor, kind, question, limit) : [];
}

/** By a part of the plate, however it is spaced, or by the beginnings of words of the name. */
export async function foundVehicles(actor: Actor, text: string, limit: number): Promise<FoundVehicle[]> {
  const rows = await named(actor, 'vehicle', text, limit);
  return rows.map(({ vehicleId, name, detail, href }) => ({ id: vehicleId, name, detail, href }));
}

/** Slots that answer to a text, best first. */
async function foundSlots(actor: Actor, text: string, vehicleIds?: readonly string[]): Promise<FoundSlot[]> {
  const question = slotQuestion(text);
  if (!question) return [];
  const query = wordsOf(text);
  const numbered = numberQuery(query);
  const rows = await entries(actor, 'slot', question, JUDGED, vehicleIds);
  return rows
    .flatMap(({ vehicleId, name, detail, href, slot, sentence }) => {
      const hit = slot ? judgeSlot(slot, query, numbered) : null;
      if (!slot || !hit) return [];
      const place = { vehicleId, slotId: slot.id, name, detail, href, sentence: sentence ?? '' };
      return [{ ...place, ...hit }];
    })
    .sort((one, other) => other.score - one.score || (one.detail < other.detail ? -1 : 1));
}

/**
 * What a shop has under a text. Words of a vehicle and of a slot may stand together: "MB 414 fuse 14" is fuse 14 of that
 * vehicle.
 */
export async function searchShop(actor: Actor, text: string, limit = 30): Promise<Found> {
  const [vehicles, jobs, circuits, slots] = await Promise.all([
    foundVehicles(actor, text, limit),
    named(actor, 'job', text, limit),
    named(actor, 'circuit', text, limit),
    foundSlots(actor, text),
  ]);
  const found = slots.length > 0 ? slots : await slotsOfNamed(actor, wordsOf(text));
  return { vehicles, jobs, circuits, slots: found.slice(0, limit), moreSlots: found.length > limit };
}

async function slotsOfNamed(actor: Actor, words: readonly string[]): Promise<FoundSlot[]> {
  for (let at = 1; at < words.length; at++) {
    for (const [of, slot] of [
      [words.slice(0, at), words.slice(at)],
      [words.slice(at), words.slice(0, at)],
    ] as const) {
      const there = await foundVehicles(actor, of.join(' '), NAMED);
      if (there.length === 0) continue;
      const found = await foundSlots(
        actor,
        slot.join(' '),
        there.map((one) => one.id),
      );
      if (found.length > 0) return found;
    }
  }
  return [];
}
