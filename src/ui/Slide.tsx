'use client';

import { Slider } from 'radix-ui';
import { useId } from 'react';

/** A quantity that is pulled with the thumb and shown while it is. */
export function Slide({
  label,
  value,
  min,
  max,
  step,
  shown,
  onChange,
}: {
  label: string;
  value: number;
  min: number;
  max: number;
  step: number;
  /** The value in words, with its unit. */
  shown: string;
  onChange: (value: number) => void;
}) {
  const id = useId();
  return (
    <div className="grid min-w-40 grid-cols-[1fr_auto] gap-x-3">
      <span id={id} className="text-sm font-semibold">
        {label}
      </span>
      <span className="reading text-sm">{shown}</span>
      <Slider.Root
        value={[value]}
        min={min}
        max={max}
        step={step}
        onValueChange={([next]) => onChange(next ?? value)}
        className="relative col-span-2 flex h-11 touch-none items-center select-none"
      >
        <Slider.Track className="relative h-2 grow rounded bg-line">
          <Slider.Range className="absolute h-full rounded bg-copper" />
        </Slider.Track>
        <Slider.Thumb
          aria-labelledby={id}
          aria-valuetext={shown}
          className="block size-8 rounded-full border-2 border-ink bg-sheet"
        />
      </Slider.Root>
    </div>
  );
}
