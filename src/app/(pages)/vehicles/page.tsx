import { isUuid } from '#core/format';
import { AddVehicleFold, FindVehicle } from '@/features/vehicles';
import { countVehicles, listVehicles, searchShop, VEHICLE_PAGE } from '@/features/vehicles/server';
import { pageActor } from '@/http/pageActor';
import { ButtonLink } from '@/ui/controls';
import { PlaceLink } from '@/ui/PlaceLink';

export const metadata = { title: 'Vehicles' };

const counted = (count: number, what: string) => `${count} ${what}${count === 1 ? '' : 's'}`;

export default async function VehiclesPage({
  searchParams,
}: {
  searchParams: Promise<{ slot?: string | string[]; after?: string | string[] }>;
}) {
  const actor = await pageActor();
  const { slot = '', after } = await searchParams;
  const text = String(slot).slice(0, 80);
  const [vehicles, count, found] = await Promise.all([
    listVehicles(actor, isUuid(after) ? after : null),
    countVehicles(actor),
    text.trim() === '' ? null : searchShop(actor, text),
  ]);
  return (
    <div className="mx-auto max-w-6xl px-4 py-3 lg:px-6 lg:py-6">
      <h1 className="text-3xl">
        Vehicles <span className="reading text-copper">{count}</span>
      </h1>
      <FindVehicle text={text} />
      <AddVehicleFold first={count === 0} />
      {found ? (
        <section aria-label="Found" className="mb-8">
          <p className="font-semibold" role="status">
            {found.slots.length + found.vehicles.length === 0
              ? `No vehicle and no slot answers to “${text.trim()}”.`
              : [
                  found.vehicles.length > 0 ? counted(found.vehicles.length, 'vehicle') : '',
                  found.slots.length > 0
                    ? found.moreSlots
                      ? `the first ${counted(found.slots.length, 'slot')}; a word more tells them apart`
                      : counted(found.slots.length, 'slot')
                    : '',
                ]
                  .filter((one) => one !== '')
                  .join(', ')}
          </p>
          {found.vehicles.length > 0 ? (
            <ul className="mt-1 border-t border-line" aria-label="Vehicles found">
              {found.vehicles.map((one) => (
                <li key={one.id} className="border-b border-line">
                  <PlaceLink
                    href={`/vehicles/${one.id}`}
                    className="flex min-h-11 items-center justify-between gap-3 hover:bg-sunk"
                  >
                    <span className="font-semibold">{one.name}</span>
                    <span className="reading">{one.detail}</span>
                  </PlaceLink>
                </li>
              ))}
            </ul>
          ) : null}
          <ul className="mt-1 border-t border-line" aria-label="Slots found">
            {found.slots.map((one) => (
              <li key={one.href} className="border-b border-line">
                <PlaceLink href={one.href} className="block py-2 hover:bg-sunk">
                  <span className="font-semibold">{one.name}</span>
                  <span className="text-soft">
                    {' '}
                    — {one.detail}; {one.because}
                  </span>
                  <span className="block text-sm">{one.sentence}</span>
                </PlaceLink>
              </li>
            ))}
          </ul>
        </section>
      ) : null}
      <ul className="border-t-2 border-line">
        {vehicles.map((vehicle) => (
          <li key={vehicle.id} className="border-b border-line">
            <PlaceLink
              href={`/vehicles/${vehicle.id}`}
              className="grid grid-cols-[1fr_auto] gap-x-3 py-2.5 hover:bg-sunk sm:grid-cols-[1fr_14rem_8rem] sm:py-4"
            >
              <span className="text-lg font-bold">{vehicle.name}</span>
              <span className="reading self-center sm:order-3">{vehicle.plate}</span>
              <span className="col-span-2 text-soft sm:order-2 sm:col-span-1">
                {[
                  `${vehicle.make} ${vehicle.model} ${vehicle.year ?? ''}`.trim(),
                  vehicle.nominalVolts === null ? 'voltage not known' : `${vehicle.nominalVolts} V`,
                ]
                  .filter((one) => one !== '')
                  .join(' · ')}
              </span>
              {vehicle.notes ? (
                <span className="col-span-2 line-clamp-2 text-sm text-soft sm:order-4 sm:col-span-3">
                  {vehicle.notes}
                </span>
              ) : null}
            </PlaceLink>
          </li>
        ))}
      </ul>
      {vehicles.length === VEHICLE_PAGE ? (
        <ButtonLink href={`/vehicles?after=${vehicles.at(-1)?.id}`} className="mt-4">
          The next {VEHICLE_PAGE}
        </ButtonLink>
      ) : null}
    </div>
  );
}
