/** What else is owed after a repair, besides the functions that have to be seen: currents, drops, the draw, the lamps that stop. */
import { PROTECTORS } from '../circuit';
import type { RequiredProof } from '../diagnosis';
import type { BodyOf, CircuitFile, CircuitPart, PROOF_ANSWERS, RepairLine } from '../format';
import { CONTACT_GOOD_VOLTS, mayLose, SLEEP_DRAW_AMPS, SLEEP_WAIT_MINUTES } from '../limits';
import { overloaded } from './cause';
import { cellKey } from './event';
import { functionName, PROOF_ANSWER_WORDS } from './names';
import { percentOfRating } from './percentOfRating';
import type { JobState } from './state';

export type ProofAnswerName = (typeof PROOF_ANSWERS)[number];

export interface OwedProof {
  /** By which it is answered. */
  readonly id: string;
  readonly name: string;
  readonly why: string;
  /** What is read for it; null where it is only seen. */
  readonly asks: { readonly unit: 'A' | 'V'; readonly most: number } | null;
  /** The fuse whose running current it is, and its rating. */
  readonly fuse: { readonly part: string; readonly ratingAmps: number } | null;
  /** How long one waits before it is read, minutes; zero where one does not. */
  readonly waitMinutes: number;
  /** Before this moment it says nothing; null where one need not wait for it. */
  readonly notBefore: string | null;
  /** Null while it is open. */
  readonly answer: ProofAnswerName | null;
  /** The answer in words. */
  readonly words: string;
}

type Asked = Omit<OwedProof, 'answer' | 'words' | 'notBefore'> & { readonly notBefore?: string };

/** Parts that let current through without anybody's doing, so that what lies behind them is live at rest. */
const THROUGH: ReadonlySet<CircuitPart['kind']> = new Set(['wire', 'connector', 'splice', ...PROTECTORS]);

/** Points that the battery feeds with everything off, by the parts alone. */
function liveAtRest(circuit: CircuitFile): ReadonlySet<string> {
  const live = new Set(circuit.parts.flatMap((part) => (part.kind === 'battery' ? [part.pins.plus] : [])));
  const through = circuit.parts.filter(({ kind }) => THROUGH.has(kind));
  for (let before = -1; before !== live.size; ) {
    before = live.size;
    for (const { pins } of through) {
      const nodes = Object.values(pins as Record<string, string>);
      if (nodes.some((node) => live.has(node))) for (const node of nodes) live.add(node);
    }
  }
  return live;
}

const slug = (words: string) =>
  words
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '') || 'part';

const JOINED: ReadonlySet<RepairLine['deed']> = new Set(['re-terminated', 'spliced', 'bypassed']);
const ALTERED: ReadonlySet<RepairLine['deed']> = new Set([
  'replaced',
  'spliced',
  'bypassed',
  'board-repaired',
]);

function ofLine(line: RepairLine, circuit: CircuitFile | null): Asked[] {
  const part = circuit?.parts.find(({ id }) => id === line.part);
  const id = line.part ?? slug(line.name);
  if (part && line.deed === 'replaced' && line.fitted?.kind === 'fuse' && line.fitted.ratingAmps) {
    const { ratingAmps } = line.fitted;
    return [
      {
        id: `current:${id}`,
        name: `Running current through ${line.name}`,
        why: 'a fuse was fitted: what it carries says why it opened',
        asks: { unit: 'A', most: ratingAmps },
        fuse: { part: part.id, ratingAmps },
        waitMinutes: 0,
      },
    ];
  }
  const conducts = part?.kind === 'wire' || part?.kind === 'connector' || part?.kind === 'ground';
  if (JOINED.has(line.deed) || line.joint || (conducts && line.deed !== 'adjusted')) {
    const most = part
      ? mayLose(part.kind, 1, circuit?.nominalVolts ?? 12) || CONTACT_GOOD_VOLTS
      : CONTACT_GOOD_VOLTS;
    return [
      {
        id: `drop:${id}`,
        name: `Volts lost over ${line.name} at working current`,
        why: `${line.deed === 'cleaned' ? 'it was cleaned' : 'it was joined anew'}: at most ${most} V`,
        asks: { unit: 'V', most },
        fuse: null,
        waitMinutes: 0,
      },
    ];
  }
  return [];
}

/** Of what a timed relay keeps on: off once more after the wait, which counts from when it was seen off. */
function waits(job: JobState, circuit: CircuitFile | null, proofs: readonly RequiredProof[]): Asked[] {
  return proofs.flatMap(({ function: of, condition, waitSeconds }): Asked[] => {
    if (!waitSeconds) return [];
    const cell = job.proofs.get(cellKey(of, condition));
    const at = job.entries.find(({ event }) => event.id === cell?.eventId)?.event.madeAt;
    const notBefore = at ? new Date(Date.parse(at) + waitSeconds * 1000).toISOString() : undefined;
    const wait = waitSeconds < 120 ? `${waitSeconds} s` : `${Math.round(waitSeconds / 60)} min`;
    return [
      {
        id: `wait:${of}`,
        name: `${functionName(circuit, of)} still off after ${wait}`,
        why: 'a timed relay lies on its run: off at once says nothing of later',
        asks: null,
        fuse: null,
        waitMinutes: waitSeconds / 60,
        ...(notBefore ? { notBefore } : {}),
      },
    ];
  });
}

