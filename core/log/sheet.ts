/**
 * What the sheet of a job says, line by line, all of it from the log and from the answers of the diagnosis that stand
 * beside it. What blocks closing is asked of `missing.ts`, and nothing here says “proved” or “nothing known” against it.
 */
import { type Assessment, type RequiredProof, testInLog, WORTH_A_WORD } from '../diagnosis';
import type { CircuitFile, Panel, Slot } from '../format';
import { KEY_STATE_WORDS, type SlotReading } from '../limits';
import {
  auditSlot,
  classifyFeed,
  settledIn,
  triageSlot,
  unaccounted,
  VERDICT_WORDS,
  withKnownEnds,
  withStates,
} from '../panel';
import { fittedWords } from '../repair';
import { endingWords, standingWords } from './ending';
import { cellKey, type LogEvent } from './event';
import { eventWords } from './kinds';
import { missingProofs } from './missing';
import {
  conditionName,
  functionName,
  partName,
  SOUND_WORDS,
  STATE_WORDS,
  valueWords,
  WORK_WORDS,
} from './names';
import type { JobState } from './state';

export interface SheetLine {
  readonly words: string;
  /** Who, and when; null where it is no entry of the log. */
  readonly by: { readonly person: string; readonly at: string } | null;
  /** What the reading means, or why something was not done. */
  readonly more?: string;
}

export interface SheetPart {
  readonly title: string;
  readonly lines: readonly SheetLine[];
  /** Said where there are no lines; null where the part is then left out. */
  readonly empty: string | null;
}

export interface Sheet {
  /** "OPEN: not handed over", "Closed and verified". */
  readonly standing: string;
  /** From the first entry to the last; null where there is none. */
  readonly from: string | null;
  readonly until: string | null;
  /** Where the work was done; null while nobody has confirmed it. */
  readonly place: string | null;
  /** What is still open, each in words; closing is blocked by the same. */
  readonly open: readonly string[];
  readonly parts: readonly SheetPart[];
}

/** What stands beside the log when the sheet is written. */
export interface SheetScene {
  readonly job: JobState;
  readonly circuit: CircuitFile | null;
  readonly panels: readonly Panel[];
  readonly nominalVolts: number | null;
  readonly proofs: readonly RequiredProof[];
  /** Null where nothing could be assessed. */
  readonly assessment: Assessment | null;
  /** What a sound circuit does, by `function|condition`. */
  readonly expected: Readonly<Record<string, 'works' | 'weak' | 'dead'>>;
}

export function sheetOf(scene: SheetScene): Sheet {
  const { job } = scene;
  const open = missingProofs(job, scene.proofs);
  const parts = [
    failed(scene),
    found(scene, open),
    left(scene),
    evidence(scene),
    boxes(scene),
    wires(scene),
    exchanges(scene),
    done(scene),
    seen(scene),
    temporary(scene),
    overridden(scene),
    untested(scene, open),
    undo(scene),
  ];
  const moments = job.entries.map(({ event }) => event.madeAt).sort();
  return {
    from: moments[0] ?? null,
    until: moments.at(-1) ?? null,
    place: job.workPlace,
    standing: standingWords(job, open),
    open,
    parts: parts.filter(({ lines, empty }) => lines.length > 0 || empty !== null),
  };
}

const plain = (words: string, more?: string): SheetLine => ({ words, by: null, ...(more ? { more } : {}) });
const entered = ({ person, madeAt }: LogEvent, words: string, more?: string): SheetLine => ({
  words,
  by: { person, at: madeAt },
  ...(more ? { more } : {}),
});

/** Entries that stand, of some kinds, each as a line in its own words. */
function entriesOf({ job, circuit }: SheetScene, kinds: readonly LogEvent['body']['kind'][]): SheetLine[] {
  return job.entries.flatMap(({ event, struck }) =>
    !struck && kinds.includes(event.body.kind) ? [entered(event, eventWords(circuit, event.body))] : [],
  );
}

