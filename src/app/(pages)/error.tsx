'use client';

import { Button } from '@/ui/controls';

export default function ErrorPage({ reset }: { error: Error; reset: () => void }) {
  return (
    <div className="mx-auto max-w-xl px-4 py-16">
      <h1 className="text-2xl">The workshop’s data cannot be reached just now</h1>
      <p className="mt-3">
        The database did not answer, or the page met an error. Readings already entered are kept in this
        browser and are sent when the connection is back.
      </p>
      <p className="mt-6">
        <Button look="primary" onClick={reset}>
          Try again
        </Button>
      </p>
    </div>
  );
}
