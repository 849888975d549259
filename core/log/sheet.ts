/**
 * What the sheet of a job says, line by line, all of it from the log and from the answers of the diagnosis that stand
 * beside it. What blocks closing is asked of `missing.ts`, and nothing here says “proved” or “nothing known” against it.
 */

import { testInLog, WORTH_A_WORD } from '../diagnosis';
import { dayWords } from '../format';
import { moneyWords } from '../quantity';
import { lineWords } from '../repair';
import { causeReopened } from './cause';
import { momentOf } from './clock';
import { endingWords, standingWords } from './ending';
import { cellKey } from './event';
import { eventWords } from './kinds';
import { missingProofs } from './missing';
import {
  conditionName,
  functionName,
  OPENED_BY_WORDS,
  PROOF_ANSWER_WORDS,
  SOUND_WORDS,
  STATE_WORDS,
  valueWords,
  WORK_WORDS,
} from './names';
import { costOf, differencesOf } from './options';
import { owedProofs } from './owed';
import { inTheMiddle, isBegun, leftBy } from './plansOnJob';
import {
  entered,
  entriesOf,
  plain,
  type Sheet,
  type SheetLine,
  type SheetPart,
  type SheetScene,
} from './sheetLines';
import { boxes, exchanges, wires } from './sheetVehicle';
import { standsNow } from './standsNow';
import type { JobState } from './state';

export function sheetOf(scene: SheetScene): Sheet {
  const { job } = scene;
  const open = missingProofs(job, scene.proofs, scene.circuit);
  const parts = [
    ...(job.state === 'closed' ? [] : [asItStands(scene)]),
    failed(scene),
    found(scene, open),
    left(scene),
    evidence(scene),
    boxes(scene),
    wires(scene),
    exchanges(scene),
    options(scene),
    done(scene),
    changes(scene),
    seen(scene),
    noted(scene),
    temporary(scene),
    overridden(scene),
    untested(scene, open),
    undo(scene),
  ];
  const moments = job.entries.map(({ event }) => momentOf(event)).sort();
  return {
    from: moments[0] ?? null,
    until: moments.at(-1) ?? null,
    place: job.workPlace,
    standing: standingWords(job, open),
    open,
    parts: parts.filter(({ lines, empty }) => lines.length > 0 || empty !== null),
  };
}

/** Feeds, sums and what else was written down: the first line, and the rest of it beneath. */
function noted({ job }: SheetScene): SheetPart {
  const lines = job.entries.flatMap(({ event, struck }) => {
    if (struck || event.body.kind !== 'note') return [];
    const [first = '', ...rest] = event.body.words.split('\n');
    return [entered(event, first, rest.join(' '))];
  });
  return { title: 'Noted', lines, empty: null };
}

