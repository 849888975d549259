'use client';

import { Download, Printer } from 'lucide-react';
import { useEffect, useMemo, useState } from 'react';
import type { Setting } from '#core/diagnosis';
import { isOpenHole, type SurveyRow, surveyCsv, surveyed, surveyFile, surveyRows } from '#core/feed';
import type { Slot } from '#core/format';
import { KEY_STATE_WORDS, KEY_STATES, type KeyState } from '#core/limits';
import { endsAsHeld, slotSentence, turnPanel } from '#core/panel';
import { BEFORE_ENGINE, SAFETY_SLOT } from '#core/safety';
import { useTurns } from '@/features/panels';
import { CautionAsk, useUnread } from '@/job/CautionAsk';
import { HelperPrompt, HelperSwitch, useHelper } from '@/job/Helper';
import { useJob } from '@/job/JobProvider';
import { useHelperPhone } from '@/job/useHelperPhone';
import { Button, ButtonLink, Caution } from '@/ui/controls';
import { Pressed } from '@/ui/Pressed';
import { saveFile } from '@/ui/saveFile';
import { clockWords, useKeyOff, useSecondsSince } from './keyOff';
import { SurveyTable } from './SurveyTable';
import { byPlace, type Ends } from './slotAnswers';
import { type BoxViewProps, slotTitle } from './TriageView';

interface SurveyAnswer {
  readonly key: string;
  readonly word: string;
  readonly ends: Ends;
}

const ANSWERS: readonly SurveyAnswer[] = [
  { key: '1', word: 'Live', ends: [{ end: 'feed', value: { lamp: 'lit' } }] },
  { key: '2', word: 'Dead', ends: [{ end: 'feed', value: { lamp: 'off' } }] },
  { key: '3', word: 'Weak', ends: [{ end: 'feed', value: { lamp: 'dim' } }] },
];

/** What is said to whoever turns the key, and what is waited for. */
const PROMPTS: Readonly<Partial<Record<KeyState, string>>> = {
  'off-waited': 'Leave the key off and wait until the modules sleep, 10 to 60 minutes.',
  crank: 'Probe on the slot first, then two seconds of cranking, then the answer; all else off.',
};

