/** A sheet as it is read: on the page of its job, and by a guest. */
import type { Sheet, SheetLine } from '#core/log';
import { entryTimeWords, SHEET_CLOSE, sheetKind } from '@/workers/sheetHead';

export function SheetHead({
  reader,
  title,
  vehicle,
  standing,
  lines,
}: {
  reader: 'technician' | 'customer';
  title: string;
  vehicle: string;
  standing: string;
  lines: readonly string[];
}) {
  return (
    <header className="border-b-4 border-copper pb-3">
      <p className="text-sm text-soft">{sheetKind(reader)}</p>
      <h2 className="text-2xl">{title}</h2>
      <p>{vehicle}</p>
      <p className="text-lg font-bold" data-testid="sheet-standing">
        {standing}
      </p>
      {lines.map((line) => (
        <p key={line} className="text-soft">
          {line}
        </p>
      ))}
    </header>
  );
}

/** What is open, and every part of the sheet. */
export function SheetBody({ sheet }: { sheet: Sheet }) {
  return (
    <>
      {sheet.open.length > 0 ? (
        <p className="mt-3 border-2 border-ink p-2 font-bold">Not verified: {sheet.open.join('; ')}.</p>
      ) : null}
      {sheet.parts.map(({ title, lines, empty }) => (
        <section key={title} className="mt-4" data-part={title}>
          <h3 className="break-after-avoid font-bold text-copper">{title}</h3>
          {lines.length === 0 ? <p>{empty}</p> : null}
          <ul>
            {lines.map((line, index) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: lines have no other identity, and never move
              <Line key={index} line={line} />
            ))}
          </ul>
        </section>
      ))}
    </>
  );
}

/** What every sheet closes with. */
export function SheetFoot() {
  return <p className="mt-6 border-t border-line pt-2 text-sm text-soft">{SHEET_CLOSE}</p>;
}

function Line({ line: { words, by, more } }: { line: SheetLine }) {
  return (
    <li className="break-inside-avoid border-b border-line py-1 text-[0.95rem]">
      <span className="flex flex-wrap items-baseline justify-between gap-x-3 sm:flex-nowrap">
        <span>{words}</span>
        {by ? (
          <span className={`text-sm text-soft ${by.arrived ? 'sm:text-right' : 'shrink-0'}`}>
            {by.person}, <span className="reading">{entryTimeWords(by)}</span>
          </span>
        ) : null}
      </span>
      {more ? <span className="block text-sm text-soft">{more}</span> : null}
    </li>
  );
}
