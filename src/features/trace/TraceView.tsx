'use client';

import { useCallback, useDeferredValue, useEffect, useMemo, useState } from 'react';
import { testId, testInLog } from '#core/diagnosis';
import type { FunctionStateName } from '#core/format';
import { functionName, type LogEntry, valueWords } from '#core/log';
import { useHelper } from '@/job/Helper';
import { useDiagnosis, useJob } from '@/job/JobProvider';
import { Dialog } from '@/ui/Dialog';
import { TabPane, Tabs } from '@/ui/Tabs';
import { useHeld } from '@/ui/useHeld';
import { Besides } from './Besides';
import { useBridgeGate } from './bridgeGate';
import { Circumstances } from './Circumstances';
import { FactForm, WouldHelp } from './FactForm';
import { FailsNow } from './FailsNow';
import { KeyList } from './KeyList';
import { readDraft, useKeysOn, writeDraft } from './memory';
import { OtherTests } from './OtherTests';
import { type Pane, Panes, PaneTabs } from './PaneTabs';
import { partBehind } from './partBehind';
import type { Answer } from './ReadingPad';
import { type JustRecorded, Recorded } from './Recorded';
import { ProbeCondition, RunChoice } from './RunChoice';
import { RunDrawing } from './RunDrawing';
import type { RunRow } from './runRow';
import { StopAdvice } from './StopAdvice';
import { Stopped } from './Stopped';
import { TestCard } from './TestCard';
import { TraceLog } from './TraceLog';
import { TraceNotices } from './TraceNotices';
import { Finished, missingForTrace, Preparing } from './TraceStates';
import { useStable } from './useStable';
import { useTraced } from './useTraced';
import { useWakeLock } from './useWakeLock';
import { WhatIsKnown } from './WhatIsKnown';

const PAGE = 'px-2 pb-3 lg:px-5 lg:pt-3';
/** One of three on a phone, all beside each other where there is room. */
const PANE =
  'data-[state=inactive]:hidden lg:data-[state=inactive]:block lg:sticky lg:top-32 lg:max-h-[calc(100dvh-8.5rem)] lg:self-start lg:overflow-x-hidden lg:overflow-y-auto';

