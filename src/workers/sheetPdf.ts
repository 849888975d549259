/** The sheets of a job as PDF: the same sheet as on the page, laid out on A4. Millimetres outside, points inside. */
import path from 'node:path';
import PDFDocument from 'pdfkit';
import { LABEL_SHEETS, type LabelSheet, labelPlace } from '#core/limits';
import type { EntryTime, Label, Sheet, SheetLine } from '#core/log';
import { SHEET_CLOSE } from './sheetHead';

const POINTS = 72 / 25.4;
const mm = (value: number) => value * POINTS;

/** A font that has every sign of the trade: ohms, squares, arrows, ticks. */
const FONT = path.join(process.cwd(), 'node_modules/dejavu-fonts-ttf/ttf/DejaVuSansCondensed.ttf');
const BOLD = path.join(process.cwd(), 'node_modules/dejavu-fonts-ttf/ttf/DejaVuSansCondensed-Bold.ttf');

export interface SheetHead {
  /** "Hand-over sheet". */
  readonly kind: string;
  readonly title: string;
  readonly vehicle: string;
  readonly shop: string;
  /** Lines beneath: opened, entries, place. */
  readonly beneath: readonly string[];
  /** How a moment of an entry is written. */
  readonly moment: (time: EntryTime) => string;
}

/** A picture as JPEG, with its marks by their shares of width and height. */
export interface SheetPhoto {
  readonly jpeg: Uint8Array;
  readonly width: number;
  readonly height: number;
  readonly words: string;
  readonly marks: readonly { readonly x: number; readonly y: number }[];
}

function collect(document: PDFKit.PDFDocument): Promise<Buffer> {
  return new Promise((resolve, reject) => {
    const chunks: Buffer[] = [];
    document.on('data', (chunk: Buffer) => chunks.push(chunk));
    document.on('end', () => resolve(Buffer.concat(chunks)));
    document.on('error', reject);
  });
}

const MARGIN = mm(18);
const WIDTH = mm(210) - 2 * MARGIN;
const FOOT = mm(14);

/** A sheet of any length; every page says what it is of and which it is. */
export async function sheetPdf(
  sheet: Sheet,
  head: SheetHead,
  photos: readonly SheetPhoto[] = [],
): Promise<Buffer> {
  const document = new PDFDocument({
    size: 'A4',
    margins: { top: MARGIN, bottom: MARGIN + FOOT, left: MARGIN, right: MARGIN },
    bufferPages: true,
    font: FONT,
    info: { Title: `${head.kind}: ${head.title}`, Creator: 'Every Trace', Subject: head.vehicle },
    lang: 'en',
    displayTitle: true,
  });
  const done = collect(document);
  const text = (words: string, size: number, bold = false, gap = 2) =>
    document
      .font(bold ? BOLD : FONT)
      .fontSize(size)
      .text(words, MARGIN, undefined, { width: WIDTH, paragraphGap: gap });
  text(head.kind, 9);
  text(head.title, 16, true);
  text(head.vehicle, 10);
  text(sheet.standing, 12, true);
  for (const line of [head.shop, ...head.beneath]) text(line, 9);
  if (sheet.open.length > 0) {
    document.moveDown(0.4);
    text(`Not verified: ${sheet.open.join('; ')}.`, 10, true);
  }
  for (const { title, lines, empty } of sheet.parts) {
    document.moveDown(0.6);
    // A heading does not stand alone at the foot of a page.
    if (document.y > document.page.height - MARGIN - FOOT - mm(18)) document.addPage();
    text(title, 11, true);
    if (lines.length === 0 && empty !== null) text(empty, 10);
    for (const line of lines) sheetLine(document, line, head.moment);
  }
  if (photos.length > 0) photosOf(document, photos, text);
  document.moveDown(1);
  text(SHEET_CLOSE, 8);
  const { count } = document.bufferedPageRange();
  for (let page = 0; page < count; page++) {
    document.switchToPage(page);
    document.page.margins.bottom = 0;
    document
      .font(FONT)
      .fontSize(8)
      .text(
        `${head.title} · ${head.vehicle} · page ${page + 1} of ${count}`,
        MARGIN,
        document.page.height - MARGIN,
        { width: WIDTH, lineBreak: false, ellipsis: true },
      );
  }
  document.end();
  return done;
}

const GAP = mm(6);

