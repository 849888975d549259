/** The stock of a shop: read and changed. */
export { change, changeStock, type StockAnswer } from './changeStock';
export { type MoveLine, movesOf, shortItems, stockOf } from './readStock';
