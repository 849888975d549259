'use client';

import { Redo2, Undo2 } from 'lucide-react';
import { useRouter } from 'next/navigation';
import { type KeyboardEvent, useEffect, useState } from 'react';
import { checkPanelSet } from '#core/format/checkPanelSet';
import type { Panel, PanelSetFile } from '#core/format/panelSchema';
import { begin, type Change, type History, neededSize, redo, step, undo } from '#core/panel/edit';
import { Button, Problem } from '@/ui/controls';
import { CsvImport } from './CsvImport';
import { EditDrawing } from './EditDrawing';
import { GridForm } from './GridForm';
import { PanelForm } from './PanelForm';
import { SlotForm } from './SlotForm';
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

function freeBoxId(panels: readonly Panel[]): string {
  let number = panels.length + 1;
  while (panels.some((one) => one.id === `box-${number}`)) number += 1;
  return `box-${number}`;
}

function draftKey(vehicleId: string, panelId: string): string {
  return `every-trace panel draft ${vehicleId} ${panelId}`;
}

/** What was being edited when the page was left; null where nothing was. */
function readDraft(key: string): Panel | null {
  try {
    const text = localStorage.getItem(key);
    return text ? (JSON.parse(text) as Panel) : null;
  } catch {
    return null;
  }
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
}: {
  vehicleId: string;
  vehicleName: string;
  file: PanelSetFile | null;
  /** Of the set; 0 where there is none yet. */
  version: number;
  panelId: string | null;
}) {
  const router = useRouter();
  const set = file ?? blankSet(vehicleName);
  const known = set.panels.find((one) => one.id === panelId);
  const key = draftKey(vehicleId, panelId ?? NEW_BOX);
  const [history, setHistory] = useState<History>(() => begin(known ?? { id: NEW_BOX, ...BLANK }));
  /** What this page has saved: under which id, as which version. */
  const [mine, setMine] = useState<{ readonly id: string; readonly version: number } | null>(null);
  const [draft, setDraft] = useState<Panel | null>(null);
  useEffect(() => setDraft(readDraft(key)), [key]);
  const [selected, setSelected] = useState<readonly string[]>([]);
  const [problems, setProblems] = useState<readonly string[]>([]);
  const [saved, setSaved] = useState(false);
  const [photo, setPhoto] = useState<CoverPhoto | null>(null);
  const panel = history.now;
  const go = (next: History) => {
    setHistory(next);
    setSaved(false);
    setDraft(null);
    localStorage.setItem(key, JSON.stringify(next.now));
  };
  const change = (one: Change) => go(step(history, one));
  const slot = selected.length === 1 ? panel.slots.find((one) => one.id === selected[0]) : undefined;

  const save = async () => {
    const id = mine?.id ?? known?.id ?? freeBoxId(set.panels);
    const drawn = { ...panel, id };
    const there = set.panels.some((one) => one.id === id);
    const panels = there ? set.panels.map((one) => (one.id === id ? drawn : one)) : [...set.panels, drawn];
    const next: PanelSetFile = { ...set, panels };
    const checked = checkPanelSet(next);
    if (!checked.ok) {
      setProblems(checked.problems.map((one) => one.message));
      return;
    }
    try {
      const base = Math.max(version, mine?.version ?? 0);
      const response = await fetch(`/api/vehicles/${vehicleId}/import?base=${base}`, {
        method: 'POST',
        body: JSON.stringify(next),
      });
      const answer = (await response.json()) as {
        ok?: boolean;
        version?: number;
        problems?: { message: string }[];
      };
      if (response.status === 409) {
        // The other boxes are theirs from here on; this one stays as it is drawn until it is saved again.
        setProblems([
          ...(answer.problems ?? []).map((one) => one.message),
          'Their boxes are here now; this one is as you have drawn it. Save again to put it in; what they made of it stays as the version before.',
        ]);
        router.refresh();
        return;
      }
      if (!answer.ok) {
        setProblems((answer.problems ?? []).map((one) => one.message));
        return;
      }
      setMine({ id, version: answer.version ?? base + 1 });
      localStorage.removeItem(key);
      setProblems([]);
      setSaved(true);
      router.refresh();
    } catch {
      setProblems(['The server did not answer. Everything is kept here; try again.']);
    }
  };

  const keyDown = (event: KeyboardEvent) => {
    const field = event.target instanceof HTMLElement && event.target.closest('input, select, textarea');
    if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'z' && !field) {
      event.preventDefault();
      go(event.shiftKey ? redo(history) : undo(history));
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
        <h1 className="mr-4 text-2xl">{panel.name}</h1>
        <Button onClick={() => go(undo(history))} disabled={history.past.length === 0}>
          <Undo2 aria-hidden="true" className="size-5" />
          Undo
        </Button>
        <Button onClick={() => go(redo(history))} disabled={history.future.length === 0}>
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
      {draft ? (
        <div className="mb-3 flex flex-wrap items-center gap-3 border-l-4 border-caution bg-caution-wash px-3 py-2">
          <p>This box was being edited here and was not saved ({draft.slots.length} slots).</p>
          <Button
            onClick={() => {
              go({ past: [...history.past, history.now], now: draft, future: [] });
              setDraft(null);
            }}
          >
            Go on with it
          </Button>
          <Button
            onClick={() => {
              localStorage.removeItem(key);
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
          <p className="mt-1 text-sm text-soft">
            Tap a slot to select it, Shift adds; drag moves. Arrow keys move by a millimetre, with Shift by
            five; Delete removes; Ctrl Z takes back.
          </p>
        </div>
        <div className="space-y-6">
          {slot ? (
            <SlotForm
              key={slot.id}
              slot={slot}
              onChange={(fields) => change({ kind: 'set', slot: slot.id, fields })}
            />
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
              const grown = neededSize({ ...panel, slots: [...panel.slots, ...slots] });
              const wider = step(history, { kind: 'panel', fields: grown });
              go(step(wider, { kind: 'add', slots }));
              setSelected(slots.map((one) => one.id));
            }}
          />
          <CsvImport
            onTake={(slots) => {
              const grown = neededSize({ ...panel, slots: [...slots] });
              const wider = step(history, { kind: 'panel', fields: grown });
              const emptied = step(wider, { kind: 'remove', slots: panel.slots.map((one) => one.id) });
              go(step(emptied, { kind: 'add', slots }));
              setSelected([]);
            }}
          />
          <CoverPicker photo={photo} onPhoto={setPhoto} />
          <PanelForm panel={panel} onChange={(fields) => change({ kind: 'panel', fields })} />
        </div>
      </div>
    </div>
  );
}
