'use client';

import { ChevronLeft, ChevronRight } from 'lucide-react';
import { useMemo, useState } from 'react';
import type { Panel, Slot } from '#core/format';
import { KEY_STATE_WORDS, type KeyState, type SlotReading } from '#core/limits';
import {
  countVerdicts,
  type EndWords,
  endsAsHeld,
  fedEnd,
  type SlotVerdict,
  slotSentence,
  type TriageResult,
  triageOrder,
  triageSlot,
  turnPanel,
  VERDICT_WORDS,
} from '#core/panel';
import { formatNumber, parseReading } from '#core/quantity';
import { isSafetySlot, SAFETY_SLOT, SYSTEM_WORDS, slotSystem } from '#core/safety';
import { PanelDrawing, PanZoom, useTurns } from '@/features/panels';
import { useJob } from '@/job/JobProvider';
import { Button, Caution, INPUT, Problem } from '@/ui/controls';
import { Fold } from '@/ui/Fold';
import { Pressed } from '@/ui/Pressed';
import { SafetyQuestion } from '@/ui/SafetyQuestion';
import { useLater } from '@/ui/useLater';
import { useSwipe } from '@/ui/useSwipe';
import { SlotRow } from './SlotRow';
import { byPlace, type Ends, OUT, PAIRS, THREE } from './slotAnswers';

/** What is written about a slot and its box: forms, which come once the answers stand. */
const loadForms = () => import('./SlotForms');

/** Never by colour alone: every verdict has its sign. */
const SIGNS: Readonly<Record<SlotVerdict, string>> = {
  untested: '·',
  half: '½',
  passes: '✓',
  open: '✗',
  'awaits-key': '⚿',
  'not-fed': '○',
  'fed-backwards': '←',
  'second-feed': '⇄',
  weak: '~',
};

export interface BoxViewProps {
  readonly panel: Panel;
  readonly readings: readonly SlotReading[];
  readonly state: KeyState;
  readonly onState: (state: KeyState) => void;
  readonly nominalVolts: number;
  /** The slot that somebody was sent to; null where nobody was. */
  readonly first: string | null;
  /** Sent to read its two holes, the fuse out. */
  readonly holes: boolean;
}

