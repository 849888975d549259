'use client';

import { RotateCw } from 'lucide-react';
import { type ReactNode, useMemo, useState } from 'react';
import type { CircuitFile, Panel } from '#core/format';
import {
  type Edge,
  type SlotStateEntry,
  slotSentence,
  type Turns,
  turnPanel,
  turnsForLandmark,
  withStates,
} from '#core/panel';
import { formatNumber } from '#core/quantity';
import { Choice } from '@/ui/Choice';
import { Button, ButtonLink, Caution } from '@/ui/controls';
import { dateWords } from '@/ui/dates';
import { Menu } from '@/ui/Menu';
import { Pressed } from '@/ui/Pressed';
import { Slide } from '@/ui/Slide';
import { type Ask, useCircuitWorker } from '@/workers/useCircuitWorker';
import { AuditList } from './AuditList';
import { PanelDrawing } from './PanelDrawing';
import { PanZoom } from './PanZoom';
import { SlotSearchBox } from './SlotSearchBox';
import { useTurns } from './useTurns';
import { CoverageList, WithoutIt } from './WithoutIt';

const EDGES = (['top', 'right', 'bottom', 'left'] as const satisfies readonly Edge[]).map((id) => ({
  id,
  name: id,
}));

const OPPOSITE: Readonly<Record<Edge, Edge>> = {
  top: 'top',
  right: 'left',
  bottom: 'bottom',
  left: 'right',
};

/** A box turned to match, the wanted slot marked, and the sentence that counts to it. */
export function PanelView({
  vehicleId,
  panel,
  wanted,
  circuit = null,
  ask = null,
  history = [],
  onChoose,
}: {
  vehicleId: string;
  panel: Panel;
  wanted: string | null;
  /** The circuits of the vehicle, for what is lost without a fuse. */
  circuit?: CircuitFile | null;
  /** The worker that holds them. */
  ask?: Ask | null;
  /** What was seen in its slots over all jobs. */
  history?: readonly SlotStateEntry[];
  onChoose?: (slotId: string) => void;
}) {
  const [turns, setTurns] = useTurns(vehicleId, panel.id);
  const [mirrored, setMirrored] = useState(false);
  const [tilt, setTilt] = useState(0);
  /** On a phone, whether the ways of holding the box are shown above it. */
  const [holding, setHolding] = useState(false);
  const seen = turnPanel(panel, turns, mirrored);
  const slot = panel.slots.find((one) => one.id === wanted);
  return (
    <div>
      <div className="mb-2 flex flex-wrap items-center gap-2">
        <Button onClick={() => setTurns(((turns + 1) % 4) as Turns)}>
          <RotateCw aria-hidden="true" className="size-5" />
          Turn a quarter
        </Button>
        <span className="lg:hidden">
          <Button aria-expanded={holding} onClick={() => setHolding(!holding)}>
            How it is held
          </Button>
        </span>
        <div className={`${holding ? 'flex' : 'hidden'} flex-1 flex-wrap items-center gap-2 lg:flex`}>
          <Choice
            legend={`I see the ${panel.landmark.name} at the`}
            options={EDGES}
            chosen={seen.landmarkEdge}
            onChoose={(edge) => {
              // In the mirror the landmark of the other side is asked for.
              const plain = edge as (typeof EDGES)[number]['id'];
              setTurns(turnsForLandmark(panel, mirrored ? OPPOSITE[plain] : plain));
            }}
          />
          <Pressed pressed={mirrored} onPressed={setMirrored}>
            {mirrored ? 'Back to the front' : 'Seen from behind'}
          </Pressed>
          <Slide
            label="Held askew"
            value={tilt}
            min={-45}
            max={45}
            step={1}
            shown={`${tilt}°`}
            onChange={setTilt}
          />
        </div>
      </div>
      {mirrored ? (
        <p className="mb-2 border-l-4 border-caution bg-caution-wash px-3 py-1 font-semibold">
          Mirrored: this is the wire side. Left and right are exchanged.
        </p>
      ) : null}
      {/* In the hand the drawing first; on a desk the sentence, which a tall box would push away. */}
      <div className="flex flex-col">
        {slot ? (
          <p
            className="order-2 my-2 border-l-4 border-copper pl-3 text-lg leading-snug font-semibold lg:order-none"
            aria-live="polite"
            data-testid="slot-sentence"
          >
            {slotSentence(seen, slot.id)}
          </p>
        ) : null}
        <PanZoom onTwist={(quarters) => setTurns(((turns + quarters + 4) % 4) as Turns)}>
          <div
            style={
              tilt === 0 ? undefined : { transform: `rotate(${tilt}deg) scale(${1 - Math.abs(tilt) / 120})` }
            }
          >
            <PanelDrawing
              panel={panel}
              turns={turns}
              mirrored={mirrored}
              wanted={wanted}
              onChoose={onChoose}
              className={turns % 2 === 0 ? 'max-w-3xl' : 'max-w-sm'}
            />
          </div>
        </PanZoom>
      </div>
      {slot ? (
        <div className="mt-3 border-l-4 border-copper pl-3">
          <dl className="mt-2 grid grid-cols-[auto_1fr] gap-x-4 gap-y-0.5 text-[0.95rem]">
            <Fact name="Slot">
              {slot.type} {slot.number}
            </Fact>
            {slot.meaning ? <Fact name="Is for">{slot.meaning}</Fact> : null}
            {slot.ratingAmps !== undefined ? (
              <Fact name="Fuse">
                {formatNumber(slot.ratingAmps)} A{slot.colour ? `, ${slot.colour}` : ''}, {slot.family}
              </Fact>
            ) : null}
            {slot.feed ? <Fact name="Feed">{slot.feed}</Fact> : null}
            {slot.functions?.length ? <Fact name="Serves">{slot.functions.join(', ')}</Fact> : null}
            {slot.synonyms?.length ? <Fact name="Also called">{slot.synonyms.join(', ')}</Fact> : null}
            <Fact name="Known from">
              {[slot.source ?? 'not said', slot.confidence].filter(Boolean).join(', ').replace('-', ' ')}
              {slot.confirmed ? ' · proved here' : <strong> · unverified here</strong>}
            </Fact>
            {slot.applies ? <Fact name="Applies to">{slot.applies}</Fact> : null}
            {slot.stateEvidence ? <Fact name="State from">{slot.stateEvidence}</Fact> : null}
            {(slot.disputed ?? []).map((one) => (
              <Fact key={one.source} name={`But ${one.source}`}>
                {one.says}
              </Fact>
            ))}
            {slot.state !== 'fitted' ? <Fact name="State">{slot.state.replace('-', ' ')}</Fact> : null}
          </dl>
          <SlotHistory entries={history.filter((one) => one.panel === panel.id && one.slot === slot.id)} />
          {circuit && ask ? <WithoutIt circuit={circuit} ask={ask} panel={panel.id} slot={slot.id} /> : null}
        </div>
      ) : null}
      {panel.caution ? (
        <div className="mt-3">
          <Caution>{panel.caution}</Caution>
        </div>
      ) : null}
    </div>
  );
}

