/** What a person says of a slot’s supply, as it is typed: parts and loads, or a current that was read. */

import type { Slot } from '../format';
import { fuseDropAmps } from '../limits';
import { ampsField, millivoltsField, onAmps, SUPPLY_FIELDS } from '../sizing';
import type { SaidOfSupply } from './scene';

export interface TypedSupply {
  /** One part a line: "Main fuse 60 A". */
  readonly parts?: string;
  /** One load a line. */
  readonly on?: string;
  /** Read with a clamp round the feed, everything on. */
  readonly clamp?: string;
  /** Millivolts over a fuse before it, and its rating. */
  readonly millivolts?: string;
  readonly rating?: string;
}

export interface ReadSupply {
  readonly said: SaidOfSupply | null;
  /** Why a field cannot be read, by field. */
  readonly problems: Readonly<Partial<Record<keyof TypedSupply, string>>>;
}

const clampField = ampsField({ name: 'Clamp', typical: '' });
const ratingField = ampsField({ name: 'Its rating', typical: '' });
const dropField = millivoltsField({ name: 'Millivolts', typical: '' });

/** What was typed of a supply; null where nothing was. A field that cannot be read is named, the others count. */
export function readSupply(
  typed: TypedSupply,
  nominalVolts: number,
  family: Slot['family'] = 'regular',
): ReadSupply {
  const problems: Partial<Record<keyof TypedSupply, string>> = {};
  const read = <T>(
    id: keyof TypedSupply,
    field: { read: (text: string) => { ok: true; value: T } | { ok: false; message: string } },
  ) => {
    const text = typed[id]?.trim() ?? '';
    if (text === '') return null;
    const answer = field.read(text);
    if (answer.ok) return answer.value;
    problems[id] = answer.message;
    return null;
  };
  const parts = read('parts', SUPPLY_FIELDS.parts) ?? [];
  const on = read('on', SUPPLY_FIELDS.on);
  const clamp = read('clamp', clampField);
  const millivolts = read('millivolts', dropField);
  const rating = read('rating', ratingField);
  let measured: SaidOfSupply['measured'] = clamp === null ? null : { amps: clamp, how: 'clamp' };
  if (measured === null && millivolts !== null) {
    if (rating === null) problems.rating ??= 'The rating of the fuse that was read over is missing.';
    else {
      const found = fuseDropAmps(millivolts / 1000, rating, family);
      if ('nothing' in found) problems.millivolts = found.nothing;
      // The upper end of the band: what may flow counts, not what probably does.
      else measured = { amps: found.toAmps, how: 'fuse drop' };
    }
  }
  const said = parts.length > 0 || on !== null || measured !== null;
  return {
    said: said ? { parts, onAmps: on === null ? null : onAmps(on, nominalVolts), measured } : null,
    problems,
  };
}
