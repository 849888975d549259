/** Ends that nothing is joined to and that are live in some setting: also under a cap. */
import type { CircuitFile } from '../../format';
import { liveness } from '../../limits';
import { figure } from '../../sizing';
import { settingWords } from '../settings';
import type { Finding, FindingKind } from './finding';

/** Points that one part alone is at. */
export function openEnds(circuit: CircuitFile): { readonly node: string; readonly part: string }[] {
  const at = new Map<string, string[]>();
  for (const part of circuit.parts) {
    for (const node of new Set(Object.values(part.pins) as string[]))
      at.set(node, [...(at.get(node) ?? []), part.id]);
  }
  return [...at].flatMap(([node, parts]) =>
    parts.length === 1 && node !== circuit.reference ? [{ node, part: parts[0]! }] : [],
  );
}

export const liveEnds: FindingKind = {
  name: 'live-ends',
  find: ({ before, after, afterModel, settings }) => {
    const known = new Set(openEnds(before).map(({ node }) => node));
    return openEnds(after)
      .filter(({ node }) => !known.has(node))
      .flatMap(({ node, part }): Finding[] => {
        const index = afterModel.network.nodeIndex.get(node)!;
        const live = settings.find(
          ({ after: point }) =>
            point.floating[index] !== 1 &&
            liveness({ volts: point.volts[index]! }, after.nominalVolts) !== 'dead',
        );
        if (!live) return [];
        const volts = live.after.volts[index]!;
        const name = after.nodes.find(({ id }) => id === node)?.name ?? node;
        return [
          {
            kind: 'live-ends',
            danger: true,
            words: `${name} is an open end with ${figure(volts, 'V')} on it, ${settingWords(after, live.at)}.`,
            at: live.at,
            path: [part, node],
            amount: { value: volts, unit: 'V' },
            remedy: 'Take its feed off at the source, or unpin it there: a cap alone leaves it live.',
          },
        ];
      });
  },
};
