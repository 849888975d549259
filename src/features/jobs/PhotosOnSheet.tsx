'use client';

import { photoWords } from '#core/log';
import { JobPicture } from '@/job/JobPicture';
import { useJob } from '@/job/JobProvider';

/** Photos with their marks, on the hand-over sheet. */
export function PhotosOnSheet() {
  const { data, job } = useJob();
  const { photos } = job;
  if (photos.length === 0) return null;
  return (
    <section className="mt-4">
      <h3 className="font-bold text-copper">Photos</h3>
      <ul className="mt-2 grid grid-cols-2 gap-4">
        {photos.map((photo) => (
          <li key={photo.photo}>
            <div className="relative">
              <JobPicture
                source={`/api/photos/${photo.photo}`}
                alt={`Taken ${photo.when} the work`}
                className="block w-full"
              />
              {photo.marks.map((mark, index) => (
                <span
                  key={`${mark.x} ${mark.y}`}
                  data-mark
                  style={{ left: `${mark.x * 100}%`, top: `${mark.y * 100}%` }}
                  className="absolute -translate-x-1/2 -translate-y-1/2 rounded-full border-2 border-black bg-white px-2 font-bold text-black"
                >
                  {index + 1}
                </span>
              ))}
            </div>
            <p className="text-sm">{photoWords(photo, data.panelSet?.panels ?? [])}</p>
          </li>
        ))}
      </ul>
    </section>
  );
}