function failed({ job, circuit }: SheetScene): SheetPart {
  const { complaint } = job;
  const lines = complaint
    ? [
        plain(`“${complaint.words}”`),
        ...(complaint.function && complaint.condition
          ? [
              plain(
                `${functionName(circuit, complaint.function)}, ${conditionName(circuit, complaint.condition)}: ${STATE_WORDS[complaint.state ?? 'dead']}.`,
              ),
            ]
          : []),
        ...(complaint.heard ? [plain(`Heard: ${SOUND_WORDS[complaint.heard]}.`)] : []),
        ...appliance(job),
      ]
    : [];
  return complaint?.work
    ? { title: WORK_WORDS[complaint.work], lines, empty: null }
    : { title: 'What failed', lines, empty: 'No complaint is recorded.' };
}

/** What was plugged in when it failed, and what became of it. */
function appliance({ complaint, pluggedIn, applianceSetAside }: JobState): SheetLine[] {
  const name = complaint?.pluggedIn ?? pluggedIn?.appliance;
  if (!name && !complaint?.appliance) return [];
  const taken = complaint?.appliance?.fusesTaken ?? (pluggedIn?.appliance ? 2 : 0);
  const fuses = taken > 0 ? ` It took ${taken} ${taken === 1 ? 'fuse' : 'fuses'}.` : '';
  return [
    plain(
      `Plugged in: ${name ?? 'an appliance'}.${fuses} ${applianceSetAside ? 'Set aside, not to be used before it is tested.' : 'Not set aside.'}`,
    ),
  ];
}

function found({ job }: SheetScene, open: readonly string[]): SheetPart {
  const { found: finding } = job;
  const ends = endingWords(job);
  const ended =
    ends === null ? [] : [plain(`Ends as: ${ends}.`, job.ending ? (job.override ?? '') : undefined)];
  const lines = finding
    ? [
        plain(
          `${finding.fault}: ${finding.strength === 'proved' && open.length > 0 ? 'recorded as proved; not verified while something is open' : finding.strength}.`,
        ),
        plain(`Cause ${finding.cause}${finding.causeWords ? `: ${finding.causeWords}` : '.'}`),
      ]
    : [];
  return {
    title: 'What was found, and why',
    lines: [...lines, ...ended],
    empty: job.complaint?.work ? null : 'Nothing recorded as found.',
  };
}

/** Suspects that the readings leave, each with its chance: all of them from a word's worth on. */
function left({ assessment, job }: SheetScene): SheetPart {
  const verified = job.proved && job.found?.strength === 'proved';
  const suspects = (assessment?.suspects ?? []).filter(({ chance }) => chance >= WORTH_A_WORD);
  return {
    title: 'Suspects by the readings',
    lines: verified
      ? []
      : [
          ...suspects.map(({ title, chance, reason }) =>
            plain(`${title}: ${Math.round(chance * 100)} %`, reason),
          ),
          ...(assessment && assessment.beforePurchase.length > 0
            ? [plain(`Before anything is bought: ${assessment.beforePurchase.join('; ')}.`)]
            : []),
        ],
    empty: null,
  };
}

function evidence(scene: SheetScene): SheetPart {
  const { job, circuit, assessment } = scene;
  const effects = new Map((assessment?.effects ?? []).map((one) => [one.id, one.sentence]));
  const lines = job.entries.flatMap(({ event, struck }): SheetLine[] => {
    const { body } = event;
    if (body.kind === 'function-check') {
      return struck
        ? []
        : [
            entered(
              event,
              `${functionName(circuit, body.function)} ${STATE_WORDS[body.state]} (${conditionName(circuit, body.condition)})`,
              effects.get(event.id),
            ),
          ];
    }
    if (body.kind !== 'reading') return [];
    const where = 'condition' in body.test ? ` (${conditionName(circuit, body.test.condition)})` : '';
    const words = `${testInLog(circuit, body.test)}${where}: ${valueWords(body.value)}`;
    return struck
      ? [entered(event, `Struck: ${words}`, struck.reason)]
      : [entered(event, words, effects.get(event.id))];
  });
  const unread =
    lines.length > 0 && assessment === null && !job.complaint?.work
      ? [
          plain(
            circuit && job.complaint?.function
              ? 'What these readings mean is not worked out yet.'
              : 'What these readings mean was not worked out: no circuit or no complaint says what they are of.',
          ),
        ]
      : [];
  return {
    title: 'Evidence',
    lines: [...lines, ...unread],
    empty: job.complaint?.work ? null : 'No reading.',
  };
}

