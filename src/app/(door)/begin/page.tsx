import { headers } from 'next/headers';
import { PASSWORD_LEAST } from '@/access';
import { BeginForm } from '@/features/people';
import { mayBegin } from '@/features/people/server';
import { PlaceLink } from '@/ui/PlaceLink';

export const metadata = { title: 'Begin a shop' };

export default async function BeginPage() {
  const allowed = await mayBegin(await headers());
  return (
    <div className="mx-auto grid max-w-xl gap-4">
      <h1 className="text-3xl">Begin a shop</h1>
      {allowed ? (
        <>
          <p>
            It begins empty. The demo stays beside it, a shop of its own, until you remove it on the Shop
            page. From then on people sign in.
          </p>
          <BeginForm least={PASSWORD_LEAST} />
        </>
      ) : (
        <p>A shop is begun on the machine itself, or by the owner of one.</p>
      )}
      <p>
        <PlaceLink href="/sign-in" className="inline-flex min-h-11 items-center underline underline-offset-4">
          To sign in
        </PlaceLink>
      </p>
    </div>
  );
}
