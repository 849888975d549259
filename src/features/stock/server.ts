/** The stock of a shop: read and changed. */
export { change, changeStock } from './changeStock';
export { movesOf, shortItems, stockOf } from './readStock';
