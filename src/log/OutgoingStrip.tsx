'use client';

import { PlaceLink } from '@/ui/PlaceLink';
import { SaveWaiting } from './SaveWaiting';
import { heldWords } from './waitingWords';

/** How much of other jobs waits in this browser, for whom, and the way to sign in. */
export function OutgoingStrip({
  entries,
  jobs,
  heldFor,
  signedOut,
  path,
}: {
  entries: number;
  jobs: number;
  /** Who has to sign in for it to be sent. */
  heldFor: readonly string[];
  signedOut: boolean;
  /** Where one is, to come back to. */
  path: string;
}) {
  return (
    <div
      role="status"
      className="no-print flex flex-wrap items-center gap-x-4 border-b-2 border-line bg-caution-wash px-4 py-2 font-semibold lg:px-6"
      data-testid="outgoing"
    >
      {entries === 0 ? (
        <span>Nobody is signed in here any more. What you record is kept in this browser.</span>
      ) : signedOut || heldFor.length > 0 ? (
        <span>{heldWords(entries, heldFor.join(' and ') || null)}.</span>
      ) : (
        <span>
          {entries} {entries === 1 ? 'entry' : 'entries'} of {jobs === 1 ? 'one job' : `${jobs} jobs`} kept in
          this browser, sent when the server takes {entries === 1 ? 'it' : 'them'}.
        </span>
      )}
      {entries > 0 ? <SaveWaiting /> : null}
      {signedOut ? (
        <PlaceLink
          href={`/sign-in?to=${encodeURIComponent(path)}`}
          className="inline-flex min-h-11 items-center underline underline-offset-4"
        >
          Sign in
        </PlaceLink>
      ) : null}
    </div>
  );
}
