/** The sums that stand behind a plan: what every new fuse and wire carries at most, and what is drawn asleep. */
import { deratedAmpacity } from '../limits';
import { drawsAsleep } from '../live';
import type { At } from './at';
import type { Examined } from './findings';
import { settingWords } from './settings';

interface SumBehind {
  readonly part: string;
  readonly name: string;
  readonly kind: 'wire' | 'fuse';
  /** The largest current in any setting, ampere, and which. */
  readonly amps: number;
  readonly at: At;
  readonly words: string;
  readonly metres: number | null;
  readonly mm2: number | null;
  /** What it may carry, ampere; null where nobody knows. */
  readonly carries: number | null;
  /** Lost over a wire at that current, one way, volts. */
  readonly volts: number | null;
}

export interface SumsBehind {
  readonly parts: readonly SumBehind[];
  /** Drawn with the key off and nothing switched, ampere. */
  readonly asleep: { readonly before: number; readonly after: number };
}

export function sumsBehind({ scene }: Examined): SumsBehind {
  const { before, after, afterModel, beforeModel, settings } = scene;
  const known = new Set(before.parts.map(({ id }) => id));
  const parts = after.parts.flatMap((part): SumBehind[] => {
    if (known.has(part.id) || (part.kind !== 'wire' && part.kind !== 'fuse')) return [];
    const [branch] = afterModel.network.branchesOfPart.get(part.id) ?? [];
    if (branch === undefined) return [];
    let amps = 0;
    let at: At = settings[0]?.at ?? {};
    for (const setting of settings) {
      const flows = Math.abs(setting.after.amps[branch]!);
      if (flows > amps) [amps, at] = [flows, setting.at];
    }
    const isWire = part.kind === 'wire';
    return [
      {
        part: part.id,
        name: part.name,
        kind: part.kind,
        amps,
        at,
        words: settingWords(after, at),
        metres: isWire ? (part.lengthMetres ?? null) : null,
        mm2: isWire ? (part.sizeMm2 ?? null) : null,
        carries: isWire
          ? part.sizeMm2 === undefined
            ? null
            : deratedAmpacity(part.sizeMm2, part)
          : (part.ratingAmps ?? null),
        volts: isWire ? amps * afterModel.network.branches[branch]!.ohms : null,
      },
    ];
  });
  const total = (model: typeof afterModel) => drawsAsleep(model).reduce((sum, { amps }) => sum + amps, 0);
  return { parts, asleep: { before: total(beforeModel), after: total(afterModel) } };
}
