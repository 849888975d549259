/** An open file as a download: readable JSON under a plain name. */
export function fileResponse(file: object, name: string): Response {
  const plain = name
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '')
    .slice(0, 60);
  return new Response(`${JSON.stringify(file, null, 2)}\n`, {
    headers: {
      'Content-Type': 'application/json; charset=utf-8',
      'Content-Disposition': `attachment; filename="${plain || 'every-trace'}.json"`,
    },
  });
}