export function TraceView() {
  const { data, circuit, job, record, nominalVolts } = useJob();
  const diagnosis = useDiagnosis();
  const { assessment, choose, chosen } = diagnosis;
  // The next card does not come in under a finger that is on the one before.
  const coming = useMemo(
    () => ({ card: diagnosis.card, pending: diagnosis.pending }),
    [diagnosis.card, diagnosis.pending],
  );
  const { card, pending } = useHeld(coming);
  // Run, suspects and log follow a moment later: an entry shows on the card first, however long the log is.
  const shown = useDeferredValue(job);
  const shownReadings = useDeferredValue(diagnosis.readings);
  const [pane, setPane] = useState<Pane>('card');
  const [runIndex, setRunIndex] = useState(0);
  const [dialog, setDialog] = useState<'keys' | 'other' | 'besides' | null>(null);
  const [helper, setHelper] = useHelper();
  /** The condition that the person at the key has set up. */
  const [stands, setStands] = useState<string | null>(null);
  const [learning, setLearning] = useState<string | null>(null);
  useWakeLock();
  const [correcting, setCorrecting] = useState<LogEntry | null>(null);
  /** Whether the tester was proved before the reading that is being corrected. */
  const [provedThen, setProvedThen] = useState(false);
  const [just, setJust] = useState<JustRecorded | null>(null);
  const [keysOn, setKeysOn] = useKeysOn();
  const [draft, setDraft] = useState('');
  /** Key and switches in which tapped stops are read; those of the complaint until chosen otherwise. */
  const [probeCondition, setProbeCondition] = useState<string | null>(null);
  const cardId = card?.id ?? null;

  useEffect(() => {
    if (cardId) setDraft(readDraft(data.id, cardId));
    // On a phone a card is read from its top; the answers below it stay where they are.
    if (cardId && !window.matchMedia('(min-width: 64rem)').matches) window.scrollTo({ top: 0 });
  }, [cardId, data.id]);

  const changeDraft = useCallback(
    (text: string) => {
      setDraft(text);
      if (cardId) writeDraft(data.id, cardId, text);
    },
    [cardId, data.id],
  );

  const { measured, standings, effects, readingNames, probeable } = useTraced(circuit, shown, assessment);
  const { runs, soundVolts } = diagnosis;
  const run = runs[Math.min(runIndex, runs.length - 1)];
  const rows = useMemo(
    (): RunRow[] =>
      (run?.stops ?? []).map((node) => ({
        node,
        expected: soundVolts[node] ?? 0,
        measured: measured.get(node) ?? null,
      })),
    [run, soundVolts, measured],
  );
  const ref = card?.ref;
  const hereNode = ref && 'node' in ref ? ref.node : null;
  const herePart = ref && 'part' in ref ? ref.part : null;
  const runParts = useMemo(
    () => new Set(runs.flatMap((one) => one.stations.map((station) => station.part))),
    [runs],
  );
  const permittedIds = useMemo(() => new Set(diagnosis.permitted.map(({ id }) => id)), [diagnosis.permitted]);
  const note = useStable((words: string) => record({ kind: 'note', words }));
  const chooseTest = useStable((id: string) => {
    setCorrecting(null);
    choose(id);
    setDialog(null);
    setPane('card');
  });
  const bridgeGate = useBridgeGate(card, chooseTest);
  const leaveCard = (id: string) => {
    writeDraft(data.id, id, '');
    setDraft('');
    setCorrecting(null);
    choose(null);
  };
  /** The card of a reading that is being corrected, with what was entered. */
  const correctAs = (id: string, raw: string) => {
    writeDraft(data.id, id, raw);
    setDraft(raw);
    choose(id);
  };
  const correct = useStable((entry: LogEntry) => {
    const { body } = entry.event;
    if (body.kind === 'function-check') {
      record({ kind: 'correction', of: entry.event.id, reason: 'taken back' });
      return;
    }
    if (body.kind !== 'reading') return;
    setCorrecting(entry);
    setProvedThen(body.testerProved);
    correctAs(testId(body.test), body.raw);
    setPane('card');
  });
  const probe = useStable((node: string) => {
    if (!circuit) return;
    const condition = probeCondition ?? job.complaint?.condition ?? '';
    choose(testId({ kind: 'volts', node, against: circuit.reference, condition }));
    setPane('card');
  });

  const said = job.complaint;
  const missing = missingForTrace(data.id, data.vehicle.id, {
    circuit: circuit !== null,
    complaint: said?.function !== undefined && said.condition !== undefined,
    volts: nominalVolts !== null,
  });
  if (missing || !circuit || !said?.function || !said.condition) return missing;
  if (diagnosis.failure) return <Stopped diagnosis={diagnosis} />;
  const complaint = { function: said.function, condition: said.condition };
  const failing = said.state ?? 'dead';
  // What has to be known or done before any card stands while it is prepared, and what is typed there stays.
  const notices = <TraceNotices unbidden={failing === 'on-when-off'} />;
  const strength = assessment?.verdict.strength ?? null;
  const preparing = (
    <Preparing
      done={diagnosis.prepared}
      cancelled={diagnosis.cancelled}
      onCancel={diagnosis.cancel}
      jobId={data.id}
    />
  );
  if (!assessment && !card) {
    return (
      <div className={PAGE}>
        {notices}
        {preparing}
      </div>
    );
  }

  const sayFails = (state: FunctionStateName) =>
    record({
      kind: 'reading',
      test: { kind: 'function', ...complaint },
      value: { state },
      raw: state,
      testerProved: true,
    });
  const answer = ({ value, raw, setUpSeen }: Answer) => {
    if (!card) return;
    const reading = {
      kind: 'reading',
      test: card.ref,
      value,
      raw,
      testerProved: correcting ? provedThen : job.testerProvedAt !== null || card.ref.kind === 'function',
      ...(setUpSeen === false ? { setUpSeen } : {}),
      ...(card.place ? { place: card.place } : {}),
    } as const;
    const recorded = correcting
      ? record({ kind: 'correction', of: correcting.event.id, reason: 'entered again' }, reading)
      : record(reading);
    if (!recorded.ok) return;
    navigator.vibrate?.(20);
    setJust({
      id: recorded.ids.at(-1)!,
      words: `${valueWords(value)}: ${testInLog(circuit, card.ref)}`,
    });
    leaveCard(card.id);
  };
  const correctLast = () => {
    const last = job.readings.filter((entry) => !entry.struck).at(-1);
    if (last) correct(last);
  };
  const aboutPart = herePart ?? partBehind(circuit, hereNode, runParts);
  // Above the card only when it has to be known; what is asked for nothing stays out of the way of the thumb.
  const failsNow = (
    <FailsNow
      name={functionName(circuit, complaint.function)}
      failing={failing === 'comes-and-goes' ? 'dead' : failing}
      asked={assessment?.askFailsNow ?? false}
      onSay={sayFails}
    />
  );

  return (
    <Tabs chosen={pane} onChoose={setPane} className={PAGE}>
      <PaneTabs />
      {notices}
      <Panes pane={pane} onPane={setPane}>
        <TabPane id="run" className={PANE}>
          <RunChoice runs={runs} chosen={runIndex} onChoose={setRunIndex} />
          {run ? (
            <>
              <RunDrawing
                run={run}
                rows={rows}
                bracketed={failing !== 'on-when-off'}
                standings={standings}
                hereNode={hereNode}
                herePart={herePart}
                probeable={probeable}
                onProbe={probe}
              />
              <ProbeCondition
                circuit={circuit}
                chosen={probeCondition ?? complaint.condition}
                onChoose={setProbeCondition}
              />
            </>
          ) : null}
        </TabPane>
        <TabPane id="card" className={PANE}>
          {assessment?.askFailsNow ? failsNow : null}
          {assessment ? <StopAdvice assessment={assessment} jobId={data.id} /> : null}
          {assessment?.mergedByRefusal ? (
            <p className="mb-3 border-l-4 border-line pl-3" data-testid="merged">
              {assessment.mergedByRefusal}
            </p>
          ) : null}
          {correcting && card && !pending ? (
            <Circumstances
              key={correcting.event.id}
              circuit={circuit}
              test={card.ref}
              permitted={permittedIds}
              testerProved={provedThen}
              onTesterProved={setProvedThen}
              onTest={(id) => correctAs(id, draft)}
              onLeave={() => leaveCard(card.id)}
            />
          ) : null}
          {assessment?.habit && chosen === null && cardId === assessment.next[0]?.id ? (
            <p className="mb-2 border-l-4 border-line pl-3 text-sm" data-testid="habit">
              {assessment.habit}
            </p>
          ) : null}
          {pending ? (
            <p className="min-h-96 rounded-lg border-2 border-line bg-sheet p-5 text-soft" role="status">
              Working the entry in …
            </p>
          ) : card ? (
            <TestCard
              key={card.id}
              helper={
                helper !== null && 'condition' in card.ref && card.ref.condition !== stands
                  ? {
                      name: helper,
                      onStands: () =>
                        setStands(card.ref && 'condition' in card.ref ? card.ref.condition : null),
                    }
                  : null
              }
              gate={bridgeGate}
              circuit={circuit}
              panelSet={data.panelSet}
              proposal={card}
              chosen={chosen !== null}
              draft={draft}
              correcting={correcting !== null}
              onDraft={changeDraft}
              onAnswer={answer}
              onRefuse={(reason) => {
                record({ kind: 'test-refused', test: card.ref, reason });
                setCorrecting(null);
                choose(null);
              }}
              onOther={() => setDialog('other')}
              onBesides={() => setDialog('besides')}
              onCorrectLast={correctLast}
              onKeys={() => setDialog('keys')}
              keysOn={keysOn}
              runs={runs}
              onRun={() => setPane('run')}
              recorded={
                just ? (
                  <Recorded
                    just={just}
                    onGone={() => setJust(null)}
                    onUndo={() => {
                      record({ kind: 'correction', of: just.id, reason: 'taken back' });
                      setJust(null);
                    }}
                  />
                ) : null
              }
            />
          ) : assessment ? (
            <Finished
              proved={assessment.verdict.strength === 'proved'}
              jobId={data.id}
              sentence={assessment.verdict.sentence}
            />
          ) : null}
          <WouldHelp circuit={circuit} parts={diagnosis.wouldHelp} onAnswer={setLearning} />
          <div className={pane === 'card' ? 'mt-5' : 'mt-5 hidden lg:block'}>
            {assessment?.askFailsNow ? null : failsNow}
            <h2 className="border-b-2 border-line pb-1 text-lg">Log</h2>
            <TraceLog circuit={circuit} entries={shown.entries} effects={effects} onCorrect={correct} />
          </div>
        </TabPane>
        <TabPane id="suspects" className={PANE}>
          <h2 className="mb-2 text-lg">Suspects</h2>
          {assessment ? (
            <WhatIsKnown
              circuit={circuit}
              complaint={complaint}
              assessment={assessment}
              duties={diagnosis.relayDuties}
              readings={shownReadings}
              readingNames={readingNames}
              exchanges={failing !== 'on-when-off'}
              onChoose={chooseTest}
              onNote={note}
            />
          ) : (
            preparing
          )}
        </TabPane>
      </Panes>

      <Besides
        open={dialog === 'besides'}
        onClose={() => setDialog(null)}
        helper={helper}
        onHelper={(name) => {
          setHelper(name);
          setStands(null);
        }}
        conclude={strength !== null && strength !== 'provisional'}
        onLearn={aboutPart ? () => setLearning(aboutPart) : null}
      />
      <Dialog title="What is known now" open={learning !== null} onClose={() => setLearning(null)}>
        {learning ? (
          <FactForm
            circuit={circuit}
            panelSet={data.panelSet}
            partId={learning}
            onDone={() => setLearning(null)}
          />
        ) : null}
      </Dialog>
      <Dialog
        title="Keys"
        says="They act on the card in focus only."
        open={dialog === 'keys'}
        onClose={() => setDialog(null)}
      >
        <KeyList keysOn={keysOn} onKeysOn={setKeysOn} />
      </Dialog>
      <Dialog
        title="Another test"
        says="In the order of what they would teach per minute."
        open={dialog === 'other'}
        onClose={() => setDialog(null)}
      >
        <OtherTests
          circuit={circuit}
          proposed={assessment?.next ?? []}
          permitted={diagnosis.permitted}
          forbidden={diagnosis.forbidden}
          condition={complaint.condition}
          expected={diagnosis.described?.expected}
          onChoose={chooseTest}
        />
      </Dialog>
    </Tabs>
  );
}
