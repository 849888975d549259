'use client';

import { Redo2, Undo2 } from 'lucide-react';
import { useRouter } from 'next/navigation';
import { type KeyboardEvent, useEffect, useRef, useState } from 'react';
import { checkPanelSet, type Panel, type PanelSetFile } from '#core/format';
import { begin, type Change, type History, neededSize, type Occupant, redo, step, undo } from '#core/panel';
import { draftsUnder, readDraft, writeDraft } from '@/sync/drafts';
import { postJson } from '@/sync/post';
import { requestFor, type Tried } from '@/sync/requestFor';
import { Button, Problem } from '@/ui/controls';
import { newId } from '@/ui/newId';
import type { FieldDrafts } from '@/ui/ReadField';
import { CsvImport } from './CsvImport';
import { EditDrawing } from './EditDrawing';
import { GridForm } from './GridForm';
import { PanelForm } from './PanelForm';
import { SitsHere } from './SitsHere';
import { SlotForm } from './SlotForm';
import { ThumbRow } from './ThumbRow';
import { type CoverPhoto, CoverPicker } from './Underlay';

const BLANK: Omit<Panel, 'id'> = {
  name: 'New box',
  place: 'not described yet',
  minutesToOpen: 2,
  opening: [],
  width: 160,
  height: 100,
  landmark: { name: 'hinge', edge: 'left' },
  slots: [],
};

function blankSet(vehicleName: string): PanelSetFile {
  return {
    format: 'every-trace/panel-set',
    version: 1,
    id: `${
      vehicleName
        .toLowerCase()
        .replace(/[^a-z0-9]+/g, '-')
        .replace(/^-|-$/g, '')
        .slice(0, 30) || 'vehicle'
    }-boxes`,
    name: `Boxes of ${vehicleName}`,
    panels: [],
  };
}

/** Stands for the id of a box that was never saved. */
const NEW_BOX = 'new-box';

/** A box that was being edited, and the version of the set that it was begun from. */
interface BoxDraft {
  readonly panel: Panel;
  readonly version: number;
}

/** What was being edited when the page was left; null where nothing was. */
function draftOf(key: string): BoxDraft | null {
  const text = readDraft(key);
  try {
    return text ? (JSON.parse(text) as BoxDraft) : null;
  } catch {
    return null;
  }
}

/** Fields of one form of this box, in which something stands that was not taken yet. */
function fieldDrafts(key: string, form: string): FieldDrafts {
  const at = (field: string) => `${key} field ${form} ${field}`;
  return {
    read: (field) => readDraft(at(field)),
    write: (field, text) => writeDraft(at(field), text),
  };
}

interface SaveAnswer {
  readonly ok?: boolean;
  readonly version?: number;
  readonly joined?: PanelSetFile;
  readonly newest?: { readonly version: number; readonly joined?: PanelSetFile };
  readonly problems?: readonly { readonly message: string }[];
  readonly message?: string;
}

const NUDGES: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

