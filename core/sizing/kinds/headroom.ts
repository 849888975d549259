/**
 * What a supply can still give: for every part that carries the current, factor × rating less what flows already. The least of
 * them is the headroom; a rating or a load that nobody knows makes it incomplete, and never a pass.
 */
import { deratedAmpacity, HOT_RUNNING_SHARE, RUNNING_SHARE } from '../../limits';
import { formatNumber } from '../../quantity';
import type { SumResult } from '../explained';
import {
  choice,
  figure,
  type Load,
  list,
  load,
  loadAmps,
  named,
  type ReadField,
  readLoad,
  readSize,
  volts,
} from '../fields';
import { sumOf } from '../sum';

/** A part on the way of the added current. */
export interface Carrier {
  readonly name: string;
  /** Null where nobody knows it. */
  readonly ratingAmps: number | null;
  /** What flows through it already, ampere; null where a load on it is not declared. */
  readonly presentAmps: number | null;
  /** Share of the added current that goes through it, 0 to 1. */
  readonly share: number;
}

export interface CarrierRoom extends Carrier {
  readonly totalAmps: number | null;
  /** Of its rating, 0 to 1; null where either is not known. */
  readonly loaded: number | null;
  /** Left under factor × rating, and under the rating itself, before anything is added; null where not known. */
  readonly roomAmps: number | null;
  readonly bareRoomAmps: number | null;
}

export interface Headroom {
  /** Passes, does not, or cannot be said: what is known passes, and something is not known. */
  readonly verdict: 'room' | 'none' | 'incomplete';
  /** The least over the parts that are known, before anything is added; null where none is. */
  readonly roomAmps: number | null;
  readonly limiting: CarrierRoom | null;
  readonly parts: readonly CarrierRoom[];
  /** What is missing to be sure, in words. */
  readonly missing: readonly string[];
  readonly factor: number;
}

/** Ampere within which two are the same. */
const SAME = 1e-6;

export function headroom(
  parts: readonly Carrier[],
  addedAmps: number,
  factor: number,
  undeclared = false,
): Headroom {
  const rooms = parts.map((part): CarrierRoom => {
    const { ratingAmps, presentAmps, share } = part;
    const totalAmps = presentAmps === null ? null : presentAmps + share * addedAmps;
    const known = ratingAmps !== null && presentAmps !== null;
    return {
      ...part,
      totalAmps,
      loaded: ratingAmps === null || totalAmps === null ? null : totalAmps / ratingAmps,
      roomAmps: known && share > 0 ? (factor * ratingAmps - presentAmps) / share : null,
      bareRoomAmps: known && share > 0 ? (ratingAmps - presentAmps) / share : null,
    };
  });
  const sure = rooms.filter((one) => one.roomAmps !== null);
  const limiting = sure.reduce<CarrierRoom | null>(
    (least, one) => (least === null || one.roomAmps! < least.roomAmps! ? one : least),
    null,
  );
  // A part whose load is not known holds nothing more than factor × rating, whatever flows.
  const over = rooms.some(
    ({ ratingAmps, share, presentAmps }) =>
      ratingAmps !== null && factor * ratingAmps + SAME < share * addedAmps + (presentAmps ?? 0),
  );
  const missing = [
    ...rooms.filter((one) => one.ratingAmps === null).map((one) => `the rating of ${one.name}`),
    ...rooms.filter((one) => one.presentAmps === null).map((one) => `what is on ${one.name}`),
    ...(undeclared ? ['whether anything else hangs on it'] : []),
  ];
  return {
    verdict: over ? 'none' : missing.length > 0 || parts.length === 0 ? 'incomplete' : 'room',
    roomAmps: limiting?.roomAmps ?? null,
    limiting,
    parts: rooms,
    missing,
    factor,
  };
}

/** How it stands, in a sentence. */
export function headroomWords(room: Headroom, addedAmps: number): string {
  const left = room.limiting
    ? `${room.limiting.name} leaves ${figure(Math.max(0, room.roomAmps!), 'A')} at ${Math.round(100 * room.factor)} % of ${formatNumber(room.limiting.ratingAmps!)} A`
    : '';
  switch (room.verdict) {
    case 'room':
      return `Room for ${figure(addedAmps, 'A')}: ${left}.`;
    case 'none': {
      const part = room.parts.find(
        ({ ratingAmps, presentAmps, share }) =>
          ratingAmps !== null && room.factor * ratingAmps + SAME < share * addedAmps + (presentAmps ?? 0),
      )!;
      return `No room for ${figure(addedAmps, 'A')}: ${part.name} would carry ${figure((part.presentAmps ?? 0) + part.share * addedAmps, 'A')}${part.presentAmps === null ? ' at least' : ''} of ${figure(room.factor * part.ratingAmps!, 'A')} (${Math.round(100 * room.factor)} % of ${formatNumber(part.ratingAmps!)} A).`;
    }
    case 'incomplete':
      return `Incomplete, so no pass: not known ${room.missing.join(', ') || 'which parts carry it'}.${left === '' ? '' : ` Of what is known ${left}.`}`;
  }
}

interface SupplyLine {
  readonly name: string;
  readonly ratingAmps: number | null;
}

