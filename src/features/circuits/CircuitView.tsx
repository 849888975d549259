'use client';

import { useRouter } from 'next/navigation';
import { useEffect, useMemo, useRef, useState } from 'react';
import { diagramSvg } from '#core/diagram';
import { faultWords } from '#core/faults';
import type { CircuitFile, Panel } from '#core/format';
import type { LiveSetting } from '#core/live';
import { circuitOfPattern, PATTERNS, type ReadText, writeNotation } from '#core/notation';
import { PanelDrawing, PanZoom, useTurns } from '@/features/panels';
import { readDraft, writeDraft } from '@/sync/drafts';
import { postJson } from '@/sync/post';
import { requestFor, type Tried } from '@/sync/requestFor';
import { Choice } from '@/ui/Choice';
import { Button, INPUT, Problem } from '@/ui/controls';
import { saveFile } from '@/ui/saveFile';
import { useAnswer, useCircuitWorker } from '@/workers/useCircuitWorker';
import { CircuitDrawing, liveMarks, voltsText } from './CircuitDrawing';
import { LedgerTable } from './LedgerTable';
import { Alarms, type DialPositions, Dials, dialled, Functions, PartPanel, positionsOf } from './LivePanel';
import { NotationEditor } from './NotationEditor';
import { StateTableView } from './StateTableView';
import { useDiagram } from './useDiagram';
import { useReadText } from './useReadText';
import { WireForm } from './WireForm';

const VIEWS = [
  ['drawing', 'Drawing'],
  ['text', 'Text'],
  ['table', 'Combinations'],
  ['wires', 'Wires'],
] as const;
type View = (typeof VIEWS)[number][0];

/** The voltage is never guessed: where nobody knows it, the first line asks for it. */
const EMPTY_TEXT = (volts: number | null) =>
  `circuit new-circuit "New circuit"${volts === null ? '' : ` ${volts} V`}\n\nbattery, fuse F1, switch S1, lamp L1 "What it feeds", earth G1\n`;

