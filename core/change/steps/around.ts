/** What stands around the edits: readings and isolation before, power and the direction of taps behind. */
import type { PlanEdit } from '../../format';
import type { IsolationStep } from '../../hands';
import { isFound, type Made, named, PULLED, partIn, step, type WorkStep, wiresOf } from './step';

export function reading(edits: readonly PlanEdit[], { at }: Made): WorkStep[] {
  const steps: WorkStep[] = [];
  for (const edit of edits) {
    const circuit = at.get(edit.id);
    for (const wire of wiresOf(edit, circuit)) {
      if (steps.some((one) => one.id === `read.${wire.id}`)) continue;
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
export function isolation(edits: readonly PlanEdit[], { at }: Made): WorkStep[] {
  const touches = edits.some((edit) => {
    if (edit.kind === 'label' || isFound(edit)) return false;
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

/** Where it is read dead before it is cut. */
export function deadReading(edits: readonly PlanEdit[], { at }: Made): WorkStep[] {
  const places = edits.flatMap((edit) => {
    const circuit = at.get(edit.id);
    const wires = wiresOf(edit, circuit);
    if (wires.length > 0) return wires.map(({ name }) => name);
    return edit.kind === 'join' ? [named(circuit, edit.one), named(circuit, edit.other)] : [];
  });
  if (
    places.length === 0 &&
    !edits.some((edit) => ['add', 'tap', 'restore'].includes(edit.kind) && !isFound(edit))
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

export function powerBack(isolated: readonly WorkStep[]): WorkStep[] {
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

export function taps(edits: readonly PlanEdit[], { at }: Made): WorkStep[] {
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
