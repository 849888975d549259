'use client';

import { DropdownMenu } from 'radix-ui';
import type { ReactNode } from 'react';
import { Button, type Look } from './controls';

export interface MenuItem {
  readonly name: string;
  readonly onChoose: () => void;
  /** Shown as a tick; where it is given the item is something that is on or off. */
  readonly on?: boolean;
}

const ITEM =
  'flex min-h-11 cursor-pointer items-center gap-2 rounded px-3 outline-none data-[highlighted]:bg-copper-wash';

/** What can be done besides, behind one button. */
export function Menu({
  name,
  icon,
  items,
  look = 'plain',
}: {
  name: string;
  icon?: ReactNode;
  items: readonly MenuItem[];
  look?: Look;
}) {
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger asChild>
        <Button look={look} {...(icon ? { 'aria-label': name } : {})}>
          {icon ?? name}
        </Button>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="end"
          sideOffset={4}
          collisionPadding={8}
          className="z-50 max-h-(--radix-dropdown-menu-content-available-height) min-w-52 overflow-auto rounded-lg border-2 border-ink bg-sheet p-1"
        >
          {items.map((item) =>
            item.on === undefined ? (
              <DropdownMenu.Item key={item.name} onSelect={item.onChoose} className={ITEM}>
                {item.name}
              </DropdownMenu.Item>
            ) : (
              <DropdownMenu.CheckboxItem
                key={item.name}
                checked={item.on}
                onSelect={item.onChoose}
                className={ITEM}
              >
                <span aria-hidden="true" className="w-4 text-copper">
                  {item.on ? '✓' : ''}
                </span>
                {item.name}
              </DropdownMenu.CheckboxItem>
            ),
          )}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
