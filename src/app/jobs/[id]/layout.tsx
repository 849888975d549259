import { notFound } from 'next/navigation';
import type { ReactNode } from 'react';
import { currentActor } from '@/access';
import { JobFrame, JobProvider } from '@/features/jobs';
import { loadJob } from '@/features/jobs/server';
import { learnedPriors } from '@/features/shop/server';

export async function generateMetadata({ params }: { params: Promise<{ id: string }> }) {
  const job = await loadJob(await currentActor(), (await params).id);
  return { title: job?.title ?? 'No such job' };
}

/** Loads a job once; its pages work from the store inside the provider. */
export default async function JobLayout({
  params,
  children,
}: {
  params: Promise<{ id: string }>;
  children: ReactNode;
}) {
  const actor = await currentActor();
  const job = await loadJob(actor, (await params).id);
  if (!job) notFound();
  const { vehicle } = job;
  return (
    <JobProvider
      personName={actor.personName}
      data={{
        id: job.id,
        title: job.title,
        openedAt: job.openedAt,
        vehicle: {
          id: vehicle.id,
          name: vehicle.name,
          make: vehicle.make,
          model: vehicle.model,
          year: vehicle.year,
          plate: vehicle.plate,
          nominalVolts: vehicle.nominalVolts,
          odometerKm: vehicle.odometerKm,
        },
        circuits: job.circuits,
        panelSet: job.panelSet,
        events: job.events,
        priors: await learnedPriors(actor),
      }}
    >
      <JobFrame>{children}</JobFrame>
    </JobProvider>
  );
}
