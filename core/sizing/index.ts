/** The sums of the trade: each a function with units in its names, and a result that says how it came about. */
import { batteryTime } from './kinds/batteryTime';
import { cutOff } from './kinds/cutOff';
import { drain } from './kinds/drain';
import { drop } from './kinds/drop';
import { fuse } from './kinds/fuse';
import { fuseDrop } from './kinds/fuseDrop';
import { headroomSum } from './kinds/headroom';
import { pack } from './kinds/pack';
import { power } from './kinds/power';
import { wire } from './kinds/wire';
import type { Sum } from './sum';

export { type Answer, type Curve, isRefused, type Step, type SumResult } from './explained';
export {
  amps as ampsField,
  type Field,
  figure,
  type Load,
  loadAmps,
  metres as metresField,
  millivolts as millivoltsField,
  readLoad,
} from './fields';
export { hoursWords, lastsHours } from './kinds/batteryTime';
export type { Drawn } from './kinds/drain';
export { fuseFor } from './kinds/fuse';
export {
  type Carrier,
  type CarrierRoom,
  carrierWords,
  type Headroom,
  headroom,
  headroomWords,
  onAmps,
  SUPPLY_FIELDS,
} from './kinds/headroom';
export { leastRating, type WireSize, wireSize } from './kinds/wire';
export { type Sum, standsIn, sumText, type Worked } from './sum';

/** In the order in which they are offered. */
export const SUMS: readonly Sum[] = [
  wire,
  fuse,
  drop,
  fuseDrop,
  power,
  batteryTime,
  drain,
  cutOff,
  headroomSum,
  pack,
];