const slotName = ({ type, number }: Slot) => `${type} ${number}`;

function slotLines(slot: Slot, readings: readonly SlotReading[], nominalVolts: number): SheetLine[] {
  const own = readings.filter((one) => one.slot === slot.id);
  const known = withKnownEnds(slot, own, nominalVolts).readings;
  const verdict = triageSlot(slot, own, nominalVolts);
  const read = own
    .map(
      ({ end, value, state, fuseOut }) =>
        `${END_WORDS[end]} ${valueWords(value)} ${KEY_STATE_WORDS[state].toLowerCase()}${fuseOut ? ', fuse out' : ''}`,
    )
    .join('; ');
  const feed = classifyFeed(known, nominalVolts);
  const survey = feed.feed === 'unknown' ? '' : ` Feed: ${feed.sentence}`;
  return own.length === 0
    ? []
    : [plain(`${slotName(slot)}: ${VERDICT_WORDS[verdict.verdict]}. ${verdict.sentence}${survey}`, read)];
}

const END_WORDS: Readonly<Record<SlotReading['end'], string>> = {
  feed: 'feed side',
  load: 'load side',
  'load-2': 'second load side',
  first: 'upper or left end',
  second: 'lower or right end',
};

/** Boxes as found: damage, states with their evidence, verdicts with their readings, what a box still owes. */
function boxes(scene: SheetScene): SheetPart {
  const { job, panels, nominalVolts } = scene;
  const lines: SheetLine[] = [
    ...job.damages.map(({ words, when, panel }) =>
      plain(
        `${when === 'as-found' ? 'Damage as found' : 'Damage done here'}: ${words}`,
        panels.find(({ id }) => id === panel)?.name,
      ),
    ),
    ...entriesOf(scene, ['slot-state', 'plug-tag']),
  ];
  for (const panel of panels) {
    const readings = job.slotReadings.filter((one) => one.panel === panel.id);
    const touched = readings.length > 0 || job.slotStates.some((one) => one.panel === panel.id);
    if (!touched) continue;
    const now = withStates(panel, job.slotStates);
    for (const slot of now.slots) {
      lines.push(...slotLines(slot, readings, nominalVolts ?? 12));
      for (const item of auditSlot(slot, nominalVolts ?? 12)) lines.push(plain(item.words));
    }
    const owed = unaccounted(now);
    if (owed.length > 0)
      lines.push(
        plain(
          `${panel.name}: ${settledIn(now).words}. Still owed: ${owed.map(({ words }) => words).join(' ')}`,
        ),
      );
  }
  return { title: 'Boxes', lines, empty: null };
}

function wires(scene: SheetScene): SheetPart {
  return { title: 'Ends of wires', lines: entriesOf(scene, ['wire-reading']), empty: null };
}

/** Parts that stood in another's place, and whether they are back. */
function exchanges(scene: SheetScene): SheetPart {
  const { job, circuit } = scene;
  const lines = entriesOf(scene, ['swapped', 'swap-restored', 'part-in-place', 'unit-tried']);
  const still = job.swaps.map(({ one, other }) =>
    plain(`Still exchanged: ${partName(circuit, one)} and ${partName(circuit, other)}`),
  );
  return { title: 'Exchanged', lines: [...lines, ...still], empty: null };
}