/** A box drawn and described by drag and by keyboard; every step can be taken back, nothing is lost before it is saved. */
export function PanelEditor({
  vehicleId,
  vehicleName,
  file,
  version,
  panelId,
  parts = [],
}: {
  vehicleId: string;
  vehicleName: string;
  file: PanelSetFile | null;
  /** Of the set; 0 where there is none yet. */
  version: number;
  panelId: string | null;
  /** Fuses and relays of the vehicle's circuits. */
  parts?: readonly Occupant[];
}) {
  const router = useRouter();
  /**
   * The set that this drawing is gone on from, and its version: as the page was made, then as each save left it. What
   * others save beside it is joined by the server, so neither this box nor another is put back to what it was.
   */
  const [basis, setBasis] = useState({ set: file ?? blankSet(vehicleName), version });
  const { set } = basis;
  const [savedId, setSavedId] = useState<string | null>(null);
  const known = set.panels.find((one) => one.id === panelId);
  const key = `box ${vehicleId} ${panelId ?? NEW_BOX}`;
  const [history, setHistory] = useState<History>(() => begin(known ?? { id: NEW_BOX, ...BLANK }));
  /** The request that an unchanged try goes on with, so that one whose answer was lost makes nothing twice. */
  const request = useRef<Tried | null>(null);
  const [newBoxId] = useState(() => `box-${newId().slice(0, 8)}`);
  const [draft, setDraft] = useState<BoxDraft | null>(null);
  /** A draft that is gone on with was begun from this version: what others saved since is joined, not undone. */
  const [began, setBegan] = useState<number | null>(null);
  useEffect(() => setDraft(draftOf(key)), [key]);
  const offered = draft && JSON.stringify(draft.panel) !== JSON.stringify(known ?? null) ? draft : null;
  const base = began ?? basis.version;
  const [selected, setSelected] = useState<readonly string[]>([]);
  const [problems, setProblems] = useState<readonly string[]>([]);
  const [saved, setSaved] = useState(false);
  const [photo, setPhoto] = useState<CoverPhoto | null>(null);
  const panel = history.now;
  const go = (next: (before: History) => History) => {
    setHistory((before) => {
      const after = next(before);
      if (after !== before) {
        writeDraft(key, JSON.stringify({ panel: after.now, version: base } satisfies BoxDraft));
      }
      return after;
    });
    setSaved(false);
    setDraft(null);
  };
  const change = (one: Change) => go((before) => step(before, one));
  /** Takes in what the server made of this box, as a step that can be taken back. */
  const takeIn = (set: PanelSetFile | undefined, id: string) => {
    const theirs = set?.panels.find((one) => one.id === id);
    if (theirs) setHistory((before) => ({ past: [...before.past, before.now], now: theirs, future: [] }));
  };
  const slot = selected.length === 1 ? panel.slots.find((one) => one.id === selected[0]) : undefined;

  /** Fields whose text cannot be read yet: "fuse-3 Rating, ampere". */
  const unread = () => draftsUnder(`${key} field `);

  const save = async () => {
    const open = unread();
    if (open.length > 0) {
      const of = panel.slots.find((one) => open[0]?.startsWith(`${one.id} `));
      if (of) setSelected([of.id]);
      const names = open.map((one) => {
        const owner = panel.slots.find((entry) => one.startsWith(`${entry.id} `));
        return owner
          ? `${owner.type} ${owner.number}, ${one.slice(owner.id.length + 1)}`
          : one.replace(/^box /, '');
      });
      setProblems([
        `Not saved: what was begun in “${names.join('”, “')}” is not taken yet. Put it right, or empty it.`,
      ]);
      return;
    }
    const id = savedId ?? known?.id ?? newBoxId;
    const drawn = { ...panel, id };
    const there = set.panels.some((one) => one.id === id);
    const panels = there ? set.panels.map((one) => (one.id === id ? drawn : one)) : [...set.panels, drawn];
    const next: PanelSetFile = { ...set, panels };
    const checked = checkPanelSet(next);
    if (!checked.ok) {
      setProblems(checked.problems.map((one) => one.message));
      return;
    }
    const text = JSON.stringify(next);
    request.current = requestFor(request.current, `${base} ${text}`);
    const posted = await postJson<SaveAnswer>(`/api/vehicles/${vehicleId}/import`, {
      id: request.current.id,
      base,
      text,
    });
    if (posted.kind === 'away') return setProblems([posted.message]);
    const { answer } = posted;
    if (!answer.ok) {
      const said = (answer.problems ?? []).map((one) => one.message);
      setProblems(said.length > 0 ? said : [answer.message ?? 'It was not taken.']);
      if (!answer.newest) return;
      // What they changed elsewhere is in; where both changed the same field, yours stands here until it is saved again.
      takeIn(answer.newest.joined, id);
      setBegan(null);
      if (answer.newest.joined) setBasis({ set: answer.newest.joined, version: answer.newest.version });
      setProblems([
        ...said,
        'Here it stands as you have it, with what they changed elsewhere. Save again to put yours in.',
      ]);
      router.refresh();
      return;
    }
    takeIn(answer.joined, id);
    setBegan(null);
    setBasis({ set: answer.joined ?? next, version: answer.version ?? base + 1 });
    setSavedId(id);
    writeDraft(key, null);
    setProblems([]);
    setSaved(true);
    if (panelId === null) router.replace(`/vehicles/${vehicleId}/panels/edit?box=${id}`);
    else router.refresh();
  };

  const keyDown = (event: KeyboardEvent) => {
    const field = event.target instanceof HTMLElement && event.target.closest('input, select, textarea');
    if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'z' && !field) {
      event.preventDefault();
      go(event.shiftKey ? redo : undo);
      return;
    }
    if (field || selected.length === 0) return;
    const nudge = NUDGES[event.key];
    if (nudge) {
      event.preventDefault();
      const by = event.shiftKey ? 5 : 1;
      change({ kind: 'move', slots: selected, dx: nudge[0] * by, dy: nudge[1] * by });
    } else if (event.key === 'Delete' || event.key === 'Backspace') {
      event.preventDefault();
      change({ kind: 'remove', slots: selected });
      setSelected([]);
    }
  };

  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: keys act on the slots selected inside it
    <div onKeyDown={keyDown}>
      <div className="mb-3 flex flex-wrap items-center gap-2">
        <h1 className="mr-4 basis-full truncate text-xl lg:basis-auto lg:text-2xl">{panel.name}</h1>
        <Button onClick={() => go(undo)} disabled={history.past.length === 0}>
          <Undo2 aria-hidden="true" className="size-5" />
          Undo
        </Button>
        <Button onClick={() => go(redo)} disabled={history.future.length === 0}>
          <Redo2 aria-hidden="true" className="size-5" />
          Redo
        </Button>
        <Button look="primary" onClick={save}>
          Save as a new version
        </Button>
        <span role="status" data-testid="editor-status">
          {saved ? '✓ Saved' : `${panel.slots.length} slots, ${history.past.length} steps`}
        </span>
      </div>
      {offered ? (
        <div className="mb-3 flex flex-wrap items-center gap-3 border-l-4 border-caution bg-caution-wash px-3 py-2">
          <p>This box was being edited here and was not saved ({offered.panel.slots.length} slots).</p>
          <Button
            onClick={() => {
              go((before) => ({ past: [...before.past, before.now], now: offered.panel, future: [] }));
              setBegan(offered.version);
              setDraft(null);
            }}
          >
            Go on with it
          </Button>
          <Button
            onClick={() => {
              writeDraft(key, null);
              setDraft(null);
            }}
          >
            Forget it
          </Button>
        </div>
      ) : null}
      {problems.length > 0 ? (
        <div className="mb-3 grid gap-1" data-testid="editor-problems">
          {problems.slice(0, 8).map((one) => (
            <Problem key={one}>{one}</Problem>
          ))}
        </div>
      ) : null}
      <div className="grid gap-6 xl:grid-cols-[minmax(0,1fr)_24rem]">
        <div className="self-start xl:sticky xl:top-4">
          <EditDrawing
            panel={panel}
            selected={selected}
            photo={photo}
            onSelect={setSelected}
            onChange={change}
          />
          <ThumbRow panel={panel} selected={selected} onSelect={setSelected} onChange={change} />
          <p className="mt-1 text-sm text-soft [@media(pointer:coarse)]:hidden">
            Tap a slot to select it, Shift adds; drag moves. Arrow keys move by a millimetre, with Shift by
            five; Delete removes; Ctrl Z takes back.
          </p>
        </div>
        <div className="space-y-6">
          {slot ? (
            <>
              {known?.slots.some(({ id }) => id === slot.id) ? (
                <SitsHere
                  key={`here ${slot.id}`}
                  vehicleId={vehicleId}
                  parts={parts}
                  panel={known}
                  slot={slot}
                />
              ) : null}
              <SlotForm
                key={slot.id}
                slot={slot}
                drafts={fieldDrafts(key, slot.id)}
                onChange={(fields) => change({ kind: 'set', slots: [slot.id], fields })}
              />
            </>
          ) : (
            <p className="border-l-4 border-line pl-3">
              {selected.length > 1
                ? `${selected.length} slots selected: they move and go together.`
                : 'Select a slot to describe it.'}
            </p>
          )}
          <GridForm
            panel={panel}
            onAdd={(slots) => {
              go((before) => {
                const grown = neededSize({ ...before.now, slots: [...before.now.slots, ...slots] });
                return step(step(before, { kind: 'panel', fields: grown }), { kind: 'add', slots });
              });
              setSelected(slots.map((one) => one.id));
            }}
          />
          <CsvImport
            before={panel.slots}
            onTake={(slots, gone) => {
              go((before) => {
                const out = new Set([...slots, ...gone].map((one) => one.id));
                const kept = before.now.slots.filter((one) => !out.has(one.id));
                const grown = neededSize({ ...before.now, slots: [...kept, ...slots] });
                const wider = step(before, { kind: 'panel', fields: grown });
                const without = before.now.slots.filter((one) => out.has(one.id)).map((one) => one.id);
                const emptied = without.length > 0 ? step(wider, { kind: 'remove', slots: without }) : wider;
                return step(emptied, { kind: 'add', slots });
              });
              setSelected([]);
            }}
          />
          <CoverPicker photo={photo} onPhoto={setPhoto} />
          <PanelForm
            panel={panel}
            drafts={fieldDrafts(key, 'box')}
            onChange={(fields) => change({ kind: 'panel', fields })}
          />
        </div>
      </div>
    </div>
  );
}