/** A circuit alive: drawn, switched, broken in thought, said as text, as a table, wire by wire. */
export function CircuitView({
  vehicleId,
  saved,
  version,
  nominalVolts,
  panels,
  others,
}: {
  vehicleId: string;
  saved: CircuitFile | null;
  /** Of what is saved; 0 where nothing is. */
  version: number;
  nominalVolts: number | null;
  panels: readonly Panel[];
  /** All circuits of the vehicle, for suggestions. */
  others: readonly CircuitFile[];
}) {
  const router = useRouter();
  const first = useMemo(
    () => (saved ? writeNotation(saved, { everything: false }) : EMPTY_TEXT(nominalVolts)),
    [saved, nominalVolts],
  );
  const [text, setText] = useState(first);
  // What is edited from. A version that somebody saves meanwhile takes its place only where nothing was typed.
  const [basis, setBasis] = useState({ first, version });
  const draftKey = `circuit ${vehicleId} ${saved?.id ?? 'new'}`;
  const [draft, setDraft] = useState<string | null>(null);
  // Later than this page's own save, not merely other: the page is told of that a moment after it.
  const moved = version > basis.version;
  if (moved && text === basis.first) {
    setBasis({ first, version });
    setText(first);
  }
  const [view, setView] = useState<View>(saved ? 'drawing' : 'text');
  const [selected, setSelected] = useState<string | null>(null);
  const [saving, setSaving] = useState<{ busy: boolean; problem: string | null }>({
    busy: false,
    problem: null,
  });
  const read = useReadText(text, saved);
  // The last circuit that could be read stays on the page while a line is being typed.
  const [circuit, setCircuit] = useState<CircuitFile | null>(saved);
  const changed = text !== basis.first;
  useEffect(() => {
    if (!changed) setCircuit(saved ?? read.circuit);
    else if (read.circuit) setCircuit(read.circuit);
  }, [changed, read, saved]);

  useEffect(() => setDraft(readDraft(draftKey)), [draftKey]);
  const fromKey = `${draftKey} from`;
  const forgetDraft = () => {
    writeDraft(draftKey, null);
    writeDraft(fromKey, null);
    setDraft(null);
  };
  const type = (next: string) => {
    setText(next);
    setDraft(null);
    if (next === basis.first) return forgetDraft();
    writeDraft(draftKey, next);
    writeDraft(fromKey, String(basis.version));
  };
  /** Goes on with what was left here; begun from an older version, it is no newer for that. */
  const goOn = (left: string) => {
    const from = Number(readDraft(fromKey) ?? basis.version);
    if (from < version) {
      setText(left);
      setDraft(null);
      setBasis({ first: '', version: from });
    } else type(left);
  };
  /** The request that an unchanged try goes on with. */
  const request = useRef<Tried | null>(null);
  const save = async () => {
    if (!read.circuit || read.of !== text) return;
    setSaving({ busy: true, problem: null });
    const same = saved?.id === read.circuit.id;
    const body = { text: JSON.stringify(read.circuit), base: same ? basis.version : 0 };
    request.current = requestFor(request.current, JSON.stringify(body));
    const posted = await postJson<{ problems?: { message: string }[]; message?: string; version?: number }>(
      `/api/vehicles/${vehicleId}/import`,
      { id: request.current.id, ...body },
    );
    if (posted.kind === 'away') return setSaving({ busy: false, problem: posted.message });
    if (!posted.ok) {
      const said = posted.answer.problems?.map((one) => one.message).join(' ') ?? posted.answer.message;
      setSaving({ busy: false, problem: said || 'It was not taken. The text is kept here.' });
      // Theirs is fetched to be looked at; what was typed stays where it is.
      if (posted.status === 409) router.refresh();
      return;
    }
    forgetDraft();
    setSaving({ busy: false, problem: null });
    if (same) {
      const kept = writeNotation(read.circuit, { everything: false });
      setText(kept);
      setBasis({ first: kept, version: posted.answer.version ?? basis.version + 1 });
      router.refresh();
    } else router.push(`/vehicles/${vehicleId}/circuits/${encodeURIComponent(read.circuit.id)}`);
  };

  return (
    <div>
      <div className="no-print flex flex-wrap items-end justify-between gap-3">
        <h1 className="text-2xl lg:text-3xl">{circuit?.name ?? 'New circuit'}</h1>
        <Choice
          legend="What is shown"
          quiet
          shape="row"
          options={VIEWS.map(([id, name]) => ({ id, name }))}
          chosen={view}
          onChoose={(next) => setView(next as View)}
        />
      </div>
      {draft !== null && draft !== text ? (
        <p className="mt-3 flex flex-wrap items-center gap-3 border-l-4 border-caution bg-caution-wash px-3 py-2">
          A text was left here unsaved.
          <Button onClick={() => goOn(draft)}>Go on with it</Button>
          <Button onClick={forgetDraft}>Drop it</Button>
        </p>
      ) : null}
      {moved && changed ? (
        <div
          className="mt-3 flex flex-wrap items-center gap-3 border-l-4 border-caution bg-caution-wash px-3 py-2"
          data-testid="saved-meanwhile"
        >
          <p>
            Somebody else saved this circuit meanwhile, as version {version}. Your text is as you typed it,
            and nothing of theirs is overwritten.
          </p>
          <Button
            onClick={() => {
              writeDraft(fromKey, String(version));
              setBasis({ first, version });
            }}
          >
            Put mine in its place
          </Button>
          <Button
            onClick={() => {
              // Theirs is shown; what was typed is offered again above.
              setDraft(text);
              writeDraft(fromKey, String(version));
              setBasis({ first, version });
              setText(first);
            }}
          >
            Look at theirs
          </Button>
        </div>
      ) : null}
      {view === 'text' ? (
        <TextPane
          text={text}
          changed={changed}
          read={read}
          reading={read.of !== text}
          saved={saved}
          panels={panels}
          others={others}
          nominalVolts={nominalVolts}
          busy={saving.busy}
          problem={saving.problem}
          onText={type}
          onSave={save}
        />
      ) : null}
      {circuit ? (
        <Live
          vehicleId={vehicleId}
          stored={saved !== null && !changed}
          circuit={circuit}
          view={view}
          panels={panels}
          selected={selected}
          onSelect={setSelected}
        />
      ) : null}
    </div>
  );
}

