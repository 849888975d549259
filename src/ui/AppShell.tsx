import type { ReactNode } from 'react';
import { PageRuns } from './atRest';
import { Mark } from './Mark';
import { NavLinks } from './NavLinks';
import { PlaceLink } from './PlaceLink';
import { ThemeSwitch } from './ThemeSwitch';
import type { Theme } from './theme';

export function AppShell({
  who,
  theme,
  find,
  outgoing,
  works = false,
  children,
}: {
  /** Who works, and for which shop. */
  who: ReactNode;
  theme: Theme | null;
  /** Opens the palette that finds everything by name. */
  find: ReactNode;
  /** Sends what waits in this browser, and says so. */
  outgoing: ReactNode;
  /** Where one works and does not choose: on a phone the bar comes only when it is asked for. */
  works?: boolean;
  children: ReactNode;
}) {
  return (
    <div className="lg:grid lg:min-h-dvh lg:grid-cols-[5.5rem_1fr]">
      <PageRuns />
      <a
        href="#main"
        className="sr-only focus:not-sr-only focus:absolute focus:z-50 focus:bg-sheet focus:p-3 focus:font-bold"
      >
        To the work
      </a>
      <aside
        className={`no-print fixed inset-x-0 bottom-0 z-30 border-t-2 border-line bg-sheet lg:sticky lg:top-0 lg:block lg:h-dvh lg:border-t-0 lg:border-r-2 ${
          works ? 'hidden in-data-[bar=open]:block' : ''
        }`}
      >
        <div className="flex h-full items-center justify-around lg:flex-col lg:justify-start lg:gap-2 lg:py-4">
          <PlaceLink href="/" aria-label="Every Trace, to Today" className="hidden lg:mb-4 lg:block">
            <Mark />
          </PlaceLink>
          <NavLinks />
          {find}
          <div className="lg:mt-auto">
            <ThemeSwitch theme={theme} />
          </div>
        </div>
      </aside>
      <div className={`min-w-0 lg:pb-0 ${works ? '' : 'pb-20'}`}>
        <p
          className={`no-print border-b border-line px-4 py-1.5 text-sm text-soft lg:block lg:px-6 ${works ? 'hidden' : ''}`}
        >
          {who}
        </p>
        {outgoing}
        <main id="main" tabIndex={-1} className="focus:outline-none">
          {children}
        </main>
      </div>
    </div>
  );
}
