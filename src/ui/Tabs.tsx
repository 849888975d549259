'use client';

import { Tabs as Radix } from 'radix-ui';
import type { ReactNode } from 'react';

export interface Tab<Id extends string = string> {
  readonly id: Id;
  readonly name: string;
}

/** Which of several views is seen; around both the bar and what it chooses from. */
export function Tabs<Id extends string>({
  chosen,
  onChoose,
  className = '',
  children,
}: {
  chosen: Id;
  onChoose: (id: Id) => void;
  className?: string;
  children: ReactNode;
}) {
  return (
    <Radix.Root className={className} value={chosen} onValueChange={(next) => onChoose(next as Id)}>
      {children}
    </Radix.Root>
  );
}

/** The bar of the names, all as wide as each other. */
export function TabBar<Id extends string>({
  label,
  tabs,
  className = '',
}: {
  label: string;
  tabs: readonly Tab<Id>[];
  className?: string;
}) {
  return (
    <Radix.List
      aria-label={label}
      className={`grid bg-paper ${className}`}
      style={{ gridTemplateColumns: `repeat(${tabs.length}, minmax(0, 1fr))` }}
    >
      {tabs.map(({ id, name }) => (
        <Radix.Trigger
          key={id}
          id={`tab-${id}`}
          aria-controls={`pane-${id}`}
          value={id}
          className="min-h-[44px] border-b-4 border-line px-1 leading-tight font-semibold text-soft data-[state=active]:border-copper data-[state=active]:text-ink"
        >
          {name}
        </Radix.Trigger>
      ))}
    </Radix.List>
  );
}

/** One of the views. It stays in the page while another is seen, with all that was typed in it. */
export function TabPane({
  id,
  className = 'data-[state=inactive]:hidden',
  children,
}: {
  id: string;
  /** How it is hidden while it is not chosen. */
  className?: string;
  children: ReactNode;
}) {
  return (
    <Radix.Content
      id={`pane-${id}`}
      value={id}
      forceMount
      tabIndex={-1}
      className={`focus:outline-none ${className}`}
    >
      {children}
    </Radix.Content>
  );
}
