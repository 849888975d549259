'use client';

import { useMemo, useState } from 'react';
import { diagramSvg } from '#core/diagram';
import { faultWords } from '#core/faults';
import type { CircuitFile, Panel } from '#core/format';
import { type DialPositions, type LiveSetting, positionsIn } from '#core/live';
import { PanelDrawing, PanZoom, useTurns } from '@/features/panels';
import { Check } from '@/ui/Check';
import { Button, Problem } from '@/ui/controls';
import { Dialog } from '@/ui/Dialog';
import { Fold } from '@/ui/Fold';
import { Select } from '@/ui/Select';
import { saveFile } from '@/ui/saveFile';
import { useSay } from '@/ui/Toast';
import { useWide } from '@/ui/useWide';
import { useAnswer, useCircuitWorker } from '@/workers/useCircuitWorker';
import { CircuitDrawing, liveMarks, voltsText } from './CircuitDrawing';
import { LedgerTable } from './LedgerTable';
import { Alarms, Dials, dialled, Functions, PartPanel } from './LivePanel';
import { LoadBehind, type NewLoad } from './LoadBehind';
import { SlotForm } from './SlotForm';
import { StateTableView } from './StateTableView';
import { useDiagram } from './useDiagram';
import type { View } from './view';
import { WireForm } from './WireForm';

