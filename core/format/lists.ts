/** Names that files and entries may use, each list once: the schemas are made from them, and the program goes through them. */

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

/** Of relays: which way the contact goes. */
export const CONTACT_FORMS = ['make', 'break', 'changeover', 'double-make'] as const;

/** What a hand does to a part. */
export const REPAIR_DEEDS = [
  'replaced',
  'cleaned',
  're-terminated',
  'spliced',
  'bypassed',
  'adjusted',
  'board-repaired',
] as const;

/** How two conductors were joined. */
export const JOINTS = ['crimped-terminal', 'crimped-sleeve', 'soldered', 'solder-sleeve', 'screwed'] as const;

/** What a stock has. */
export const STOCK_SORTS = [
  'fuse',
  'relay',
  'tap',
  'terminal',
  'splice',
  'sleeve',
  'wire',
  'lamp',
  'connector',
  'switch',
  'seal',
  'other',
] as const;
export const STOCK_UNITS = ['piece', 'metre', 'litre'] as const;
export const STOCK_PLACES = ['van', 'bench', 'shelf', 'vehicle'] as const;

/** What made a fuse open. */
export const OPENED_BY = ['fault', 'overload', 'appliance', 'age', 'unknown'] as const;

/** When a current flows: all the time, in the first moment, with the shaft held. */
export const CURRENT_PHASES = ['running', 'starting', 'stall'] as const;

/** Answers to what else is to be seen after a repair. */
export const PROOF_ANSWERS = ['done', 'wrong', 'not-here', 'owner'] as const;

/** What somebody has to come back to. */
export const WATCH_SORTS = ['watch', 'visit', 'part', 'reading'] as const;

/** What a repair on a board has to answer for. */
export const BOARD_CHECKS = ['coil', 'contact', 'heat', 'coating', 'seal', 'every-item', 'tracks'] as const;

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

/** Batteries by how volts and charge belong together. */
export const BATTERY_KINDS = ['flooded', 'agm', 'lithium'] as const;

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

/** What a job is for where nothing failed: boxes read, a vehicle mapped, something changed or added. */
export const WORKS = ['survey', 'mapping', 'change'] as const;
export type Work = (typeof WORKS)[number];

/** Name of the file that a survey goes out as. */
export const SURVEY_FORMAT = 'every-trace/survey';

export const PLAN_FORMAT = 'every-trace/plan';

/** Name of the file that a whole shop is kept in. */
export const SHOP_FORMAT = 'every-trace/shop';
/** Name of the file that carries what waits in a browser to another address. */
export const WAITING_FORMAT = 'every-trace/waiting';

/** What a person is in a shop, the one who may most first. */
export const ROLES = ['owner', 'technician', 'learner'] as const;
export type Role = (typeof ROLES)[number];

/** What a short code on a phone of the shop is: digits, and how many. */
export const SHORT_CODE = '^[0-9]{4,8}$';
