'use client';

import { useState } from 'react';
import { slotKey } from '#core/panel';
import { BoxOpening, PanelView, SlotSearchBox } from '@/features/panels';
import { useDescribed, useJob } from '@/job/JobProvider';
import { Choice } from '@/ui/Choice';
import { ButtonLink, Section } from '@/ui/controls';
import { useCircuitWorker } from '@/workers/useCircuitWorker';

/** The boxes that the failed function runs through, how they open, and the slots in them. */
export function FindSection() {
  const { data, job, circuit } = useJob();
  const { described } = useDescribed();
  const ask = useCircuitWorker(circuit);
  const panels = data.panelSet?.panels ?? [];
  const own = new Set(described?.partsOfFunction[job.complaint?.function ?? ''] ?? []);
  const slots = (circuit?.parts ?? []).flatMap((part) =>
    part.slot && own.has(part.id) ? [{ ...part.slot, name: part.name }] : [],
  );
  const [chosen, setChosen] = useState<{ panel: string; slot: string } | null>(null);
  const shown = chosen ?? slots.find((one) => panels.some((panel) => panel.id === one.panel)) ?? null;
  const panel = panels.find((one) => one.id === shown?.panel) ?? panels[0];
  return (
    <Section id="find" number={2} title="Box and slot" done={job.opened.length > 0}>
      {panel ? (
        <div className="grid gap-6 lg:grid-cols-[20rem_1fr]">
          <div>
            {slots.length > 0 ? (
              <div className="mb-4">
                <Choice
                  legend="On the way of what failed"
                  options={slots.map((one) => ({ id: slotKey(one), name: one.name }))}
                  chosen={shown ? slotKey(shown) : null}
                  onChoose={(key) => setChosen(slots.find((one) => slotKey(one) === key) ?? null)}
                />
              </div>
            ) : null}
            <SlotSearchBox
              panels={panels}
              onChoose={(panelId, slotId) => setChosen({ panel: panelId, slot: slotId })}
            />
            <BoxOpening panel={panel} />
            <ButtonLink href={`/jobs/${data.id}/boxes`} className="mt-4">
              Test the whole box
            </ButtonLink>
          </div>
          <div>
            <h3 className="mb-1 text-lg font-bold">{panel.name}</h3>
            <p className="mb-3 text-soft">{panel.place}</p>
            <PanelView
              vehicleId={data.vehicle.id}
              panel={panel}
              wanted={shown?.panel === panel.id ? shown.slot : null}
              circuit={circuit}
              ask={ask}
              onChoose={(slotId) => setChosen({ panel: panel.id, slot: slotId })}
            />
          </div>
        </div>
      ) : (
        <p className="text-soft">
          No box of this vehicle is mapped yet. A panel-set file can be brought in on the vehicle’s page.
        </p>
      )}
    </Section>
  );
}
