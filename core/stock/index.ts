/** The stock of a shop: what is there, what is short, whether it has the part that is wanted, and its CSV. */
export { changedItem } from './changedItem';
export {
  itemKey,
  orderCsv,
  previewStockCsv,
  STOCK_COLUMNS,
  type StockColumn,
  stockCsv,
} from './csv';
export { availability, itemsLike, type Stock } from './find';
export {
  countWords,
  isShort,
  type Level,
  levelsOf,
  orderList,
  rounded,
  toOrder,
  whyNotMoved,
} from './levels';
