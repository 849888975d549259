import { Gallery } from './Gallery';

export const metadata = { title: 'Controls' };

/** Every control of the application on one page, for whoever builds with them and for whoever checks them. */
export default function ControlsPage() {
  return (
    <div className="mx-auto max-w-4xl px-4 py-3 lg:px-6 lg:py-6">
      <h1 className="text-3xl">Controls</h1>
      <p className="mt-1 text-soft">What every view is made of. Nothing here is kept.</p>
      <Gallery />
    </div>
  );
}
