/** The one door of pages: who looks, or the way to sign in. */
import { headers } from 'next/headers';
import { redirect } from 'next/navigation';
import { cache } from 'react';
import { may, type Need } from '#core/log';
import { type Actor, enter } from '@/access';
import { ASKED_HEADER } from './asked';

const entered = cache(async () => enter(await headers()));

/** Who looks at a page that needs `need`. Whoever is nobody is led to sign in, and from there back. */
export async function pageActor(need: Need = 'see'): Promise<Actor> {
  const here = await entered();
  if (here.kind === 'nobody') {
    const asked = (await headers()).get(ASKED_HEADER) ?? '/';
    redirect(asked === '/' ? '/sign-in' : `/sign-in?to=${encodeURIComponent(asked)}`);
  }
  if (!may(here.actor.role, need)) redirect('/');
  return here.actor;
}
