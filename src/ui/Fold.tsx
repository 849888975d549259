'use client';

import { ChevronRight } from 'lucide-react';
import { Collapsible } from 'radix-ui';
import { type ReactNode, useState } from 'react';

/** What is not needed at once, behind one line; `first` says whether it is open when it comes. */
export function Fold({
  title,
  first = false,
  testId,
  className = '',
  children,
}: {
  title: ReactNode;
  first?: boolean;
  testId?: string;
  className?: string;
  children: ReactNode;
}) {
  const [open, setOpen] = useState(first);
  return (
    <Collapsible.Root open={open} onOpenChange={setOpen} className={className} data-testid={testId}>
      <Collapsible.Trigger className="group inline-flex min-h-11 items-center gap-1 text-left font-semibold underline decoration-line decoration-2 underline-offset-4 hover:decoration-copper">
        <ChevronRight
          aria-hidden="true"
          className="size-5 shrink-0 text-copper transition-transform duration-100 group-data-[state=open]:rotate-90"
        />
        <span>{title}</span>
      </Collapsible.Trigger>
      <Collapsible.Content>{children}</Collapsible.Content>
    </Collapsible.Root>
  );
}
