import { CountView } from '@/features/stock';
import { stockOf } from '@/features/stock/server';
import { pageActor } from '@/http/pageActor';

export const metadata = { title: 'Count a place' };
export const dynamic = 'force-dynamic';

export default async function CountPage() {
  return <CountView first={await stockOf(await pageActor())} />;
}
