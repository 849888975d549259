/** Volts that are lost on the way to each load and back, against what a design allows. */
import { DESIGN_DROP_PERCENT } from '../../limits';
import type { CircuitModel, OperatingPoint } from '../../network';
import { figure } from '../../sizing';
import { settingWords } from '../settings';
import type { Finding, FindingKind } from './finding';

/** Less more than before is no work of the change, share of the nominal volts. */
const MORE_SHARE = 0.005;
/** Less than this a load is not on, share of the nominal volts. */
const ON_SHARE = 0.5;

/** How volts lost on the way to a load and back are read off a point; null where the circuit has no such load. */
function lossOf(model: CircuitModel, id: string): ((point: OperatingPoint) => number | null) | null {
  const pins = model.network.parts.get(id)?.pins as Readonly<Record<string, string>> | undefined;
  if (!pins?.plus || !pins.minus) return null;
  const at = (node: string) => model.network.nodeIndex.get(node)!;
  const [plus, minus] = [at(pins.plus), at(pins.minus)];
  // The highest of any battery or source at that moment is what there is.
  const posts = model.circuit.parts.flatMap((one) =>
    one.kind === 'battery' || one.kind === 'charging-source'
      ? [[at(one.pins.plus), at(one.pins.minus)] as const]
      : [],
  );
  const least = ON_SHARE * model.circuit.nominalVolts;
  return ({ volts }) => {
    const across = volts[plus]! - volts[minus]!;
    if (across < least) return null;
    let most = 0;
    for (const [high, low] of posts) most = Math.max(most, volts[high]! - volts[low]!);
    return most - across;
  };
}

export const drops: FindingKind = {
  name: 'drops',
  find: ({ after, before, beforeModel, afterModel, settings }) =>
    [...new Set([...afterModel.network.loads.keys()].map((load) => load.split(':')[0]!))].flatMap(
      (id): Finding[] => {
        const part = after.parts.find((one) => one.id === id);
        if (!part) return [];
        const percent = DESIGN_DROP_PERCENT[part.kind] ?? DESIGN_DROP_PERCENT.other;
        const limit = (percent / 100) * after.nominalVolts;
        const known = before.parts.some((one) => one.id === id);
        const [wasLost, isLost] = [known ? lossOf(beforeModel, id) : null, lossOf(afterModel, id)];
        if (!isLost) return [];
        let most: { volts: number; setting: (typeof settings)[number] } | null = null;
        let was = 0;
        for (const setting of settings) {
          const volts = isLost(setting.after);
          if (volts !== null && volts > (most?.volts ?? 0)) most = { volts, setting };
          was = Math.max(was, wasLost?.(setting.before) ?? 0);
        }
        if (!most || most.volts <= limit || most.volts - was < MORE_SHARE * after.nominalVolts) return [];
        return [
          {
            kind: 'drops',
            level: 'mind',
            words: `${part.name} gets ${figure(most.volts, 'V')} less than the battery has, ${settingWords(after, most.setting.at)}: ${percent} %, ${figure(limit, 'V')}, is the design’s limit${known ? ` (before: ${figure(was, 'V')})` : ''}.`,
            at: most.setting.at,
            path: [id, 'drop'],
            amount: { value: most.volts, unit: 'V' },
            remedy: 'A thicker or shorter wire, there and back.',
          },
        ];
      },
    ),
};