export function LiveCircuit({
  vehicleId,
  stored,
  circuit,
  view,
  panels,
  selected,
  onSelect,
  onGrow,
}: {
  vehicleId: string;
  /** It is the vehicle's circuit as it is kept, and not a text that is being written. */
  stored: boolean;
  circuit: CircuitFile;
  view: View;
  panels: readonly Panel[];
  selected: string | null;
  onSelect: (part: string | null) => void;
  onGrow: (load: NewLoad) => void;
}) {
  const ask = useCircuitWorker(circuit);
  const [at, setAt] = useState<DialPositions>(() => positionsIn(circuit, circuit.conditions.at(-1)!));
  const [hands, setHands] = useState<Pick<LiveSetting, 'faults' | 'done' | 'fusesOpen'>>({
    faults: [],
    done: [],
    fusesOpen: true,
  });
  const ids = useMemo(() => new Set(circuit.parts.map((part) => part.id)), [circuit]);
  const setting = useMemo(
    (): LiveSetting => ({
      condition: dialled(circuit, at),
      // What was broken or pulled and is no longer in the circuit is forgotten.
      faults: hands.faults.filter((one) => ids.has(one.part)),
      done: hands.done.filter((one) => !('part' in one) || ids.has(one.part)),
      fusesOpen: hands.fusesOpen,
    }),
    [circuit, at, hands, ids],
  );
  const question = useMemo(() => ({ ask: 'live' as const, setting }), [setting]);
  const { answer: state, problem } = useAnswer(ask, question);
  const { diagram, problem: undrawn } = useDiagram(circuit);
  const part = circuit.parts.find((one) => one.id === selected) ?? null;
  const supply = circuit.nominalVolts;
  const marks = useMemo(() => {
    const words = new Map<string, string>();
    for (const one of setting.done)
      if ('part' in one) words.set(one.part, one.kind === 'unplugged' ? 'unplugged' : 'out');
    for (const fault of setting.faults) {
      words.set(
        fault.part,
        faultWords(
          circuit.parts.find((one) => one.id === fault.part),
          fault,
        ),
      );
    }
    for (const one of state?.overloaded ?? []) words.set(one.part, 'too much current');
    for (const id of state?.blown ?? []) words.set(id, 'opened');
    return words;
  }, [setting, state, circuit]);
  const moved = useMemo(() => {
    const { key, switches = {} } = setting.condition;
    const parts = new Set((state?.sensors ?? []).filter((one) => one.on).map((one) => one.part));
    for (const one of circuit.parts) {
      if (one.kind === 'switch' && (switches[one.id] ?? one.rest) !== one.rest) parts.add(one.id);
      if (one.kind === 'key-contact' && one.closedIn.includes(key)) parts.add(one.id);
    }
    return parts;
  }, [circuit, setting, state]);
  const live = state ? liveMarks(state, marks, supply, moved, circuit.reference) : null;
  const [run, setRun] = useState<string>('');
  const wide = useWide();
  const say = useSay();
  /** On a phone, what is slid up over the drawing. */
  const [sheet, setSheet] = useState<'now' | 'part' | 'run' | null>(null);
  const function_ = circuit.functions.find((one) => one.id === run);
  const altered = setting.faults.length > 0 || setting.done.length > 0;
  const saveSvg = () => {
    if (!diagram) return;
    const volts = new Map((state?.nodes ?? []).map((one) => [one.node, voltsText(one)]));
    saveFile(`${circuit.id}.svg`, 'image/svg+xml', diagramSvg(diagram, circuit.name, volts));
    say(`${circuit.id}.svg is saved, with the volts as they stand`);
  };
  if (view === 'table') {
    return (
      <div className="mt-4">
        <StateTableView circuit={circuit} ask={ask} at={at} setting={setting} />
      </div>
    );
  }
  if (view === 'wires') {
    return (
      <div className="mt-4 grid gap-8 lg:grid-cols-[1fr_24rem]">
        <LedgerTable circuit={circuit} selected={selected} onSelect={onSelect} />
        {part ? (
          <div className="space-y-5">
            <PartPanel circuit={circuit} part={part} state={state} setting={setting} onSetting={setHands} />
            {part.kind === 'wire' && stored ? (
              <WireForm key={part.id} vehicleId={vehicleId} wire={part} />
            ) : null}
          </div>
        ) : null}
      </div>
    );
  }
  const now = (
    <section aria-labelledby={wide ? 'live-title' : undefined}>
      {wide ? (
        <h2 id="live-title" className="border-b-2 border-line pb-1 text-lg">
          Now
        </h2>
      ) : null}
      <label className="mt-2 block">
        <span className="sr-only">As in the condition</span>
        <Select
          value=""
          onChange={(event) => {
            const chosen = circuit.conditions.find(({ id }) => id === event.target.value);
            if (chosen) setAt(positionsIn(circuit, chosen));
          }}
        >
          <option value="">set as in a condition …</option>
          {circuit.conditions.map((one) => (
            <option key={one.id} value={one.id}>
              {one.name}
            </option>
          ))}
        </Select>
      </label>
      <div className="mt-2">
        <Dials circuit={circuit} at={at} onTurn={(dial, position) => setAt({ ...at, [dial]: position })} />
      </div>
      {state && wide ? <Alarms circuit={circuit} state={state} /> : null}
      <Functions circuit={circuit} state={state} />
      <div className="mt-2 flex flex-wrap items-center gap-3">
        <Check checked={hands.fusesOpen} onChange={(fusesOpen) => setHands({ ...hands, fusesOpen })}>
          fuses open when overloaded
        </Check>
        {altered ? (
          <Button onClick={() => setHands({ ...hands, faults: [], done: [] })}>All as it was</Button>
        ) : null}
      </div>
    </section>
  );
  const chosenPart = part ? (
    <>
      <PartPanel circuit={circuit} part={part} state={state} setting={setting} onSetting={setHands} />
      <LoadBehind key={part.id} part={part} onGrow={onGrow} />
      {stored ? <SlotForm key={`slot ${part.id}`} vehicleId={vehicleId} part={part} panels={panels} /> : null}
      {part.slot ? <InPanel vehicleId={vehicleId} panels={panels} slot={part.slot} /> : null}
    </>
  ) : (
    <p className="text-soft">Choose a part in the drawing for its volts, to pull it or to break it.</p>
  );
  const runs = (
    <RunList
      circuit={circuit}
      run={function_?.id ?? ''}
      onRun={setRun}
      ask={ask}
      volts={live?.volts ?? null}
      selected={selected}
      onSelect={onSelect}
    />
  );
  const choose = (id: string | null) => {
    onSelect(id);
    if (!wide && id !== null) setSheet('part');
  };
  return (
    <div className="mt-2 grid gap-6 lg:mt-4 lg:grid-cols-[minmax(0,1fr)_24rem]">
      <div className="min-w-0">
        {undrawn ? <Problem>{undrawn}</Problem> : null}
        {problem ? <Problem>{problem}</Problem> : null}
        {state && !wide ? <Alarms circuit={circuit} state={state} /> : null}
        {diagram ? (
          <PanZoom wheel>
            <CircuitDrawing
              diagram={diagram}
              title={circuit.name}
              selected={selected}
              live={live}
              onSelect={choose}
            />
          </PanZoom>
        ) : (
          <p className="min-h-[60dvh] py-10 text-soft">Drawing …</p>
        )}
        <div className="mt-2 flex flex-wrap gap-2">
          <Button onClick={saveSvg} disabled={!diagram}>
            Save the drawing (SVG)
          </Button>
        </div>
        <PartList circuit={circuit} selected={selected} onSelect={choose} />
      </div>
      {wide ? (
        <div className="sticky top-3 max-h-[calc(100dvh-1.5rem)] space-y-5 self-start overflow-y-auto pr-1">
          {now}
          {chosenPart}
          {runs}
        </div>
      ) : (
        <>
          <div className="sticky bottom-[4.75rem] z-10 -mx-3 grid grid-cols-3 gap-2 border-t-2 border-line bg-paper px-2 py-2">
            <Button onClick={() => setSheet('now')}>Switches</Button>
            <Button onClick={() => setSheet('part')} disabled={!part}>
              {part ? part.id : 'Part'}
            </Button>
            <Button onClick={() => setSheet('run')}>Run</Button>
          </div>
          <Dialog title="Switches" open={sheet === 'now'} onClose={() => setSheet(null)}>
            {now}
          </Dialog>
          <Dialog
            title={part ? part.name : 'Part'}
            open={sheet === 'part' && part !== null}
            onClose={() => setSheet(null)}
          >
            {chosenPart}
          </Dialog>
          <Dialog title="Run" open={sheet === 'run'} onClose={() => setSheet(null)}>
            {runs}
          </Dialog>
        </>
      )}
    </div>
  );
}

