'use client';

import { useEffect, useState } from 'react';

/** A picture that is not there is asked for again this often. */
const AGAIN_MS = 4000;

/**
 * A picture of a job. Entries are sent before pictures, so another page may show what names it first: it is said that it
 * is not here yet, and shown once it is.
 */
export function JobPicture({ source, alt, className }: { source: string; alt: string; className: string }) {
  const [tries, setTries] = useState(0);
  const [missing, setMissing] = useState(false);
  useEffect(() => {
    if (!missing) return;
    const timer = setTimeout(() => setTries(tries + 1), AGAIN_MS);
    return () => clearTimeout(timer);
  }, [missing, tries]);
  return (
    <>
      {/* biome-ignore lint/performance/noImgElement: the picture comes from this server as it is */}
      <img
        src={tries === 0 ? source : `${source}?again=${tries}`}
        alt={alt}
        className={className}
        hidden={missing}
        draggable={false}
        onLoad={() => setMissing(false)}
        onError={() => setMissing(true)}
      />
      {missing ? (
        <p className="border border-line p-4 text-soft">
          This picture has not been received yet. It is shown once the phone that took it has sent it.
        </p>
      ) : null}
    </>
  );
}
