/** What leaves as a file: its type, and a name of plain letters that every system takes. */

/** Letters, digits and single hyphens: "2026-11-29-mb-18-kt-fan-dead". */
export function plainName(...words: readonly string[]): string {
  const plain = words
    .join(' ')
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '')
    .slice(0, 90)
    .replace(/-$/, '');
  return plain || 'every-trace';
}

/** A file of any type; `name` with its ending. */
export function download(body: BodyInit, type: string, name: string): Response {
  return new Response(body, {
    headers: {
      'Content-Type': type,
      'Content-Disposition': `attachment; filename="${name}"`,
      'Cache-Control': 'private, no-store',
    },
  });
}

/** An open file as a download: readable JSON under a plain name. */
export function fileResponse(file: object, name: string): Response {
  const text = `${JSON.stringify(file, null, 2)}\n`;
  return download(text, 'application/json; charset=utf-8', `${plainName(name)}.json`);
}

/** CSV, with the mark by which spreadsheets know UTF-8. */
export function csvResponse(name: string, text: string): Response {
  return download(`\uFEFF${text}`, 'text/csv; charset=utf-8', name);
}
