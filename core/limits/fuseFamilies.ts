/**
 * Families of fuses and relays: the room they take in a box, the colours of their ratings, what is known of them in public
 * (ISO 8820-3 for blades; others as they are met).
 */
import type { Slot } from '../format';

type Family = Slot['family'];

/** Blade colours by rating, ampere (ISO 8820-3); a colour means a rating only within a family. */
const BLADE_COLOURS: Readonly<Record<number, string>> = {
  1: 'black',
  2: 'grey',
  3: 'violet',
  4: 'pink',
  5: 'tan',
  7.5: 'brown',
  10: 'red',
  15: 'blue',
  20: 'yellow',
  25: 'clear',
  30: 'green',
  35: 'blue-green',
  40: 'orange',
};
const MAXI_COLOURS: Readonly<Record<number, string>> = {
  20: 'yellow',
  25: 'grey',
  30: 'green',
  35: 'brown',
  40: 'orange',
  50: 'red',
  60: 'blue',
  70: 'tan',
  80: 'clear',
};
const CARTRIDGE_COLOURS: Readonly<Record<number, string>> = {
  20: 'light blue',
  25: 'white',
  30: 'pink',
  40: 'green',
  50: 'red',
  60: 'yellow',
};

/** Common blade fuses are made for this, volts direct current: on more they may not clear. */
export const BLADE_VOLTS = 32;

interface FamilyFacts {
  /** Millimetres across and along the row, as they look with the cover text upright. */
  readonly size: readonly [across: number, along: number];
  readonly colours?: Readonly<Record<number, string>>;
  /** The cold resistance of a rating is tabled, so that a drop tells the current. */
  readonly coldOhms?: true;
  /** A band of opening times is public. */
  readonly openingBand?: true;
  /** The family that fits the same hole and stands higher, or lower. */
  readonly tallerOf?: Family;
}

const FAMILIES: Readonly<Record<Family, FamilyFacts>> = {
  'micro-2': { size: [9, 4], colours: BLADE_COLOURS },
  'micro-3': { size: [14, 4], colours: BLADE_COLOURS },
  'low-profile-mini': { size: [11, 4], colours: BLADE_COLOURS },
  mini: { size: [11, 4], colours: BLADE_COLOURS, coldOhms: true, tallerOf: 'low-profile-mini' },
  regular: { size: [19, 5], colours: BLADE_COLOURS, coldOhms: true, openingBand: true },
  maxi: { size: [29, 9], colours: MAXI_COLOURS },
  'cartridge-low': { size: [12, 12], colours: CARTRIDGE_COLOURS },
  'cartridge-tall': { size: [14, 12], colours: CARTRIDGE_COLOURS, tallerOf: 'cartridge-low' },
  'strip-small': { size: [24, 12] },
  'strip-large': { size: [40, 16] },
  'relay-micro': { size: [23, 16] },
  'relay-mini': { size: [28, 28] },
  stud: { size: [14, 14] },
  none: { size: [10, 6] },
};

/** Where nobody said the family of a fuse it counts as a regular blade. */
const UNSAID: Family = 'regular';

const factsOf = (family: string | undefined): FamilyFacts | undefined =>
  FAMILIES[(family ?? UNSAID) as Family];

/** True size of a slot, millimetres. */
export function familySize(family: Family): readonly [across: number, along: number] {
  return FAMILIES[family].size;
}

/** The colour that a rating has in a family; null where the family has none. */
export function colourOf(family: Family, ratingAmps: number): string | null {
  return FAMILIES[family].colours?.[ratingAmps] ?? null;
}

/** Ratings of a family that have a colour, the smallest first, ampere. */
export function ratingsOf(family: Family): readonly { readonly amps: number; readonly colour: string }[] {
  return Object.entries(FAMILIES[family].colours ?? {})
    .map(([amps, colour]) => ({ amps: Number(amps), colour }))
    .sort((one, other) => one.amps - other.amps);
}

/** What the terminals of a slot carry: as much as the largest fuse that is made for them, ampere; null where that is not known. */
export function terminalAmps(family: Family): number | null {
  return SMALL_BLADES.includes(family) ? SMALL_BLADE_AMPS : (ratingsOf(family).at(-1)?.amps ?? null);
}

/** Small blades end at 30 A. */
const SMALL_BLADES: readonly Family[] = ['micro-2', 'micro-3', 'low-profile-mini', 'mini'];
const SMALL_BLADE_AMPS = 30;

/** Whether the cold resistance of a family is known well enough to read a current from a drop. */
export function hasColdOhms(family: string | undefined): boolean {
  return factsOf(family)?.coldOhms === true;
}

/** Whether a band of opening times is public for a family. */
export function hasOpeningBand(family: string | undefined): boolean {
  return factsOf(family)?.openingBand === true;
}

/** Whether one fits the hole of the other and stands higher there: its cover may not close. */
export function isTallerOf(family: Family, other: Family): boolean {
  return FAMILIES[family].tallerOf === other;
}
