/** The sheet for whoever brought the vehicle: plain words, from the same log and the same answers as the technician's. */

import { dayWords } from '../format';
import { lineTotal, moneyWords } from '../quantity';
import { momentOf } from './clock';
import { endingWords, standingWords } from './ending';
import { missingProofs } from './missing';
import { functionName, STATE_WORDS, WATCH_SORT_WORDS } from './names';
import { costOf } from './options';
import { owedProofs } from './owed';
import { plain, type Sheet, type SheetLine, type SheetPart, type SheetScene } from './sheetLines';

export function customerSheetOf(scene: SheetScene): Sheet {
  const { job } = scene;
  const open = missingProofs(job, scene.proofs, scene.circuit);
  const moments = job.entries.map(({ event }) => momentOf(event)).sort();
  const parts = [told(scene), found(scene), done(scene), cost(scene), seen(scene), mind(scene), yours(scene)];
  return {
    from: moments[0] ?? null,
    until: moments.at(-1) ?? null,
    place: job.workPlace,
    standing: standingWords(job, open),
    open,
    parts: parts.filter(({ lines, empty }) => lines.length > 0 || empty !== null),
  };
}

function told({ job }: SheetScene): SheetPart {
  return {
    title: 'What you told us',
    lines: job.complaint ? [plain(`“${job.complaint.words}”`)] : [],
    empty: 'Nothing is written down.',
  };
}

const CAUSE = {
  proved: 'We know why',
  suspected: 'We think we know why',
  unknown: 'Why it failed is not known; we keep an eye on it',
} as const;

function found({ job }: SheetScene): SheetPart {
  const { found: finding } = job;
  const ends = endingWords(job);
  const lines: SheetLine[] = finding
    ? [
        plain(`${finding.fault}.`),
        plain(`${CAUSE[finding.cause]}${finding.causeWords ? `: ${finding.causeWords}` : ''}.`),
      ]
    : [];
  if (job.ending) lines.push(plain(`${ends![0]!.toUpperCase()}${ends!.slice(1)}: ${job.override ?? ''}`));
  return { title: 'What we found', lines, empty: job.complaint?.work ? null : 'The fault is not found yet.' };
}

function done({ job }: SheetScene): SheetPart {
  const lines = job.repairs.map(({ words, partsUsed, temporary }) =>
    plain(
      `${words}${temporary ? ' (for a while only)' : ''}.`,
      partsUsed.length > 0
        ? `Parts: ${partsUsed.map(({ name, count }) => `${count} × ${name}`).join(', ')}.`
        : undefined,
    ),
  );
  const changed = job.plans.flatMap(({ plan, ended }) =>
    ended?.how === 'carried' ? [plain(`${plan.name}.`, plan.purpose || undefined)] : [],
  );
  return { title: 'What we did', lines: [...lines, ...changed], empty: 'Nothing was repaired.' };
}

/** What the chosen way costs; nothing where no prices were written down. */
function cost({ job }: SheetScene): SheetPart {
  const chosen = job.options.find(({ option }) => option === job.chosen?.option);
  if (!chosen || !job.chosen) return { title: 'What it costs', lines: [], empty: null };
  const sum = costOf(chosen);
  return {
    title: 'What it costs',
    lines: [
      plain(`${chosen.name}, chosen by ${job.chosen.by}${job.chosen.words ? `: ${job.chosen.words}` : ''}.`),
      ...chosen.parts.map(({ name, count, price }) =>
        plain(`${count} × ${name}: ${moneyWords(lineTotal(price, count))}`),
      ),
      plain(`Work, ${chosen.minutes} minutes: ${moneyWords(sum.labour)}`),
      plain(`Together: ${moneyWords(sum.total)}`),
    ],
    empty: null,
  };
}

function seen({ job, circuit }: SheetScene): SheetPart {
  const worked = new Map<string, SheetLine>();
  for (const [key, cell] of job.proofs) {
    const name = functionName(circuit, key.split('|')[0] ?? '');
    if (cell.state === 'works' && cell.right) worked.set(name, plain(`${name}: works.`));
    if (!cell.right) worked.set(name, plain(`${name}: ${STATE_WORDS[cell.state]}, which is not right yet.`));
  }
  return { title: 'What we saw work', lines: [...worked.values()], empty: 'Nothing yet.' };
}

/** What to watch, what is temporary, what is set aside. */
function mind({ job }: SheetScene): SheetPart {
  const lines = [
    ...job.temporaries.map(({ words, due }) =>
      plain(`${words}: only for a while, to be put right by ${due ?? 'a day still to be agreed'}.`),
    ),
    ...[...job.setAside.values()].map((words) => plain(`Not to be used before it is tested: ${words}.`)),
    ...job.watches
      .filter(({ done: end }) => end === null)
      .map(({ words, due, sort }) =>
        plain(
          `${sort && sort !== 'watch' ? `${WATCH_SORT_WORDS[sort]}: ` : ''}${words}${due ? `, by ${dayWords(due)}` : ''}.`,
        ),
      ),
    ...job.swaps.map(({ one, other }) => plain(`${one} and ${other} still stand in each other’s places.`)),
  ];
  return { title: 'What to mind', lines, empty: 'Nothing in particular.' };
}

/** What is left to the owner, named. */
function yours({ job, circuit, proofs }: SheetScene): SheetPart {
  const lines = owedProofs(job, circuit, proofs)
    .filter(({ answer }) => answer === 'owner' || answer === 'not-here')
    .map(({ name, words }) => plain(`${name}: ${words}.`));
  return { title: 'What is left to you', lines, empty: null };
}
