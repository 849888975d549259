'use client';

import { useRouter } from 'next/navigation';
import { useEffect, useMemo, useRef, useState } from 'react';
import type { CircuitFile, Panel } from '#core/format';
import { withLoadBehind, writeNotation } from '#core/notation';
import { readDraft, writeDraft } from '@/sync/drafts';
import { postJson } from '@/sync/post';
import { requestFor, type Tried } from '@/sync/requestFor';
import { Choice } from '@/ui/Choice';
import { Button } from '@/ui/controls';
import { PlaceLink } from '@/ui/PlaceLink';
import { Toasts } from '@/ui/Toast';
import { LiveCircuit } from './LiveCircuit';
import type { NewLoad } from './LoadBehind';
import { TextPane } from './TextPane';
import { useClashes } from './useClashes';
import { useReadText } from './useReadText';
import { VIEWS, type View } from './view';

/** The voltage is never guessed: where nobody knows it, the first line asks for it. */
const EMPTY_TEXT = (volts: number | null) =>
  `circuit new-circuit "New circuit"${volts === null ? '' : ` ${volts} V`}\n\nbattery, fuse F1, switch S1, lamp L1 "What it feeds", earth G1\n`;

interface OpenJob {
  readonly id: string;
  readonly title: string;
}

/** A circuit alive: drawn, switched, broken in thought, said as text, as a table, wire by wire. */
export function CircuitView({
  vehicleId,
  saved,
  version,
  nominalVolts,
  panels,
  others,
  jobs = [],
}: {
  vehicleId: string;
  saved: CircuitFile | null;
  /** Of what is saved; 0 where nothing is. */
  version: number;
  nominalVolts: number | null;
  panels: readonly Panel[];
  /** All circuits of the vehicle, for suggestions. */
  others: readonly CircuitFile[];
  /** Jobs on the vehicle that are open, onto which what is seen can be written. */
  jobs?: readonly OpenJob[];
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
  const clashes = useClashes(text, read.circuit, others, saved);
  const save = async () => {
    if (!read.circuit || read.of !== text || clashes.open > 0) return;
    const fit = clashes.fit(read.circuit);
    if (!fit.ok) return setSaving({ busy: false, problem: fit.message });
    setSaving({ busy: true, problem: null });
    const same = saved?.id === fit.circuit.id;
    const body = { text: JSON.stringify(fit.circuit), base: same ? basis.version : 0 };
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
      const kept = writeNotation(fit.circuit, { everything: false });
      setText(kept);
      setBasis({ first: kept, version: posted.answer.version ?? basis.version + 1 });
      router.refresh();
    } else router.push(`/vehicles/${vehicleId}/circuits/${encodeURIComponent(fit.circuit.id)}`);
  };

  const grow = ({ part, kind, name }: NewLoad) => {
    const taken = new Set(others.flatMap((one) => one.parts.map(({ id }) => id)));
    const grown = circuit && withLoadBehind(text, circuit, { part, kind, name, taken });
    if (!grown) return;
    type(grown);
    setView('text');
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
          clashes={clashes}
          onText={type}
          onSave={save}
        />
      ) : null}
      {circuit ? (
        <Toasts>
          <LiveCircuit
            vehicleId={vehicleId}
            stored={saved !== null && !changed}
            circuit={circuit}
            view={view}
            panels={panels}
            selected={selected}
            onSelect={setSelected}
            onGrow={grow}
          />
        </Toasts>
      ) : null}
      {view === 'table' && saved ? <WhatIsSeen vehicleId={vehicleId} jobs={jobs} /> : null}
    </div>
  );
}

/** What is seen is kept on a job: the way to the same table there. */
function WhatIsSeen({ vehicleId, jobs }: { vehicleId: string; jobs: readonly OpenJob[] }) {
  const ways =
    jobs.length > 0
      ? jobs.map(({ id, title }) => ({ href: `/jobs/${id}/combinations`, words: title }))
      : [{ href: `/jobs/new?vehicle=${vehicleId}`, words: 'a new job' }];
  return (
    <p className="no-print mt-3" data-testid="what-is-seen">
      What is seen beside what is expected is written on a job:{' '}
      {ways.map(({ href, words }) => (
        <PlaceLink
          key={href}
          href={href}
          className="mr-4 inline-flex min-h-11 items-center underline underline-offset-4"
        >
          {words}
        </PlaceLink>
      ))}
    </p>
  );
}