function SlotHistory({ entries }: { entries: readonly SlotStateEntry[] }) {
  if (entries.length === 0) return null;
  return (
    <div className="mt-3">
      <h3 className="font-bold">Seen in it</h3>
      <ol data-testid="slot-history">
        {entries
          .slice()
          .reverse()
          .map((one) => (
            <li key={one.id}>
              {dateWords(one.at, 'year')}: {one.state.replace('-', ' ')}
              {one.found?.ratingAmps === undefined ? '' : `, ${formatNumber(one.found.ratingAmps)} A found`} (
              {one.evidence}, {one.person})
            </li>
          ))}
      </ol>
    </div>
  );
}

function Fact({ name, children }: { name: string; children: ReactNode }) {
  return (
    <>
      <dt className="text-soft">{name}</dt>
      <dd>{children}</dd>
    </>
  );
}

/** The panel page: search beside the drawing. */
export function PanelBrowser({
  vehicleId,
  nominalVolts,
  panels: mapped,
  circuit,
  history,
  first,
}: {
  vehicleId: string;
  nominalVolts: number | null;
  panels: readonly Panel[];
  circuit: CircuitFile | null;
  history: readonly SlotStateEntry[];
  first: { panel: string; slot: string | null };
}) {
  // The boxes as they were last seen; the map itself stays what it was.
  const panels = useMemo(() => mapped.map((panel) => withStates(panel, history)), [mapped, history]);
  const [chosen, setChosen] = useState(first);
  const ask = useCircuitWorker(circuit);
  const panel = panels.find((one) => one.id === chosen.panel) ?? panels[0]!;
  const [turns] = useTurns(vehicleId, panel.id);
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-x-6 gap-y-3 lg:grid-cols-[20rem_minmax(0,1fr)]">
      <div>
        <SlotSearchBox
          panels={panels}
          onChoose={(panelId, slotId) => setChosen({ panel: panelId, slot: slotId })}
        />
        <div className="mt-2 lg:hidden">
          <BoxMenu
            vehicleId={vehicleId}
            panels={panels}
            here={panel.id}
            turns={turns}
            onBox={(id) => setChosen({ panel: id, slot: null })}
          />
        </div>
        <nav aria-label="Boxes" className="mt-4 hidden gap-2 lg:flex lg:flex-col">
          {panels.map((one) => (
            <button
              key={one.id}
              type="button"
              aria-pressed={one.id === panel.id}
              onClick={() => setChosen({ panel: one.id, slot: null })}
              className={`min-h-11 shrink-0 rounded-md border-2 px-3 text-left lg:py-2 ${
                one.id === panel.id ? 'border-copper bg-copper-wash' : 'border-line bg-sheet'
              }`}
            >
              <span className="block font-semibold">{one.name}</span>
              <span className="hidden text-sm text-soft lg:block">{one.place}</span>
            </button>
          ))}
        </nav>
        <div className="hidden lg:block">
          <BoxOpening panel={panel} />
        </div>
      </div>
      <div>
        <div className="mb-3 hidden flex-wrap items-center justify-between gap-2 lg:flex">
          <h2 className="text-xl">{panel.name}</h2>
          <BoxFiles vehicleId={vehicleId} panelId={panel.id} turns={turns} />
        </div>
        <PanelView
          vehicleId={vehicleId}
          panel={panel}
          wanted={chosen.slot}
          circuit={circuit}
          ask={ask}
          history={history}
          onChoose={(slotId) => setChosen({ panel: panel.id, slot: slotId })}
        />
        <AuditList
          panel={panel}
          nominalVolts={nominalVolts}
          onChoose={(slotId) => setChosen({ panel: panel.id, slot: slotId })}
        />
        {circuit ? <CoverageList ask={ask} panels={panels} /> : null}
        <div className="lg:hidden">
          <p className="mt-4 text-soft">{panel.place}</p>
          <BoxOpening panel={panel} />
        </div>
      </div>
    </div>
  );
}

