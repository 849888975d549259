/** What a module’s output has to carry that it did not before, and what it misses: said as far as a circuit can know it. */

import type { CircuitModel, OperatingPoint } from '../../network';
import { flowPath } from '../flowPath';
import { settingWords } from '../settings';
import type { Finding, FindingKind, Scene } from './finding';
import { meetings, reach } from './region';

/** Less is an input that listens, ampere. */
const FED_AMPS = 0.01;

/** Loads that the current of an output goes through at a point. */
function fedBy(model: CircuitModel, point: OperatingPoint, output: string): string[] {
  const branches = (model.network.branchesOfPart.get(output) ?? []).filter(
    (branch) =>
      model.network.branches[branch]!.label === 'output' && Math.abs(point.amps[branch]!) > FED_AMPS,
  );
  const [branch] = branches;
  if (branch === undefined) return [];
  const part = model.network.parts.get(output);
  if (part?.kind !== 'module-output') return [];
  const way = new Set(flowPath(model, point, branch));
  return [...model.network.loads]
    .filter(([load, { branch: at }]) => {
      const id = load.split(':')[0]!;
      if (Math.abs(point.amps[at]!) < FED_AMPS) return false;
      return way.has(id) || flowPath(model, point, at).includes(output);
    })
    .map(([load]) => load.split(':')[0]!);
}

function loadsOf(
  scene: Scene,
  output: string,
  when: 'before' | 'after',
): ReadonlyMap<string, Scene['settings'][number]> {
  const model = when === 'before' ? scene.beforeModel : scene.afterModel;
  const found = new Map<string, Scene['settings'][number]>();
  for (const setting of scene.settings) {
    for (const load of fedBy(model, setting[when], output)) if (!found.has(load)) found.set(load, setting);
  }
  return found;
}

/** Whether a load hung on an output before too, though nothing had switched it on. */
function isOwn({ before }: Scene, output: string, load: string): boolean {
  const out = (before.parts.find(({ id }) => id === output)?.pins as Record<string, string> | undefined)?.out;
  const pins = before.parts.find(({ id }) => id === load)?.pins as Record<string, string> | undefined;
  if (out === undefined || pins === undefined) return false;
  const { nodes } = reach(meetings(before), out);
  return Object.values(pins).some((node) => node !== before.reference && nodes.has(node));
}

export const modules: FindingKind = {
  name: 'modules',
  find: (scene) =>
    scene.after.parts.flatMap((part): Finding[] => {
      if (part.kind !== 'module-output') return [];
      const known = scene.before.parts.some(({ id }) => id === part.id);
      const [was, is] = [
        known ? loadsOf(scene, part.id, 'before') : new Map(),
        loadsOf(scene, part.id, 'after'),
      ];
      const name = (id: string) =>
        scene.after.parts.find((one) => one.id === id)?.name ??
        scene.before.parts.find((one) => one.id === id)?.name ??
        id;
      return [
        ...[...is].flatMap(([load, setting]): Finding[] =>
          was.has(load) || !known || isOwn(scene, part.id, load)
            ? []
            : [
                {
                  kind: 'modules',
                  level: 'danger',
                  words: `${part.name} would feed ${name(load)}, ${settingWords(scene.after, setting.at)}: a module’s output is made for its own load${part.duty === undefined ? '' : ', and this one is pulsed'}.`,
                  at: setting.at,
                  path: [part.id, load],
                  amount: null,
                  remedy:
                    'A feed through a fuse of its own, by a relay whose coil the output may carry by its maker’s word.',
                },
              ],
        ),
        ...[...was].flatMap(([load]): Finding[] =>
          is.has(load)
            ? []
            : [
                {
                  kind: 'modules',
                  level: 'doubt',
                  words: `${part.name} no longer feeds ${name(load)}: it may miss it and keep a fault, or hold other things back. A circuit cannot tell.`,
                  at: null,
                  path: [part.id, load],
                  amount: null,
                  remedy:
                    'Look for lamps and messages after the change; the maker’s information says whether it watches its load.',
                },
              ],
        ),
      ];
    }),
};
