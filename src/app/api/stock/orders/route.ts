import { orderCsv, orderList } from '#core/stock';
import { stockOf } from '@/features/stock/server';
import { door } from '@/http/door';
import { csvResponse } from '@/ui/fileResponse';

/** What is to be ordered, as CSV. */
export const GET = door('see', async ({ actor }) =>
  csvResponse('order-list.csv', orderCsv(orderList((await stockOf(actor)).levels))),
);
