/** What a hand does to the drawn vehicle: the key, the switches, what is plugged in, pulled, bridged and broken. */

import type { Fault } from '../faults';
import type { Condition } from '../format';
import { type Intervention, intervene } from '../hands';
import type { Alteration, CircuitModel } from '../network';

export interface LiveSetting {
  /** Key, switches, what is plugged in; its id and name mean nothing. */
  readonly condition: Omit<Condition, 'id' | 'name'>;
  readonly faults: readonly Fault[];
  readonly done: readonly Intervention[];
  /** Fuses that carry too much open, one after another, until none does. */
  readonly fusesOpen: boolean;
}

/** The setting that a named condition describes, nothing broken and nothing pulled. */
export function settingOf({ id: _id, name: _name, ...condition }: Condition): LiveSetting {
  return { condition, faults: [], done: [], fusesOpen: true };
}

/** The condition and alteration that a setting amounts to. Throws when it names what the circuit does not have. */
export function questionOf(
  model: CircuitModel,
  setting: Pick<LiveSetting, 'condition' | 'faults' | 'done'>,
): { condition: string; alteration: Alteration } {
  return {
    condition: model.adopt(setting.condition),
    alteration: intervene(model.network, setting.faults, setting.done),
  };
}