/** Two beside each other, each with its numbers and its words. */
function photosOf(
  document: PDFKit.PDFDocument,
  photos: readonly SheetPhoto[],
  text: (words: string, size: number, bold?: boolean) => void,
): void {
  document.moveDown(0.6);
  const wide = (WIDTH - GAP) / 2;
  const tall = mm(70);
  const room = () => document.page.height - MARGIN - FOOT - document.y;
  if (room() < tall + mm(20)) document.addPage();
  text('Photos', 11, true);
  for (let from = 0; from < photos.length; from += 2) {
    if (room() < tall + mm(14)) document.addPage();
    const top = document.y;
    let bottom = top;
    for (const [column, photo] of photos.slice(from, from + 2).entries()) {
      const scale = Math.min(wide / photo.width, tall / photo.height);
      const [width, height] = [photo.width * scale, photo.height * scale];
      const left = MARGIN + column * (wide + GAP);
      document.image(Buffer.from(photo.jpeg), left, top, { width, height });
      for (const [index, mark] of photo.marks.entries()) {
        const [x, y] = [left + mark.x * width, top + mark.y * height];
        document.circle(x, y, mm(2.6)).fillAndStroke('white', 'black');
        document
          .font(BOLD)
          .fontSize(8)
          .fillColor('black')
          .text(String(index + 1), x - mm(2.6), y - 4, { width: mm(5.2), align: 'center', lineBreak: false });
      }
      document
        .font(FONT)
        .fontSize(8.5)
        .text(photo.words, left, top + height + 3, { width: wide });
      bottom = Math.max(bottom, document.y);
    }
    document.x = MARGIN;
    document.y = bottom + mm(3);
  }
}

function sheetLine(
  document: PDFKit.PDFDocument,
  { words, by, more }: SheetLine,
  moment: (time: EntryTime) => string,
): void {
  document.font(FONT).fontSize(10);
  const said = by ? `${words}  (${by.person}, ${moment(by)})` : words;
  document.text(said, MARGIN, undefined, { width: WIDTH, paragraphGap: more ? 0 : 2, indent: 0 });
  if (more) {
    document
      .fontSize(8.5)
      .fillColor('#444444')
      .text(more, MARGIN + mm(4), undefined, { width: WIDTH - mm(4), paragraphGap: 2 })
      .fillColor('black');
  }
}

export function labelSheet(id: string | null): LabelSheet {
  return LABEL_SHEETS.find((one) => one.id === id) ?? LABEL_SHEETS[0]!;
}

/** Labels on plain sheets, from a place on the first one that is still there, counted from 1. */
export async function labelsPdf(labels: readonly Label[], sheet: LabelSheet, first = 1): Promise<Buffer> {
  const document = new PDFDocument({
    size: [mm(sheet.paper[0]), mm(sheet.paper[1])],
    margin: 0,
    autoFirstPage: false,
    font: FONT,
    info: { Title: 'Labels', Creator: 'Every Trace' },
  });
  const done = collect(document);
  const [width, height] = sheet.label;
  const inset = Math.min(3, width / 12);
  let page = -1;
  for (const [index, label] of labels.entries()) {
    const at = labelPlace(sheet, first - 1 + index);
    for (; page < at.page; page++) document.addPage();
    const room = { width: mm(width - 2 * inset), height: mm(height - 2 * inset) };
    const size = fitting(document, label, room);
    document.save().rect(mm(at.x), mm(at.y), mm(width), mm(height)).clip();
    document
      .font(BOLD)
      .fontSize(size * 1.25)
      .text(label.title, mm(at.x + inset), mm(at.y + inset), { width: room.width, height: room.height });
    for (const line of label.lines) {
      document.font(FONT).fontSize(size).text(line, { width: room.width });
    }
    document.restore();
  }
  if (labels.length === 0) document.addPage().fontSize(10).text('No label.', mm(10), mm(10));
  document.end();
  return done;
}

/** The largest size at which a label has all of its words in its room, points. */
function fitting(
  document: PDFKit.PDFDocument,
  { title, lines }: Label,
  { width, height }: { readonly width: number; readonly height: number },
): number {
  for (let size = 12; size > 4; size -= 0.5) {
    let tall = document
      .font(BOLD)
      .fontSize(size * 1.25)
      .heightOfString(title, { width });
    for (const line of lines) tall += document.font(FONT).fontSize(size).heightOfString(line, { width });
    if (tall <= height) return size;
  }
  return 4;
}
