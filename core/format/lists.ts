/** Names that files and entries may use, each list once: the schemas are made from them, and the program goes through them. */
import type { Hand } from './handSchema';

/** Families of fuses by what fits into their hole (ISO 8820-3 for blades; others as they are met). */
export const FUSE_FAMILIES = [
  'micro-2',
  'micro-3',
  'low-profile-mini',
  'mini',
  'regular',
  'maxi',
  'cartridge-low',
  'cartridge-tall',
  'strip-small',
  'strip-large',
] as const;

/** Of slots: fuses, relays, and what else a box has. */
export const SLOT_FAMILIES = [...FUSE_FAMILIES, 'relay-micro', 'relay-mini', 'stud', 'none'] as const;

export const SLOT_TYPES = ['fuse', 'relay', 'cavity', 'stud'] as const;

/** What a slot can be, in the order in which it is offered. */
export const SLOT_STATES = [
  'fitted',
  'empty',
  'not-ordered',
  'missing',
  'spare',
  'abandoned',
  'tapped',
  'unknown',
] as const;

/** Positions of key and engine, and what is switched on, in which feeds are told apart; in the order in which they are asked for. */
export const KEY_STATES = [
  'off',
  'off-waited',
  'accessory',
  'run',
  'crank',
  'running',
  'function-on',
] as const;

/** Kinds of feed that a slot can have, in the order in which they are offered. */
export const SLOT_FEEDS = [
  'unknown',
  'constant',
  'accessory',
  'run',
  'ignition',
  'crank',
  'lights',
  'delayed',
  'module',
  'load-side',
  'dead',
] as const;

/** Steps of isolation, in the order in which they are done. */
export const ISOLATION_STEPS = [
  'key-off',
  'slept',
  'earthed-pole-off',
  'retained-power-waited',
  'dead-reading',
] as const;

/** Instruments that a person may have at hand or not. */
export const INSTRUMENT_NAMES = ['meter', 'lamp', 'led', 'clamp', 'lead'] as const;
export type InstrumentName = (typeof INSTRUMENT_NAMES)[number];

/** Where nobody said otherwise: everything at hand, the lamp of a 12 V workshop, our own side of every question. */
export const USUAL_HAND: Hand = {
  without: [],
  lampVolts: [12],
  fuses: 'probe',
  tester: 'either',
  exchange: 'early',
  isolation: 'by-task',
};

/** What a job is for where nothing failed: boxes read, a vehicle mapped, something changed or added. */
export const WORKS = ['survey', 'mapping', 'change'] as const;
export type Work = (typeof WORKS)[number];