function done(scene: SheetScene): SheetPart {
  const { job, circuit } = scene;
  const repairs = job.entries.flatMap(({ event, struck }): SheetLine[] => {
    const { body } = event;
    if (struck || body.kind !== 'repair') return [];
    const parts =
      body.partsUsed.length > 0
        ? ` Parts: ${body.partsUsed.map((part) => `${part.count} × ${part.name}`).join(', ')}.`
        : '';
    const fitted = (body.fitted ?? []).map((one) => fittedWords(circuit, one, partName(circuit, one.part)));
    return [entered(event, `${body.words}${parts}`, fitted.join(' '))];
  });
  const minutes = job.repairs.reduce((sum, repair) => sum + (repair.minutes ?? 0), 0);
  return {
    title: 'What was done',
    lines: [
      ...repairs,
      ...(minutes > 0 ? [plain(`${minutes} minutes of work.`)] : []),
      ...entriesOf(scene, ['task-begun', 'isolation', 'watch-done']),
    ],
    empty: job.complaint?.work ? 'Nothing recorded as done.' : 'No repair recorded.',
  };
}

function seen(scene: SheetScene): SheetPart {
  const { job, circuit, expected } = scene;
  const lines = [...job.proofs].map(([key, cell]): SheetLine => {
    const [functionId = '', conditionId = ''] = key.split('|');
    const off = cell.state === 'dead' && expected[key] === 'dead';
    const event = job.entries.find((entry) => entry.event.id === cell.eventId)?.event;
    const words = `${functionName(circuit, functionId)}: ${off ? 'off, as it should be' : STATE_WORDS[cell.state]}${cell.right ? '' : ', which is not as it should be'} (${conditionName(circuit, conditionId)})`;
    return event ? entered(event, words) : plain(words);
  });
  return job.complaint?.work
    ? { title: 'Seen after the work', lines, empty: null }
    : { title: 'Seen after the repair', lines, empty: 'Nothing yet.' };
}

function temporary({ job }: SheetScene): SheetPart {
  const lines = job.repairs
    .filter((repair) => repair.temporary)
    .map(({ words, due, reason }) =>
      plain(
        `${words}: to be put right by ${due ?? 'a day not said'}.`,
        reason ? `Why: ${reason}` : undefined,
      ),
    );
  return { title: 'Temporary', lines, empty: 'Nothing is temporary.' };
}

/** What was done although it was blocked, and cautions that were read. */
function overridden(scene: SheetScene): SheetPart {
  const { job, circuit } = scene;
  const overrides = job.entries.flatMap(({ event, struck }) =>
    !struck && event.body.kind === 'task-begun' && event.body.override
      ? [entered(event, `Although it was blocked: ${eventWords(circuit, event.body)}`)]
      : [],
  );
  const closed = job.override && !job.ending ? [plain(`Closed all the same: ${job.override}`)] : [];
  return {
    title: 'Gates overridden, cautions read',
    lines: [...overrides, ...closed, ...entriesOf(scene, ['caution-read'])],
    empty: null,
  };
}

/** What nobody has seen, what was refused, what is watched; “nothing known” only where nothing at all is open. */
function untested(scene: SheetScene, open: readonly string[]): SheetPart {
  const { job, circuit, proofs } = scene;
  const notSeen = proofs.filter((proof) => !job.proofs.has(cellKey(proof.function, proof.condition)));
  const watched = job.watches.filter(({ done: end }) => end === null);
  const lines = [
    ...open.map((words) => plain(`${words[0]!.toUpperCase()}${words.slice(1)}.`)),
    ...notSeen.map((proof) =>
      plain(
        `${functionName(circuit, proof.function)} not seen with: ${conditionName(circuit, proof.condition)}`,
      ),
    ),
    ...entriesOf(scene, ['test-refused']),
    ...watched.map(({ words, due }) => plain(`Watch: ${words}${due ? `, due ${due}` : ''}`)),
  ];
  return { title: 'Not tested, and what is left', lines, empty: 'Nothing known.' };
}

function undo({ job }: SheetScene): SheetPart {
  const lines = job.repairs.flatMap((repair) => (repair.undo ? [plain(repair.undo)] : []));
  return { title: 'To undo it', lines, empty: 'No note.' };
}
