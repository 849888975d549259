import { stockCsv } from '#core/stock';
import { currentActor } from '@/access';
import { stockOf } from '@/features/stock/server';
import { answering } from '@/http/answers';
import { csvResponse } from '@/ui/fileResponse';

/** The whole stock as CSV, of all places. */
export function GET() {
  return answering(async () =>
    csvResponse('stock.csv', stockCsv((await stockOf(await currentActor())).levels)),
  );
}
