/** PDFs read back: pages in millimetres, and every text with its place. */
import { execFileSync } from 'node:child_process';
import path from 'node:path';

const MM = 25.4 / 72;

interface ReadText {
  readonly words: string;
  /** Left edge and base line from the left and upper edge of the paper, millimetres. */
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

export interface ReadPage {
  readonly width: number;
  readonly height: number;
  readonly texts: readonly ReadText[];
}

export function readPdf(bytes: Uint8Array): {
  readonly title: string;
  readonly pages: readonly ReadPage[];
  readonly text: string;
} {
  const script = path.join(process.cwd(), 'testing/readPdf.mjs');
  const printed = execFileSync(process.execPath, [script], { input: bytes, maxBuffer: 200 * 1024 * 1024 });
  const { title, pages } = JSON.parse(printed.toString('utf8')) as { title: string; pages: ReadPage[] };
  const inMm = pages.map(({ width, height, texts }) => ({
    width: width * MM,
    height: height * MM,
    texts: texts.map((one) => ({
      words: one.words,
      x: one.x * MM,
      y: one.y * MM,
      width: one.width * MM,
      height: one.height * MM,
    })),
  }));
  const text = inMm.map((page) => page.texts.map(({ words }) => words).join(' ')).join(' ');
  return { title, pages: inMm, text: text.replace(/\s+/g, ' ') };
}