function TextPane({
  text,
  changed,
  read,
  reading,
  saved,
  panels,
  others,
  nominalVolts,
  busy,
  problem,
  onText,
  onSave,
}: {
  text: string;
  changed: boolean;
  read: ReadText;
  /** The reading of what stands here now is not there yet. */
  reading: boolean;
  saved: CircuitFile | null;
  panels: readonly Panel[];
  others: readonly CircuitFile[];
  nominalVolts: number | null;
  busy: boolean;
  problem: string | null;
  onText: (text: string) => void;
  onSave: () => void;
}) {
  const context = useMemo(() => ({ parts: others.flatMap((one) => one.parts), panels }), [others, panels]);
  return (
    <div className="mt-3">
      {saved ? null : (
        <label className="mb-3 block max-w-md">
          <span className="block text-sm font-semibold">Begin from a pattern</span>
          <select
            value=""
            onChange={(event) => {
              const pattern = PATTERNS.find((one) => one.id === event.target.value);
              if (!pattern) return;
              const input = {
                load: 'What it feeds',
                kind: 'lamp',
                nominalVolts: nominalVolts ?? 12,
              } as const;
              const { text: made } = circuitOfPattern(pattern, input);
              onText(`${nominalVolts === null ? made.replace(/ 12 V$/m, '') : made}\n`);
            }}
            className={INPUT}
          >
            <option value="">choose …</option>
            {PATTERNS.map((one) => (
              <option key={one.id} value={one.id}>
                {one.name}
              </option>
            ))}
          </select>
        </label>
      )}
      <NotationEditor text={text} problems={read.problems} context={context} onText={onText} />
      <p className="mt-1 text-sm text-soft">
        One line a branch, from the battery to earth. “fuse F1 10 A”, “wire GN/RD 1.5 mm² 3 m”, “relay R1
        contact”, “from F1, …”, “to L1.minus”. Ctrl+Space suggests.
      </p>
      <div className="mt-2 flex flex-wrap items-center gap-3">
        <Button
          look="primary"
          disabled={!read.circuit || reading || busy || (saved !== null && !changed)}
          onClick={onSave}
        >
          {saved ? 'Save as a new version' : 'Save the circuit'}
        </Button>
        <p
          role="status"
          data-testid="text-status"
          className={read.circuit ? 'text-good' : 'font-semibold text-bad'}
        >
          {read.circuit
            ? `✓ ${read.circuit.parts.length} parts, ${read.circuit.functions.length} functions`
            : `✗ ${read.problems.length} ${read.problems.length === 1 ? 'mistake' : 'mistakes'}`}
        </p>
      </div>
      {problem ? <Problem>{problem}</Problem> : null}
      {read.problems.length > 0 ? (
        <ol className="mt-2 space-y-1" data-testid="text-problems">
          {read.problems.slice(0, 12).map((one) => (
            <li key={`${one.line} ${one.from} ${one.message}`}>
              <span className="reading font-bold">
                line {one.line}, column {one.from + 1}:
              </span>{' '}
              {one.message}
            </li>
          ))}
        </ol>
      ) : null}
    </div>
  );
}

