/** A suspect as it is shown: its name, its likeliest forms, what speaks for it. */
import type { CircuitModel } from '../../network';
import type { Suspect, SuspectForm } from '../assessment';
import type { TakenReading } from '../evidence/readings';
import type { RepairGroup } from '../evidence/repairGroup';
import { APPLIANCE } from '../hypotheses/appliance';
import { NO_FAULT, NOT_IN_MAP } from '../hypotheses/hypotheses';
import type { Hypothesis } from '../hypotheses/hypothesis';
import { kindOf } from '../kinds';
import { Names } from '../kinds/kind';
import { supportOf } from './verdict';

/** Name of a suspect; its parts one after another. */
export function titleOf(model: CircuitModel, hypotheses: readonly Hypothesis[], group: RepairGroup): string {
  if (group.id === NO_FAULT || group.id === NOT_IN_MAP) return hypotheses[group.members[0]!]!.words;
  const names = group.units.map((unit) => unitTitle(model, hypotheses, unit));
  return names.length > 3
    ? `${names.slice(0, 3).join(' / ')} and ${names.length - 3} more`
    : names.join(' / ');
}

/** Name of what would be repaired. */
function unitTitle(model: CircuitModel, hypotheses: readonly Hypothesis[], unit: string): string {
  if (unit === APPLIANCE) return 'The appliance that was plugged in';
  const first = hypotheses.find((one) => one.unit === unit && one.second === undefined);
  const name = model.network.parts.get(first?.parts[0] ?? '')?.name ?? unit;
  return unit.startsWith('short:') ? `${name}, shorted` : name;
}

/** `p`: chance of every hypothesis; `logs`: what each reading says of them. */
export function suspectOf(
  model: CircuitModel,
  hypotheses: readonly Hypothesis[],
  group: RepairGroup,
  chance: number,
  p: Float64Array,
  readings: readonly TakenReading[],
  logs: readonly (Float64Array | null)[],
): Suspect {
  const forms = group.members
    .map((h): SuspectForm => {
      const { words, faults, intermittent } = hypotheses[h]!;
      return { words, chance: p[h]!, fault: faults[0] ?? null, intermittent };
    })
    .sort((x, y) => y.chance - x.chance)
    .slice(0, 3);
  const support = supportOf(group, p, readings, logs);
  const strongest = support.slice().sort((x, y) => y.ratio - x.ratio)[0];
  const reason =
    strongest && strongest.ratio >= 1.5
      ? `Best supported by ${nameOfReading(new Names(model.circuit), strongest.reading)}.`
      : readings.length === 0
        ? 'From experience with such parts; nothing has been measured yet.'
        : 'Not yet told apart from the others by a reading.';
  return {
    id: group.id,
    title: titleOf(model, hypotheses, group),
    units: group.units,
    parts: group.parts,
    chance,
    forms,
    reason,
  };
}

/** The test of a reading, as it stands in a sentence. */
export function nameOfReading(names: Names, { test }: TakenReading): string {
  return kindOf(test).inSentence(names, test);
}
