'use client';

import { useDrag } from '@use-gesture/react';
import { useEffect, useRef, useState } from 'react';
import { homography, matrix3d, type Spot } from '#core/panel';
import { Button } from '@/ui/controls';

/** A photo with its four corners, in shares of its width and height: left upper, right upper, right lower, left lower. */
export interface CoverPhoto {
  readonly url: string;
  readonly width: number;
  readonly height: number;
  readonly corners: readonly Spot[];
}

const CORNERS: readonly Spot[] = [
  { x: 0.1, y: 0.1 },
  { x: 0.9, y: 0.1 },
  { x: 0.9, y: 0.9 },
  { x: 0.1, y: 0.9 },
];
const NAMES = ['left upper', 'right upper', 'right lower', 'left lower'] as const;

/** Chooses a photo of the cover and its corners; it lies under the drawing while the box is edited, and is not kept. */
export function CoverPicker({
  photo,
  onPhoto,
}: {
  photo: CoverPhoto | null;
  onPhoto: (photo: CoverPhoto | null) => void;
}) {
  const picture = useRef<HTMLDivElement>(null);
  const bind = useDrag(({ args: [held], xy: [x, y], first }) => {
    if (first || !photo || !picture.current) return;
    const box = picture.current.getBoundingClientRect();
    const share = (value: number) => Math.min(1, Math.max(0, value));
    const corner = { x: share((x - box.left) / box.width), y: share((y - box.top) / box.height) };
    onPhoto({ ...photo, corners: photo.corners.map((one, index) => (index === held ? corner : one)) });
  });
  const nudge = (index: number, dx: number, dy: number) => {
    if (!photo) return;
    onPhoto({
      ...photo,
      corners: photo.corners.map((one, at) => (at === index ? { x: one.x + dx, y: one.y + dy } : one)),
    });
  };
  return (
    <section aria-labelledby="cover-title" data-testid="cover">
      <h2 id="cover-title" className="mb-2 border-b-2 border-line pb-1 text-lg">
        Photo of the cover underneath
      </h2>
      <label className="inline-flex min-h-11 cursor-pointer items-center rounded-md border-2 border-line bg-sheet px-4 font-semibold focus-within:outline-3 focus-within:outline-copper hover:border-ink">
        Choose a photo
        <input
          type="file"
          accept="image/*"
          className="sr-only"
          onChange={async (event) => {
            const file = event.currentTarget.files?.[0];
            if (!file) return;
            const bitmap = await createImageBitmap(file, { imageOrientation: 'from-image' }).catch(
              () => null,
            );
            if (!bitmap) return;
            const { width, height } = bitmap;
            bitmap.close();
            onPhoto({ url: URL.createObjectURL(file), width, height, corners: CORNERS });
          }}
        />
      </label>
      {photo ? (
        <>
          <p className="mt-2 text-sm text-soft">Drag each mark to a corner of the box in the photo.</p>
          <div ref={picture} className="relative mt-1 touch-none">
            {/* biome-ignore lint/performance/noImgElement: a local picture that never leaves this page */}
            <img src={photo.url} alt="The cover as photographed" className="block w-full" draggable={false} />
            {photo.corners.map((corner, index) => (
              <button
                key={NAMES[index]}
                type="button"
                aria-label={`Corner ${NAMES[index]}`}
                {...bind(index)}
                onKeyDown={(event) => {
                  const by = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[
                    event.key
                  ];
                  if (!by) return;
                  event.preventDefault();
                  event.stopPropagation();
                  nudge(index, by[0]! / 200, by[1]! / 200);
                }}
                style={{ left: `${corner.x * 100}%`, top: `${corner.y * 100}%` }}
                className="absolute size-11 -translate-x-1/2 -translate-y-1/2 rounded-full border-4 border-copper bg-white/60 font-bold text-black"
              >
                {index + 1}
              </button>
            ))}
          </div>
          <Button className="mt-2" onClick={() => onPhoto(null)}>
            Without the photo
          </Button>
        </>
      ) : null}
    </section>
  );
}

/** The straightened photo, drawn where the box is drawn: `box` is in shares of the frame it lies in. */
export function Underlay({
  photo,
  box,
}: {
  photo: CoverPhoto;
  box: { readonly x: number; readonly y: number; readonly width: number; readonly height: number };
}) {
  const frame = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState({ width: 0, height: 0 });
  useEffect(() => {
    const element = frame.current;
    if (!element) return;
    const observer = new ResizeObserver(([entry]) => {
      if (entry) setSize({ width: entry.contentRect.width, height: entry.contentRect.height });
    });
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  const from = photo.corners.map((corner) => ({ x: corner.x * photo.width, y: corner.y * photo.height }));
  const left = box.x * size.width;
  const top = box.y * size.height;
  const right = left + box.width * size.width;
  const bottom = top + box.height * size.height;
  const h = homography(from, [
    { x: left, y: top },
    { x: right, y: top },
    { x: right, y: bottom },
    { x: left, y: bottom },
  ]);
  return (
    <div ref={frame} className="pointer-events-none absolute inset-0 overflow-hidden" aria-hidden="true">
      {h && size.width > 0 ? (
        // biome-ignore lint/performance/noImgElement: a local picture that never leaves this page
        <img
          src={photo.url}
          alt=""
          data-testid="underlay"
          style={{
            width: photo.width,
            height: photo.height,
            maxWidth: 'none',
            transformOrigin: '0 0',
            transform: matrix3d(h),
          }}
        />
      ) : null}
    </div>
  );
}
