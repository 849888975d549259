/** A step of the work of a plan: its stage, its words, how it is answered, what it leaves. */
import type { CircuitFile, CircuitPart, PartOf, PlanEdit } from '../../format';
import type { IsolationStep } from '../../hands';
import type { Examined } from '../findings';

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

export const DONE: Asks = { by: 'done' };

export interface Made {
  readonly plan: Examined;
  /** Circuit as it stands before an edit. */
  readonly at: ReadonlyMap<string, CircuitFile>;
}

export const partIn = (circuit: CircuitFile | undefined, id: string) =>
  circuit?.parts.find((part) => part.id === id);
export const named = (circuit: CircuitFile | undefined, id: string) =>
  partIn(circuit, id)?.name ?? circuit?.nodes.find((node) => node.id === id)?.name ?? id;

export const step = (
  id: string,
  stage: Stage,
  words: string,
  asks: Asks = DONE,
  more: Partial<Pick<WorkStep, 'with' | 'edit' | 'leaves'>> = {},
): WorkStep => ({ id: id.slice(0, 80), stage, words, asks, edit: null, leaves: null, ...more });

/** Wires that are cut or freed: nobody cuts what he has not read. */
export function wiresOf(edit: PlanEdit, circuit: CircuitFile | undefined): PartOf<'wire'>[] {
  const ids =
    edit.kind === 'cut'
      ? [edit.wire]
      : edit.kind === 'take-out' || edit.kind === 'move'
        ? [edit.part]
        : edit.kind === 'restore'
          ? goesBy(edit)
          : [];
  return ids.flatMap((id) => {
    const part = partIn(circuit, id);
    return part?.kind === 'wire' ? [part] : [];
  });
}

/** Parts that an edit by patch takes away, or joins elsewhere. */
function goesBy({ patch }: PlanEdit & { kind: 'restore' }): string[] {
  const { added = [], changed = [] } = patch.parts ?? {};
  const moved = changed.filter(
    ({ before, after }) => JSON.stringify(before.pins) !== JSON.stringify(after.pins),
  );
  return [...added, ...moved.map(({ after }) => after.id)];
}

/** Leftovers that are written down as they were found: nothing is laid. */
export function isFound(edit: PlanEdit): boolean {
  return edit.kind === 'add' && edit.parts.every((part) => part.kind === 'wire' && part.state === 'unknown');
}

export const PULLED: readonly CircuitPart['kind'][] = ['fuse', 'relay', 'breaker'];
