import { currentActor } from '@/access';
import { PriorWeights } from '@/features/shop';
import { learning } from '@/features/shop/server';

export const metadata = { title: 'Shop' };

export default async function ShopPage() {
  const actor = await currentActor();
  const { weights, jobs, reset } = await learning(actor);
  return (
    <div className="mx-auto max-w-6xl px-4 py-6 lg:px-6">
      <h1 className="text-3xl">{actor.shopName}</h1>
      <p className="text-lg text-soft">{actor.town}</p>
      <PriorWeights weights={weights} jobs={jobs} reset={reset} />
    </div>
  );
}
