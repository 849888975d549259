import { currentActor } from '@/access';
import { HandForm, PriorWeights, RateForm } from '@/features/shop';
import { handOf, hourlyRate, learning } from '@/features/shop/server';
import { PlaceLink } from '@/ui/PlaceLink';

export const metadata = { title: 'Shop' };

export default async function ShopPage() {
  const actor = await currentActor();
  const [{ weights, jobs, reset }, hand, rate] = await Promise.all([
    learning(actor),
    handOf(actor),
    hourlyRate(actor),
  ]);
  return (
    <div className="mx-auto max-w-6xl px-4 py-6 lg:px-6">
      <h1 className="text-3xl">{actor.shopName}</h1>
      <p className="text-lg text-soft">{actor.town}</p>
      <HandForm person={actor.personName} hand={hand} />
      <RateForm rate={rate} />
      <PriorWeights weights={weights} jobs={jobs} reset={reset} />
      <p className="mt-8">
        <PlaceLink
          href="/controls"
          className="inline-flex min-h-11 items-center underline underline-offset-4"
        >
          All controls on one page
        </PlaceLink>
      </p>
    </div>
  );
}
