import { stockCsv } from '#core/stock';
import { stockOf } from '@/features/stock/server';
import { door } from '@/http/door';
import { csvResponse } from '@/ui/fileResponse';

/** The whole stock as CSV, of all places. */
export const GET = door('see', async ({ actor }) =>
  csvResponse('stock.csv', stockCsv((await stockOf(actor)).levels)),
);
