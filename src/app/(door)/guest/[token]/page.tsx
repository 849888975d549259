import { SheetBody, SheetFoot, SheetHead } from '@/features/jobs';
import { guestOf, jobSheet } from '@/features/jobs/server';
import { NotNow } from '@/http/notNow';
import { dateWords } from '@/ui/dates';
import { FileLink } from '@/ui/FileLink';

export const metadata = { title: 'Sheet of a job' };

/** What is refused for the moment; everything else is thrown on. */
function notNow(error: unknown): NotNow {
  if (error instanceof NotNow) return error;
  throw error;
}

/** One sheet, for somebody without an account; nothing else of the shop. */
export default async function GuestPage({ params }: { params: Promise<{ token: string }> }) {
  const { token } = await params;
  const guest = await guestOf(token);
  const made = guest ? await jobSheet(guest.reader, guest.jobId, guest.sheet).catch(notNow) : null;
  if (made instanceof NotNow) {
    return (
      <div className="mx-auto max-w-xl">
        <h1 className="text-3xl">The sheet cannot be made now</h1>
        <p className="mt-3">{made.words} Load this page again.</p>
      </div>
    );
  }
  if (!guest || !made) {
    return (
      <div className="mx-auto max-w-xl">
        <h1 className="text-3xl">This link leads nowhere</h1>
        <p className="mt-3">It has ended. Ask the workshop for another.</p>
      </div>
    );
  }
  return (
    <div className="mx-auto max-w-3xl">
      <div className="no-print mb-4 flex flex-wrap items-center justify-between gap-2">
        <p>
          {guest.reader.shopName}
          {guest.reader.town ? `, ${guest.reader.town}` : ''}{' '}
          <span className="text-soft">· this link works until {dateWords(guest.until, 'long')}</span>
        </p>
        <FileLink href={`/api/guest/${token}`}>PDF</FileLink>
      </div>
      <article className="border-2 border-line bg-sheet p-6 print:border-0 print:p-0" data-testid="sheet">
        <SheetHead
          reader={guest.sheet}
          title={made.title}
          vehicle={made.vehicle}
          standing={made.sheet.standing}
          lines={made.lines}
        />
        <SheetBody sheet={made.sheet} />
        <SheetFoot />
      </article>
    </div>
  );
}
