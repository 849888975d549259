'use client';

import { Dialog } from 'radix-ui';
import { type ReactNode, useCallback, useDeferredValue, useEffect, useMemo, useState } from 'react';
import type { RunRow } from '#core/diagnosis';
import { testId, testInLog } from '#core/diagnosis';
import type { CircuitFile, FunctionStateName } from '#core/format';
import { functionName, type LogEntry, valueWords } from '#core/log';
import { useJob } from '@/features/jobs';
import { Button, ButtonLink, INPUT, Problem } from '@/ui/controls';
import { useBridgeGate } from './bridgeGate';
import { FactForm, WouldHelp } from './FactForm';
import { FailsNow } from './FailsNow';
import { HelperSwitch, useHelper } from './HelperPrompt';
import { readDraft, useKeysOn, writeDraft } from './memory';
import { OtherTests } from './OtherTests';
import type { Answer } from './ReadingPad';
import { RelayPanel } from './RelayPanel';
import { ROW, RunDrawing } from './RunDrawing';
import { StopAdvice } from './StopAdvice';
import { Substitutions } from './Substitutions';
import { Suspects } from './Suspects';
import { TestCard } from './TestCard';
import { TraceLog } from './TraceLog';
import { useStable } from './useStable';
import { useWakeLock } from './useWakeLock';

const KEYS = [
  ['0–9 . , − m OL', 'into the entry, on a volts or ohms card'],
  ['l  d  o', 'lit, dim, off, on a lamp card'],
  ['w  k  d  c', 'works, weak, dead, comes and goes'],
  ['Enter', 'records'],
  ['u', 'corrects the last reading (entry empty)'],
  ['n', 'another test (entry empty)'],
  ['?', 'this list (entry empty)'],
] as const;

type Pane = 'card' | 'run' | 'suspects';