function asked(job: JobState, circuit: CircuitFile | null, proofs: readonly RequiredProof[]): Asked[] {
  const lines = job.repairs.flatMap((repair) => repair.lines ?? []);
  const live = circuit ? liveAtRest(circuit) : new Set<string>();
  const draws = lines.some(({ part: id, deed }) => {
    const part = circuit?.parts.find((one) => one.id === id);
    if (!part || part.kind === 'fuse' || !ALTERED.has(deed)) return false;
    return Object.values(part.pins as Record<string, string>).some((node) => live.has(node));
  });
  const draw: Asked[] =
    draws || job.complaint?.state === 'on-when-off'
      ? [
          {
            id: 'draw',
            name: 'Draw of the battery with everything off',
            why: draws
              ? 'what was altered is live at rest'
              : 'something stayed on: whether it is asleep now is read at the battery',
            asks: { unit: 'A', most: SLEEP_DRAW_AMPS },
            fuse: null,
            waitMinutes: SLEEP_WAIT_MINUTES,
          },
        ]
      : [];
  const each = new Map(lines.flatMap((line) => ofLine(line, circuit)).map((one) => [one.id, one]));
  return [
    ...each.values(),
    ...waits(job, circuit, proofs),
    ...draw,
    {
      id: 'safety-lamps',
      name: 'Brake lamps and outside lamps',
      why: 'always seen before a vehicle goes out',
      asks: null,
      fuse: null,
      waitMinutes: 0,
    },
  ];
}

/** What a value read for it says: as it should be or not, in words. */
export function judgeOwed(
  { asks, fuse }: Pick<OwedProof, 'asks' | 'fuse'>,
  value: number,
): {
  readonly right: boolean;
  readonly words: string;
} {
  if (!asks) return { right: true, words: '' };
  if (fuse) {
    const wrong = overloaded(value, fuse.ratingAmps);
    return {
      right: !wrong,
      words: `${value} A, ${percentOfRating(value, fuse.ratingAmps)} % of ${fuse.ratingAmps} A`,
    };
  }
  const size = Math.abs(value);
  return {
    right: size <= asks.most,
    words: `${value} ${asks.unit}, ${size <= asks.most ? 'not more' : 'more'} than ${asks.most} ${asks.unit}`,
  };
}

type Answered = Pick<OwedProof, 'answer' | 'words'>;

function answerTo(item: Asked, job: JobState): Answered {
  const said: BodyOf<'proof-answer'> | undefined = job.answers.get(item.id);
  if (!said) return { answer: null, words: '' };
  const value = said.amps ?? said.volts;
  if (said.answer === 'not-here' || said.answer === 'owner' || value === undefined) {
    return {
      answer: said.answer,
      words: [PROOF_ANSWER_WORDS[said.answer], said.words].filter(Boolean).join(': '),
    };
  }
  const { right, words } = judgeOwed(item, value);
  return { answer: right ? 'done' : 'wrong', words: [words, said.words].filter(Boolean).join('; ') };
}

/** Everything of it, answered or not; nothing before a repair, and nothing of work that mends no fault but a change. */
export function owedProofs(
  job: JobState,
  circuit: CircuitFile | null,
  proofs: readonly RequiredProof[],
): OwedProof[] {
  if (job.repairs.length === 0) return [];
  const { work } = job.complaint ?? {};
  if (work !== undefined && work !== 'change') return [];
  return asked(job, circuit, proofs).map((item) => ({
    ...item,
    notBefore: item.notBefore ?? null,
    ...answerTo(item, job),
  }));
}

/** Why an answer cannot be taken as it is; null where it can. */
export function whyNotAnswered(
  item: Pick<OwedProof, 'name' | 'asks'> & Partial<Pick<OwedProof, 'notBefore' | 'waitMinutes'>>,
  answer: ProofAnswerName,
  words: string,
  value: number | null,
  now: number = Date.now(),
): string | null {
  if (answer === 'done' && item.waitMinutes && item.notBefore !== undefined && !item.asks) {
    if (item.notBefore === null) return `${item.name}: see it off first, then wait.`;
    const left = Math.ceil((Date.parse(item.notBefore) - now) / 1000);
    if (left > 0)
      return `${item.name}: ${left < 120 ? `${left} s` : `${Math.ceil(left / 60)} min`} are left to wait.`;
  }
  if (answer === 'not-here' && words === '') return `${item.name}: say why it is not possible here.`;
  if (answer === 'owner' && words === '') return `${item.name}: say to whom it is left.`;
  if ((answer === 'done' || answer === 'wrong') && item.asks && value === null) {
    return `${item.name}: write what was read, in ${item.asks.unit}.`;
  }
  return null;
}
