'use client';

import type { Panel, Slot } from '#core/format';
import { spokenWord } from '#core/limits';
import { seenRows, settledIn, type Turns, turnPanel, unaccounted } from '#core/panel';
import { formatNumber } from '#core/quantity';
import { Button } from '@/ui/controls';
import { SideScroll } from '@/ui/SideScroll';
import { PanelDrawing } from './PanelDrawing';

/** What a slot is for: its meaning, and what it serves. */
function isFor(slot: Slot): string {
  const serves = (slot.functions ?? []).filter((one) => one !== slot.meaning);
  const words = [slot.meaning ?? '', serves.length > 0 ? `serves ${serves.join(', ')}` : ''];
  return words.filter((one) => one !== '').join('; ') || '–';
}

/** What is not settled yet, also on paper: nobody takes a map for whole that is not. */
function Owed({ panel }: { panel: Panel }) {
  const owed = unaccounted(panel);
  if (owed.length === 0) return null;
  return (
    <div className="my-2 border-2 border-ink p-2 text-[0.95rem]" data-testid="printed-owed">
      <p className="font-bold">
        {settledIn(panel).words}. Still owed: {owed.length}
      </p>
      <ul className="columns-1 gap-x-6 sm:columns-2">
        {owed.map(({ words }) => (
          <li key={words}>{words}</li>
        ))}
      </ul>
    </div>
  );
}

/** One box on paper: the drawing as it is held, and a line for every slot, those that are in doubt marked. */
export function PrintedBox({ vehicle, panel, turns }: { vehicle: string; panel: Panel; turns: Turns }) {
  const seen = turnPanel(panel, turns);
  return (
    <article data-testid="printed-box">
      <header className="flex flex-wrap items-baseline justify-between gap-3 border-b-2 border-ink pb-1">
        <h1 className="text-2xl">
          {vehicle}: {panel.name}
        </h1>
        <Button className="no-print" onClick={() => window.print()}>
          Print
        </Button>
      </header>
      <p className="mt-1">
        {panel.place}. Drawn with the {panel.landmark.name} at the {seen.landmarkEdge}.
      </p>
      <PanelDrawing
        panel={panel}
        turns={turns}
        wanted={null}
        className={turns % 2 === 0 ? 'my-3 max-w-3xl' : 'my-3 max-w-sm'}
      />
      <Owed panel={panel} />
      {/* On the phone it scrolls beside the page; on paper it has the whole width. */}
      <SideScroll label="Slots" className="print:overflow-visible">
        <table className="w-full text-left text-[0.95rem]">
          <thead>
            <tr className="border-b-2 border-ink">
              {['Slot', 'Printed', 'Is for', 'Fuse', 'Feed', 'State', 'Known from'].map((name) => (
                <th key={name} className="py-1 pr-3">
                  {name}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {seenRows(seen)
              .flat()
              .map(({ slot }) => (
                <tr key={slot.id} className="break-inside-avoid border-b border-line">
                  <th scope="row" className="py-0.5 pr-3 font-semibold">
                    {slot.type} {slot.number}
                  </th>
                  <td className="pr-3">{slot.label || '–'}</td>
                  <td className="pr-3">{isFor(slot)}</td>
                  <td className="pr-3">
                    {slot.ratingAmps === undefined
                      ? '–'
                      : `${formatNumber(slot.ratingAmps)} A ${slot.colour ?? ''}`}
                  </td>
                  <td className="pr-3">{slot.feed ? spokenWord(slot.feed) : '–'}</td>
                  <td className="pr-3">{spokenWord(slot.state)}</td>
                  <td>
                    {slot.source ?? 'not said'}
                    {slot.confirmed ? '' : ' (unverified here)'}
                    {slot.applies ? `; applies to ${slot.applies}` : ''}
                  </td>
                </tr>
              ))}
          </tbody>
        </table>
      </SideScroll>
    </article>
  );
}
