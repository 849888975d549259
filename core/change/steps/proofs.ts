/** What is proved behind a change: what was asked for, neighbours, currents and drops against the sum, lights, charging. */
import type { PartOf } from '../../format';
import { KEY_STATE_WORDS, RUNNING_SHARE, SLEEP_DRAW_AMPS } from '../../limits';
import { partMayBeOnSeconds } from '../../safety';
import { figure } from '../../sizing';
import { chargingParts, type Examined, goalName, goalsIn } from '../findings';
import { DONE, isFound, named, partIn, step, type WorkStep } from './step';

/** The largest current through a part, and the setting it flows in, by the sum. */
function worked({ scene }: Examined, part: string): number {
  const branches = scene.afterModel.network.branchesOfPart.get(part) ?? [];
  let most = 0;
  for (const { after } of scene.settings)
    for (const branch of branches) most = Math.max(most, Math.abs(after.amps[branch]!));
  return most;
}

/** Functions that a person is to see: asked for, and those that share a part with what was touched. */
function neighbours({ scene, played }: Examined): readonly { readonly id: string; readonly name: string }[] {
  const touched = new Set<string>();
  for (const { patch } of played.applied) {
    const { removed = [], changed = [] } = patch.parts ?? {};
    for (const { thing } of removed) for (const node of Object.values(thing.pins)) touched.add(node);
    for (const { before } of changed) for (const node of Object.values(before.pins)) touched.add(node);
    for (const id of patch.parts?.added ?? []) {
      const part = partIn(scene.after, id);
      if (part) for (const node of Object.values(part.pins)) touched.add(node);
    }
  }
  for (const edit of scene.edits) {
    if (edit.kind !== 'tap') continue;
    const fuse = partIn(scene.before, edit.fuse);
    if (fuse) for (const node of Object.values(fuse.pins)) touched.add(node);
  }
  touched.delete(scene.after.reference);
  const bodies = scene.after.parts.flatMap((part) => (part.kind === 'ground' ? [part.pins.body] : []));
  for (const body of bodies) touched.delete(body);
  const posts = scene.after.parts.flatMap((part) => (part.kind === 'battery' ? [part.pins.plus] : []));
  for (const post of posts) touched.delete(post);
  return scene.after.functions.filter(({ id, load }) => {
    const own = load.split(':')[0]!;
    const branch = scene.afterModel.network.loads.get(load)?.branch;
    if (branch === undefined) return false;
    const part = partIn(scene.after, own);
    if (part && Object.values(part.pins).some((node) => touched.has(node))) return true;
    // What carries its current passes a touched point.
    return scene.settings.some(({ after }) => {
      if (scene.afterModel.outcome({ id, name: id, load }, after) === 'dead') return false;
      return passesTouched(scene, after, branch, touched);
    });
  });
}

function passesTouched(
  { afterModel }: Examined['scene'],
  point: Examined['scene']['settings'][number]['after'],
  branch: number,
  touched: ReadonlySet<string>,
): boolean {
  const { network } = afterModel;
  let node = point.amps[branch]! >= 0 ? network.branches[branch]!.a : network.branches[branch]!.b;
  const seen = new Set<number>([branch]);
  for (let count = 0; count < 60; count++) {
    if (touched.has(network.nodeIds[node]!)) return true;
    const next = network.branches.findIndex(({ a, b }, index) => {
      if (seen.has(index) || Math.abs(point.amps[index]!) < 1e-4) return false;
      return (point.amps[index]! >= 0 ? b : a) === node;
    });
    if (next < 0 || network.branches[next]!.role === 'source') return false;
    seen.add(next);
    node = point.amps[next]! >= 0 ? network.branches[next]!.a : network.branches[next]!.b;
  }
  return false;
}

/** A reading differs from the sum by so much, share of it, before it says something else. */
const CURRENT_SPREAD = 0.25;