/** Where the chosen part sits in its box. */
function InPanel({
  vehicleId,
  panels,
  slot,
}: {
  vehicleId: string;
  panels: readonly Panel[];
  slot: { panel: string; slot: string };
}) {
  const panel = panels.find((one) => one.id === slot.panel);
  const [turns] = useTurns(vehicleId, slot.panel);
  if (!panel) return null;
  return (
    <section aria-labelledby="in-panel">
      <h3 id="in-panel" className="text-lg">
        In the {panel.name.toLowerCase()}
      </h3>
      <PanelDrawing panel={panel} turns={turns} wanted={slot.slot} />
    </section>
  );
}

function PartList({
  circuit,
  selected,
  onSelect,
}: {
  circuit: CircuitFile;
  selected: string | null;
  onSelect: (part: string) => void;
}) {
  return (
    <Fold title={`All ${circuit.parts.length} parts as a list`} className="mt-4">
      <ul className="grid gap-x-6 sm:grid-cols-2" data-testid="part-list">
        {circuit.parts.map((part) => (
          <li key={part.id} className="border-b border-line">
            <button
              type="button"
              aria-pressed={part.id === selected}
              onClick={() => onSelect(part.id)}
              className={`min-h-11 w-full text-left ${part.id === selected ? 'bg-copper-wash font-bold' : 'hover:bg-sunk'}`}
            >
              {part.id} <span className="text-soft">{part.name}</span>
            </button>
          </li>
        ))}
      </ul>
    </Fold>
  );
}

/** The run of a function, from source to earth, with the volts at each stop. */
function RunList({
  circuit,
  run,
  onRun,
  ask,
  volts,
  selected,
  onSelect,
}: {
  circuit: CircuitFile;
  run: string;
  onRun: (id: string) => void;
  ask: ReturnType<typeof useCircuitWorker>;
  volts: ReadonlyMap<string, { volts: number; floating: boolean }> | null;
  selected: string | null;
  onSelect: (part: string) => void;
}) {
  const question = useMemo(
    () => (run === '' ? null : { ask: 'runs' as const, function: run, condition: null }),
    [run],
  );
  const { answer: runs } = useAnswer(ask, question);
  const [main] = run === '' ? [] : (runs ?? []);
  return (
    <section aria-labelledby="run-title">
      <label className="block">
        <span id="run-title" className="text-lg font-bold">
          Run of
        </span>
        <Select value={run} onChange={(event) => onRun(event.target.value)}>
          <option value="">choose a function …</option>
          {circuit.functions.map((one) => (
            <option key={one.id} value={one.id}>
              {one.name}
            </option>
          ))}
        </Select>
      </label>
      {main ? (
        <ol className="mt-2 border-l-4 border-copper" data-testid="run-list">
          {main.stops.map((stop, index) => {
            const station = main.stations[index];
            return (
              <li key={stop} className="pl-3">
                <span className="reading text-sm font-bold">{voltsText(volts?.get(stop))}</span>
                {station ? (
                  <button
                    type="button"
                    aria-pressed={station.part === selected}
                    onClick={() => onSelect(station.part)}
                    className={`block min-h-11 w-full text-left ${station.part === selected ? 'bg-copper-wash font-bold' : ''}`}
                  >
                    {station.name}
                  </button>
                ) : null}
              </li>
            );
          })}
        </ol>
      ) : null}
    </section>
  );
}
