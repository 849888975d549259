/** A thread of its own for sheets: what the readings mean is worked out here, and laid out on paper. */

import type { PriorTable } from '#core/diagnosis';
import type { Hand } from '#core/format';
import {
  customerSheetOf,
  type JobMaps,
  jobState,
  type LogEvent,
  labelsOf,
  photoWords,
  type Sheet,
  sheetOf,
  workedScene,
  workSheetOf,
} from '#core/log';
import { entryTimeWords, headLines, sheetKind } from './sheetHead';
import { labelSheet, labelsPdf, type SheetHead, type SheetPhoto, sheetPdf } from './sheetPdf';
import { PredictionsInMemory } from './sheetPredictions';

export interface SheetAsked {
  readonly what: 'technician' | 'customer' | 'labels' | 'work';
  readonly maps: JobMaps;
  readonly events: readonly LogEvent[];
  /** Pictures by their ids, as JPEG. */
  readonly pictures: ReadonlyMap<string, Pick<SheetPhoto, 'jpeg' | 'width' | 'height'>>;
  readonly priors: PriorTable;
  readonly hand: Hand;
  readonly title: string;
  readonly vehicle: string;
  readonly shop: string;
  readonly id: string;
  readonly openedAt: string;
  /** Zone in which moments are written. */
  readonly zone: string;
  /** Of labels: which sheet, and from which place on it. */
  readonly sheet?: string | null;
  readonly first?: number;
  /** Of a work order: which plan. */
  readonly plan?: string;
}

const store = new PredictionsInMemory();

/** The PDF, as bytes; or the sheet as lines, where it is read on a page. */
export default async function make(
  asked: SheetAsked & { readonly as?: 'lines' },
): Promise<Uint8Array | Sheet> {
  const job = jobState(asked.events);
  const scene = workedScene(asked.maps, job, { priors: asked.priors, hand: asked.hand, store });
  if (asked.as === 'lines') return asked.what === 'customer' ? customerSheetOf(scene) : sheetOf(scene);
  if (asked.what === 'labels') {
    const name = `${asked.vehicle} · ${asked.title}`;
    return labelsPdf(
      labelsOf(job, scene.circuit, name, scene.panels),
      labelSheet(asked.sheet ?? null),
      asked.first ?? 1,
    );
  }
  const sheet =
    asked.what === 'customer'
      ? customerSheetOf(scene)
      : ((asked.what === 'work' ? workSheetOf(asked.maps, job, asked.plan ?? '') : null) ?? sheetOf(scene));
  const head: SheetHead = {
    kind: sheetKind(asked.what),
    title: asked.title,
    vehicle: asked.vehicle,
    shop: asked.shop,
    beneath: headLines(asked, sheet, asked.zone),
    moment: (time) => entryTimeWords(time, asked.zone),
  };
  const pictured = asked.what === 'work' ? [] : job.photos;
  const photos = pictured.flatMap((photo) => {
    const picture = asked.pictures.get(photo.photo);
    return picture ? [{ ...picture, words: photoWords(photo, scene.panels), marks: photo.marks }] : [];
  });
  return sheetPdf(sheet, head, photos);
}
