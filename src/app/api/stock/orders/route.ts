import { orderCsv, orderList } from '#core/stock';
import { currentActor } from '@/access';
import { stockOf } from '@/features/stock/server';
import { answering } from '@/http/answers';
import { csvResponse } from '@/ui/fileResponse';

/** What is to be ordered, as CSV. */
export function GET() {
  return answering(async () =>
    csvResponse('order-list.csv', orderCsv(orderList((await stockOf(await currentActor())).levels))),
  );
}
