/** Fuses that were found open on a job, in whatever box and by whatever test. */
import type { OpenedFuse } from '../diagnosis';
import type { BodyOf, CircuitFile, PanelSetFile } from '../format';
import { triageSlot } from '../panel';
import type { JobState } from './state';

interface Found extends OpenedFuse {
  readonly key: string;
}

/** The part that a reading shows open, seen broken or measured in the hand; null where it shows no such thing. */
export function shownOpen({ test, value }: Pick<BodyOf<'reading'>, 'test' | 'value'>): string | null {
  if (test.kind !== 'look' && test.kind !== 'continuity') return null;
  return 'overLimit' in value || ('look' in value && value.look === 'broken') ? test.part : null;
}

/** Fuses whose element was seen broken or measured open in the hand. */
function byReadings({ readings }: Pick<JobState, 'readings'>, circuit: CircuitFile | null): Found[] {
  const fuses = (circuit?.parts ?? []).filter((part) => part.kind === 'fuse');
  return readings.flatMap(({ body, struck }): Found[] => {
    const open = struck ? null : shownOpen(body);
    const fuse = open === null ? undefined : fuses.find((part) => part.id === open);
    if (!fuse) return [];
    const key = fuse.slot ? `${fuse.slot.panel} ${fuse.slot.slot}` : fuse.id;
    return [{ key, name: fuse.name, ratingAmps: fuse.ratingAmps ?? null }];
  });
}

/** Fuses that lamp or volts at both ends call open. */
function bySlots(
  { slotReadings }: Pick<JobState, 'slotReadings'>,
  panels: Pick<PanelSetFile, 'panels'> | null,
  nominalVolts: number,
): Found[] {
  return (panels?.panels ?? []).flatMap((panel) =>
    panel.slots.flatMap((slot): Found[] => {
      const own = slotReadings.filter((one) => one.panel === panel.id && one.slot === slot.id);
      if (own.length === 0 || triageSlot(slot, own, nominalVolts).verdict !== 'open') return [];
      const name = `slot ${slot.number} of ${panel.name}`;
      return [{ key: `${panel.id} ${slot.id}`, name, ratingAmps: slot.ratingAmps ?? null }];
    }),
  );
}

/** Each fuse once, the name of the circuit before that of the slot. */
export function openedFuses(
  job: Pick<JobState, 'readings' | 'slotReadings'>,
  circuit: CircuitFile | null,
  panels: Pick<PanelSetFile, 'panels'> | null,
  nominalVolts: number,
): OpenedFuse[] {
  const found = new Map<string, OpenedFuse>();
  for (const { key, ...fuse } of [...byReadings(job, circuit), ...bySlots(job, panels, nominalVolts)]) {
    if (!found.has(key)) found.set(key, fuse);
  }
  return [...found.values()];
}
