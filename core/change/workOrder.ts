/**
 * A plan as work, step by step in the order in which it is done. A step belongs to a stage, and a stage begins when all steps of
 * those before it are done or overridden: nothing is cut before both ends were read, nothing is laid before its fuse is there.
 */
import type { CircuitFile, CircuitPart, PartOf, PlanEdit } from '../format';
import type { IsolationStep } from '../hands';
import { KEY_STATE_WORDS } from '../limits';
import { isMoving, partMayBeOnSeconds } from '../safety';
import { figure } from '../sizing';
import { chargingParts, type Examined, goalName, goalsIn } from './findings';
import { isProtector } from './findings/region';

export const STAGES = [
  'read',
  'isolate',
  'break',
  'dead',
  'cut',
  'protect',
  'lay',
  'label',
  'power',
  'direction',
  'refit',
  'prove',
] as const;
export type Stage = (typeof STAGES)[number];

export const STAGE_WORDS: Readonly<Record<Stage, string>> = {
  read: 'Read before anything is touched',
  isolate: 'Isolate',
  break: 'Break the old feeds',
  dead: 'Read it dead',
  cut: 'Cut, free and cap',
  protect: 'New protection first',
  lay: 'Lay and join',
  label: 'Label',
  power: 'Power back',
  direction: 'Prove the tap’s direction',
  refit: 'Original fuses back',
  prove: 'Prove',
};

/** How a step is answered. */
export type Asks =
  /** One tap. */
  | { readonly by: 'done' }
  /** Every line of it is seen to be so. */
  | { readonly by: 'checks'; readonly lines: readonly string[] }
  /** Both ends of a wire in every state. */
  | { readonly by: 'wire-ends'; readonly wire: string }
  /** Both holes of the slot that a fuse sits in, the fuse out. */
  | { readonly by: 'holes'; readonly fuse: string }
  | { readonly by: 'isolation'; readonly step: IsolationStep; readonly on: boolean }
  | { readonly by: 'tester' }
  /** As it should be or not. */
  | { readonly by: 'right'; readonly right: string; readonly wrong: string; readonly ifWrong: string }
  | {
      readonly by: 'value';
      readonly unit: 'A' | 'V';
      readonly least: number | null;
      readonly most: number | null;
    }
  /** On for so many seconds at most, somebody watching. */
  | { readonly by: 'duty'; readonly seconds: number };

export interface WorkStep {
  readonly id: string;
  readonly stage: Stage;
  readonly words: string;
  /** Tool or material, where one is wanted. */
  readonly with?: string;
  /** The edit that is made by it; null where none is. */
  readonly edit: string | null;
  /** What stands on the vehicle if it stops behind this step. */
  readonly leaves: string | null;
  readonly asks: Asks;
}

const DONE: Asks = { by: 'done' };

interface Made {
  readonly plan: Examined;
  /** Circuit as it stands before an edit. */
  readonly at: ReadonlyMap<string, CircuitFile>;
}

const partIn = (circuit: CircuitFile | undefined, id: string) =>
  circuit?.parts.find((part) => part.id === id);
const named = (circuit: CircuitFile | undefined, id: string) =>
  partIn(circuit, id)?.name ?? circuit?.nodes.find((node) => node.id === id)?.name ?? id;

const step = (
  id: string,
  stage: Stage,
  words: string,
  asks: Asks = DONE,
  more: Partial<Pick<WorkStep, 'with' | 'edit' | 'leaves'>> = {},
): WorkStep => ({ id: id.slice(0, 80), stage, words, asks, edit: null, leaves: null, ...more });

/** Wires that are cut or freed: nobody cuts what he has not read. */
function wireOf(edit: PlanEdit, circuit: CircuitFile | undefined): PartOf<'wire'> | null {
  const id =
    edit.kind === 'cut' ? edit.wire : edit.kind === 'take-out' || edit.kind === 'move' ? edit.part : null;
  const part = id === null ? undefined : partIn(circuit, id);
  return part?.kind === 'wire' ? part : null;
}

const PULLED: readonly CircuitPart['kind'][] = ['fuse', 'relay', 'breaker'];

