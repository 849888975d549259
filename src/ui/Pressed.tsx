'use client';

import { Toggle } from 'radix-ui';
import type { ComponentProps } from 'react';
import { Button } from './controls';

/** A button that stays pressed until it is tapped again. */
export function Pressed({
  pressed,
  onPressed,
  className = '',
  ...rest
}: Omit<ComponentProps<typeof Button>, 'onClick'> & {
  pressed: boolean;
  onPressed: (pressed: boolean) => void;
}) {
  return (
    <Toggle.Root asChild pressed={pressed} onPressedChange={onPressed}>
      <Button
        className={`data-[state=on]:border-copper data-[state=on]:bg-copper-wash ${className}`}
        {...rest}
      />
    </Toggle.Root>
  );
}
