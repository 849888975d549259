import { buttonClass, INPUT } from '@/ui/controls';

/** Vehicles by plate or name, and slots in any of them. */
export function FindVehicle({ text = '' }: { text?: string }) {
  return (
    <form action="/vehicles" className="my-3 max-w-xl">
      <label htmlFor="slot-search" className="mb-1 block font-semibold">
        Find a vehicle, or a slot in any of them
      </label>
      <div className="flex gap-2">
        <input
          id="slot-search"
          name="slot"
          type="search"
          defaultValue={text}
          placeholder="plate, name, fuse 14, mirror heating …"
          className={INPUT}
        />
        <button type="submit" className={buttonClass('plain')}>
          Find
        </button>
      </div>
    </form>
  );
}