function reading(edits: readonly PlanEdit[], { at }: Made): WorkStep[] {
  const steps: WorkStep[] = [];
  for (const edit of edits) {
    const circuit = at.get(edit.id);
    const wire = wireOf(edit, circuit);
    if (wire && !steps.some((one) => one.id === `read.${wire.id}`)) {
      steps.push(
        step(
          `read.${wire.id}`,
          'read',
          `Read both ends of ${wire.name} in every state: at ${named(circuit, wire.pins.a)} and at ${named(circuit, wire.pins.b)}.`,
          { by: 'wire-ends', wire: wire.id },
          { with: 'proved tester; filament lamp where nothing can be harmed' },
        ),
      );
    }
    if (edit.kind === 'tap') {
      steps.push(
        step(
          `read.${edit.id}`,
          'read',
          `Take ${named(circuit, edit.fuse)} out and read both holes of its slot, each in every state the feed is wanted in and off.`,
          { by: 'holes', fuse: edit.fuse },
          { with: 'proved tester, insulated puller' },
        ),
      );
    }
  }
  return steps.length === 0
    ? []
    : [
        step(
          'read.tester',
          'read',
          'Prove the tester on the battery posts.',
          { by: 'tester' },
          { with: 'meter or lamp' },
        ),
        ...steps,
      ];
}

/** What the work asks to be isolated: nothing for a fuse that is pulled, the earthed pole for whatever is cut or joined. */
function isolation(edits: readonly PlanEdit[], { at }: Made): WorkStep[] {
  const touches = edits.some((edit) => {
    if (edit.kind === 'label') return false;
    if (edit.kind !== 'take-out') return true;
    return !PULLED.includes(partIn(at.get(edit.id), edit.part)?.kind ?? 'wire');
  });
  if (!touches) return [step('isolate.load', 'isolate', 'Key off, and what hangs on it switched off.')];
  const module = edits.some(
    (edit) =>
      edit.kind === 'take-out' &&
      ['module', 'module-output'].includes(partIn(at.get(edit.id), edit.part)?.kind ?? ''),
  );
  const steps: readonly [IsolationStep, string][] = [
    ['key-off', 'Key off, and out of reach. Before it: note radio codes, the clock, alarm, electric brakes.'],
    ...(module
      ? [
          ['slept', 'Wait until the modules sleep (10 to 60 minutes, by the maker).'] as [
            IsolationStep,
            string,
          ],
        ]
      : []),
    [
      'earthed-pole-off',
      'Earthed pole of every battery off, and every other source: a second battery, solar, a charger.',
    ],
  ];
  return steps.map(([name, words]) =>
    step(`isolate.${name}`, 'isolate', words, { by: 'isolation', step: name, on: true }),
  );
}