/** For whoever takes it over in the middle. */
function asItStands({ job, circuit, assessment }: SheetScene): SheetPart {
  const next = assessment?.next[0]?.ref ?? null;
  return { title: 'As it stands now', lines: standsNow(job, circuit, next), empty: null };
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

function found(scene: SheetScene, open: readonly string[]): SheetPart {
  const { job, circuit } = scene;
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
        ...(finding.openedBy ? [plain(`The fuse was opened by: ${OPENED_BY_WORDS[finding.openedBy]}.`)] : []),
        ...entriesOf(scene, ['fuse-current']),
        ...causeReopened(job, circuit).map((words) => plain(`The cause is open again: ${words}.`)),
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

function done(scene: SheetScene): SheetPart {
  const { job } = scene;
  const repairs = job.entries.flatMap(({ event, struck }): SheetLine[] => {
    const { body } = event;
    if (struck || body.kind !== 'repair') return [];
    const parts =
      body.partsUsed.length > 0
        ? ` Parts: ${body.partsUsed.map((part) => `${part.count} × ${part.name}`).join(', ')}.`
        : '';
    const lines = (body.lines ?? []).map((line) => `${lineWords(line)}.`);
    return [entered(event, `${body.words}${parts}`, lines.join(' '))];
  });
  const minutes = job.repairs.reduce((sum, repair) => sum + (repair.minutes ?? 0), 0);
  return {
    title: 'What was done',
    lines: [
      ...repairs,
      ...(minutes > 0 ? [plain(`${minutes} minutes of work.`)] : []),
      ...entriesOf(scene, ['task-begun', 'isolation', 'board-check', 'watch-done']),
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
  const besides = owedProofs(job, circuit, scene.proofs).flatMap(
    ({ id, name, answer, words }): SheetLine[] => {
      if (answer === null) return [];
      const event = job.entries.find((entry) => entry.event.id === job.answers.get(id)?.eventId)?.event;
      const line = `${name}: ${PROOF_ANSWER_WORDS[answer]}`;
      const more = words === PROOF_ANSWER_WORDS[answer] ? undefined : words;
      return [event ? entered(event, line, more) : plain(line, more)];
    },
  );
  const all = [...lines, ...besides];
  return job.complaint?.work
    ? { title: 'Seen after the work', lines: all, empty: null }
    : { title: 'Seen after the repair', lines: all, empty: 'Nothing yet.' };
}

/** Ways of doing it, what each costs, and which one was chosen. */
function options({ job }: SheetScene): SheetPart {
  const differs = differencesOf(job.options);
  const lines = job.options.map((one) => {
    const cost = costOf(one);
    const chosen = job.chosen?.option === one.option ? `. Chosen by ${job.chosen.by}` : '';
    return plain(
      `${one.name}: ${moneyWords(cost.total)} (parts ${moneyWords(cost.parts)}, work ${moneyWords(cost.labour)}), ${cost.waitDays} ${cost.waitDays === 1 ? 'day' : 'days'} to wait${chosen}.`,
      [
        differs.get(one.option),
        one.leaves && `Leaves: ${one.leaves}`,
        one.unproved && `Not proved: ${one.unproved}`,
      ]
        .filter(Boolean)
        .join('; '),
    );
  });
  return { title: 'Repair or replace', lines, empty: null };
}

/** What a change made of the vehicle, sentence by sentence, and what of it stands half done. */
function changes({ job }: SheetScene): SheetPart {
  const lines = job.entries.flatMap(({ event, struck }): SheetLine[] => {
    const { body } = event;
    if (struck || body.kind !== 'plan-ended') return [];
    return [
      entered(event, eventWords(null, body), body.how === 'carried' ? body.words.join(' ') : undefined),
    ];
  });
  const half = inTheMiddle(job).flatMap((one) => [
    plain(`HALF DONE: ${one.plan.name}. ${one.plan.purpose}`.trim()),
    ...leftBy(one).map((words) => plain(words)),
  ]);
  const planned = job.plans.flatMap((one) =>
    one.ended === null && !isBegun(one) ? [plain(`Planned, nothing done: ${one.plan.name}.`)] : [],
  );
  return { title: 'Changes', lines: [...half, ...lines, ...planned], empty: null };
}

function temporary({ job }: SheetScene): SheetPart {
  const lines = job.temporaries.map(({ words, due, reason }) =>
    plain(`${words}: to be put right by ${due ?? 'a day not said'}.`, reason ? `Why: ${reason}` : undefined),
  );
  const quarantine = [...job.setAside.values()].map((words) => plain(`In quarantine, not tested: ${words}`));
  return { title: 'Temporary', lines: [...lines, ...quarantine], empty: 'Nothing is temporary.' };
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
  const passed = job.entries.flatMap(({ event, struck }) =>
    !struck && event.body.kind === 'plan-step' && event.body.how === 'override'
      ? [entered(event, eventWords(circuit, event.body))]
      : [],
  );
  return {
    title: 'Gates overridden, cautions read',
    lines: [
      ...overrides,
      ...passed,
      ...entriesOf(scene, ['finding-kept']),
      ...closed,
      ...entriesOf(scene, ['caution-read']),
    ],
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
    ...watched.map(({ words, due }) => plain(`Watch: ${words}${due ? `, due ${dayWords(due)}` : ''}`)),
  ];
  return { title: 'Not tested, and what is left', lines, empty: 'Nothing known.' };
}

function undo({ job }: SheetScene): SheetPart {
  const lines = job.repairs.flatMap((repair) => (repair.undo ? [plain(repair.undo)] : []));
  const changed = job.plans.flatMap(({ ended }) =>
    ended?.how === 'carried' ? ended.undo.map((words, index) => plain(`${index + 1}. ${words}`)) : [],
  );
  return { title: 'To undo it', lines: [...lines, ...changed], empty: 'No note.' };
}
