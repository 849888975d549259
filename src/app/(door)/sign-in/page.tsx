import { headers } from 'next/headers';
import { demoPeople, isAtThisMachine, mayUseDemo } from '@/access';
import { DemoChoice, SignInForm } from '@/features/people';
import { hasDemo, hasOwnShop } from '@/features/people/server';
import { placeAfter } from '@/http/asked';
import { ButtonLink } from '@/ui/controls';

export const metadata = { title: 'Sign in' };

export default async function SignInPage({
  searchParams,
}: {
  searchParams: Promise<{ to?: string | string[] }>;
}) {
  const { to } = await searchParams;
  const here = await headers();
  const [own, demo] = await Promise.all([hasOwnShop(), mayUseDemo(here) ? hasDemo() : false]);
  return (
    <div className="mx-auto grid max-w-md gap-8">
      <section className="grid gap-4">
        <h1 className="text-3xl">Sign in</h1>
        {own ? (
          <SignInForm to={placeAfter(typeof to === 'string' ? to : null)} />
        ) : (
          <p>
            No shop has been begun here yet, so nobody can sign in.{' '}
            {isAtThisMachine(here)
              ? 'Begin one below.'
              : 'It is begun on the machine itself, in a browser there.'}
          </p>
        )}
      </section>
      {isAtThisMachine(here) ? (
        <section className="grid gap-3 border-t-2 border-line pt-4">
          {own ? null : <ButtonLink href="/begin">Begin a shop of your own</ButtonLink>}
          {demo ? (
            <>
              <h2 className="text-lg font-bold">Only looking? The demo, on this machine</h2>
              <DemoChoice people={await demoPeople()} />
            </>
          ) : null}
        </section>
      ) : null}
    </div>
  );
}
