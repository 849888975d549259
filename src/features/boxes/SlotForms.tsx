'use client';

import type { Panel, Slot } from '#core/format';
import { useJob } from '@/job/JobProvider';
import { Photos } from '@/job/Photos';
import { ButtonLink } from '@/ui/controls';
import { DamageList } from './DamageList';

export { SlotStateForm } from './SlotStateForm';

/** What is kept about a box beside its readings. */
export function BelowBox({ panel, slot }: { panel: Panel; slot: Slot }) {
  return (
    <>
      <PlanHere panel={panel} slot={slot} />
      <DamageList panel={panel} />
      <Photos panel={panel} slot={slot} />
    </>
  );
}

/** From the slot into a plan, where a circuit has what sits in it. */
function PlanHere({ panel, slot }: { panel: Panel; slot: Slot }) {
  const { data, circuit } = useJob();
  const part = circuit?.parts.find((one) => one.slot?.panel === panel.id && one.slot.slot === slot.id);
  if (!part) return null;
  const to = (answers: Record<string, string>) => `/jobs/${data.id}/change?${new URLSearchParams(answers)}`;
  return (
    <p className="mt-3 flex flex-wrap gap-2">
      {part.kind === 'fuse' ? (
        <ButtonLink href={to({ intent: 'feed-load', feed: part.id })}>Plan a tap here</ButtonLink>
      ) : null}
      <ButtonLink href={to({ intent: 'take-out-part', part: part.id })}>
        Plan to take {part.name} out
      </ButtonLink>
    </p>
  );
}
