import { headers } from 'next/headers';
import { enter, PASSWORD_LEAST } from '@/access';
import { EntryForm } from '@/features/people';
import { entryOf } from '@/features/people/server';
import { PlaceLink } from '@/ui/PlaceLink';

export const metadata = { title: 'Come in' };

/** Where a link of the owner leads: it lets one person in, once. */
export default async function EntryPage({ params }: { params: Promise<{ token: string }> }) {
  const { token } = await params;
  const [entry, here] = await Promise.all([entryOf(token), enter(await headers())]);
  const signedIn = here.kind === 'actor' && here.actor.account ? here.actor.personName : null;
  return (
    <div className="mx-auto grid max-w-md gap-4">
      {entry ? (
        <>
          <h1 className="text-3xl">{entry.personName}</h1>
          <p className="text-lg">
            {entry.shopName}
            {entry.town ? `, ${entry.town}` : ''}
          </p>
          <EntryForm token={token} known={entry.userId !== null} least={PASSWORD_LEAST} signedIn={signedIn} />
        </>
      ) : (
        <>
          <h1 className="text-3xl">This link leads nowhere</h1>
          <p>It was used, it is too old, or a newer one was made. Ask the owner of the shop for another.</p>
          <PlaceLink
            href="/sign-in"
            className="inline-flex min-h-11 items-center underline underline-offset-4"
          >
            To sign in
          </PlaceLink>
        </>
      )}
    </div>
  );
}
