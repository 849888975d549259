import { currentActor } from '@/access';
import { CountView } from '@/features/stock';
import { stockOf } from '@/features/stock/server';

export const metadata = { title: 'Count a place' };
export const dynamic = 'force-dynamic';

export default async function CountPage() {
  return <CountView first={await stockOf(await currentActor())} />;
}