export function TraceView() {
  const { data, circuit, job, record, diagnosis, appliance, nominalVolts } = useJob();
  const { assessment, card, choose, chosen } = diagnosis;
  // Run, suspects and log follow a moment later: an entry shows on the card first, however long the log is.
  const shown = useDeferredValue(job);
  const shownReadings = useDeferredValue(diagnosis.readings);
  const [pane, setPane] = useState<Pane>('card');
  const [runIndex, setRunIndex] = useState(0);
  const [dialog, setDialog] = useState<'keys' | 'other' | null>(null);
  const [helper, setHelper] = useHelper();
  /** The condition that the person at the key has set up. */
  const [stands, setStands] = useState<string | null>(null);
  const [learning, setLearning] = useState<string | null>(null);
  useWakeLock();
  const [correcting, setCorrecting] = useState<LogEntry | null>(null);
  const [keysOn, setKeysOn] = useKeysOn();
  const [draft, setDraft] = useState('');
  /** Key and switches in which tapped stops are read; those of the complaint until chosen otherwise. */
  const [probeCondition, setProbeCondition] = useState<string | null>(null);
  const cardId = card?.id ?? null;

  useEffect(() => {
    if (cardId) setDraft(readDraft(data.id, cardId));
  }, [cardId, data.id]);

  const changeDraft = useCallback(
    (text: string) => {
      setDraft(text);
      if (cardId) writeDraft(data.id, cardId, text);
    },
    [cardId, data.id],
  );

  const measured = useMemo(() => {
    const found = new Map<string, number>();
    const condition = shown.complaint?.condition;
    for (const { body, struck } of shown.readings) {
      if (
        !struck &&
        body.test.kind === 'volts' &&
        body.test.condition === condition &&
        body.test.pulled === undefined &&
        // A drop belongs to two stops; only a reading against the reference stands at one.
        body.test.against === circuit?.reference &&
        'volts' in body.value
      ) {
        found.set(body.test.node, body.value.volts);
      }
    }
    return found;
  }, [shown, circuit]);
  const standings = useMemo(
    () => new Map((assessment?.parts ?? []).map((part) => [part.part, part])),
    [assessment],
  );
  const effects = useMemo(
    () => new Map((assessment?.effects ?? []).map((effect) => [effect.id, effect])),
    [assessment],
  );
  const readingNames = useMemo(() => {
    const names = new Map<string, string>();
    for (const { event } of shown.entries) {
      const { body } = event;
      if (body.kind === 'reading') {
        names.set(event.id, `${testInLog(circuit, body.test)}: ${valueWords(body.value)}`);
      } else if (body.kind === 'function-check') {
        const words = testInLog(circuit, { ...body, kind: 'function' });
        names.set(event.id, `${words}: ${valueWords({ state: body.state })}`);
      }
    }
    return names;
  }, [shown, circuit]);
  const probeable = useMemo(
    () =>
      new Set(
        (circuit?.nodes ?? [])
          .filter((node) => (node.access?.length ?? 0) > 0 && node.id !== circuit?.reference)
          .map((node) => node.id),
      ),
    [circuit],
  );

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
  const note = useStable((words: string) => record({ kind: 'note', words }));
  const chooseTest = useStable((id: string) => {
    setCorrecting(null);
    choose(id);
    setPane('card');
  });
  const bridgeGate = useBridgeGate(card, chooseTest);
  const correct = useStable((entry: LogEntry) => {
    const { body } = entry.event;
    if (body.kind === 'function-check') {
      record({ kind: 'correction', of: entry.event.id, reason: 'taken back' });
      return;
    }
    if (body.kind !== 'reading') return;
    const id = testId(body.test);
    setCorrecting(entry);
    choose(id);
    writeDraft(data.id, id, body.raw);
    setDraft(body.raw);
    setPane('card');
  });
  const probe = useStable((node: string) => {
    if (!circuit) return;
    const condition = probeCondition ?? job.complaint?.condition ?? '';
    choose(testId({ kind: 'volts', node, against: circuit.reference, condition }));
    setPane('card');
  });

  if (!circuit) {
    return (
      <Empty title="This vehicle has no circuit yet">
        Bring a circuit file in on the vehicle’s page; then the trace can begin.
        <ButtonLink look="primary" href={`/vehicles/${data.vehicle.id}`} className="mt-4">
          To the vehicle
        </ButtonLink>
      </Empty>
    );
  }
  if (!job.complaint?.function || !job.complaint.condition) {
    return (
      <Empty title="Say first what fails">
        Which function, in which key and switch positions. That takes two taps.
        <ButtonLink look="primary" href={`/jobs/${data.id}#complaint`} className="mt-4">
          To the complaint
        </ButtonLink>
      </Empty>
    );
  }
  if (nominalVolts === null) {
    return (
      <Empty title="Which nominal voltage?">
        No verdict is given before it is known: limits, lamps and relays all depend on it.
        <ButtonLink look="primary" href={`/jobs/${data.id}#complaint`} className="mt-4">
          To the complaint
        </ButtonLink>
      </Empty>
    );
  }
  if (diagnosis.failure) return <Problem>{diagnosis.failure}</Problem>;
  if (!assessment) {
    return (
      <Preparing
        done={diagnosis.prepared}
        cancelled={diagnosis.cancelled}
        onCancel={diagnosis.cancel}
        jobId={data.id}
      />
    );
  }

  const complaint = { function: job.complaint.function, condition: job.complaint.condition };
  const failing = job.complaint.state ?? 'dead';
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
      testerProved: job.testerProvedAt !== null || card.ref.kind === 'function',
      ...(setUpSeen === false ? { setUpSeen } : {}),
      ...(card.place ? { place: card.place } : {}),
    } as const;
    const recorded = correcting
      ? record({ kind: 'correction', of: correcting.event.id, reason: 'entered again' }, reading)
      : record(reading);
    if (!recorded.ok) return;
    writeDraft(data.id, card.id, '');
    setDraft('');
    setCorrecting(null);
    choose(null);
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
      asked={assessment.askFailsNow}
      onSay={sayFails}
    />
  );

  return (
    <div className="px-3 py-3 lg:px-5">
      {job.testerProvedAt === null ? (
        <div className="mb-3 flex flex-wrap items-center justify-between gap-2 border-l-4 border-caution bg-caution-wash px-3 py-2">
          <p>
            <strong>Prove the tester</strong> on the battery posts. Until then every reading is provisional.
          </p>
          <Button onClick={() => record({ kind: 'tester-proved', on: 'battery plus and minus post' })}>
            Tester proved
          </Button>
        </div>
      ) : null}
      {failing === 'on-when-off' ? (
        <div
          className="mb-3 flex flex-wrap items-center justify-between gap-2 border-l-4 border-caution bg-caution-wash px-3 py-2"
          data-testid="runs-unbidden"
        >
          <p className="max-w-prose">
            <strong>It runs with the switch off.</strong> Isolate it and keep clear before anything else;
            nothing is exchanged or bridged on it.
          </p>
          <ButtonLink href={`/jobs/${data.id}/boxes`}>To isolate it</ButtonLink>
        </div>
      ) : null}
      {appliance ? (
        <div
          className={`mb-3 flex flex-wrap items-center justify-between gap-2 border-l-4 px-3 py-2 ${
            job.applianceSetAside ? 'border-line' : 'border-caution bg-caution-wash'
          }`}
          data-testid="appliance"
        >
          <p className="max-w-prose">
            <strong>The appliance that was plugged in.</strong> {appliance.sentence}
          </p>
          {job.applianceSetAside ? null : (
            <Button onClick={() => record({ kind: 'appliance-set-aside', words: 'unplugged and put aside' })}>
              It is set aside
            </Button>
          )}
        </div>
      ) : null}
      <div role="tablist" aria-label="Trace" className="mb-3 grid grid-cols-3 gap-1 lg:hidden">
        {(
          [
            ['card', 'Card'],
            ['run', 'Run'],
            ['suspects', 'Suspects'],
          ] as const
        ).map(([id, name]) => (
          <button
            key={id}
            id={`tab-${id}`}
            type="button"
            role="tab"
            aria-selected={pane === id}
            aria-controls={`pane-${id}`}
            onClick={() => setPane(id)}
            className={`min-h-11 rounded-md border-2 font-semibold ${
              pane === id ? 'border-copper bg-copper-wash' : 'border-line bg-sheet'
            }`}
          >
            {name}
          </button>
        ))}
      </div>
      <div className="grid gap-5 lg:grid-cols-[22rem_minmax(0,1fr)_17rem]">
        <div id="pane-run" className={pane === 'run' ? '' : 'hidden lg:block'}>
          {runs.length > 1 ? (
            <div className="mb-2 flex flex-wrap gap-1">
              {runs.map((one, index) => (
                <button
                  key={one.id}
                  type="button"
                  aria-pressed={index === runIndex}
                  onClick={() => setRunIndex(index)}
                  className={`min-h-11 rounded-md border-2 px-3 text-left text-sm leading-tight ${
                    index === runIndex ? 'border-copper bg-copper-wash font-bold' : 'border-line bg-sheet'
                  }`}
                >
                  {one.name}
                </button>
              ))}
            </div>
          ) : null}
          {run ? (
            <div style={{ minHeight: ROW }}>
              <RunDrawing
                run={run}
                rows={rows}
                nominalVolts={nominalVolts}
                bracketed={failing !== 'on-when-off'}
                standings={standings}
                hereNode={hereNode}
                herePart={herePart}
                probeable={probeable}
                onProbe={probe}
              />
              <label className="mt-2 block text-sm">
                <span className="font-semibold">A stop that is tapped is read with</span>
                <select
                  value={probeCondition ?? complaint.condition}
                  onChange={(event) => setProbeCondition(event.target.value)}
                  className={`${INPUT} mt-1`}
                >
                  {circuit.conditions.map((one) => (
                    <option key={one.id} value={one.id}>
                      {one.name}
                    </option>
                  ))}
                </select>
              </label>
              <p className="mt-1 text-sm text-soft">
                Outlined: expected. Filled: measured. Bar: chance. ✓: cleared. Tap a stop for its card.
              </p>
            </div>
          ) : null}
        </div>
        <div id="pane-card" className={pane === 'card' ? '' : 'hidden lg:block'}>
          {assessment.askFailsNow ? failsNow : null}
          <StopAdvice assessment={assessment} jobId={data.id} />
          {assessment.mergedByRefusal ? (
            <p className="mb-3 border-l-4 border-line pl-3" data-testid="merged">
              {assessment.mergedByRefusal}
            </p>
          ) : null}
          {diagnosis.pending ? (
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
              onCorrectLast={correctLast}
              onKeys={() => setDialog('keys')}
              keysOn={keysOn}
            />
          ) : (
            <Finished
              proved={assessment.verdict.strength === 'proved'}
              jobId={data.id}
              sentence={assessment.verdict.sentence}
            />
          )}
          {card && assessment.verdict.strength !== null && assessment.verdict.strength !== 'provisional' ? (
            <p className="mt-3">
              <ButtonLink href={`/jobs/${data.id}#conclude`}>Conclude with what is known</ButtonLink>
            </p>
          ) : null}
          <WouldHelp circuit={circuit} parts={diagnosis.wouldHelp} onAnswer={setLearning} />
          <div className="mt-3 flex flex-wrap items-start gap-2">
            <HelperSwitch
              helper={helper}
              onHelper={(name) => {
                setHelper(name);
                setStands(null);
              }}
              onCaution={(caution) => record({ kind: 'caution-read', caution })}
            />
            {aboutPart ? (
              <Button onClick={() => setLearning(aboutPart)}>I know more of this part</Button>
            ) : null}
            <ButtonLink href={`/jobs/${data.id}/wires`}>Wires</ButtonLink>
            <ButtonLink href={`/jobs/${data.id}/boxes`}>Boxes</ButtonLink>
          </div>
          <div className={pane === 'card' ? 'mt-5' : 'mt-5 hidden lg:block'}>
            {assessment.askFailsNow ? null : failsNow}
            <h2 className="border-b-2 border-line pb-1 text-lg">Log</h2>
            <TraceLog circuit={circuit} entries={shown.entries} effects={effects} onCorrect={correct} />
          </div>
        </div>
        <div id="pane-suspects" className={pane === 'suspects' ? '' : 'hidden lg:block'}>
          <h2 className="mb-2 text-lg">Suspects</h2>
          <Suspects circuit={circuit} assessment={assessment} readingNames={readingNames} />
          <RelayPanel
            circuit={circuit}
            parts={runParts}
            condition={complaint.condition}
            duties={diagnosis.relayDuties}
            sound={soundVolts}
            failed={complaint.function}
            readings={shownReadings}
            exchanges={failing !== 'on-when-off'}
            onChoose={chooseTest}
            onNote={note}
          />
          <Substitutions circuit={circuit} tables={assessment.substitutions} onChoose={chooseTest} />
        </div>
      </div>

      <Dialog.Root open={learning !== null} onOpenChange={(open) => (open ? null : setLearning(null))}>
        <Dialog.Portal>
          <Dialog.Overlay className="fixed inset-0 z-40 bg-black/50" />
          <Dialog.Content
            aria-describedby={undefined}
            className="fixed inset-x-3 top-[8dvh] z-50 mx-auto max-h-[84dvh] max-w-xl overflow-auto rounded-lg border-2 border-ink bg-sheet p-5"
          >
            <Dialog.Title className="mb-2 text-xl font-bold">What is known now</Dialog.Title>
            {learning ? (
              <FactForm
                circuit={circuit}
                panelSet={data.panelSet}
                partId={learning}
                onDone={() => setLearning(null)}
              />
            ) : null}
          </Dialog.Content>
        </Dialog.Portal>
      </Dialog.Root>

      <Dialog.Root open={dialog !== null} onOpenChange={(open) => (open ? null : setDialog(null))}>
        <Dialog.Portal>
          <Dialog.Overlay className="fixed inset-0 z-40 bg-black/50" />
          <Dialog.Content className="fixed inset-x-3 top-[8dvh] z-50 mx-auto max-h-[84dvh] max-w-xl overflow-auto rounded-lg border-2 border-ink bg-sheet p-5">
            {dialog === 'keys' ? (
              <>
                <Dialog.Title className="text-xl font-bold">Keys</Dialog.Title>
                <Dialog.Description className="text-soft">
                  They act on the card in focus only.
                </Dialog.Description>
                <dl className="mt-3 grid grid-cols-[9rem_1fr] gap-y-2">
                  {KEYS.map(([key, does]) => (
                    <div key={key} className="contents">
                      <dt className="reading font-bold">{key}</dt>
                      <dd>{does}</dd>
                    </div>
                  ))}
                </dl>
                <label className="mt-4 flex min-h-11 items-center gap-3">
                  <input
                    type="checkbox"
                    checked={keysOn}
                    onChange={(event) => setKeysOn(event.target.checked)}
                    className="size-6 accent-(--copper)"
                  />
                  Single-letter keys on
                </label>
              </>
            ) : (
              <>
                <Dialog.Title className="text-xl font-bold">Another test</Dialog.Title>
                <Dialog.Description className="text-soft">
                  In the order of what they would teach per minute.
                </Dialog.Description>
                <OtherTests
                  circuit={circuit}
                  proposed={assessment.next}
                  permitted={diagnosis.permitted}
                  onChoose={(id) => {
                    setCorrecting(null);
                    choose(id);
                    setDialog(null);
                  }}
                />
              </>
            )}
            <Dialog.Close asChild>
              <Button className="mt-4">Close</Button>
            </Dialog.Close>
          </Dialog.Content>
        </Dialog.Portal>
      </Dialog.Root>
    </div>
  );
}

