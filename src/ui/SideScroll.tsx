import type { ReactNode } from 'react';

/** What may be wider than the screen and is then moved sideways, also by the arrow keys. */
export function SideScroll({
  label,
  className = '',
  children,
}: {
  label: string;
  className?: string;
  children: ReactNode;
}) {
  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: whoever goes by keys has to come here to move it
    <section aria-label={label} tabIndex={0} className={`overflow-x-auto ${className}`}>
      {children}
    </section>
  );
}
