'use client';

import { useJob } from './JobProvider';

/** Boxes on the hand-over sheet: damage as found and done here, what stood in slots, photos with their marks. */
export function BoxesOnSheet() {
  const { data, job } = useJob();
  const { damages, slotStates, photos } = job;
  if (damages.length === 0 && slotStates.length === 0 && photos.length === 0) return null;
  const panelName = (id: string | undefined) =>
    data.panelSet?.panels.find((one) => one.id === id)?.name ?? id ?? '';
  const slotName = (panel: string, slot: string) => {
    const found = data.panelSet?.panels.find((one) => one.id === panel)?.slots.find((one) => one.id === slot);
    return found ? `${found.type} ${found.number}` : slot;
  };
  return (
    <>
      {(['as-found', 'by-us'] as const).map((when) => {
        const list = damages.filter((one) => one.when === when);
        return list.length === 0 ? null : (
          <div key={when}>
            <p className="font-bold">{when === 'as-found' ? 'Damage as found' : 'Damage done here'}</p>
            <ul>
              {list.map((one) => (
                <li key={one.eventId}>
                  · {panelName(one.panel)}: {one.words}
                </li>
              ))}
            </ul>
          </div>
        );
      })}
      {slotStates.length > 0 ? (
        <ul>
          {slotStates.map((one) => (
            <li key={one.id}>
              · {panelName(one.panel)}, {slotName(one.panel, one.slot)}: {one.state.replace('-', ' ')}
              {one.found?.ratingAmps === undefined ? '' : `, ${one.found.ratingAmps} A found`} ({one.evidence}
              )
            </li>
          ))}
        </ul>
      ) : null}
      {photos.length > 0 ? (
        <ul className="mt-2 grid grid-cols-2 gap-4">
          {photos.map((photo) => (
            <li key={photo.photo}>
              <div className="relative">
                {/* biome-ignore lint/performance/noImgElement: the picture comes from this server as it is */}
                <img
                  src={`/api/photos/${photo.photo}`}
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
              <p className="text-sm">
                {photo.panel ? panelName(photo.panel) : (photo.step ?? 'the job')}, {photo.when}
                {photo.marks.map((mark, index) => ` · ${index + 1} ${mark.words}`).join('')}
              </p>
            </li>
          ))}
        </ul>
      ) : null}
    </>
  );
}
