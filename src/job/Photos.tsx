'use client';

import { type ChangeEvent, type PointerEvent, useState } from 'react';
import { type BodyOf, type Panel, PHOTO_LONGEST_SIDE, type Slot } from '#core/format';
import type { JobPhoto } from '#core/log';
import { Choice } from '@/ui/Choice';
import { Button, Problem } from '@/ui/controls';
import { newId } from '@/ui/newId';
import { JobPicture } from './JobPicture';
import { useJob } from './JobProvider';
import { usePicture } from './usePicture';

const WHEN = ['before', 'during', 'after'] as const;

/** Scaled, turned upright and drawn anew, so that nothing but the picture is left; null where it cannot be read. */
async function scaled(file: File): Promise<Blob | null> {
  try {
    const picture = await createImageBitmap(file, { imageOrientation: 'from-image' });
    const factor = Math.min(1, PHOTO_LONGEST_SIDE / Math.max(picture.width, picture.height));
    const canvas = document.createElement('canvas');
    canvas.width = Math.round(picture.width * factor);
    canvas.height = Math.round(picture.height * factor);
    canvas.getContext('2d')?.drawImage(picture, 0, 0, canvas.width, canvas.height);
    return await new Promise((resolve) => canvas.toBlob(resolve, 'image/jpeg', 0.85));
  } catch {
    return null;
  }
}

type Step = NonNullable<BodyOf<'photo'>['step']>;

/** Photos of a box, or of a step of the job: taken or chosen here, marked with a tap, kept with the job. */
export function Photos({ panel, slot, step }: { panel?: Panel; slot?: Slot; step?: Step }) {
  const { job, record, keepPicture } = useJob();
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const [when, setWhen] = useState<(typeof WHEN)[number]>('before');
  const here = job.photos.filter((one) =>
    panel ? one.panel === panel.id : one.panel === undefined && one.step === step,
  );
  const take = async (event: ChangeEvent<HTMLInputElement>) => {
    const input = event.currentTarget;
    const file = input.files?.[0];
    if (!file) return;
    setBusy(true);
    setProblem(null);
    const picture = await scaled(file);
    input.value = '';
    setBusy(false);
    if (!picture) {
      setProblem(`“${file.name}” is no picture that can be read. Take a JPEG, PNG or WebP.`);
      return;
    }
    const id = newId();
    await keepPicture(id, picture);
    record({
      kind: 'photo',
      photo: id,
      words: '',
      ...(panel ? { panel: panel.id } : {}),
      ...(slot ? { slot: slot.id } : {}),
      ...(step ? { step } : {}),
      when,
    });
  };
  return (
    <section className="mt-6" aria-label="Photos" data-testid="photos">
      <h3 className="border-b-2 border-line pb-1 text-lg">Photos</h3>
      {here.length === 0 ? (
        <p className="mt-2">
          {panel
            ? 'Take one before anything is touched: where every fuse, plug and cable stood. Tap it to mark a spot.'
            : 'Before, while it is open, and after. Tap a photo to mark a spot.'}
        </p>
      ) : null}
      <div className="mt-2 flex flex-wrap items-center gap-2">
        <label className="inline-flex min-h-11 cursor-pointer items-center rounded-md border-2 border-line bg-sheet px-4 font-semibold focus-within:outline-3 focus-within:outline-copper hover:border-ink">
          {busy ? 'Keeping it …' : 'Take or choose a photo'}
          <input
            type="file"
            accept="image/*"
            capture="environment"
            onChange={take}
            disabled={busy}
            className="sr-only"
          />
        </label>
        <Choice
          legend="Taken when"
          quiet
          shape="row"
          options={WHEN.map((id) => ({ id, name: id }))}
          chosen={when}
          onChoose={(id) => setWhen(id as typeof when)}
        />
      </div>
      {problem ? (
        <div className="mt-2">
          <Problem>{problem}</Problem>
        </div>
      ) : null}
      <ul className="mt-3 grid gap-4 sm:grid-cols-2">
        {here.map((photo) => (
          <li key={photo.photo}>
            <MarkedPhoto
              photo={photo}
              onMarks={(marks) => record({ kind: 'photo-marks', photo: photo.photo, marks: [...marks] })}
            />
          </li>
        ))}
      </ul>
    </section>
  );
}

function MarkedPhoto({ photo, onMarks }: { photo: JobPhoto; onMarks: (marks: JobPhoto['marks']) => void }) {
  const source = usePicture(photo.photo);
  const [draft, setDraft] = useState<{ x: number; y: number } | null>(null);
  const [words, setWords] = useState('');
  const place = (event: PointerEvent<HTMLDivElement>) => {
    const box = event.currentTarget.getBoundingClientRect();
    setDraft({ x: (event.clientX - box.left) / box.width, y: (event.clientY - box.top) / box.height });
  };
  const add = () => {
    if (!draft) return;
    onMarks([...photo.marks, { ...draft, words: words.trim() }]);
    setDraft(null);
    setWords('');
  };
  const shown = draft ? [...photo.marks, { ...draft, words }] : photo.marks;
  return (
    <figure>
      <div className="relative cursor-crosshair" onPointerDown={place}>
        {source === '' ? null : (
          <JobPicture
            source={source}
            alt={`Taken ${photo.when} the work${photo.words ? `: ${photo.words}` : ''}`}
            className="block w-full border-2 border-line"
          />
        )}
        {shown.map((mark, index) => (
          <span
            key={`${mark.x} ${mark.y}`}
            data-mark
            style={{ left: `${mark.x * 100}%`, top: `${mark.y * 100}%` }}
            className="pointer-events-none absolute -translate-x-1/2 -translate-y-1/2 rounded-full border-2 border-black bg-white px-2 font-bold text-black"
          >
            {index + 1}
          </span>
        ))}
      </div>
      <figcaption className="mt-1 text-sm">
        <span className="text-soft">
          {photo.when}
          {photo.slot ? `, at ${photo.slot.replace('-', ' ')}` : ''}
        </span>
        <ol className="list-decimal pl-5">
          {photo.marks.map((mark) => (
            <li key={`${mark.x} ${mark.y}`}>{mark.words || 'marked'}</li>
          ))}
        </ol>
        {draft ? (
          <span className="mt-1 flex flex-wrap gap-2">
            <input
              aria-label="What the mark says"
              value={words}
              maxLength={60}
              onChange={(event) => setWords(event.target.value)}
              className="h-11 min-w-0 flex-1 rounded-md border-2 border-line bg-sheet px-2 text-base"
            />
            <Button onClick={add}>Keep the mark</Button>
            <Button onClick={() => setDraft(null)}>Leave it</Button>
          </span>
        ) : photo.marks.length > 0 ? (
          <Button look="quiet" onClick={() => onMarks(photo.marks.slice(0, -1))}>
            Take the last mark back
          </Button>
        ) : null}
      </figcaption>
    </figure>
  );
}
