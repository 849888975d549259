/** The boxes of one vehicle as a first map of a sister: every fact is unverified there until it is proved. */
import type { PanelSetFile, Slot } from '../format';

/** A copy for another vehicle: nothing confirmed, nothing found, states of holes unknown, sources named. */
export function forSister(file: PanelSetFile, fromVehicle: string): PanelSetFile {
  const slot = (one: Slot): Slot => {
    const { found: _found, confirmed: _confirmed, ...rest } = one;
    return {
      ...rest,
      state:
        one.state === 'not-ordered' || one.state === 'spare' || one.state === 'empty' ? 'unknown' : one.state,
      source: 'sibling-vehicle',
      confirmed: false,
      applies: `copied from ${fromVehicle}`.slice(0, 120),
    };
  };
  return {
    ...file,
    name: `${file.name} (from ${fromVehicle})`.slice(0, 120),
    panels: file.panels.map((panel) => ({ ...panel, slots: panel.slots.map(slot) })),
  };
}
