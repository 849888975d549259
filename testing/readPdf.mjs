/** Reads a PDF from standard input by a package that had no part in making it; prints its pages and texts as JSON. */
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';

const chunks = [];
for await (const chunk of process.stdin) chunks.push(chunk);
const task = getDocument({
  data: new Uint8Array(Buffer.concat(chunks)),
  useSystemFonts: false,
  verbosity: 0,
});
const file = await task.promise;
const pages = [];
for (let number = 1; number <= file.numPages; number++) {
  const page = await file.getPage(number);
  const [, , width, height] = page.view;
  const { items } = await page.getTextContent();
  pages.push({
    width,
    height,
    texts: items
      .filter(({ str }) => str.trim() !== '')
      .map(({ str, transform, width: long, height: tall }) => ({
        words: str,
        // From the left and upper edge, points.
        x: transform[4],
        y: height - transform[5],
        width: long,
        height: tall,
      })),
  });
}
const { info } = await file.getMetadata();
process.stdout.write(JSON.stringify({ title: info?.Title ?? '', pages }));
