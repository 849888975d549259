/** What was asked for, state by state: whether the change does it. */
import type { CircuitFile, PlanGoal } from '../../format';
import { KEY_STATE_WORDS, type KeyState, OFF_SHARE, ON_SHARE } from '../../limits';
import type { CircuitModel, OperatingPoint } from '../../network';
import { inState, keyStateOf, type Setting, settingWords } from '../settings';
import type { Finding, FindingKind, Scene } from './finding';
import { meetings, reach } from './region';

/** How something stands at a point: on, off, or between. */
function standing(model: CircuitModel, of: string, point: OperatingPoint): 'on' | 'off' | 'between' {
  const one = model.circuit.functions.find(({ id }) => id === of);
  if (one) {
    const outcome = model.outcome(one, point);
    return outcome === 'works' ? 'on' : outcome === 'dead' ? 'off' : 'between';
  }
  const index = model.network.nodeIndex.get(of);
  if (index === undefined || point.floating[index] === 1) return 'off';
  const share = Math.abs(point.volts[index]!) / model.circuit.nominalVolts;
  return share >= ON_SHARE ? 'on' : share < OFF_SHARE ? 'off' : 'between';
}

/** A goal in one state: met or not, and the setting that shows it. */
export interface GoalIn {
  readonly goal: PlanGoal;
  readonly state: KeyState;
  readonly wanted: 'on' | 'off';
  readonly met: boolean;
  /** Where it is not met; null where nothing shows it, as where it is on in no setting. */
  readonly at: Setting['at'] | null;
}

/** The name of what a goal is about. */
export function goalName(circuit: CircuitFile, of: string): string {
  return (
    circuit.functions.find(({ id }) => id === of)?.name ??
    circuit.nodes.find(({ id }) => id === of)?.name ??
    of
  );
}

/** Every goal in every state it names: on somewhere in the state, off everywhere in it. */
export function goalsIn({ after, before, afterModel, settings, facts }: Scene): GoalIn[] {
  return (facts.goals ?? []).flatMap((goal) => {
    const each = (wanted: 'on' | 'off') =>
      goal[wanted].map((state): GoalIn => {
        const there = inState(settings, state, [before, after]);
        const wrong =
          wanted === 'off'
            ? there.find(({ after: is }) => standing(afterModel, goal.of, is) !== 'off')
            : undefined;
        const met =
          wanted === 'off'
            ? wrong === undefined
            : there.some(({ after: is }) => standing(afterModel, goal.of, is) === 'on');
        return { goal, state, wanted, met, at: wrong?.at ?? null };
      });
    return [...each('on'), ...each('off')];
  });
}

/** Which settings stand for a state, and which goals a function has; asked for every setting, worked out once. */
interface Known {
  readonly states: Map<KeyState, ReadonlySet<Setting>>;
  readonly own: Map<string, readonly PlanGoal[]>;
}
const known = new WeakMap<readonly Setting[], Known>();

function knownOf({ settings }: Scene): Known {
  const found = known.get(settings) ?? { states: new Map(), own: new Map() };
  known.set(settings, found);
  return found;
}

function standsFor(scene: Scene, setting: Setting, state: KeyState): boolean {
  const { states } = knownOf(scene);
  const found = states.get(state) ?? new Set(inState(scene.settings, state, [scene.before, scene.after]));
  states.set(state, found);
  return found.has(setting);
}

/** Goals about a function: its own, and those of points that feed its load. */
function goalsOf(scene: Scene, functionId: string): readonly PlanGoal[] {
  const { own } = knownOf(scene);
  const found = own.get(functionId);
  if (found) return found;
  const { after, facts } = scene;
  const load = after.functions.find(({ id }) => id === functionId)?.load.split(':')[0];
  const plus = (after.parts.find(({ id }) => id === load)?.pins as Record<string, string> | undefined)?.plus;
  const meets = meetings(after);
  const goals = (facts.goals ?? []).filter(
    ({ of }) =>
      of === functionId ||
      (plus !== undefined && after.nodes.some(({ id }) => id === of) && reach(meets, of).nodes.has(plus)),
  );
  own.set(functionId, goals);
  return goals;
}

/** Whether it was asked for that a function is on, or off, in a setting: by its own goal, or by that of the point that feeds it. */
export function askedFor(scene: Scene, functionId: string, setting: Setting, on: boolean): boolean {
  return goalsOf(scene, functionId).some((goal) =>
    // Where it is to be on, it may be off too: whether it can be switched on there is asked of the goal itself.
    (on ? goal.on : [...goal.on, ...goal.off]).some(
      (state) => keyStateOf(setting.at) === state || standsFor(scene, setting, state),
    ),
  );
}

export const goals: FindingKind = {
  name: 'goals',
  find: (scene) =>
    goalsIn(scene).flatMap(({ goal, state, wanted, met, at }): Finding[] => {
      if (met) return [];
      const name = goalName(scene.after, goal.of);
      const where = KEY_STATE_WORDS[state].toLowerCase();
      return [
        {
          kind: 'goals',
          level: 'danger',
          words:
            wanted === 'off'
              ? `${name} was to be off (${where}) and is not, ${at ? settingWords(scene.after, at) : where}.`
              : `${name} was to be on (${where}) and is not, whatever is switched.`,
          at,
          path: [goal.of, state],
          amount: null,
          remedy:
            wanted === 'off'
              ? 'A feed that is dead there: a voltage cut-off or a timer is no key.'
              : 'A feed that is live there, or another way to it.',
        },
      ];
    }),
};
