/** A job while its log is worked through: what entries write into. */
import type { SubstitutionTable } from '../diagnosis';
import type { SlotDrop } from '../feed';
import type { BodyOf, Condition, EventKind, FunctionStateName, PlanFile } from '../format';
import type { WireReading } from '../hands';
import type { SlotReading } from '../limits';
import type { SlotStateEntry } from '../panel';

export interface CheckCell {
  readonly eventId: string;
  readonly state: FunctionStateName;
}

/** What was seen of a function after a repair. */
export interface ProofCell extends CheckCell {
  /** Whether it is what it should be. */
  readonly right: boolean;
}

/** Something to be watched, and what was found when it was dealt with. */
export type Watch = BodyOf<'watch'> & {
  readonly eventId: string;
  /** Why it was put off. */
  readonly putOff?: string;
  readonly done: { readonly words: string; readonly at: string; readonly person: string } | null;
};

/** What is kept of an entry by its id. */
export type Kept<K extends EventKind> = BodyOf<K> & { readonly eventId: string };

export interface HandedTo {
  readonly to: string;
  readonly words: string;
  readonly eventId: string;
  readonly by: string;
  readonly at: string;
}

export type JobPhoto = BodyOf<'photo'> & {
  readonly eventId: string;
  readonly marks: BodyOf<'photo-marks'>['marks'];
};

export interface Identity {
  readonly nominalVolts: number | null;
  readonly odometerKm: number | null;
  readonly fuel: string;
  readonly options: string;
  readonly alterations: string;
}

/** A plan with what was done of it. */
export interface PlanOnJob {
  readonly plan: PlanFile;
  readonly eventId: string;
  /** By step: how it was dealt with. */
  readonly steps: Map<string, Kept<'plan-step'> & { readonly how: 'done' | 'wrong' | 'override' }>;
  /** By finding: that it stays, and why. */
  readonly kept: Map<string, BodyOf<'finding-kept'>>;
  readonly ended: Kept<'plan-ended'> | null;
}

export class JobDraft {
  complaint: BodyOf<'complaint'> | null = null;
  identity: Identity = { nominalVolts: null, odometerKm: null, fuel: '', options: '', alterations: '' };
  /** By `function|condition`; the latest entry counts. */
  readonly checks = new Map<string, CheckCell>();
  /** Settings of key and switches that were seen and that the map has not, by their id as conditions. */
  readonly settings = new Map<string, Condition>();
  testerProvedAt: string | null = null;
  /** Where the work was done, as somebody confirmed. */
  workPlace: string | null = null;
  applianceSetAside = false;
  /** What was answered when a second fuse had gone; null while nobody was asked. */
  pluggedIn: BodyOf<'plugged-in'> | null = null;
  readonly slotReadings: SlotReading[] = [];
  readonly slotDrops: SlotDrop[] = [];
  readonly slotStates: SlotStateEntry[] = [];
  readonly wireReadings: WireReading[] = [];
  readonly damages: (BodyOf<'damage'> & { readonly eventId: string })[] = [];
  readonly photos = new Map<string, JobPhoto>();
  readonly isolated = new Set<BodyOf<'isolation'>['step']>();
  readonly begun: BodyOf<'task-begun'>[] = [];
  readonly tags = new Map<string, BodyOf<'plug-tag'>>();
  /** Functions of exchanged relays: whether the relays are back in their places. */
  readonly afterSwap = new Map<string, 'swapped' | 'restored'>();
  readonly exchanged = new Set<string>();
  readonly swaps = new Map<string, BodyOf<'swapped'> & { readonly eventId: string }>();
  /** Places where a known good part was tried, by the part they belong to: what sits there, or that it is asked. */
  readonly inPlace = new Map<string, 'asked' | 'own' | 'known-good'>();
  /** Whole units tried between vehicles, by name: their cells. */
  readonly units = new Map<string, SubstitutionTable['cells']>();
  readonly refused = new Set<string>();
  /** Cautions that were answered, by id; the latest answer counts. */
  readonly cautions = new Map<string, BodyOf<'caution-read'>>();
  readonly opened = new Set<string>();
  found: (BodyOf<'found'> & { readonly eventId: string }) | null = null;
  readonly repairs: Kept<'repair'>[] = [];
  /** Temporary repairs that stand. */
  readonly temporaries = new Map<string, Kept<'repair'>>();
  /** Since when the clock of the work runs; null while it stands. */
  clockSince: string | null = null;
  clockedMinutes = 0;
  /** Currents through fuses, in order. */
  readonly currents: Kept<'fuse-current'>[] = [];
  /** What else was to be seen since the last repair, by its id. */
  readonly answers = new Map<string, Kept<'proof-answer'>>();
  /** Ways of doing it, by id. */
  readonly options = new Map<string, BodyOf<'option'>>();
  chosen: (BodyOf<'option-chosen'> & { readonly at: string }) | null = null;
  readonly boardChecks = new Map<string, BodyOf<'board-check'>>();
  /** Appliances in quarantine, by the entry that set them aside. */
  readonly setAside = new Map<string, string>();
  handedOver: HandedTo | null = null;
  /** What was seen since the last repair; what was seen before it says nothing about it. */
  readonly proofs = new Map<string, ProofCell>();
  readonly watches = new Map<string, Watch>();
  /** Changes that are planned, by the id of the plan. */
  readonly plans = new Map<string, PlanOnJob>();
  readonly notes: BodyOf<'note'>[] = [];
  state: BodyOf<'state'>['state'] = 'open';
  /** Who asks for another's word to close it, and when; null while nobody does. */
  askedBy: { readonly person: string; readonly at: string } | null = null;
  override: string | null = null;
  ending: 'made-safe' | 'not-found' | null = null;
}
