'use client';

import { Fold } from '@/ui/Fold';
import { useLater } from '@/ui/useLater';

const loadForm = () => import('./AddVehicle').then((loaded) => loaded.AddVehicle);

/** A vehicle in three fields, behind one line; in a shop without vehicles it stands open. */
export function AddVehicleFold({ first = false }: { first?: boolean }) {
  const Form = useLater(loadForm, first);
  return (
    <Fold title="Add a vehicle" first={first} className="mb-3">
      {Form ? <Form /> : <p className="min-h-64 text-soft">…</p>}
    </Fold>
  );
}