export function proofs(plan: Examined): WorkStep[] {
  const { scene, findings } = plan;
  const goals = goalsIn(scene).map(({ goal, state, wanted }) =>
    step(
      `prove.${goal.id}.${wanted}.${state}`,
      'prove',
      `${goalName(scene.after, goal.of)}, ${KEY_STATE_WORDS[state].toLowerCase()}${state === 'off-waited' ? ' (the wait of its modules, by the maker)' : ''}: ${wanted === 'on' ? 'on, or live' : 'off, and dead'}.`,
      {
        by: 'right',
        right: wanted === 'on' ? 'It is on' : 'It is off',
        wrong: 'It is not',
        ifWrong: 'Not what was asked for: look at the way again before it is handed over.',
      },
    ),
  );
  const seen = neighbours(plan)
    .filter(({ id }) => !goals.some(({ id: goal }) => goal.includes(`.${id}.`)))
    .map(({ id, name }) =>
      step(`prove.works.${id}`, 'prove', `${name} still does what it did, on and off.`, {
        by: 'right',
        right: 'It does',
        wrong: 'It does not',
        ifWrong: 'Something beside the change suffers: look before it is handed over.',
      }),
    );
  const fuses = scene.after.parts.filter(
    (part): part is PartOf<'fuse'> => part.kind === 'fuse' && !partIn(scene.before, part.id),
  );
  const currents = fuses.flatMap((fuse) => {
    const amps = worked(plan, fuse.id);
    if (amps < 0.02) return [];
    const most = fuse.ratingAmps === undefined ? null : fuse.ratingAmps * RUNNING_SHARE;
    return [
      step(
        `prove.current.${fuse.id}`,
        'prove',
        `Current through ${fuse.name}, everything behind it on. By the sum ${figure(amps, 'A')}${most === null ? '' : `, at most ${figure(most, 'A')} for good`}.`,
        {
          by: 'value',
          unit: 'A',
          least: null,
          most: most ?? amps * (1 + CURRENT_SPREAD),
        },
        { with: 'clamp, or drop across the fuse' },
      ),
    ];
  });
  const wires = scene.after.parts.filter(
    (part): part is PartOf<'wire'> => part.kind === 'wire' && !partIn(scene.before, part.id),
  );
  const drops = wires.flatMap((wire) => {
    const [branch] = scene.afterModel.network.branchesOfPart.get(wire.id) ?? [];
    const amps = worked(plan, wire.id);
    if (branch === undefined || amps < 0.5) return [];
    const volts = amps * scene.afterModel.network.branches[branch]!.ohms;
    return [
      step(
        `prove.drop.${wire.id}`,
        'prove',
        `Volts lost over ${wire.name} at that current. By the sum ${figure(volts, 'V')}.`,
        {
          by: 'value',
          unit: 'V',
          least: null,
          most: Math.max(0.1, Number((volts * 1.5).toFixed(2))),
        },
      ),
    ];
  });
  const short = scene.after.parts.flatMap((part) => {
    const seconds = partMayBeOnSeconds(scene.after, part);
    if (seconds === null || !scene.afterModel.network.loads.has(part.id)) return [];
    const before = partIn(scene.before, part.id);
    const touched =
      findings.some(({ path }) => path.includes(part.id)) ||
      !before ||
      neighbours(plan).some(({ id }) => scene.after.functions.find((one) => one.id === id)?.load === part.id);
    return touched
      ? [
          step(
            `prove.duty.${part.id}`,
            'prove',
            `${part.name}: on for at most ${seconds} s, one person at the switch, one who watches.`,
            { by: 'duty', seconds },
          ),
        ]
      : [];
  });
  const lamps = findings
    .filter(({ kind, path }) => kind === 'lights' && path[1] === 'rule')
    .map(({ path }) =>
      step(
        `prove.lights.${path[0]}`,
        'prove',
        `${named(scene.after, path[0]!)}: rules looked up, aim and glare seen.`,
        {
          by: 'checks',
          lines: [
            'on only where local rules allow it, or not seen from outside',
            'aim seen on a wall or a board',
            'no glare for others',
          ],
        },
      ),
    );
  const causes = scene.edits.flatMap((edit) => {
    if (edit.kind !== 'take-out' || !edit.kept) return [];
    const part = partIn(scene.before, edit.part);
    return part && ['module', 'module-output', 'relay', 'cut-off'].includes(part.kind)
      ? [
          step(
            `prove.cause.${part.id}`,
            'prove',
            `Why ${part.name} failed is recorded. Passed, it stays open as something to watch.`,
          ),
        ]
      : [];
  });
  const ends = wires
    .filter(({ state }) => state === 'unknown')
    .flatMap((wire) => [
      step(
        `read.${wire.id}`,
        'prove',
        `Read both ends of ${wire.name} in every state. An end that is hidden stays owed.`,
        {
          by: 'wire-ends',
          wire: wire.id,
        },
      ),
    ]);
  const stays = scene.edits.some(({ kind }) => kind === 'take-out')
    ? [
        step(
          'prove.continuity',
          'prove',
          'Continuity of what stays, plug by plug, where something was taken out of the loom.',
          {
            by: 'right',
            right: 'All of it',
            wrong: 'Not all',
            ifWrong: 'Something was taken along: find it before the loom is closed.',
          },
        ),
      ]
    : [];
  const charge = chargingSteps(plan);
  const sleeping = scene.edits.some((edit) => edit.kind !== 'label' && !isFound(edit))
    ? [
        step('prove.draw', 'prove', 'Draw of the battery with everything off, after the wait.', {
          by: 'value',
          unit: 'A',
          least: null,
          most: SLEEP_DRAW_AMPS,
        }),
        step('prove.lamps', 'prove', 'Brake lamps and outside lamps, always before a vehicle goes out.', {
          by: 'right',
          right: 'All of them work',
          wrong: 'Not all',
          ifWrong: 'Put right before it goes out.',
        }),
      ]
    : [];
  return [
    ...goals,
    ...seen,
    ...currents,
    ...drops,
    ...short,
    ...lamps,
    ...causes,
    ...ends,
    ...stays,
    ...charge,
    ...sleeping,
  ];
}

function chargingSteps({ scene, played }: Examined): WorkStep[] {
  const touched = new Set(
    played.applied.flatMap(({ patch }) => [
      ...(patch.parts?.added ?? []),
      ...(patch.parts?.removed ?? []).map(({ thing }) => thing.id),
    ]),
  );
  const concerned = [...chargingParts(scene.before), ...chargingParts(scene.after)].some((id) =>
    touched.has(id),
  );
  if (!concerned) return [];
  const { charging } = scene.facts;
  const nominal = scene.after.nominalVolts;
  return [
    step('prove.pack', 'prove', 'Volts of the whole pack at its own posts, at rest.', {
      by: 'value',
      unit: 'V',
      least: nominal * 0.9,
      most: nominal * 1.25,
    }),
    step('prove.locked', 'prove', 'The charger that was there is locked out at its plug and labelled.'),
    step(
      'prove.receptacle',
      'prove',
      `Label on the receptacle: “${charging?.receptacle ?? 'what may be plugged in'}”${charging ? `, ${figure(charging.chargerVolts, 'V')}, ${charging.battery}` : ''}.`,
      DONE,
      { with: 'label' },
    ),
    step('prove.body', 'prove', 'No volts between the pack’s minus and the body that anybody could touch.', {
      by: 'value',
      unit: 'V',
      least: null,
      most: 1,
    }),
  ];
}
