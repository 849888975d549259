'use client';

import type { Panel, Slot } from '#core/format';
import { Photos } from '@/features/jobs';
import { DamageList } from './DamageList';

export { SlotStateForm } from './SlotStateForm';

/** What is kept about a box beside its readings. */
export function BelowBox({ panel, slot }: { panel: Panel; slot: Slot }) {
  return (
    <>
      <DamageList panel={panel} />
      <Photos panel={panel} slot={slot} />
    </>
  );
}
