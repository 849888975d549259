/** What is asked of a feed, as it is typed and as it stands in the address. */
import { ASKED_STATES, type FeedAsk, WHEN, type Wish } from '#core/feed';
import type { Slot } from '#core/format';
import type { KeyState } from '#core/limits';
import { ampsField, loadAmps, metresField, readLoad } from '#core/sizing';

export interface TypedAsk {
  readonly load: string;
  readonly start: string;
  readonly purpose: string;
  /** One of the usual wishes, or `own`. */
  readonly when: string;
  /** `state:live,state:dead` of an own wish. */
  readonly own: string;
  readonly place: string;
  readonly duty: string;
  readonly taps: string;
  readonly metres: string;
}

export const EMPTY_ASK: TypedAsk = {
  load: '',
  start: '',
  purpose: '',
  when: 'key',
  own: '',
  place: 'cool',
  duty: 'for-good',
  taps: '',
  metres: '',
};

const ASK_FIELDS = Object.keys(EMPTY_ASK) as (keyof TypedAsk)[];

export function askIn(search: URLSearchParams): Partial<TypedAsk> {
  return Object.fromEntries(
    ASK_FIELDS.flatMap((field) => {
      const text = search.get(field);
      return text === null ? [] : [[field, text.slice(0, 300)]];
    }),
  );
}

export function searchOfAsk(typed: TypedAsk): string {
  const search = new URLSearchParams();
  for (const field of ASK_FIELDS) if (typed[field] !== EMPTY_ASK[field]) search.set(field, typed[field]);
  return search.toString();
}

/** An own wish as states. */
export function ownWishes(own: string): FeedAsk['wanted'] {
  return Object.fromEntries(
    own.split(',').flatMap((pair) => {
      const [state, wish] = pair.split(':');
      const known = ASKED_STATES.find((one) => one === state);
      return known && (wish === 'live' || wish === 'dead') ? [[known, wish as Wish]] : [];
    }),
  );
}

export function ownText(wanted: Readonly<Partial<Record<KeyState, Wish>>>): string {
  return Object.entries(wanted)
    .map(([state, wish]) => `${state}:${wish}`)
    .join(',');
}

export interface ReadAsk {
  readonly ask: FeedAsk | null;
  readonly metres: number | null;
  readonly problems: Readonly<Partial<Record<keyof TypedAsk, string>>>;
}

/** The question, or why it cannot be asked yet; what is empty and must be said is no problem until it is typed. */
export function readAsk(typed: TypedAsk, nominalVolts: number): ReadAsk {
  const problems: Partial<Record<keyof TypedAsk, string>> = {};
  const load = typed.load.trim() === '' ? null : readLoad(typed.load);
  if (load && !load.ok) problems.load = load.message;
  const start =
    typed.start.trim() === '' ? null : ampsField({ name: 'At the start', typical: '' }).read(typed.start);
  if (start && !start.ok) problems.start = start.message;
  const metres =
    typed.metres.trim() === '' ? null : metresField({ name: 'Way', typical: '' }).read(typed.metres);
  if (metres && !metres.ok) problems.metres = metres.message;
  const wanted =
    typed.when === 'own'
      ? ownWishes(typed.own)
      : (WHEN.find(({ id }) => id === typed.when) ?? WHEN[0]!).wanted;
  if (!Object.values(wanted).includes('live'))
    problems.own = 'Say at least one state in which it has to be live.';
  const amps = load?.ok ? loadAmps(load.value, nominalVolts).amps : null;
  return {
    ask:
      amps === null || Object.keys(problems).length > 0
        ? null
        : {
            amps,
            startAmps: start?.ok ? start.value : null,
            purpose: typed.purpose.trim(),
            wanted,
            place: typed.place === 'hot' ? 'hot' : 'cool',
            duty: typed.duty === 'seconds' ? 'seconds' : 'for-good',
            taps: typed.taps === '' ? [] : (typed.taps.split(',') as Slot['family'][]),
          },
    metres: metres?.ok ? metres.value : null,
    problems,
  };
}
