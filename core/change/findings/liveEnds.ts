/** Ends that nothing is joined to and that are live in some setting: also under a cap. */
import type { CircuitFile, CircuitPart, PlanEdit } from '../../format';
import { OFF_SHARE } from '../../limits';
import { figure } from '../../sizing';
import { settingWords } from '../settings';
import type { Finding, FindingKind } from './finding';

/** What ends in the open where nothing is joined to it; a terminal of a fuse, a relay or a switch is inside its part. */
const LOOSE: readonly CircuitPart['kind'][] = ['wire', 'connector', 'splice'];

/** Ends that one part alone is at: of wires, of plugs, and of the leads of taps. */
function openEnds(
  circuit: CircuitFile,
  edits: readonly PlanEdit[] = [],
): { readonly node: string; readonly part: string }[] {
  const leads = new Set(edits.flatMap((edit) => (edit.kind === 'tap' ? [edit.lead] : [])));
  const at = new Map<string, CircuitPart[]>();
  for (const part of circuit.parts) {
    for (const node of new Set(Object.values(part.pins) as string[]))
      at.set(node, [...(at.get(node) ?? []), part]);
  }
  return [...at].flatMap(([node, [part, ...others]]) =>
    part &&
    others.length === 0 &&
    node !== circuit.reference &&
    (LOOSE.includes(part.kind) || leads.has(node))
      ? [{ node, part: part.id }]
      : [],
  );
}

export const liveEnds: FindingKind = {
  name: 'live-ends',
  find: ({ before, after, afterModel, settings, edits }) => {
    const known = new Set(openEnds(before).map(({ node }) => node));
    const limit = after.nominalVolts * OFF_SHARE;
    return openEnds(after, edits)
      .filter(({ node }) => !known.has(node))
      .flatMap(({ node, part }): Finding[] => {
        const index = afterModel.network.nodeIndex.get(node)!;
        const isLive = (point: (typeof settings)[number]['after']) =>
          point.floating[index] !== 1 && Math.abs(point.volts[index]!) >= limit;
        const live = settings.filter(({ after: point }) => isLive(point));
        const [first] = live;
        if (!first) return [];
        const volts = first.after.volts[index]!;
        const name = after.nodes.find(({ id }) => id === node)?.name ?? node;
        const all = live.length === settings.length;
        return [
          {
            kind: 'live-ends',
            level: 'danger',
            words: `${name} is an open end with ${figure(volts, 'V')} on it, ${all ? 'in every setting' : settingWords(after, first.at)}.`,
            at: first.at,
            path: [part, node],
            amount: { value: volts, unit: 'V' },
            remedy: 'Take its feed off at the source, or unpin it there: a cap alone leaves it live.',
          },
        ];
      });
  },
};