export function TriageView({ panel, readings, state, nominalVolts, first }: BoxViewProps) {
  const { data, job, record } = useJob();
  const [turns] = useTurns(data.vehicle.id, panel.id);
  const order = useMemo(() => triageOrder(panel.slots), [panel]);
  const results = useMemo(
    () =>
      new Map(
        order.map((slot) => [
          slot.id,
          triageSlot(
            slot,
            readings.filter((one) => one.slot === slot.id),
            nominalVolts,
            endsAsHeld(panel, slot.id, turns),
          ),
        ]),
      ),
    [order, readings, nominalVolts, panel, turns],
  );
  const [chosen, setChosen] = useState<string | null>(first);
  const [fuseOut, setFuseOut] = useState(false);
  /** The slot so many further on in the order of the test, at its end the first again. */
  const goBy = (by: number) => {
    const at = order.findIndex(({ id }) => id === slot?.id);
    const next = order[(at + by + order.length) % order.length];
    if (next) setChosen(next.id);
    setFuseOut(false);
  };
  const { SlotStateForm: StateForm, BelowBox: Below } = useLater(loadForms, false, 300) ?? {};
  const bind = useSwipe((towards) => goBy(-towards));
  const untested = order.find((slot) => results.get(slot.id)?.verdict === 'untested');
  const slot = order.find((one) => one.id === chosen) ?? untested ?? order[0];
  const marks = new Map([...results].map(([id, result]) => [id, SIGNS[result.verdict]]));
  const counts = countVerdicts([...results.values()]);
  if (!slot) return <p className="mt-4 text-lg">This box has no fuses to test.</p>;
  const here = results.get(slot.id)!;
  const nextAfter = (id: string): string | null => {
    const at = order.findIndex((one) => one.id === id);
    const rest = [...order.slice(at + 1), ...order.slice(0, at)];
    return rest.find((one) => results.get(one.id)?.verdict === 'untested')?.id ?? null;
  };
  const tell = (ends: Ends) => {
    record({
      kind: 'slot-reading',
      panel: panel.id,
      slot: slot.id,
      ends: [...ends],
      state,
      fuseOut,
      testerProved: job.testerProvedAt !== null,
    });
    // After a fuse that was out, and after the last one, the slot stays to be read.
    setChosen(fuseOut ? slot.id : (nextAfter(slot.id) ?? slot.id));
    setFuseOut(false);
  };
  const last = readings.at(-1);
  const undo = () => {
    if (!last) return;
    record({ kind: 'correction', of: last.id, reason: 'taken back' });
    setChosen(last.slot);
  };
  const three = slot.family === 'micro-3';
  // The map says which end is fed, or the ends are asked for by where they lie.
  const sided = three || fedEnd(slot) !== null;
  const held = endsAsHeld(panel, slot.id, turns);
  const system = slotSystem(slot);
  const answers: readonly { key: string; word: string; ends: Ends }[] = !sided
    ? byPlace(held)
    : fuseOut
      ? OUT
      : three
        ? THREE
        : PAIRS;
  const asked: readonly Ends[number]['end'][] = !sided
    ? ['first', 'second']
    : [...(fuseOut ? [] : (['feed'] as const)), 'load', ...(three ? (['load-2'] as const) : [])];
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: catches the digit keys of the buttons inside it
    <div
      className="mt-2 grid grid-cols-[minmax(0,1fr)] gap-3 lg:grid-cols-[minmax(0,1fr)_24rem] lg:gap-5"
      onKeyDown={(event) => {
        if (event.target instanceof HTMLElement && event.target.closest('input, select, textarea')) return;
        const found = isSafetySlot(slot) ? undefined : answers.find((one) => one.key === event.key);
        if (found && !event.ctrlKey && !event.metaKey && !event.altKey) tell(found.ends);
        else if (event.key === 'u') undo();
      }}
    >
      <div className="order-2 lg:order-1">
        <p className="text-lg font-semibold" data-testid="triage-counts" aria-live="polite">
          {counts.sentence}.
        </p>
        <PanZoom>
          <PanelDrawing
            panel={panel}
            turns={turns}
            wanted={slot.id}
            onChoose={(id) => setChosen(order.some((one) => one.id === id) ? id : chosen)}
            marks={marks}
            className="mt-2 max-w-3xl"
          />
        </PanZoom>
        <VerdictList order={order} results={results} chosen={slot.id} onChoose={setChosen} />
        {Below ? <Below panel={panel} slot={slot} /> : null}
      </div>
      <div className="contents lg:sticky lg:top-36 lg:order-2 lg:block lg:self-start">
        <article
          className="order-1 touch-pan-y rounded-lg border-2 border-copper bg-sheet p-3 lg:rounded-b-none lg:border-b-0 lg:p-4"
          aria-labelledby="slot-title"
          data-slot-card={slot.id}
          {...bind()}
        >
          <div className="-mt-1 flex items-center justify-between gap-2">
            <p className="text-sm text-soft">
              {KEY_STATE_WORDS[state]} · {order.indexOf(slot) + 1} of {order.length}
            </p>
            <span className="flex gap-1">
              <Button aria-label="Slot before" look="quiet" onClick={() => goBy(-1)}>
                <ChevronLeft aria-hidden="true" className="size-5" />
              </Button>
              <Button aria-label="Slot after" look="quiet" onClick={() => goBy(1)}>
                <ChevronRight aria-hidden="true" className="size-5" />
              </Button>
            </span>
          </div>
          <h2 id="slot-title" className="text-xl leading-tight lg:text-2xl" data-testid="slot-title">
            {slotTitle(slot)}
          </h2>
          <div className="lg:hidden">
            <SlotRow panel={panel} slot={slot.id} turns={turns} marks={marks} />
          </div>
          <p className="mt-1 leading-tight">{slotSentence(turnPanel(panel, turns), slot.id)}</p>
          <p className="mt-2 border-l-4 border-line pl-3" data-testid="slot-verdict">
            <strong>
              {SIGNS[here.verdict]} {capital(VERDICT_WORDS[here.verdict])}.
            </strong>{' '}
            {here.sentence}
            {here.next ? <span className="block font-semibold">{here.next}</span> : null}
          </p>
          {system && slot.safetyCritical === undefined ? (
            <SafetyQuestion
              name={slot.label || slotTitle(slot)}
              system={SYSTEM_WORDS[system]}
              onAnswer={(critical) => {
                const answered = record({
                  kind: 'slot-state',
                  panel: panel.id,
                  slot: slot.id,
                  state: slot.state,
                  safetyCritical: critical,
                  evidence: critical
                    ? `asked: it serves ${system}, or nobody is sure`
                    : `asked: it does not serve ${system}`,
                });
                return answered.ok ? null : answered.message;
              }}
            />
          ) : null}
          {isSafetySlot(slot) ? (
            <div className="mt-2" data-testid="safety-slot">
              <Caution>{SAFETY_SLOT}</Caution>
            </div>
          ) : null}
          <VoltsPair key={`${slot.id} ${fuseOut}`} ends={asked} held={held} onTell={tell} />
          <div className="mt-4 min-h-11">
            {StateForm ? <StateForm panel={panel} slot={slot} nominalVolts={nominalVolts} /> : null}
          </div>
          {fuseOut ? (
            <p className="mt-2 text-sm">
              Load off before it is pulled; insulated puller. Not on restraint, engine-control or brake
              circuits.
            </p>
          ) : null}
        </article>
        {/* Where the thumb is, however far the page was scrolled. */}
        <div
          className="sticky bottom-0 z-10 order-3 -mx-3 border-t-2 border-copper bg-sheet p-2 lg:static lg:mx-0 lg:rounded-b-lg lg:border-2 lg:p-4"
          data-testid="answers"
        >
          <div className={isSafetySlot(slot) ? 'hidden' : 'grid grid-cols-2 gap-2'}>
            {answers.map((one) => (
              <button
                key={one.word}
                type="button"
                onClick={() => tell(one.ends)}
                className="flex min-h-[84px] items-center justify-center gap-2 rounded-md border-2 border-ink bg-sheet px-2 text-[20px] leading-tight font-bold active:bg-copper-wash lg:min-h-14"
              >
                {one.word}
                <kbd className="reading hidden text-base font-normal text-soft lg:inline">{one.key}</kbd>
              </button>
            ))}
          </div>
          <div className="mt-2 flex gap-2">
            <Pressed className="flex-1" pressed={fuseOut} onPressed={setFuseOut}>
              {fuseOut ? 'Fuse is in' : 'Fuse is out'}
            </Pressed>
            <Button className="flex-1" onClick={undo} disabled={!last}>
              Undo
            </Button>
          </div>
        </div>
      </div>
    </div>
  );
}

