/** Whether the stock has the part that a test or a repair asks for. */
import type { KindOfPart, StockPlace } from '../format';
import { kindWords, likeForLike } from '../repair';
import { countWords, type Level } from './levels';

export interface Stock {
  readonly levels: readonly Level[];
  readonly places: readonly StockPlace[];
}

/** Items that are like what is wanted; those of which something is not said are none of them. */
export function itemsLike(
  { levels }: Pick<Stock, 'levels'>,
  wanted: KindOfPart,
  nominalVolts: number,
): Level[] {
  return levels.filter(
    ({ item }) =>
      item.part?.kind === wanted.kind &&
      likeForLike(wanted, item.part, { nominalVolts, wireMm2: null }).verdict === 'alike',
  );
}

export interface Availability {
  /** Whether the place that is asked has one. */
  readonly here: boolean;
  readonly words: string;
}

const WORTH_SAYING: ReadonlySet<KindOfPart['kind']> = new Set(['fuse', 'relay', 'lamp']);

/** What is said before somebody is sent for a part; null where the part is not known well enough, or no stock is kept. */
export function availability(
  stock: Stock,
  wanted: KindOfPart,
  nominalVolts: number,
  here: string | null,
): Availability | null {
  if (stock.levels.length === 0 || !WORTH_SAYING.has(wanted.kind)) return null;
  if (wanted.kind === 'fuse' && (wanted.ratingAmps === undefined || wanted.family === undefined)) return null;
  const like = itemsLike(stock, wanted, nominalVolts);
  const what = kindWords(wanted);
  const at = new Map<string, number>();
  for (const level of like)
    for (const { place, count } of level.at) if (count > 0) at.set(place, (at.get(place) ?? 0) + count);
  const place = stock.places.find(({ id }) => id === here) ?? null;
  const own = place ? (at.get(place.id) ?? 0) : 0;
  const unit = like[0]?.item.unit ?? 'piece';
  if (place && own > 0) return { here: true, words: `${place.name}: ${countWords(own, unit)} of ${what}` };
  const elsewhere = stock.places
    .filter(({ id }) => id !== place?.id && at.has(id))
    .map(({ id, name }) => `${name} has ${countWords(at.get(id)!, unit)}`);
  const none = place ? `No ${what} in ${place.name}` : `No ${what} in the stock`;
  if (elsewhere.length === 0) return { here: false, words: none };
  return {
    here: place === null,
    words: place ? `${none}; ${elsewhere.join(', ')}` : `${what}: ${elsewhere.join(', ')}`,
  };
}
