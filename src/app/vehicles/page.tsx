import Link from 'next/link';
import { currentActor } from '@/features/shop/server';
import { listVehicles } from '@/features/vehicles/server';

export const metadata = { title: 'Vehicles' };

export default async function VehiclesPage() {
  const vehicles = await listVehicles(await currentActor());
  return (
    <div className="mx-auto max-w-6xl px-4 py-6 lg:px-6">
      <h1 className="mb-4 text-3xl">Vehicles</h1>
      <ul className="border-t-2 border-line">
        {vehicles.map((vehicle) => (
          <li key={vehicle.id} className="border-b border-line">
            <Link
              href={`/vehicles/${vehicle.id}`}
              className="grid gap-1 py-4 hover:bg-sunk sm:grid-cols-[1fr_14rem_8rem]"
            >
              <span>
                <span className="block text-lg font-bold">{vehicle.name}</span>
                <span className="text-soft">{vehicle.notes}</span>
              </span>
              <span>
                {vehicle.make} {vehicle.model} {vehicle.year}
                <span className="block text-soft">
                  {vehicle.nominalVolts === null ? 'voltage not known' : `${vehicle.nominalVolts} V`}
                </span>
              </span>
              <span className="reading">{vehicle.plate}</span>
            </Link>
          </li>
        ))}
      </ul>
    </div>
  );
}
