/** What a sheet says of the vehicle as it stands: its boxes, ends of wires, parts in each other's places. */
import { branchDrain, surveyRow } from '../feed';
import type { Slot } from '../format';
import { KEY_STATE_WORDS, type SlotReading } from '../limits';
import { auditSlot, settledIn, triageSlot, unaccounted, VERDICT_WORDS, withStates } from '../panel';
import { partName, valueWords } from './names';
import { entriesOf, plain, type SheetLine, type SheetPart, type SheetScene } from './sheetLines';

const slotName = ({ type, number }: Slot) => `${type} ${number}`;

function slotLines(slot: Slot, readings: readonly SlotReading[], nominalVolts: number): SheetLine[] {
  const own = readings.filter((one) => one.slot === slot.id);
  const verdict = triageSlot(slot, own, nominalVolts);
  const read = own
    .map(
      ({ end, value, state, fuseOut }) =>
        `${END_WORDS[end]} ${valueWords(value)} ${KEY_STATE_WORDS[state].toLowerCase()}${fuseOut ? ', fuse out' : ''}`,
    )
    .join('; ');
  const row = surveyRow(slot, own, nominalVolts);
  const dropped =
    row.droppedAfter === null ? '' : ` Dropped ${Math.round(row.droppedAfter)} s after key off.`;
  const side = row.side.stands === 'proved' ? ` ${row.side.sentence}` : '';
  const survey = row.finding.feed === 'unknown' ? '' : ` Feed: ${row.finding.sentence}${dropped}${side}`;
  return own.length === 0
    ? []
    : [plain(`${slotName(slot)}: ${VERDICT_WORDS[verdict.verdict]}. ${verdict.sentence}${survey}`, read)];
}

const END_WORDS: Readonly<Record<SlotReading['end'], string>> = {
  feed: 'feed side',
  load: 'load side',
  'load-2': 'second load side',
  first: 'upper or left end',
  second: 'lower or right end',
};

/** Boxes as found: damage, states with their evidence, verdicts with their readings, what a box still owes. */
export function boxes(scene: SheetScene): SheetPart {
  const { job, panels, nominalVolts } = scene;
  const lines: SheetLine[] = [
    ...job.damages.map(({ words, when, panel }) =>
      plain(
        `${when === 'as-found' ? 'Damage as found' : 'Damage done here'}: ${words}`,
        panels.find(({ id }) => id === panel)?.name,
      ),
    ),
    ...entriesOf(scene, ['slot-state', 'plug-tag']),
  ];
  for (const panel of panels) {
    const readings = job.slotReadings.filter((one) => one.panel === panel.id);
    const asleep = branchDrain(panel, job.slotDrops);
    const touched =
      readings.length > 0 || asleep.read > 0 || job.slotStates.some((one) => one.panel === panel.id);
    if (!touched) continue;
    if (asleep.read > 0) {
      const branches = asleep.branches.filter((one) => one.read);
      lines.push(
        plain(
          `${panel.name}, asleep: ${asleep.sentence}`,
          branches.map((one) => `${slotName(one.slot)} ${one.words}`).join('; '),
        ),
      );
    }
    const now = withStates(panel, job.slotStates);
    for (const slot of now.slots) {
      lines.push(...slotLines(slot, readings, nominalVolts ?? 12));
      for (const item of auditSlot(slot, nominalVolts ?? 12)) lines.push(plain(item.words));
    }
    const owed = unaccounted(now);
    if (owed.length > 0)
      lines.push(
        plain(
          `${panel.name}: ${settledIn(now).words}. Still owed: ${owed.map(({ words }) => words).join(' ')}`,
        ),
      );
  }
  return { title: 'Boxes', lines, empty: null };
}

export function wires(scene: SheetScene): SheetPart {
  return { title: 'Ends of wires', lines: entriesOf(withGone(scene), ['wire-reading']), empty: null };
}

/** With the parts that a change of this job took out: they are still called by their names. */
function withGone(scene: SheetScene): SheetScene {
  const { job, circuit } = scene;
  if (!circuit) return scene;
  const gone = job.plans.flatMap(({ ended }) =>
    (ended?.files ?? []).flatMap(({ patch }) => (patch.parts?.removed ?? []).map(({ thing }) => thing)),
  );
  return { ...scene, circuit: { ...circuit, parts: [...circuit.parts, ...gone] } };
}

/** Parts that stood in another's place, and whether they are back. */
export function exchanges(scene: SheetScene): SheetPart {
  const { job, circuit } = scene;
  const lines = entriesOf(scene, ['swapped', 'swap-restored', 'part-in-place', 'unit-tried']);
  const still = job.swaps.map(({ one, other }) =>
    plain(`Still exchanged: ${partName(circuit, one)} and ${partName(circuit, other)}`),
  );
  return { title: 'Exchanged', lines: [...lines, ...still], empty: null };
}