/** The feed side of every slot in every state of the key; the next state is prompted when one is through. */
export function SurveyView({ panel, readings, state, onState, nominalVolts, first, holes }: BoxViewProps) {
  const { data, job, record } = useJob();
  const [helper, setHelper] = useHelper();
  const [turns] = useTurns(data.vehicle.id, panel.id);
  const [keyOff, setKeyOff] = useKeyOff(data.id);
  const seconds = useSecondsSince(keyOff);
  const isOff = state === 'off' || state === 'off-waited';
  // Whoever turns the key again has to say anew when it goes off.
  useEffect(() => {
    if (!isOff && keyOff !== null) setKeyOff(null);
  });
  const all = useMemo(
    () => [...(data.surveyed ?? []).filter((one) => one.panel === panel.id), ...readings],
    [data.surveyed, readings, panel.id],
  );
  const rows = useMemo(() => surveyRows(panel, all, nominalVolts), [panel, all, nominalVolts]);
  const [chosen, setChosen] = useState<string | null>(first);
  /** The fuse of the slot was taken out: its two holes are read. */
  const [out, setOut] = useState(holes);
  const due = (row: SurveyRow, at: KeyState) => row.missing.includes(at);
  const open = rows.filter((row) => due(row, state));
  const row = rows.find(({ slot }) => slot.id === chosen) ?? open[0];
  const nextState = KEY_STATES.find((one) => one !== state && rows.some((each) => due(each, one)));
  const engine = state === 'crank' || state === 'running';
  const goOn = () => {
    if (!nextState) return;
    setChosen(null);
    onState(nextState);
  };
  /** What somebody at the key sets before the next round; waiting and cranking go by the clock and by word of mouth. */
  const toSet: readonly Setting[] =
    !row && nextState && !PROMPTS[nextState] ? [{ sign: 'key', words: KEY_STATE_WORDS[nextState] }] : [];
  const phone = useHelperPhone({
    test: `survey of ${panel.id}`,
    settings: toSet,
    asks: helper !== null && toSet.length > 0,
    onStands: goOn,
  });
  const bare = (slot: Slot) => out || isOpenHole(slot);
  const tell = (ends: Ends, slot: Slot) => {
    const dead = ends.every(({ value }) => 'lamp' in value && value.lamp === 'off');
    const lingers =
      state === 'off-waited' &&
      dead &&
      row?.states.off === 'live' &&
      seconds !== null &&
      seconds <= LONGEST_SECONDS;
    record({
      kind: 'slot-reading',
      panel: panel.id,
      slot: slot.id,
      ends: [...ends],
      state,
      fuseOut: bare(slot),
      testerProved: job.testerProvedAt !== null,
      ...(lingers ? { afterSeconds: seconds } : {}),
    });
    // Whoever has a fuse out reads its holes in the other states too before it goes back.
    if (!out) setChosen(null);
  };
  const last = readings.at(-1);
  const answers = row && bare(row.slot) ? byPlace(endsAsHeld(panel, row.slot.id, turns)) : ANSWERS;
  const barred = row?.barred === true;
  const unanswered = useUnread(engine ? BEFORE_ENGINE : NONE).length > 0;
  /** Another slot: its fuse is in. */
  const choose = (id: string) => {
    setChosen(id);
    if (id !== row?.slot.id) setOut(false);
  };
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: catches the digit keys of the buttons inside it
    <div
      className="mt-2 grid grid-cols-[minmax(0,1fr)] gap-3 lg:grid-cols-[minmax(0,1fr)_22rem] lg:gap-5"
      onKeyDown={(event) => {
        if (event.target instanceof HTMLElement && event.target.closest('input, select, textarea')) return;
        const found =
          row && !barred && !unanswered ? answers.find((one) => one.key === event.key) : undefined;
        if (found && !event.ctrlKey && !event.metaKey && !event.altKey) tell(found.ends, row!.slot);
      }}
    >
      <div className="order-3 min-w-0 lg:order-1">
        <SurveyTable rows={rows} state={state} here={row?.slot.id ?? null} onChoose={choose} />
        <Exports panel={panel} rows={rows} readings={all} nominalVolts={nominalVolts} />
      </div>
      <div className="no-print contents lg:sticky lg:top-36 lg:order-2 lg:block lg:self-start">
        <article className="order-1 rounded-lg border-2 border-copper bg-sheet p-3 lg:p-4">
          <p className="text-sm text-soft" data-testid="survey-state">
            {KEY_STATE_WORDS[state]} · {rows.length - open.length} of {rows.length} read
          </p>
          {row ? (
            <>
              <h2 className="text-xl leading-tight lg:text-2xl" data-testid="slot-title">
                {slotTitle(row.slot)}
                {bare(row.slot) ? ', both holes' : ', feed side'}
              </h2>
              <p className="mt-1 leading-tight">{slotSentence(turnPanel(panel, turns), row.slot.id)}</p>
              {barred ? (
                <div className="mt-2">
                  <Caution>{SAFETY_SLOT}</Caution>
                </div>
              ) : null}
              {out && !isOpenHole(row.slot) ? (
                <p className="mt-2">
                  {row.side.sentence}{' '}
                  <span className="text-soft">Load off before it is pulled; insulated puller.</span>
                </p>
              ) : null}
              {PROMPTS[state] ? <p className="mt-2 text-soft">{PROMPTS[state]}</p> : null}
              {row.states.off === 'live' && state === 'off-waited' && seconds !== null ? (
                <p className="mt-2 font-semibold">Tap “Dead” in the moment it drops: the time is kept.</p>
              ) : null}
            </>
          ) : nextState ? (
            <>
              <h2 className="text-2xl">{KEY_STATE_WORDS[state]}: every slot is read</h2>
              {helper !== null && toSet.length > 0 ? (
                <div className="mt-2">
                  <HelperPrompt helper={helper} settings={toSet} phone={phone} onStands={goOn} />
                </div>
              ) : (
                <>
                  <p className="mt-2">
                    {PROMPTS[nextState] ?? `Next: ${KEY_STATE_WORDS[nextState].toLowerCase()}.`}
                  </p>
                  <Button look="primary" className="mt-3 h-14 w-full text-lg" onClick={goOn}>
                    {KEY_STATE_WORDS[nextState]}: go on
                  </Button>
                </>
              )}
            </>
          ) : (
            <>
              <h2 className="text-2xl">Every slot is read in every state</h2>
              <ButtonLink look="primary" className="mt-3" href={`/jobs/${data.id}/feed`}>
                Find a feed
              </ButtonLink>
            </>
          )}
          {isOff ? (
            <div className="mt-2 flex flex-wrap items-center gap-2">
              {seconds === null ? (
                <Button onClick={() => setKeyOff(Date.now())}>The key goes off now</Button>
              ) : (
                <>
                  <span className="reading text-xl font-bold" data-testid="key-off-clock">
                    {clockWords(seconds)}
                  </span>
                  <span className="text-sm text-soft">since key off</span>
                  <Button look="quiet" onClick={() => setKeyOff(null)}>
                    Stop
                  </Button>
                </>
              )}
            </div>
          ) : null}
          {engine || (nextState && !row) ? (
            <div className="mt-2">
              <HelperSwitch
                helper={helper}
                onHelper={setHelper}
                onCaution={(words) => record({ kind: 'caution-read', caution: words })}
              />
            </div>
          ) : null}
        </article>
        <div
          className="sticky bottom-0 z-10 order-2 -mx-3 border-t-2 border-copper bg-sheet p-2 lg:static lg:mx-0 lg:mt-2 lg:rounded-lg lg:border-2 lg:p-4"
          data-testid="survey-answers"
        >
          {row && !barred ? (
            <CautionAsk warnings={engine ? BEFORE_ENGINE : NONE}>
              {state === 'crank' ? <CrankClock helper={helper} /> : null}
              <div className={`grid gap-2 ${answers.length === 4 ? 'grid-cols-2' : 'grid-cols-3'}`}>
                {answers.map((one) => (
                  <button
                    key={one.word}
                    type="button"
                    onClick={() => tell(one.ends, row.slot)}
                    className="flex min-h-[84px] items-center justify-center gap-2 rounded-md border-2 border-ink bg-sheet px-2 text-[20px] leading-tight font-bold active:bg-copper-wash lg:min-h-14"
                  >
                    {one.word}
                    <kbd className="reading hidden text-base font-normal text-soft lg:inline">{one.key}</kbd>
                  </button>
                ))}
              </div>
            </CautionAsk>
          ) : null}
          <div className="mt-2 flex gap-2">
            {row && !isOpenHole(row.slot) ? (
              <Pressed
                className="flex-1"
                pressed={out}
                onPressed={(next) => {
                  setOut(next);
                  setChosen(next ? row.slot.id : null);
                }}
              >
                {out ? 'Fuse is in again' : 'Fuse is out'}
              </Pressed>
            ) : null}
            <Button
              className="flex-1"
              disabled={!last}
              onClick={() => {
                if (!last) return;
                record({ kind: 'correction', of: last.id, reason: 'taken back' });
                setChosen(last.slot);
                setOut(last.fuseOut);
              }}
            >
              Undo
            </Button>
          </div>
        </div>
      </div>
    </div>
  );
}

