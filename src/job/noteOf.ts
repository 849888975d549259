/** Something worked out, written onto a job as a note; what is too long for one is cut, and says so. */
import type { BodyOf } from '#core/format';

const MOST = 2000;
const CUT = ' … (cut here: too long for a note)';

export function noteOf(text: string, label?: string): BodyOf<'note'> {
  const words = text.length <= MOST ? text : `${text.slice(0, MOST - CUT.length)}${CUT}`;
  return { kind: 'note', words, ...(label === undefined ? {} : { label: label.slice(0, 200) }) };
}