/** Steps of one edit, each in its stage. */
function stepsOf(edit: PlanEdit, { at }: Made): WorkStep[] {
  const circuit = at.get(edit.id);
  const own = (name: string) => `${edit.id}.${name}`;
  switch (edit.kind) {
    case 'take-out': {
      const part = partIn(circuit, edit.part);
      const name = part?.name ?? edit.part;
      if (part && PULLED.includes(part.kind)) {
        return [
          step(
            own('pull'),
            'break',
            `Pull ${name}: the first break.${edit.kept ? ' It is kept, and marked.' : ''}`,
            DONE,
            {
              with: 'insulated puller',
              edit: edit.id,
              leaves: `${name} is out and must not be refitted.`,
            },
          ),
        ];
      }
      if (part?.kind === 'wire') {
        return [
          step(
            own('free'),
            'cut',
            `Free ${name} at ${named(circuit, part.pins.a)} and at ${named(circuit, part.pins.b)}: at a second place, away from the fuse.`,
            DONE,
            {
              with: 'terminal tool, or cutter',
              edit: edit.id,
              leaves: `${name} is free at both its ends.`,
            },
          ),
          step(
            own('cap-a'),
            'cut',
            `Cap the end of ${name} at ${named(circuit, part.pins.a)}, by itself, and label it; or take the wire out of the loom.`,
            DONE,
            {
              with: 'sealed cap, wire flag',
            },
          ),
          step(
            own('cap-b'),
            'cut',
            `Cap the end at ${named(circuit, part.pins.b)}, by itself, and label it. Where it is hidden: follow the loom until it is found.`,
            DONE,
            {
              with: 'sealed cap, wire flag',
            },
          ),
        ];
      }
      return [
        step(
          own('out'),
          'break',
          `${edit.kept ? 'Unplug' : 'Take out'} ${name}${edit.kept ? '; tie it back so that it can go in again' : ''}.`,
          DONE,
          {
            edit: edit.id,
            leaves: `${name} is ${edit.kept ? 'unplugged' : 'taken out'}.`,
          },
        ),
      ];
    }
    case 'cut': {
      const wire = partIn(circuit, edit.wire) as PartOf<'wire'> | undefined;
      const name = wire?.name ?? edit.wire;
      const ends = wire ? [named(circuit, wire.pins.a), named(circuit, wire.pins.b)] : ['end a', 'end b'];
      return [
        step(
          own('cut'),
          'cut',
          `Cut ${name} at ${Math.round(edit.share * 100)} % of its length from ${ends[0]}.`,
          DONE,
          {
            with: 'cutter',
            edit: edit.id,
            leaves: `${name} is cut.`,
          },
        ),
        step(own('cap-a'), 'cut', `Cap and label the end that comes from ${ends[0]}.`, DONE, {
          with: 'sealed cap, wire flag',
        }),
        step(own('cap-b'), 'cut', `Cap and label the end that comes from ${ends[1]}.`, DONE, {
          with: 'sealed cap, wire flag',
        }),
      ];
    }
    case 'tap':
      return [
        step(
          own('fit'),
          'protect',
          `Set the tap (${edit.family.replace(/-/g, ' ')}) ready: original fuse in its own leg, ${figure(edit.addedAmps, 'A')} in the added one. Incoming leg on the supply side of the slot of ${named(circuit, edit.fuse)}.`,
          DONE,
          {
            with: `tap ${edit.family.replace(/-/g, ' ')}, fuse ${figure(edit.addedAmps, 'A')}`,
            edit: edit.id,
            leaves: `A tap sits in the slot of ${named(circuit, edit.fuse)}.`,
          },
        ),
      ];
    case 'join':
      return [
        step(
          own('join'),
          'lay',
          `Join ${named(circuit, edit.one)} with ${named(circuit, edit.other)}.`,
          {
            by: 'checks',
            lines: [
              `made as ${edit.joint.replace(/-/g, ' ')}, with the right die`,
              'held when it was pulled',
              'sealed, or supported where it was soldered',
            ],
          },
          { with: `${edit.joint.replace(/-/g, ' ')}, crimping tool`, edit: edit.id, leaves: null },
        ),
      ];
    case 'move':
      return [
        step(
          own('move'),
          'cut',
          `Move ${edit.pin} of ${named(circuit, edit.part)} to ${named(circuit, edit.to)}. Count the cavity from a stated face: the two mirror each other.`,
          {
            by: 'checks',
            lines: [
              'locked in its new cavity, and held when it was pulled',
              'the old cavity closed, nothing left in it',
            ],
          },
          {
            with: 'terminal tool',
            edit: edit.id,
            leaves: `${named(circuit, edit.part)} is in another cavity.`,
          },
        ),
      ];
    case 'add':
      return edit.parts.flatMap((part) => addedSteps(part, edit, own));
    case 'restore':
      return [
        step(own('back'), 'lay', edit.words, DONE, { edit: edit.id, leaves: `Taken back: ${edit.words}` }),
      ];
    case 'label':
      return [
        step(own('label'), 'label', `Label on ${edit.on}: “${edit.words}”.`, DONE, {
          with: 'label',
          edit: edit.id,
        }),
      ];
  }
}

/** A part that comes in: protection before the rest, a wire with its way and its joints. */
function addedSteps(
  part: CircuitPart,
  edit: PlanEdit & { kind: 'add' },
  own: (name: string) => string,
): WorkStep[] {
  // The edit counts as made once the last of its parts is in.
  const last = edit.parts[edit.parts.length - 1] === part ? { edit: edit.id } : {};
  if (isProtector(part) || part.kind === 'cut-off') {
    const size =
      'ratingAmps' in part && part.ratingAmps !== undefined ? ` of ${figure(part.ratingAmps, 'A')}` : '';
    return [
      step(own(part.id), 'protect', `Fit ${part.name}${size}, its fuse not in yet.`, DONE, {
        with: `holder${size ? `, fuse${size.slice(3)}` : ''}`,
        ...last,
      }),
    ];
  }
  if (part.kind === 'wire') {
    const size = [part.sizeMm2 && `${part.sizeMm2} mm²`, part.lengthMetres && `${part.lengthMetres} m`]
      .filter(Boolean)
      .join(', ');
    return [
      step(
        own(`${part.id}.way`),
        'lay',
        `Lay ${part.name}${size ? ` (${size})` : ''}${part.through ? ` through ${part.through}` : ''}.`,
        {
          by: 'checks',
          lines: [
            ...(part.through ? [`edge of ${part.through} protected by a grommet`] : []),
            'clear of pedals, steering and hinges, and of what gets hot',
            'held every 200 to 300 mm, slack at the ends',
          ],
        },
        { with: `wire ${size}`.trim() },
      ),
      step(
        own(`${part.id}.joints`),
        'lay',
        `Terminals and joints of ${part.name}.`,
        {
          by: 'checks',
          lines: [
            'right terminal and die for the size',
            'held when it was pulled',
            'sealed where it gets wet',
          ],
        },
        { with: 'terminals, crimping tool', ...last, leaves: `${part.name} is laid.` },
      ),
    ];
  }
  return [
    step(own(part.id), 'lay', `Fit ${part.name}.`, DONE, { ...last, leaves: `${part.name} is fitted.` }),
  ];
}