/** So long is cranked for one reading, milliseconds. */
const CRANK_MS = 2000;

/** Says when to crank and when to stop: two seconds, read meanwhile. */
function CrankClock({ helper }: { helper: string | null }) {
  const [stands, setStands] = useState<'ready' | 'cranks' | 'read'>('ready');
  useEffect(() => {
    if (stands !== 'cranks') return;
    const timer = setTimeout(() => setStands('read'), CRANK_MS);
    return () => clearTimeout(timer);
  }, [stands]);
  return (
    <div className="mb-2 flex min-h-11 flex-wrap items-center gap-3" aria-live="assertive">
      <Button onClick={() => setStands('cranks')} disabled={stands === 'cranks'}>
        {stands === 'read' ? 'Once more' : 'Say: crank'}
      </Button>
      <strong className="text-2xl">
        {stands === 'cranks'
          ? `${helper ?? 'Now'}: crank`
          : stands === 'read'
            ? 'Stop. What did it show?'
            : ''}
      </strong>
    </div>
  );
}

const NONE = [] as const;

/** Nobody watches a feed for more than a day. */
const LONGEST_SECONDS = 86_400;

/** The survey on paper and as files. */
function Exports({
  panel,
  rows,
  readings,
  nominalVolts,
}: Pick<BoxViewProps, 'panel' | 'readings' | 'nominalVolts'> & { rows: readonly SurveyRow[] }) {
  const { data } = useJob();
  if (rows.every((row) => Object.keys(row.states).length === 0)) return null;
  const name = `survey ${data.vehicle.plate || data.vehicle.name} ${panel.name}`.replace(
    /[^\p{L}\p{N}]+/gu,
    '-',
  );
  const json = () => JSON.stringify(surveyFile(data.vehicle.name, [panel], readings, nominalVolts), null, 2);
  return (
    <div className="no-print mt-3 flex flex-wrap gap-2">
      <Button onClick={() => window.print()}>
        <Printer aria-hidden="true" className="size-5" />
        Print
      </Button>
      <Button onClick={() => saveFile(`${name}.csv`, 'text/csv', surveyCsv([panel], readings, nominalVolts))}>
        <Download aria-hidden="true" className="size-5" />
        CSV
      </Button>
      <Button onClick={() => saveFile(`${name}.json`, 'application/json', json())}>
        <Download aria-hidden="true" className="size-5" />
        JSON
      </Button>
      <span className="self-center text-sm text-soft">{surveyed(panel.slots).length} slots</span>
    </div>
  );
}
