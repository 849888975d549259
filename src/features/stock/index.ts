export { CountView } from './CountView';
export { StockView } from './StockView';
