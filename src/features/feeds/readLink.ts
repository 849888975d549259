/** The way from a feed into the survey of its box, at the slot and the state that are still to be read. */
import { KEY_STATE_WORDS, type KeyState } from '#core/limits';

export function readHref(
  jobId: string,
  panel: string,
  slot: string,
  state: KeyState,
  holes: boolean,
): string {
  const search = new URLSearchParams({
    do: 'survey',
    box: panel,
    slot,
    key: state,
    ...(holes ? { out: '1' } : {}),
  });
  return `/jobs/${jobId}/boxes?${search}`;
}

export function readWords(state: KeyState, holes: boolean): string {
  return `Read ${holes ? 'both holes' : 'it'}: ${KEY_STATE_WORDS[state].toLowerCase()}`;
}