/** "Main fuse 60 A", "feed wire 6 mm²", "relay 40 A", "ignition switch ?". */
function readSupply(hot: boolean) {
  return (line: string): ReadField<SupplyLine> => {
    if (/\?\s*$/.test(line))
      return { ok: true, value: { name: line.replace(/\s*\?\s*$/, ''), ratingAmps: null } };
    if (/mm|awg/i.test(line)) {
      const words = /^(.*?)\s*((?:awg\s*)?[\d.,]+\s*(?:mm²|mm2|awg)?)$/i.exec(line);
      const size = words ? readSize(words[2]!) : null;
      if (!size?.ok) return { ok: false, message: size?.message ?? `“${line}” has no size.` };
      return {
        ok: true,
        value: { name: words![1] || line, ratingAmps: deratedAmpacity(size.value, { bundled: hot }) },
      };
    }
    const read = named(line, readLoad);
    if (!read.ok) return read;
    if (read.value.value.unit === 'W') return { ok: false, message: 'a rating is in ampere.' };
    return {
      ok: true,
      value: { name: read.value.name || line, ratingAmps: read.value.value.each * read.value.value.count },
    };
  };
}

function readOn(line: string): ReadField<{ name: string; load: Load | null }> {
  if (/\?\s*$/.test(line)) return { ok: true, value: { name: line.replace(/\s*\?\s*$/, ''), load: null } };
  if (/^(nothing|none)\b/i.test(line))
    return { ok: true, value: { name: line, load: { count: 1, each: 0, unit: 'A' } } };
  const read = named(line, readLoad);
  return read.ok ? { ok: true, value: { name: read.value.name || 'a load', load: read.value.value } } : read;
}

/** A supply as it is typed: what carries the current, and what is on it. */
export const SUPPLY_FIELDS = {
  parts: list(
    { name: 'What carries it', typical: 'Main fuse 60 A · feed wire 6 mm² · relay 40 A · switch ?' },
    readSupply(false),
  ),
  on: list(
    {
      name: 'On it already, all at once',
      typical: 'Blower 20 A · lamps 4 x 21 W · radio ? · or “nothing”',
      least: 0,
    },
    readOn,
  ),
};

/** Ampere of all that is on a supply; null where something of it is not known, or nothing was said. */
export function onAmps(on: readonly { readonly load: Load | null }[], systemVolts: number): number | null {
  if (on.length === 0 || on.some((one) => one.load === null)) return null;
  return on.reduce((sum, one) => sum + loadAmps(one.load!, systemVolts).amps, 0);
}

export const headroomSum = sumOf({
  id: 'headroom',
  name: 'Headroom of a supply',
  also: ['spare', 'capacity', 'room', 'feed', 'add a load'],
  says: 'How much more a supply can give, and which part of it says no first.',
  fields: {
    load: load({ name: 'To be added', typical: '5 A' }),
    volts: volts({ name: 'On a system of', typical: '12 V', first: '12' }),
    place: choice({ name: 'It lies', typical: 'in the cabin' }, [
      { id: 'cool', name: 'cool: 80 %' },
      { id: 'hot', name: 'in a hot bay: 70 %' },
    ]),
    ...SUPPLY_FIELDS,
  },
  work: (typed): SumResult => {
    const added = loadAmps(typed.load, typed.volts);
    const factor = typed.place === 'hot' ? HOT_RUNNING_SHARE : RUNNING_SHARE;
    const present = typed.on.reduce(
      (sum, one) => sum + (one.load ? loadAmps(one.load, typed.volts).amps : 0),
      0,
    );
    const undeclared = typed.on.length === 0 || typed.on.some(({ load: one }) => one === null);
    const parts = typed.parts.map(
      (part): Carrier => ({ ...part, presentAmps: typed.on.length === 0 ? null : present, share: 1 }),
    );
    const room = headroom(
      parts,
      added.amps,
      factor,
      typed.on.some(({ load: one }) => one === null),
    );
    return {
      answers: [
        {
          id: 'room',
          name: 'Can still give',
          words:
            room.roomAmps === null || undeclared ? 'not to be said' : figure(Math.max(0, room.roomAmps), 'A'),
          main: true,
          stands: room.verdict === 'room' ? 'good' : room.verdict === 'none' ? 'bad' : 'watch',
        },
        ...(room.limiting ? [{ id: 'limits', name: 'Limited by', words: room.limiting.name }] : []),
        {
          id: 'present',
          name: 'On it',
          words: undeclared ? `${figure(present, 'A')} or more` : figure(present, 'A'),
        },
      ],
      governs: headroomWords(room, added.amps),
      steps: [
        { name: 'Added', formula: added.formula },
        ...room.parts.map((part) => ({ name: part.name, formula: carrierWords(part, added.amps, factor) })),
      ],
      assumes: [
        'All of it on at once, and all of it through every part.',
        'Two fuses side by side are not two supplies.',
      ],
      leavesOut: ['What starts or is held draws 3 to 6 times as much for a moment.'],
      cautions: undeclared
        ? ['Loads that nobody has declared make this incomplete: read the current with a clamp.']
        : [],
      curve: null,
      label: headroomWords(room, added.amps),
    };
  },
});

/** Present + added = total against the rating, with the factor and without it. */
export function carrierWords(
  { presentAmps, share, ratingAmps, totalAmps, loaded }: CarrierRoom,
  addedAmps: number,
  factor: number,
): string {
  const added = figure(share * addedAmps, 'A');
  const sum =
    presentAmps === null
      ? `? + ${added}`
      : `${figure(presentAmps, 'A')} + ${added} = ${figure(totalAmps!, 'A')}`;
  return ratingAmps === null
    ? `${sum}; rating not known`
    : `${sum} of ${figure(ratingAmps, 'A')}${loaded === null ? '' : ` (${Math.round(100 * loaded)} %)`}, at most ${figure(factor * ratingAmps, 'A')}`;
}
