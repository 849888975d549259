'use client';

import { useEffect, useState } from 'react';
import { eventWords } from '#core/log';
import type { Refusal } from '@/log/sender';
import { Button, Problem } from '@/ui/controls';
import { saveFile } from '@/ui/saveFile';
import { useJob } from './JobProvider';

/**
 * What was made here and the server will not take: each with its reason, kept in this browser until it is taken, saved
 * as a file, or given up by its name.
 */
export function Refusals() {
  const { refusals, tryAgain, rejection, disagreements } = useJob();
  return (
    <>
      {disagreements.length > 0 ? (
        <div className="no-print px-3 py-2 lg:px-5" data-testid="disagreements">
          <Problem>
            The circuits of this job contradict each other; what follows may be wrong until one is put right.{' '}
            {disagreements.map((one) => one.message).join(' ')}
          </Problem>
        </div>
      ) : null}
      {rejection ? (
        <div className="no-print px-3 py-2 lg:px-5" data-testid="rejection">
          <Problem>Not recorded. {rejection}</Problem>
        </div>
      ) : null}
      {refusals.length > 0 ? (
        <section
          className="no-print border-b-2 border-line bg-caution-wash px-3 py-3 lg:px-5"
          aria-label="Not accepted by the server"
          data-testid="refusals"
        >
          <div className="flex flex-wrap items-center justify-between gap-2">
            <p className="font-bold">
              {refusals.length === 1 ? 'One entry was' : `${refusals.length} entries were`} not accepted. Kept
              in this browser; the others go on.
            </p>
            <Button onClick={tryAgain}>Try again</Button>
          </div>
          <ul className="mt-2 space-y-3">
            {refusals.map((one) => (
              <RefusedThing key={one.id} refusal={one} />
            ))}
          </ul>
        </section>
      ) : null}
    </>
  );
}

function RefusedThing({ refusal }: { refusal: Refusal }) {
  const { circuit, giveUp } = useJob();
  const [asking, setAsking] = useState(false);
  const { what } = refusal;
  const name = 'entry' in what ? eventWords(circuit, what.entry.body) : 'A photo';
  const save = () => {
    if ('entry' in what)
      saveFile(`entry-${refusal.id}.json`, 'application/json', JSON.stringify(what.entry, null, 2));
    else
      saveFile(
        `photo-${refusal.id}.${what.picture.type.split('/')[1] ?? 'jpg'}`,
        what.picture.type,
        what.picture,
      );
  };
  return (
    <li className="flex flex-wrap items-start gap-3">
      {'picture' in what ? <RefusedPicture picture={what.picture} /> : null}
      <div className="min-w-0 flex-1 basis-56">
        <p className="font-semibold break-words">{name}</p>
        <p className="break-words">{refusal.message}</p>
        <div className="mt-1 flex flex-wrap gap-2">
          <Button onClick={save}>Save as a file</Button>
          {asking ? (
            <>
              <Button onClick={() => void giveUp(refusal.id)}>Yes, give up: {short(name)}</Button>
              <Button look="primary" onClick={() => setAsking(false)}>
                Keep it
              </Button>
            </>
          ) : (
            <Button onClick={() => setAsking(true)}>Give it up</Button>
          )}
        </div>
      </div>
    </li>
  );
}

function RefusedPicture({ picture }: { picture: Blob }) {
  const [url, setUrl] = useState<string | null>(null);
  useEffect(() => {
    const made = URL.createObjectURL(picture);
    setUrl(made);
    return () => URL.revokeObjectURL(made);
  }, [picture]);
  if (!url) return null;
  // biome-ignore lint/performance/noImgElement: the picture is in this browser only
  return <img src={url} alt="Not accepted by the server" className="h-20 border-2 border-line" />;
}

function short(name: string): string {
  return name.length > 40 ? `${name.slice(0, 39)}…` : name;
}