/** Where it is read dead before it is cut. */
function deadReading(edits: readonly PlanEdit[], { at }: Made): WorkStep[] {
  const places = edits.flatMap((edit) => {
    const circuit = at.get(edit.id);
    const wire = wireOf(edit, circuit);
    if (wire) return [wire.name];
    return edit.kind === 'join' ? [named(circuit, edit.one), named(circuit, edit.other)] : [];
  });
  if (
    places.length === 0 &&
    !edits.some(({ kind }) => kind === 'add' || kind === 'tap' || kind === 'restore')
  )
    return [];
  const at_ = places.length > 0 ? ` at ${[...new Set(places)].join(', ')}` : ' where it is worked at';
  return [
    step(
      'dead.reading',
      'dead',
      `Read it dead${at_}, on a tester that was proved before and is proved after.`,
      {
        by: 'isolation',
        step: 'dead-reading',
        on: true,
      },
    ),
  ];
}

function powerBack(isolated: readonly WorkStep[]): WorkStep[] {
  const pole = isolated.some(({ asks }) => asks.by === 'isolation' && asks.step === 'earthed-pole-off');
  return pole
    ? [
        step('power.loads', 'power', 'Everything switched off, new fuses out, tools out of the box.'),
        step('power.pole', 'power', 'Earthed pole on, last of all.', {
          by: 'isolation',
          step: 'earthed-pole-off',
          on: false,
        }),
        step('power.key', 'power', 'Key usable again.', { by: 'isolation', step: 'key-off', on: false }),
      ]
    : [];
}

function taps(edits: readonly PlanEdit[], { at }: Made): WorkStep[] {
  return edits.flatMap((edit) => {
    if (edit.kind !== 'tap') return [];
    const name = named(at.get(edit.id), edit.fuse);
    return [
      step(
        `${edit.id}.direction`,
        'direction',
        `${name} out of the tap, the added fuse in, the added lead on nothing, key on: is the added lead live?`,
        {
          by: 'right',
          right: 'Live',
          wrong: 'Dead',
          ifWrong: 'Turn the tap round, and try again: its incoming leg stands on the load side.',
        },
        { with: 'proved tester' },
      ),
      step(`${edit.id}.refit`, 'refit', `${name} back into its own leg of the tap.`),
    ];
  });
}

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

function proofs(plan: Examined): WorkStep[] {
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
    const most = fuse.ratingAmps === undefined ? null : fuse.ratingAmps * 0.8;
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
            'on only where local rules allow it',
            'aim seen on a wall or a board',
            'no glare for others',
          ],
        },
      ),
    );
  const charge = chargingSteps(plan);
  const sleeping = scene.edits.some(({ kind }) => kind !== 'label')
    ? [
        step('prove.draw', 'prove', 'Draw of the battery with everything off, after the wait.', {
          by: 'value',
          unit: 'A',
          least: null,
          most: 0.05,
        }),
        step('prove.lamps', 'prove', 'Brake lamps and outside lamps, always before a vehicle goes out.', {
          by: 'right',
          right: 'All of them work',
          wrong: 'Not all',
          ifWrong: 'Put right before it goes out.',
        }),
      ]
    : [];
  return [...goals, ...seen, ...currents, ...drops, ...short, ...lamps, ...charge, ...sleeping];
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

/** The work of a plan in its order. */
export function workOrder(plan: Examined): readonly WorkStep[] {
  const { played } = plan;
  const at = new Map<string, CircuitFile>();
  let circuit = played.before;
  for (const { edit, after } of played.applied) {
    at.set(edit.id, circuit);
    circuit = after;
  }
  const made: Made = { plan, at };
  const edits = played.applied.map(({ edit }) => edit);
  const isolated = isolation(edits, made);
  const worksOnMoving = plan.scene.before.functions.some(({ id }) => isMoving(plan.scene.before, id));
  const all = [
    ...reading(edits, made),
    ...isolated,
    ...edits.flatMap((edit) => stepsOf(edit, made)),
    ...deadReading(edits, made),
    ...powerBack(isolated),
    ...taps(edits, made),
    ...(worksOnMoving
      ? [step('power.clear', 'power', 'Hands, ropes and tools clear of what moves before power comes back.')]
      : []),
    ...proofs(plan),
  ];
  return STAGES.flatMap((stage) => all.filter((one) => one.stage === stage));
}

/** The order of edits follows that of stages: one is made when the last step that bears its name is done. */
export function editsMadeBy(steps: readonly WorkStep[], done: (id: string) => boolean): ReadonlySet<string> {
  return new Set(steps.flatMap(({ id, edit }) => (edit !== null && done(id) ? [edit] : [])));
}
