/** The stock of a shop: items, places, moves, and what the pages ask of it. What is there is the sum of the moves. */
import { type Static, Type } from 'typebox';
import { BOUNDS } from './bounds';
import { PartKindSchema } from './entries/repair';
import { STOCK_PLACES, STOCK_SORTS, STOCK_UNITS } from './lists';
import { Name, numberIn, oneOfKind, strict, text, Uuid } from './schemaParts';

const StockItemSchema = Type.Object(
  {
    id: Uuid,
    sort: Type.Enum([...STOCK_SORTS]),
    name: Name,
    /** What decides whether it is like another; left out where only its name is known. */
    part: Type.Optional(PartKindSchema),
    unit: Type.Enum([...STOCK_UNITS]),
    /** Below this it is short; zero where nobody minds. */
    minimum: numberIn(BOUNDS.stockCount),
    /** How many are ordered at once. */
    reorder: numberIn(BOUNDS.stockCount),
  },
  strict,
);

const StockPlaceSchema = Type.Object(
  {
    id: Uuid,
    name: Name,
    sort: Type.Enum([...STOCK_PLACES]),
    /** Whose own spares these are. */
    vehicleId: Type.Optional(Uuid),
  },
  strict,
);

const Counted = Type.Object({ item: Uuid, count: numberIn(BOUNDS.stockCount) }, strict);
const one = {
  id: Uuid,
  item: Uuid,
  count: numberIn(BOUNDS.stockMove),
  words: text(200),
  /** Also where the place has fewer. */
  allTheSame: Type.Optional(Type.Boolean()),
};

/** Each with an id of its own, so that a repeat changes nothing. */
export const StockRequestSchema = oneOfKind(
  Type.Object(
    {
      kind: Type.Literal('item'),
      id: Uuid,
      item: StockItemSchema,
      /** As the page showed it, where it is there already: what others have changed meanwhile stays. */
      was: Type.Optional(StockItemSchema),
    },
    strict,
  ),
  Type.Object({ kind: Type.Literal('place'), id: Uuid, place: StockPlaceSchema }, strict),
  Type.Object({ kind: Type.Literal('booked'), place: Uuid, ...one }, strict),
  Type.Object({ kind: Type.Literal('scrapped'), place: Uuid, ...one }, strict),
  Type.Object({ kind: Type.Literal('moved'), from: Uuid, to: Uuid, ...one }, strict),
  Type.Object(
    {
      kind: Type.Literal('counted'),
      id: Uuid,
      place: Uuid,
      counts: Type.Array(Counted, { minItems: 1, maxItems: 2000 }),
    },
    strict,
  ),
  Type.Object(
    {
      kind: Type.Literal('import'),
      id: Uuid,
      place: Uuid,
      items: Type.Array(StockItemSchema, { maxItems: 2000 }),
      /** Counted at the place; what is not named stays as it is. */
      counts: Type.Array(Counted, { maxItems: 2000 }),
    },
    strict,
  ),
);

export type StockItem = Static<typeof StockItemSchema>;
export type StockPlace = Static<typeof StockPlaceSchema>;
export type StockRequest = Static<typeof StockRequestSchema>;