function endWords(end: Ends[number]['end'], held: EndWords): string {
  if (end === 'first' || end === 'second') return `${capital(held[end])} end`;
  return { feed: 'Feed side', load: 'Load side', 'load-2': 'Second load side' }[end];
}

/** The same by meter: volts at every end, or at the load ends alone while the fuse is out. */
function VoltsPair({
  ends: wanted,
  held,
  onTell,
}: {
  ends: readonly Ends[number]['end'][];
  held: EndWords;
  onTell: (ends: Ends) => void;
}) {
  const [texts, setTexts] = useState({ feed: '', load: '', 'load-2': '', first: '', second: '' });
  const [problem, setProblem] = useState<string | null>(null);
  const tellVolts = () => {
    const ends: Ends = [];
    for (const end of wanted) {
      const read = parseReading(texts[end], 'V');
      if (!read.ok || 'overLimit' in read) {
        setProblem(read.ok ? 'Over limit is no voltage.' : `${endWords(end, held)}: ${read.message}`);
        return;
      }
      ends.push({ end, value: { volts: read.value } });
    }
    setProblem(null);
    onTell(ends);
  };
  return (
    <Fold title="By meter, in volts" className="mt-2">
      <div className="flex flex-wrap items-end gap-2">
        {wanted.map((end) => (
          <label key={end} className="block">
            <span className="block text-sm font-semibold">{endWords(end, held)}, V</span>
            <input
              value={texts[end]}
              inputMode="decimal"
              onChange={(event) => setTexts({ ...texts, [end]: event.target.value })}
              className={`${INPUT} w-28`}
            />
          </label>
        ))}
        <Button onClick={tellVolts}>Record the volts</Button>
      </div>
      {problem ? <Problem>{problem}</Problem> : null}
    </Fold>
  );
}

function VerdictList({
  order,
  results,
  chosen,
  onChoose,
}: {
  order: readonly Slot[];
  results: ReadonlyMap<string, TriageResult>;
  chosen: string;
  onChoose: (id: string) => void;
}) {
  return (
    <ol className="mt-4 grid gap-x-6 sm:grid-cols-2" data-testid="verdicts">
      {order.map((slot) => {
        const result = results.get(slot.id)!;
        return (
          <li key={slot.id} className="border-b border-line">
            <button
              type="button"
              aria-current={slot.id === chosen ? 'true' : undefined}
              onClick={() => onChoose(slot.id)}
              className="grid min-h-11 w-full grid-cols-[1.6rem_1fr_auto] items-center gap-2 text-left hover:bg-sunk"
            >
              <span aria-hidden="true" className="text-center font-bold">
                {SIGNS[result.verdict]}
              </span>
              <span className="truncate">{slotTitle(slot)}</span>
              <span
                className={
                  result.verdict === 'open' || result.verdict === 'second-feed'
                    ? 'font-semibold text-bad'
                    : 'text-soft'
                }
              >
                {VERDICT_WORDS[result.verdict]}
              </span>
            </button>
          </li>
        );
      })}
    </ol>
  );
}

export function slotTitle(slot: Slot): string {
  const rating = slot.ratingAmps === undefined ? '' : ` · ${formatNumber(slot.ratingAmps)} A`;
  const name = slot.meaning ?? slot.label;
  return `${capital(slot.type)} ${slot.number}${name ? ` ${name}` : ''}${rating}`;
}

function capital(words: string): string {
  return `${words[0]?.toUpperCase() ?? ''}${words.slice(1)}`;
}