/** In the hand: the other boxes, the box on paper and as files, and the way to its editor, behind its name. */
function BoxMenu({
  vehicleId,
  panels,
  here,
  turns,
  onBox,
}: {
  vehicleId: string;
  panels: readonly Panel[];
  here: string;
  turns: Turns;
  onBox: (id: string) => void;
}) {
  const go = (href: string) => () => window.location.assign(href);
  const name = panels.find(({ id }) => id === here)?.name ?? here;
  return (
    <Menu
      name={`${name} ▾`}
      items={[
        ...panels.map((one) => ({ name: one.name, on: one.id === here, onChoose: () => onBox(one.id) })),
        { name: 'Edit this box', onChoose: go(`/vehicles/${vehicleId}/panels/edit?box=${here}`) },
        { name: 'Print', onChoose: go(`/vehicles/${vehicleId}/panels/print?box=${here}&turns=${turns}`) },
        {
          name: 'Drawing (SVG)',
          onChoose: go(`/api/vehicles/${vehicleId}/panels/${here}?turns=${turns}`),
        },
        { name: 'Slots (CSV)', onChoose: go(`/api/vehicles/${vehicleId}/panels/${here}?as=csv`) },
      ]}
    />
  );
}

/** The box on paper and as files, and the way to its editor. */
function BoxFiles({ vehicleId, panelId, turns }: { vehicleId: string; panelId: string; turns: Turns }) {
  const link = 'inline-flex min-h-11 items-center underline underline-offset-4';
  return (
    <span className="flex flex-wrap gap-x-4 gap-y-1">
      <a href={`/api/vehicles/${vehicleId}/panels/${panelId}?turns=${turns}`} download className={link}>
        Drawing (SVG)
      </a>
      <a href={`/vehicles/${vehicleId}/panels/print?box=${panelId}&turns=${turns}`} className={link}>
        Print
      </a>
      <a href={`/api/vehicles/${vehicleId}/panels/${panelId}?as=csv`} download className={link}>
        Slots (CSV)
      </a>
      <ButtonLink href={`/vehicles/${vehicleId}/panels/edit?box=${panelId}`}>Edit this box</ButtonLink>
    </span>
  );
}

export function BoxOpening({ panel }: { panel: Panel }) {
  return (
    <div className="mt-4 text-[0.95rem]">
      <h3 className="font-bold">
        To open it{' '}
        <span className="font-normal text-soft">(about {formatNumber(panel.minutesToOpen)} min)</span>
      </h3>
      <ol className="mt-1 list-decimal space-y-1 pl-5">
        {panel.opening.map((step) => (
          <li key={step}>{step}</li>
        ))}
      </ol>
      {panel.isolateFirst ? (
        <p className="mt-2">
          <span className="font-semibold">Disconnect first:</span> {panel.isolateFirst}
        </p>
      ) : null}
    </div>
  );
}
