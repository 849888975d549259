/** A candidate in plain text, as it goes onto a job: what it is, from where that is known, what it can give, what is open. */
import { KEY_STATE_WORDS } from '../limits';
import { carrierWords, figure } from '../sizing';
import { type FeedAsk, wantedWords } from './ask';
import type { Candidate } from './candidate';

const VERDICTS: Readonly<Record<Candidate['verdict'], string>> = {
  fits: 'fits',
  'to-read': 'not sure yet',
  refused: 'refused',
};

export function feedTitle({ slot, panelName }: Pick<Candidate, 'slot' | 'panelName'>): string {
  const name = slot.meaning ?? slot.label;
  return `${slot.type} ${slot.number}${name ? ` ${name}` : ''}, ${panelName}`;
}

export function candidateText(one: Candidate, ask: FeedAsk): string {
  const states = one.states
    .filter(({ stands }) => stands !== null)
    .map(
      ({ state, stands, read }) =>
        `${KEY_STATE_WORDS[state].toLowerCase()} ${stands} (${read === null ? 'circuit' : 'read'})`,
    );
  return [
    `Feed for ${ask.purpose || 'what is added'}, ${figure(ask.amps, 'A')}; ${wantedWords(ask.wanted)}.`,
    `${feedTitle(one)}: ${VERDICTS[one.verdict]}. ${one.sentence}`,
    ...(states.length > 0 ? [`States: ${states.join(', ')}.`] : []),
    one.roomWords,
    ...one.headroom.parts.map((part) => `${part.name}: ${carrierWords(part, ask.amps, one.headroom.factor)}`),
    ...one.against.filter(({ refuses }) => !refuses).map(({ words }) => `Mind: ${words}`),
    ...(one.unread.length > 0
      ? [`Still to be read: ${one.unread.map((state) => KEY_STATE_WORDS[state].toLowerCase()).join(', ')}.`]
      : []),
    ...one.open.map((words) => `Open: ${words}`),
    one.addedFuse === null ? '' : `Fuse for what is added: ${one.addedFuse} A.`,
    one.side.sentence,
  ]
    .filter((line) => line !== '')
    .join('\n');
}
