'use client';

import { type ReactNode, useMemo, useState } from 'react';
import { type Proposal, type Run, settingsToMake, testCardWords } from '#core/diagnosis';
import type { CircuitFile, PanelSetFile } from '#core/format';
import { conditionSeenLast, fittedNow } from '#core/log';
import { PanelView, useTurns } from '@/features/panels';
import { CautionAsk, useUnread } from '@/job/CautionAsk';
import { HelperPrompt } from '@/job/Helper';
import { InStock } from '@/job/InStock';
import { useJob } from '@/job/JobProvider';
import { useHelperPhone } from '@/job/useHelperPhone';
import { Check } from '@/ui/Check';
import { Button, Caution } from '@/ui/controls';
import { Dialog } from '@/ui/Dialog';
import { DutyClock } from '@/ui/DutyClock';
import { Fold } from '@/ui/Fold';
import { Override } from '@/ui/Override';
import { SetSign } from '@/ui/SetSign';
import { CardPicture } from './CardPicture';
import { type Answer, ReadingPad, readAnswer } from './ReadingPad';

export interface CardGate {
  readonly sentence: string;
  /** Goes to the reading that would open it; null where there is no such reading. */
  readonly onRead: (() => void) | null;
  /** Opens it all the same, for a reason that is kept. */
  readonly onOverride: (reason: string) => { readonly ok: boolean };
}

/** The part for which a spare is fetched by this test, or by what it may show. */
function fittedBy(ref: Proposal['ref'], circuit: CircuitFile): string | null {
  if (ref.kind === 'substitute') return ref.part;
  if (ref.kind !== 'look' && ref.kind !== 'continuity') return null;
  return circuit.parts.some(({ id, kind }) => id === ref.part && kind === 'fuse') ? ref.part : null;
}

