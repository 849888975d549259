/** Volts, amperes, ohms, minutes and the numbers of forms: read and printed. */
export {
  formatNumber,
  formatQuantity,
  type NumberRange,
  parseReading,
  readNumber,
  type Unit,
} from './quantity';
