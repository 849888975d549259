import { headers } from 'next/headers';
import { may } from '#core/log';
import { demoPeople, mayUseDemo, PASSWORD_LEAST } from '@/access';
import { BackupSection } from '@/features/backup';
import { backupFolder, backupsIn, ownCode } from '@/features/backup/server';
import {
  AccountSection,
  DemoChoice,
  InstallationSection,
  PeopleSection,
  ShareSection,
} from '@/features/people';
import { devicesOf, hasDemo, peopleOf, sessionsOf, shareInfo, shopsOf } from '@/features/people/server';
import { HandForm, PriorWeights, RateForm } from '@/features/shop';
import { handOf, hourlyRate, learning } from '@/features/shop/server';
import { pageActor } from '@/http/pageActor';
import { WaitingHere } from '@/log/WaitingHere';
import { PlaceLink } from '@/ui/PlaceLink';
import { Toasts } from '@/ui/Toast';

export const metadata = { title: 'Shop' };

export default async function ShopPage() {
  const actor = await pageActor();
  const owns = may(actor.role, 'own');
  const [{ weights, jobs, reset }, hand, rate, sessions, shops, demo] = await Promise.all([
    learning(actor),
    handOf(actor),
    hourlyRate(actor),
    sessionsOf(actor),
    shopsOf(actor),
    actor.demo && mayUseDemo(await headers()) ? demoPeople() : [],
  ]);
  const [people, devices, demoThere] = owns
    ? await Promise.all([peopleOf(actor), devicesOf(actor), hasDemo()])
    : [[], [], false];
  const folder = owns ? backupFolder() : null;
  const code = owns ? await ownCode() : null;
  const newest = folder === null ? undefined : (await backupsIn(folder))[0];
  const last = newest ? { at: newest.at.toISOString(), bytes: newest.bytes } : null;
  return (
    <Toasts>
      <div className="mx-auto max-w-6xl px-4 py-6 lg:px-6">
        <h1 className="text-3xl">{actor.shopName}</h1>
        <p className="text-lg text-soft">{actor.town}</p>
        {actor.account ? (
          <AccountSection
            person={actor.personName}
            personId={actor.personId}
            sessions={sessions}
            shops={shops}
            least={PASSWORD_LEAST}
          />
        ) : (
          <section className="mt-6 grid gap-2" data-testid="demo-people">
            <h2 className="border-b-2 border-line pb-2 text-xl">The demo, seen as</h2>
            <DemoChoice people={demo} here={actor.personId} />
            <p>
              <PlaceLink
                href="/begin"
                className="inline-flex min-h-11 items-center underline underline-offset-4"
              >
                Begin a shop of your own
              </PlaceLink>
            </p>
          </section>
        )}
        {owns ? <PeopleSection people={people} self={actor.personId} /> : null}
        <ShareSection share={await shareInfo()} />
        <WaitingHere />
        {owns ? <BackupSection last={last} folder={folder !== null} code={code} /> : null}
        {owns && !actor.demo ? <InstallationSection devices={devices} demoThere={demoThere} /> : null}
        <HandForm person={actor.personName} hand={hand} />
        <RateForm rate={rate} mayChange={owns} />
        <PriorWeights weights={weights} jobs={jobs} reset={reset} mayChange={owns} />
        <p className="mt-8">
          <PlaceLink
            href="/controls"
            className="inline-flex min-h-11 items-center underline underline-offset-4"
          >
            All controls on one page
          </PlaceLink>
        </p>
      </div>
    </Toasts>
  );
}