function Live({
  vehicleId,
  stored,
  circuit,
  view,
  panels,
  selected,
  onSelect,
}: {
  vehicleId: string;
  /** It is the vehicle's circuit as it is kept, and not a text that is being written. */
  stored: boolean;
  circuit: CircuitFile;
  view: View;
  panels: readonly Panel[];
  selected: string | null;
  onSelect: (part: string | null) => void;
}) {
  const ask = useCircuitWorker(circuit);
  const [at, setAt] = useState<DialPositions>(() =>
    positionsOf(circuit, circuit.conditions.at(-1)?.id ?? ''),
  );
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
  const function_ = circuit.functions.find((one) => one.id === run);
  const altered = setting.faults.length > 0 || setting.done.length > 0;
  const saveSvg = () => {
    if (!diagram) return;
    const volts = new Map((state?.nodes ?? []).map((one) => [one.node, voltsText(one)]));
    saveFile(`${circuit.id}.svg`, 'image/svg+xml', diagramSvg(diagram, circuit.name, volts));
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
  return (
    <div className="mt-4 grid gap-6 lg:grid-cols-[minmax(0,1fr)_24rem]">
      <div className="min-w-0">
        {undrawn ? <Problem>{undrawn}</Problem> : null}
        {problem ? <Problem>{problem}</Problem> : null}
        {diagram ? (
          <PanZoom scrolls>
            <CircuitDrawing
              diagram={diagram}
              title={circuit.name}
              selected={selected}
              live={live}
              onSelect={onSelect}
            />
          </PanZoom>
        ) : (
          <p className="py-10 text-soft">Drawing …</p>
        )}
        <div className="mt-2 flex flex-wrap gap-2">
          <Button onClick={saveSvg} disabled={!diagram}>
            Save the drawing (SVG)
          </Button>
        </div>
        <PartList circuit={circuit} selected={selected} onSelect={onSelect} />
      </div>
      <div className="order-first space-y-5 lg:order-none">
        <section aria-labelledby="live-title">
          <h2 id="live-title" className="border-b-2 border-line pb-1 text-lg">
            Now
          </h2>
          <label className="mt-2 block">
            <span className="sr-only">As in the condition</span>
            <select
              value=""
              onChange={(event) => setAt(positionsOf(circuit, event.target.value))}
              className={INPUT}
            >
              <option value="">set as in a condition …</option>
              {circuit.conditions.map((one) => (
                <option key={one.id} value={one.id}>
                  {one.name}
                </option>
              ))}
            </select>
          </label>
          <div className="mt-2">
            <Dials
              circuit={circuit}
              at={at}
              onTurn={(dial, position) => setAt({ ...at, [dial]: position })}
            />
          </div>
          {state ? <Alarms circuit={circuit} state={state} /> : null}
          <Functions circuit={circuit} state={state} />
          <div className="mt-2 flex flex-wrap items-center gap-3">
            <label className="flex min-h-11 items-center gap-2">
              <input
                type="checkbox"
                checked={hands.fusesOpen}
                onChange={(event) => setHands({ ...hands, fusesOpen: event.target.checked })}
                className="size-5 accent-(--copper)"
              />
              fuses open when overloaded
            </label>
            {altered ? (
              <Button onClick={() => setHands({ ...hands, faults: [], done: [] })}>All as it was</Button>
            ) : null}
          </div>
        </section>
        {part ? (
          <>
            <PartPanel circuit={circuit} part={part} state={state} setting={setting} onSetting={setHands} />
            {part.slot ? <InPanel vehicleId={vehicleId} panels={panels} slot={part.slot} /> : null}
          </>
        ) : (
          <p className="text-soft">Choose a part in the drawing for its volts, to pull it or to break it.</p>
        )}
        <RunList
          circuit={circuit}
          run={function_?.id ?? ''}
          onRun={setRun}
          ask={ask}
          volts={live?.volts ?? null}
          selected={selected}
          onSelect={onSelect}
        />
      </div>
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
    <details className="mt-4">
      <summary className="inline-flex min-h-11 items-center font-semibold">
        All {circuit.parts.length} parts as a list
      </summary>
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
    </details>
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
        <select value={run} onChange={(event) => onRun(event.target.value)} className={INPUT}>
          <option value="">choose a function …</option>
          {circuit.functions.map((one) => (
            <option key={one.id} value={one.id}>
              {one.name}
            </option>
          ))}
        </select>
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
