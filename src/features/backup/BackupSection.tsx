'use client';

import { buttonClass } from '@/ui/controls';
import { dateWords } from '@/ui/dates';

/** The whole shop as one file, and when one was made last by itself. */
export function BackupSection({
  last,
  folder,
  code,
}: {
  last: { at: string; bytes: number } | null;
  folder: boolean;
  /** Of the key that its backups are signed with. */
  code: string | null;
}) {
  return (
    <section aria-labelledby="backup" className="mt-8" data-testid="backup">
      <h2 id="backup" className="border-b-2 border-line pb-2 text-xl">
        Backup
      </h2>
      <p className="mt-3 max-w-prose">
        One open file with everything the shop has entered, photos too, and no passwords. It is brought back
        on the machine with <span className="reading">npm run restore -- FILE</span>.
      </p>
      <p className="mt-2">
        {last
          ? `The last one on the machine is of ${dateWords(last.at, 'long')}, ${dateWords(last.at, 'time')}, ${sizeOf(last.bytes)}.`
          : folder
            ? 'None lies on the machine yet; one is made every night.'
            : 'None is made by itself: the program was started without a folder for them.'}
      </p>
      {code ? (
        <p className="mt-2 max-w-prose">
          Backups are signed with the key <span className="reading whitespace-nowrap">{code}</span>. Keep a
          copy of the key away from this machine. A restore on another machine with{' '}
          <span className="reading">--key</span> and this key verifies the backup, and entries keep their
          authors.
        </p>
      ) : null}
      <a href="/api/shop/backup" download className={buttonClass('plain', 'mt-3')}>
        Save a backup now
      </a>
    </section>
  );
}

function sizeOf(bytes: number): string {
  return bytes < 1_000_000 ? `${Math.ceil(bytes / 1000)} kB` : `${(bytes / 1_000_000).toFixed(1)} MB`;
}
