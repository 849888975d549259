/** Events in words, for log and sheet. */
import { testInLog } from '#core/diagnosis';
import type { CircuitFile, EventBody, FunctionStateName, ReadingValue } from '#core/format';
import { STEP_WORDS, TASK_WORDS, TASKS } from '#core/hands';
import { FEED_STATE_WORDS } from '#core/limits';
import { formatQuantity } from '#core/quantity';

export const STATE_WORDS: Readonly<Record<FunctionStateName, string>> = {
  works: 'works',
  weak: 'weak',
  dead: 'dead',
  'on-when-off': 'on when it should be off',
  'comes-and-goes': 'comes and goes',
  'not-tried': 'not tried',
};

export function valueWords(value: ReadingValue): string {
  if ('volts' in value) return formatQuantity(value.volts, 'V');
  if ('ohms' in value) return formatQuantity(value.ohms, 'Ω');
  if ('overLimit' in value) return 'over limit';
  if ('amps' in value) return formatQuantity(value.amps, 'A');
  if ('state' in value) return STATE_WORDS[value.state];
  if ('lamp' in value) return value.lamp;
  if ('wiggle' in value) return value.wiggle;
  return 'click' in value ? value.click : value.look;
}

export function conditionName(circuit: CircuitFile | null, id: string): string {
  return circuit?.conditions.find((one) => one.id === id)?.name ?? id;
}

export function functionName(circuit: CircuitFile | null, id: string): string {
  return circuit?.functions.find((one) => one.id === id)?.name ?? id;
}

/** What was tested, short: "Volts at relay 4 pin 87". */
export const testWords = testInLog;

function partName(circuit: CircuitFile | null, id: string): string {
  return circuit?.parts.find((one) => one.id === id)?.name ?? id;
}

/** One line for an event of the log. */
export function eventWords(circuit: CircuitFile | null, body: EventBody): string {
  switch (body.kind) {
    case 'complaint':
      return `Complaint: ${body.words}`;
    case 'identity':
      return [
        body.nominalVolts === undefined ? '' : `nominal voltage ${body.nominalVolts} V`,
        body.odometerKm === undefined ? '' : `odometer ${body.odometerKm} km`,
        body.fuel ? `fuel ${body.fuel}` : '',
        body.options ? `options: ${body.options}` : '',
        body.alterations ? `alterations: ${body.alterations}` : '',
      ]
        .filter((one) => one !== '')
        .join(', ');
    case 'function-check':
      return `${functionName(circuit, body.function)}: ${STATE_WORDS[body.state]} (${conditionName(circuit, body.condition)})`;
    case 'reading':
      return `${testWords(circuit, body.test)}: ${valueWords(body.value)}`;
    case 'slot-state': {
      const found = body.found?.ratingAmps === undefined ? '' : `, ${body.found.ratingAmps} A found`;
      return `Slot ${body.slot}: ${body.state.replace('-', ' ')}${found} (${body.evidence})`;
    }
    case 'isolation':
      return `${body.done ? 'Isolated' : 'No longer isolated'}: ${STEP_WORDS[body.step].toLowerCase()}`;
    case 'task-begun': {
      const task = TASKS.find((one) => one === body.task);
      const on = body.wire ? `, wire ${body.wire}` : body.part ? ` ${partName(circuit, body.part)}` : '';
      const blocked = body.task === 'bridge' ? 'its feed not read first' : 'not isolated';
      return `Begun: ${task ? TASK_WORDS[task].toLowerCase() : body.task}${on}${body.override ? `, ${blocked} (${body.override})` : ''}`;
    }
    case 'plug-tag':
      return `Tag “${body.tag}” on plug ${body.plug}`;
    case 'swapped':
      return `Exchanged: ${partName(circuit, body.one)} and ${partName(circuit, body.other)}`;
    case 'swap-restored':
      return 'Exchanged parts put back';
    case 'photo':
      return `Photo ${body.when}${body.words ? `: ${body.words}` : ''}`;
    case 'photo-marks':
      return `Marks on a photo: ${body.marks.length}`;
    case 'damage':
      return `${body.when === 'as-found' ? 'Damage as found' : 'Damage done here'}: ${body.words}`;
    case 'slot-reading': {
      const ends = body.ends
        .map(({ end, value }) => `${end.replace('-', ' ')} ${valueWords(value)}`)
        .join(', ');
      const out = body.fuseOut ? ', fuse out' : '';
      return `Slot ${body.slot}: ${ends} (${FEED_STATE_WORDS[body.state].toLowerCase()}${out})`;
    }
    case 'wire-reading':
      return `${partName(circuit, body.wire)}, end ${body.end}: ${valueWords(body.value)} (${FEED_STATE_WORDS[body.state].toLowerCase()})`;
    case 'correction':
      return 'Struck an entry';
    case 'tester-proved':
      return `Tester proved on ${body.on}`;
    case 'appliance-set-aside':
      return `Appliance set aside: ${body.words}`;
    case 'test-refused':
      return `Not done: ${testWords(circuit, body.test)} (${body.reason})`;
    case 'caution-read':
      return `Caution read: ${body.caution}`;
    case 'found':
      return `Found: ${body.fault} (${body.strength}); cause ${body.cause}${body.causeWords ? `: ${body.causeWords}` : ''}`;
    case 'repair':
      return `Repair: ${body.words}${body.temporary ? ' (temporary)' : ''}`;
    case 'proof':
      return `Seen after repair: ${functionName(circuit, body.function)} ${STATE_WORDS[body.state]} (${conditionName(circuit, body.condition)})`;
    case 'watch':
      return `Watch: ${body.words}${body.due ? `, due ${body.due}` : ''}`;
    case 'watch-done':
      return `Watch item dealt with: ${body.words}`;
    case 'note':
      return `Note: ${body.words}`;
    case 'state':
      return body.state === 'closed'
        ? `Job closed${body.override ? ` although something was missing: ${body.override}` : ''}`
        : `Job ${body.state}`;
  }
}
