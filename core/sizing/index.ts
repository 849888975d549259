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

export type { Answer, Curve, SumResult } from './explained';
export {
  amps as ampsField,
  type Field,
  figure,
  loadAmps,
  metres as metresField,
  millivolts as millivoltsField,
  readLoad,
} from './fields';

export { fuseFor } from './kinds/fuse';
export {
  type Carrier,
  carrierWords,
  type Headroom,
  headroom,
  headroomWords,
  onAmps,
  SUPPLY_FIELDS,
} from './kinds/headroom';
export { leastRating, wireSize } from './kinds/wire';
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
