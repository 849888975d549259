/** Relays that pull in and let go without end: their own load takes their supply away. */
import { settingWords } from '../settings';
import type { FindingKind } from './finding';

export const chatter: FindingKind = {
  name: 'chatter',
  find: ({ after, settings }) => {
    const found = settings.find(
      ({ before: was, after: is }) => is.oscillating.length > 0 && was.oscillating.length === 0,
    );
    if (!found) return [];
    const names = found.after.oscillating.map((id) => after.parts.find((part) => part.id === id)?.name ?? id);
    return [
      {
        kind: 'chatter',
        level: 'danger',
        words: `${names.join(', ')} never comes to rest, ${settingWords(after, found.at)}: it pulls in and lets go again.`,
        at: found.at,
        path: [...found.after.oscillating],
        amount: null,
        remedy: 'Another feed for its coil, or less load on the one it has.',
      },
    ];
  },
};
