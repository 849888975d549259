/** How a form of the stock asks for a change. */
import type { StockAsk, StockTaken } from './useStock';

export type Ask = (request: StockAsk) => Promise<StockTaken>;
