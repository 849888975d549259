import { listJobs } from '@/features/jobs/server';
import { circuitNames, recentVehicles } from '@/features/vehicles/server';
import { door } from '@/http/door';

/** Most jobs and vehicles that the palette has at hand; all others are found by their name. */
const AT_HAND = 12;

/** What the command palette can go to before anything is typed: the jobs and vehicles worked on last. */
export const GET = door('see', async ({ actor }) => {
  const [jobs, vehicles] = await Promise.all([
    listJobs(actor, 'open', { limit: AT_HAND }),
    recentVehicles(actor, AT_HAND),
  ]);
  const circuits = await circuitNames(
    actor,
    vehicles.map((one) => one.id),
  );
  return Response.json({
    places: [
      ...jobs.map((job) => ({
        name: job.title,
        detail: `job on ${job.vehicleName}`,
        href: `/jobs/${job.id}`,
      })),
      ...vehicles.flatMap((vehicle) => [
        { name: vehicle.name, detail: `vehicle, ${vehicle.plate}`, href: `/vehicles/${vehicle.id}` },
        { name: `New job on ${vehicle.name}`, detail: 'job', href: `/jobs/new?vehicle=${vehicle.id}` },
        ...circuits
          .filter((circuit) => circuit.vehicleId === vehicle.id)
          .map((circuit) => ({
            name: circuit.name,
            detail: `circuit of ${vehicle.name}`,
            href: `/vehicles/${vehicle.id}/circuits/${encodeURIComponent(circuit.fileId)}`,
          })),
        ...(vehicle.hasBoxes
          ? [
              {
                name: `Boxes of ${vehicle.name}`,
                detail: 'panels',
                href: `/vehicles/${vehicle.id}/panels`,
              },
              {
                name: `Find a feed on ${vehicle.name}`,
                detail: 'where current can be taken',
                href: `/vehicles/${vehicle.id}/feed`,
              },
            ]
          : []),
      ]),
    ],
  });
});
