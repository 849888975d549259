import { currentActor } from '@/access';
import { StockView } from '@/features/stock';
import { stockOf } from '@/features/stock/server';

export const metadata = { title: 'Stock' };
export const dynamic = 'force-dynamic';

export default async function StockPage() {
  return <StockView first={await stockOf(await currentActor())} />;
}
