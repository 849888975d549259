/** Which parts end what is too much current for what lies behind them. */
import type { CircuitPart, PartKind, PartOf } from '../format';
import { OPENS_FROM, POLYFUSE_TRIPS_AT } from '../limits';

export type Protector = PartOf<'fuse' | 'fusible-link' | 'breaker' | 'polyfuse'>;

const PROTECTS: { readonly [K in PartKind]: PartOf<K> extends Protector ? true : false } = {
  battery: false,
  'charging-source': false,
  fuse: true,
  'fusible-link': true,
  breaker: true,
  polyfuse: true,
  wire: false,
  connector: false,
  splice: false,
  ground: false,
  switch: false,
  'key-contact': false,
  relay: false,
  'latching-relay': false,
  solenoid: false,
  flasher: false,
  'cut-off': false,
  'module-output': false,
  lamp: false,
  led: false,
  motor: false,
  pump: false,
  horn: false,
  heater: false,
  module: false,
  resistor: false,
  socket: false,
  diode: false,
};

export const PROTECTORS = (Object.keys(PROTECTS) as PartKind[]).filter((kind) => PROTECTS[kind]);

/**
 * The rating that a wire behind it has to bear, ampere: that of a fuse; of a resettable fuse, which holds less than it ends,
 * the rating of the fuse that ends the same current. Undefined where nobody has said it.
 */
export function ratedAs(part: Protector): number | undefined {
  return part.kind === 'polyfuse' ? (part.ratingAmps * POLYFUSE_TRIPS_AT) / OPENS_FROM : part.ratingAmps;
}

export function isProtector(part: CircuitPart): part is Protector {
  return PROTECTS[part.kind];
}
