'use client';

import {
  Calculator,
  CalendarCheck,
  CarFront,
  CirclePlus,
  type LucideIcon,
  Package,
  Store,
} from 'lucide-react';
import { usePathname } from 'next/navigation';
import { PlaceLink } from './PlaceLink';

interface Link {
  readonly href: string;
  readonly name: string;
  readonly icon: LucideIcon;
  readonly starts: readonly string[];
  /** Only where there is room; in the hand it is found by its name. */
  readonly wide?: true;
}

const LINKS = [
  { href: '/', name: 'Today', icon: CalendarCheck, starts: ['/'] },
  { href: '/vehicles', name: 'Vehicles', icon: CarFront, starts: ['/vehicles'] },
  { href: '/stock', name: 'Stock', icon: Package, starts: ['/stock'] },
  { href: '/sums', name: 'Sums', icon: Calculator, starts: ['/sums'], wide: true },
  { href: '/shop', name: 'Shop', icon: Store, starts: ['/shop'] },
  { href: '/jobs/new', name: 'New job', icon: CirclePlus, starts: ['/jobs/new'] },
] as const satisfies readonly Link[];

export function NavLinks() {
  const path = usePathname();
  return (
    <nav aria-label="Main" className="contents">
      {LINKS.map(({ href, name, icon: Icon, starts, wide }: Link) => {
        const here = starts.some((start) => (start === '/' ? path === '/' : path.startsWith(start)));
        return (
          <PlaceLink
            key={href}
            href={href}
            aria-current={here ? 'page' : undefined}
            className={`${wide ? 'hidden lg:flex' : 'flex'} min-h-14 min-w-12 flex-col items-center justify-center gap-0.5 border-copper px-1 text-xs sm:text-sm lg:min-w-16 lg:px-2 ${
              here ? 'border-t-4 font-bold text-copper lg:border-t-0 lg:border-l-4' : 'text-ink'
            }`}
          >
            <Icon aria-hidden="true" className="size-6" strokeWidth={here ? 2.4 : 1.8} />
            {name}
          </PlaceLink>
        );
      })}
    </nav>
  );
}
