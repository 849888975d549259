/** The steps of one edit, each in its stage. */
import { isProtector } from '../../circuit';
import type { CircuitFile, CircuitPart, PartOf, PlanEdit } from '../../format';
import { figure } from '../../sizing';

import { DONE, type Made, named, PULLED, partIn, STAGES, step, type WorkStep } from './step';

/** Steps of one edit, each in its stage. */
export function stepsOf(edit: PlanEdit, made: Made): WorkStep[] {
  const { at } = made;
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
      return made.plan.scene.facts.undoes ? [takenBack(edit, own)] : byText(edit, made, own);
    case 'label':
      return [
        step(own('label'), 'label', `Label on ${edit.on}: “${edit.words.replace(/\.$/, '')}”.`, DONE, {
          with: 'label',
          edit: edit.id,
        }),
      ];
  }
}

function takenBack(edit: PlanEdit & { kind: 'restore' }, own: (name: string) => string): WorkStep {
  return step(own('back'), 'lay', edit.words, DONE, { edit: edit.id, leaves: `Taken back: ${edit.words}` });
}

/** What was written in the text, part by part; the edit counts as made with the last of it. */
function byText(edit: PlanEdit & { kind: 'restore' }, made: Made, own: (name: string) => string): WorkStep[] {
  const circuit = made.at.get(edit.id);
  const { removed = [], added = [], changed = [] } = edit.patch.parts ?? {};
  const goes = added.flatMap((id) =>
    stepsOf({ kind: 'take-out', id: own(id), part: id, kept: false }, withCircuit(made, own(id), circuit)),
  );
  const comes = removed.flatMap(({ thing }) =>
    addedSteps(thing, { kind: 'add', id: edit.id, nodes: [], parts: [thing] }, own),
  );
  const differs = changed.map(({ before }) =>
    step(own(before.id), 'cut', `Change ${before.name} as the text has it.`, DONE, {
      leaves: `${before.name} is changed.`,
    }),
  );
  const all = [...goes, ...differs, ...comes];
  if (all.length === 0) return [step(own('done'), 'label', edit.words, DONE, { edit: edit.id })];
  const late = Math.max(...all.map(({ stage }) => STAGES.indexOf(stage)));
  const last = all.findLastIndex(({ stage }) => STAGES.indexOf(stage) === late);
  return all.map((one, index) => ({ ...one, edit: index === last ? edit.id : null }));
}

/** The same work with the circuit of one more edit known. */
function withCircuit(made: Made, id: string, circuit: CircuitFile | undefined): Made {
  return circuit ? { ...made, at: new Map([...made.at, [id, circuit]]) } : made;
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
  if (part.kind === 'wire' && part.state === 'unknown') {
    return [
      step(
        own(part.id),
        'label',
        `Flag ${part.name} at each end that was found: ${part.endA ?? ''}; ${part.endB ?? ''}.`,
        DONE,
        {
          with: 'wire flags',
          ...last,
        },
      ),
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