/** The part of the runs that a point belongs to, for what is learned about it. */
function partBehind(circuit: CircuitFile, node: string | null, parts: ReadonlySet<string>): string | null {
  if (node === null) return null;
  const here = circuit.parts.filter((part) => parts.has(part.id) && Object.values(part.pins).includes(node));
  return (here.find((part) => part.kind === 'fuse' || part.kind === 'relay') ?? here[0])?.id ?? null;
}

function Empty({ title, children }: { title: string; children: ReactNode }) {
  return (
    <div className="mx-auto flex max-w-xl flex-col items-start px-4 py-12">
      <h2 className="text-2xl">{title}</h2>
      <div className="mt-2 flex flex-col items-start text-lg">{children}</div>
    </div>
  );
}

/** How far the table of predictions is, and a way out of waiting for it. */
function Preparing({
  done,
  cancelled,
  onCancel,
  jobId,
}: {
  done: number;
  cancelled: boolean;
  onCancel: () => void;
  jobId: string;
}) {
  const percent = Math.round(100 * done);
  return (
    <div className="mx-auto max-w-xl px-4 py-10">
      {cancelled ? (
        <>
          <p role="status">Stopped. Nothing is lost; the trace starts again when this page is loaded.</p>
          <ButtonLink href={`/jobs/${jobId}`} className="mt-3">
            Back to the job
          </ButtonLink>
        </>
      ) : (
        <>
          <p role="status">Working out what each fault would show … {percent > 0 ? `${percent} %` : ''}</p>
          <div
            role="progressbar"
            aria-label="Predictions worked out"
            aria-valuenow={percent}
            aria-valuemin={0}
            aria-valuemax={100}
            className="mt-2 h-3 bg-sunk"
          >
            <div className="h-full bg-copper" style={{ width: `${percent}%` }} />
          </div>
          <Button onClick={onCancel} className="mt-4">
            Stop
          </Button>
        </>
      )}
    </div>
  );
}

function Finished({ proved, jobId, sentence }: { proved: boolean; jobId: string; sentence: string }) {
  return (
    <article className={`rounded-lg border-2 bg-sheet p-5 ${proved ? 'border-good' : 'border-copper'}`}>
      <h2 className="text-2xl" data-testid="finished">
        {proved ? '✓ The fault stands proved' : 'No test would tell more'}
      </h2>
      <p className="mt-2 text-lg">{sentence}</p>
      <p className="mt-2">Next: record what was found and why it happened, then repair.</p>
      <ButtonLink look="primary" href={`/jobs/${jobId}#conclude`} className="mt-4">
        Conclude
      </ButtonLink>
    </article>
  );
}
