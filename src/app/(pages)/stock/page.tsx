import { StockView } from '@/features/stock';
import { stockOf } from '@/features/stock/server';
import { pageActor } from '@/http/pageActor';

export const metadata = { title: 'Stock' };
export const dynamic = 'force-dynamic';

export default async function StockPage() {
  return <StockView first={await stockOf(await pageActor())} />;
}
