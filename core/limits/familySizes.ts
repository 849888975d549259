/** Families of fuses and relays by the room they take in a box (ISO 8820-3 for blades; others as they are met). */
import type { Slot } from '../format';

/** True sizes of slots, millimetres across and along the row, as they look with the cover text upright. */
export const FAMILY_SIZE: Readonly<Record<Slot['family'], readonly [number, number]>> = {
  'micro-2': [9, 4],
  'micro-3': [14, 4],
  'low-profile-mini': [11, 4],
  mini: [11, 4],
  regular: [19, 5],
  maxi: [29, 9],
  'cartridge-low': [12, 12],
  'cartridge-tall': [14, 12],
  'strip-small': [24, 12],
  'strip-large': [40, 16],
  'relay-micro': [23, 16],
  'relay-mini': [28, 28],
  stud: [14, 14],
  none: [10, 6],
};
