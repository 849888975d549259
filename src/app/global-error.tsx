'use client';

import { useEffect } from 'react';

/** Stands in for the whole page, so it brings its own frame and needs no style sheet. */
export default function GlobalError({ error, reset }: { error: Error; reset: () => void }) {
  useEffect(() => console.error(error), [error]);
  return (
    <html lang="en-GB">
      <body
        style={{
          fontFamily: 'system-ui, sans-serif',
          margin: '4rem auto',
          maxWidth: '36rem',
          padding: '0 1rem',
        }}
      >
        <h1>The workshop’s data cannot be reached just now</h1>
        <p>
          The database did not answer. Readings already entered are kept in this browser and are sent when the
          connection is back.
        </p>
        <button type="button" onClick={reset} style={{ minHeight: 44, padding: '0 1rem', fontWeight: 700 }}>
          Try again
        </button>
      </body>
    </html>
  );
}
