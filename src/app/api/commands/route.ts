import { currentActor } from '@/access';
import { openJobs } from '@/features/jobs/server';
import { vehiclesWithMaps } from '@/features/vehicles/server';
import { answering } from '@/http/answers';

/** What the command palette can go to: open jobs, vehicles, their circuits and boxes. */
export function GET() {
  return answering(async () => {
    const actor = await currentActor();
    const [jobs, vehicles] = await Promise.all([openJobs(actor), vehiclesWithMaps(actor)]);
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
          ...vehicle.circuits.map((circuit) => ({
            name: circuit.name,
            detail: `circuit of ${vehicle.name}`,
            href: `/vehicles/${vehicle.id}/circuits/${encodeURIComponent(circuit.fileId)}`,
          })),
          ...(vehicle.hasBoxes
            ? [{ name: `Boxes of ${vehicle.name}`, detail: 'panels', href: `/vehicles/${vehicle.id}/panels` }]
            : []),
        ]),
      ],
    });
  });
}
