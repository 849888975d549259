/** A surveyed box as lines: every slot, what was read in each state, its class, what is still to be read; as CSV and JSON. */
import { csvCell, type Panel, type Slot, SURVEY_FORMAT, type SurveyFile } from '../format';
import {
  KEY_STATE_WORDS,
  KEY_STATES,
  type KeyState,
  type Liveness,
  liveness,
  type SlotReading,
} from '../limits';
import { triageSlot, withKnownEnds } from '../panel';
import { isSafetySlot } from '../safety';
import { droppedAfter } from './branchDrain';
import { classOf, type FeedFinding, knownFrom } from './classify';
import { type SupplySide, supplySide } from './supplySide';

export interface SurveyRow {
  readonly slot: Slot;
  readonly states: Readonly<Partial<Record<KeyState, Liveness>>>;
  readonly finding: FeedFinding;
  readonly side: SupplySide;
  /** The holes of an empty slot, or of one with its fuse out, were both live. */
  readonly twoFeeds: boolean;
  readonly droppedAfter: number | null;
  /** States that were still to be read. */
  readonly missing: readonly KeyState[];
  /** It serves a safety function: nothing is read at it here. */
  readonly barred: boolean;
}

/** Slots that a survey goes through: fuses in use, and holes that may be live without one. */
export function surveyed(slots: readonly Slot[]): Slot[] {
  return slots.filter((slot) => slot.type === 'fuse' && slot.state !== 'spare');
}

/** Nothing sits in it: its two holes are read. */
export function isOpenHole({ state }: Pick<Slot, 'state'>): boolean {
  return state === 'empty' || state === 'not-ordered' || state === 'missing' || state === 'abandoned';
}

export function surveyRow(slot: Slot, readings: readonly SlotReading[], nominalVolts: number): SurveyRow {
  const own = withKnownEnds(slot, readings, nominalVolts).readings;
  const inPlace = knownFrom(own, nominalVolts);
  const known = new Map(inPlace);
  for (const [state, stands] of holesLive(readings, nominalVolts))
    if (!known.has(state)) known.set(state, stands);
  const finding = classOf(known);
  const side = supplySide(
    slot,
    readings,
    [...known].flatMap(([state, stands]) => (stands === 'live' ? [state] : [])),
    nominalVolts,
  );
  const barred = isSafetySlot(slot);
  const verdict = triageSlot(slot, readings, nominalVolts).verdict;
  return {
    slot,
    states: Object.fromEntries(known),
    finding,
    side,
    twoFeeds: side.stands === 'two-feeds' || verdict === 'second-feed' || verdict === 'fed-backwards',
    droppedAfter: droppedAfter(readings),
    barred,
    missing: barred
      ? []
      : KEY_STATES.filter(
          (state) => !known.has(state) && (state !== 'function-on' || finding.missing.includes(state)),
        ),
  };
}

/** Of the two holes of a slot without its fuse the better fed one, by state. */
export function holesLive(
  readings: readonly SlotReading[],
  nominalVolts: number,
): ReadonlyMap<KeyState, Liveness> {
  const order: readonly Liveness[] = ['dead', 'weak', 'live'];
  const best = new Map<KeyState, Liveness>();
  for (const state of KEY_STATES) {
    for (const end of ['feed', 'first', 'second'] as const) {
      const last = readings.findLast((one) => one.fuseOut && one.end === end && one.state === state);
      if (!last) continue;
      const here = liveness(last.value, nominalVolts);
      const before = best.get(state);
      if (before === undefined || order.indexOf(here) > order.indexOf(before)) best.set(state, here);
    }
  }
  return best;
}

export function surveyRows(
  panel: Panel,
  readings: readonly SlotReading[],
  nominalVolts: number,
): SurveyRow[] {
  return surveyed(panel.slots).map((slot) =>
    surveyRow(
      slot,
      readings.filter((one) => one.panel === panel.id && one.slot === slot.id),
      nominalVolts,
    ),
  );
}

/** The class as it is said in a table: with what it may still be, and when it dropped. */
export function surveyWords(row: SurveyRow): string {
  const dropped = row.droppedAfter === null ? '' : `, dropped after ${Math.round(row.droppedAfter)} s`;
  if (row.barred) return 'safety: by the maker’s procedure only';
  if (row.twoFeeds) return 'two feeds: stop';
  if (row.finding.feed !== 'unknown') return `${row.finding.feed}${dropped}`;
  return row.finding.possible.length > 0
    ? `${row.finding.possible.join(' / ')}?${dropped}`
    : row.finding.sentence;
}

export function surveyCsv(
  panels: readonly Panel[],
  readings: readonly SlotReading[],
  nominalVolts: number,
): string {
  const head = [
    'Box',
    'Slot',
    'Label',
    'Rating A',
    'Family',
    ...KEY_STATES.map((state) => KEY_STATE_WORDS[state]),
    'Feed',
    'Dropped after s',
    'Supply side',
    'Still to be read',
  ];
  const lines = panels.flatMap((panel) =>
    surveyRows(panel, readings, nominalVolts).map((row) => [
      panel.name,
      `${row.slot.type} ${row.slot.number}`,
      row.slot.label,
      row.slot.ratingAmps?.toString() ?? '',
      row.slot.family,
      ...KEY_STATES.map((state) => row.states[state] ?? ''),
      surveyWords(row),
      row.droppedAfter?.toString() ?? '',
      row.side.end === null ? '' : row.side.end === 'first' ? 'upper or left' : 'lower or right',
      row.missing.map((state) => KEY_STATE_WORDS[state].toLowerCase()).join('; '),
    ]),
  );
  return [head, ...lines].map((line) => line.map(csvCell).join(',')).join('\n');
}

/** The same as a file with a schema. */
export function surveyFile(
  vehicle: string,
  panels: readonly Panel[],
  readings: readonly SlotReading[],
  nominalVolts: number,
): SurveyFile {
  return {
    format: SURVEY_FORMAT,
    version: 1,
    vehicle,
    nominalVolts,
    slots: panels.flatMap((panel) =>
      surveyRows(panel, readings, nominalVolts).map((row) => ({
        panel: panel.id,
        slot: row.slot.id,
        label: row.slot.label,
        states: row.states,
        feed: row.finding.feed,
        possible: [...row.finding.possible],
        stillToRead: [...row.missing],
        ...(row.droppedAfter === null ? {} : { droppedAfterSeconds: row.droppedAfter }),
        ...(row.side.end === null ? {} : { supplySide: row.side.end }),
        twoFeeds: row.twoFeeds,
      })),
    ),
  };
}