/** One test at a time: set, touch, read, record. */
export function TestCard({
  circuit,
  panelSet,
  proposal,
  chosen,
  draft,
  correcting,
  onDraft,
  onAnswer,
  onRefuse,
  onOther,
  onBesides,
  onCorrectLast,
  onKeys,
  keysOn,
  helper,
  gate,
  runs,
  onRun,
  recorded,
}: {
  circuit: CircuitFile;
  panelSet: PanelSetFile | null;
  proposal: Proposal;
  chosen: boolean;
  draft: string;
  correcting: boolean;
  onDraft: (text: string) => void;
  onAnswer: (answer: Answer) => void;
  onRefuse: (reason: string) => void;
  onOther: () => void;
  /** What can be done besides the card. */
  onBesides: () => void;
  onCorrectLast: () => void;
  onKeys: () => void;
  keysOn: boolean;
  /** Somebody at the key has to set this up first; null when it stands or nobody helps. */
  helper: { readonly name: string; readonly onStands: () => void } | null;
  /** Why the test may not be made yet; null when nothing stands against it. */
  gate: CardGate | null;
  /** Runs of what failed, for the picture of where the leads go. */
  runs: readonly Run[];
  /** To the whole run. */
  onRun: () => void;
  /** That the last entry was taken, for some seconds. */
  recorded: ReactNode;
}) {
  const { data, job } = useJob();
  const words = useMemo(
    () => testCardWords(circuit, proposal.ref, proposal.place, proposal.lead, fittedNow(job).fitted),
    [circuit, proposal, job],
  );
  const phone = useHelperPhone({
    test: proposal.id,
    settings: words.settings,
    asks: helper !== null,
    onStands: () => helper?.onStands(),
  });
  const [problem, setProblem] = useState<string | null>(null);
  const [setUpSeen, setSetUpSeen] = useState(true);
  const [boxOpen, setBoxOpen] = useState(false);
  const place = circuit.places.find((one) => one.id === proposal.place);
  const [turns] = useTurns(data.vehicle.id, words.slot?.panel ?? '');
  const panel = words.slot ? panelSet?.panels.find((one) => one.id === words.slot?.panel) : undefined;
  const answer = (given: Answer | { text: string }) => {
    if (!('text' in given)) {
      onAnswer({ ...given, setUpSeen });
      return;
    }
    const read = readAnswer(given.text, words.answer);
    if ('problem' in read) setProblem(read.problem);
    else {
      setProblem(null);
      onAnswer({ ...read.answer, setUpSeen });
    }
  };
  const key = (pressed: string): boolean => {
    if (pressed === 'u') onCorrectLast();
    else if (pressed === 'n') onOther();
    else if (pressed === '?') onKeys();
    else return false;
    return true;
  };
  // What is asked stands at the answers, and not twice.
  const unread = useUnread(words.asks);
  const said =
    gate || helper
      ? words.cautions
      : words.cautions.filter((one) => !unread.some(({ words: ask }) => ask === one));
  const anew = settingsToMake(words.settings, circuit, conditionSeenLast(job));
  const fitting = fittedBy(proposal.ref, circuit);
  const minutes =
    proposal.minutes < 1 ? 'under a minute' : `about ${Math.round(proposal.minutes * 10) / 10} min`;
  return (
    <article
      aria-labelledby="card-title"
      data-test={proposal.id}
      className="rounded-lg border-2 border-copper bg-sheet 2xl:grid 2xl:grid-cols-[minmax(0,1fr)_17rem] low:grid low:grid-cols-[minmax(0,1fr)_19rem]"
    >
      <header className="border-b-2 border-line px-3 py-1.5 lg:px-4 2xl:col-span-2 low:col-start-1">
        <p className="truncate text-sm text-soft">
          {correcting ? 'Correcting an entry' : chosen ? 'Your choice' : 'Next test'}
          {place ? ` · ${place.name}` : ''} · {minutes}
        </p>
        <h2 id="card-title" className="text-[20px] leading-tight lg:text-2xl" data-testid="card-title">
          {words.title}
        </h2>
      </header>
      <div className="px-3 py-1 lg:px-4 2xl:col-start-1 low:col-start-1">
        <CardPicture
          circuit={circuit}
          test={proposal.ref}
          runs={runs}
          box={panel && words.slot ? { panel, slot: words.slot.slot, turns } : null}
          onOpen={(what) => (what === 'box' ? setBoxOpen(true) : onRun())}
        />
        <ul aria-label="Set" className="mt-1 flex flex-wrap items-center gap-x-2 gap-y-1">
          {words.settings.map((setting) => (
            <SetSign key={setting.words} setting={setting} anew={anew.has(setting.words)} />
          ))}
          {words.settings.length > 0 && words.answer !== 'function' ? (
            <li>
              <Check checked={setUpSeen} onChange={setSetUpSeen}>
                seen so<span className="sr-only">: key and switches stand as set</span>
              </Check>
            </li>
          ) : null}
        </ul>
        <ol className="mt-1 text-[17px] lg:space-y-1 lg:text-lg" data-testid="card-steps">
          {words.steps.map((step) => (
            <li key={step}>{step}</li>
          ))}
        </ol>
        <p className="mt-1 text-[17px] lg:text-lg">
          All well would show: <strong data-testid="card-expected">{proposal.expected}</strong>
        </p>
        {said.map((caution) => (
          <div key={caution} className="mt-2">
            <Caution>{caution}</Caution>
          </div>
        ))}
        <p className="mt-1 text-sm text-soft">{words.instrument}</p>
        {fitting ? <InStock part={fitting} /> : null}
        {words.side ? <p className="mt-1 text-sm text-soft">{words.side}</p> : null}
        {panel && words.slot ? (
          <>
            <Fold className="mt-2" title={`Where it is in the ${panel.name.toLowerCase()}`}>
              <PanelView vehicleId={data.vehicle.id} panel={panel} wanted={words.slot.slot} />
            </Fold>
            <Dialog title={panel.name} open={boxOpen} onClose={() => setBoxOpen(false)}>
              <PanelView vehicleId={data.vehicle.id} panel={panel} wanted={words.slot.slot} />
            </Dialog>
          </>
        ) : null}
      </div>
      <div className="border-t-2 border-line px-3 py-2 lg:px-4 lg:py-3 2xl:col-span-2 2xl:row-start-3 low:col-start-1">
        <h3 className="font-bold">What each result would mean</h3>
        <ul className="mt-1 space-y-1">
          {proposal.outcomes.map((outcome) => (
            <li key={outcome.result} className="grid grid-cols-[7.5rem_1fr] gap-3">
              <span className="font-semibold">
                {outcome.result}
                {outcome.asExpected ? (
                  <span className="block text-sm font-normal text-soft">all well</span>
                ) : null}
              </span>
              <span>{outcome.means}</span>
            </li>
          ))}
        </ul>
        <p className="mt-3 text-soft" data-testid="card-why">
          <span className="font-semibold text-ink">Why this test: </span>
          {proposal.why}
        </p>
      </div>
      {/* Where the thumb is, whatever stands above it. */}
      <div
        className="sticky bottom-0 z-10 rounded-b-lg border-t-2 border-copper bg-sheet p-2 pb-1 lg:px-4 2xl:static 2xl:col-start-2 2xl:row-start-2 2xl:border-0 2xl:p-4 low:top-12 low:bottom-auto low:col-start-2 low:row-span-3 low:row-start-1 low:self-start low:border-0"
        data-testid="answers"
      >
        {recorded}
        {words.onSeconds === null ? null : <DutyClock key={proposal.id} seconds={words.onSeconds} />}
        <div className="takes-touch-later">
          {helper ? (
            <HelperPrompt
              helper={helper.name}
              settings={words.settings}
              phone={phone}
              onStands={helper.onStands}
            />
          ) : gate ? (
            <GateBox gate={gate} />
          ) : (
            <CautionAsk warnings={words.asks}>
              <ReadingPad
                key={proposal.id}
                kind={words.answer}
                draft={draft}
                problem={problem}
                onDraft={(text) => {
                  setProblem(null);
                  onDraft(text);
                }}
                onAnswer={answer}
                onKey={key}
                keysOn={keysOn}
              />
            </CautionAsk>
          )}
          <div className="mt-1 grid grid-cols-[auto_auto_auto] text-[15px] lg:flex lg:flex-wrap">
            <Button look="quiet" onClick={() => onRefuse('cannot reach that')}>
              Cannot reach that
            </Button>
            <Button look="quiet" onClick={onOther}>
              Another test
            </Button>
            <Button look="quiet" onClick={onBesides} aria-haspopup="dialog">
              More
            </Button>
            <span className="hidden lg:inline">
              <Button look="quiet" onClick={onKeys}>
                Keys
              </Button>
            </span>
          </div>
        </div>
      </div>
    </article>
  );
}

/** In place of the pad while something has to be read first. */
function GateBox({ gate }: { gate: CardGate }) {
  return (
    <div className="grid gap-3" data-testid="card-gate">
      <Caution>{gate.sentence}</Caution>
      {gate.onRead ? (
        <Button look="primary" className="h-14 text-lg" onClick={gate.onRead}>
          To that reading
        </Button>
      ) : null}
      <Override word="Without that reading" onOverride={gate.onOverride} />
    </div>
  );
}
