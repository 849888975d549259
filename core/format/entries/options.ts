/** Repair or replace: what could be done, what the customer chose, and what a board repair has to answer for. */
import { Type } from 'typebox';
import { BOUNDS } from '../bounds';
import { BOARD_CHECKS } from '../lists';
import { Id, Name, numberIn, SomeText, strict, Text } from '../schemaParts';

/** One way of doing it; the latest entry with its id counts. */
export const RepairOption = Type.Object(
  {
    kind: Type.Literal('option'),
    option: Id,
    name: Name,
    /** Opens a board and solders on it: it has a list of its own. */
    board: Type.Boolean(),
    parts: Type.Array(
      Type.Object(
        {
          name: Name,
          price: numberIn(BOUNDS.price),
          count: numberIn(BOUNDS.partCount),
          from: Text,
          /** Days until it is here. */
          days: numberIn(BOUNDS.waitDays),
        },
        strict,
      ),
      { maxItems: 20 },
    ),
    minutes: numberIn(BOUNDS.repairMinutes),
    /** Of the shop, an hour. */
    rate: numberIn(BOUNDS.price),
    /** Seal, coating, warranty, an exchange part. */
    leaves: Text,
    unproved: Text,
  },
  strict,
);

export const OptionChosen = Type.Object(
  {
    kind: Type.Literal('option-chosen'),
    option: Id,
    /** Who chose it. */
    by: Name,
    words: Text,
  },
  strict,
);

export const BoardCheck = Type.Object(
  {
    kind: Type.Literal('board-check'),
    check: Type.Enum([...BOARD_CHECKS]),
    state: Type.Enum(['in-order', 'not-here']),
    words: SomeText,
  },
  strict,
);
