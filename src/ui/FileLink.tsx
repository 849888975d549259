'use client';

import { type ReactNode, useEffect, useRef, useState } from 'react';
import { Problem } from './controls';
import { saveFile } from './saveFile';

const UNREACHED = 'The server cannot be reached. Ask again when it answers.';

type Standing =
  | { readonly is: 'idle' }
  | { readonly is: 'made'; readonly seconds: number }
  | { readonly is: 'refused'; readonly words: string };

/** A file of the job to take along, as a button: it says that the file is being made, and why it is not to be had now. */
export function FileLink({ href, children }: { href: string; children: ReactNode }) {
  const [standing, setStanding] = useState<Standing>({ is: 'idle' });
  const stop = useRef<AbortController | null>(null);
  useEffect(() => () => stop.current?.abort(), []);
  const fetchFile = async () => {
    if (stop.current) return;
    const control = new AbortController();
    stop.current = control;
    const began = performance.now();
    setStanding({ is: 'made', seconds: 0 });
    const count = setInterval(
      () => setStanding({ is: 'made', seconds: Math.round((performance.now() - began) / 1000) }),
      1000,
    );
    try {
      const answer = await fetch(href, { signal: control.signal });
      if (answer.ok) {
        const name = /filename="([^"]+)"/.exec(answer.headers.get('content-disposition') ?? '')?.[1];
        saveFile(name ?? 'every-trace', answer.headers.get('content-type') ?? '', await answer.blob());
        setStanding({ is: 'idle' });
      } else {
        const said = (await answer.json().catch(() => null)) as { readonly message?: string } | null;
        setStanding({ is: 'refused', words: said?.message ?? UNREACHED });
      }
    } catch {
      if (!control.signal.aborted) setStanding({ is: 'refused', words: UNREACHED });
    } finally {
      clearInterval(count);
      stop.current = null;
    }
  };
  return (
    <span className="inline-flex flex-col gap-1">
      <a
        href={href}
        download
        aria-busy={standing.is === 'made'}
        onClick={(event) => {
          event.preventDefault();
          void fetchFile();
        }}
        className="inline-flex min-h-11 items-center gap-2 rounded-md border-2 border-line bg-sheet px-4 font-semibold hover:border-ink"
      >
        {children}
        {standing.is === 'made' && standing.seconds > 0 ? (
          <span className="font-normal text-soft" role="status">
            being made, {standing.seconds} s
          </span>
        ) : null}
      </a>
      {standing.is === 'refused' ? <Problem>{standing.words}</Problem> : null}
    </span>
  );
}
