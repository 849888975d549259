/** The stock of a shop: what is there, what is short, whether it has the part that is wanted, and its CSV. */
export {
  orderCsv,
  previewStockCsv,
  STOCK_COLUMNS,
  type StockColumn,
  type StockCsvPreview,
  sameItem,
  stockCsv,
} from './csv';
export { type Availability, availability, itemsLike, type Stock } from './find';
export {
  countWords,
  isShort,
  type Level,
  levelsOf,
  type Move,
  type OrderLine,
  orderList,
  rounded,
  toOrder,
  whyNotMoved,
} from './levels';
