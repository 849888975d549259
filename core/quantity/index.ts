/** Volts, amperes, ohms, minutes, money and the numbers of forms: read and printed. */
export { labourTotal, lineTotal, moneyWords, sumOf } from './money';
export {
  formatNumber,
  formatQuantity,
  type NumberRange,
  parseReading,
  readNumber,
  type Unit,
} from './quantity';
