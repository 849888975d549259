import { currentActor } from '@/access';
import { NewJobForm } from '@/features/jobs';
import { knownVehicles } from '@/features/vehicles/server';

export const metadata = { title: 'New job' };

export default async function NewJobPage({ searchParams }: { searchParams: Promise<{ vehicle?: string }> }) {
  const vehicles = await knownVehicles(await currentActor());
  const { vehicle } = await searchParams;
  return (
    <div className="mx-auto max-w-6xl px-4 py-6 lg:px-6">
      <h1 className="mb-5 text-3xl">New job</h1>
      <NewJobForm
        vehicles={vehicles}
        chosen={vehicles.some((one) => one.id === vehicle) ? (vehicle ?? null) : null}
      />
    </div>
  );
}
