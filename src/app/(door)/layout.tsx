import type { Metadata, Viewport } from 'next';
import { cookies, headers } from 'next/headers';
import type { ReactNode } from 'react';
import { PageRuns } from '@/ui/atRest';
import { workshopZone } from '@/ui/dates';
import { EARLY_CLICKS_SCRIPT } from '@/ui/earlyClicks';
import { readingFace, textFace } from '@/ui/fonts';
import { Mark } from '@/ui/Mark';
import { isTheme } from '@/ui/theme';
import '../globals.css';

export const metadata: Metadata = {
  title: { default: 'Every Trace', template: '%s · Every Trace' },
  robots: { index: false, follow: false },
};

export const viewport: Viewport = { width: 'device-width', initialScale: 1 };

/** Frame of the pages before the door: they need nobody, and show nothing of a shop but what a link names. */
export default async function DoorLayout({ children }: { children: ReactNode }) {
  const chosen = (await cookies()).get('theme')?.value;
  const nonce = (await headers()).get('x-nonce') ?? undefined;
  return (
    <html
      lang="en-GB"
      data-theme={isTheme(chosen) ? chosen : undefined}
      data-zone={workshopZone()}
      className={`${textFace.variable} ${readingFace.variable}`}
    >
      <head>
        {/* A browser hides the nonce from the program, which then finds none. */}
        <script
          nonce={nonce}
          suppressHydrationWarning
          // biome-ignore lint/security/noDangerouslySetInnerHtml: a constant of this program, allowed by its nonce
          dangerouslySetInnerHTML={{ __html: EARLY_CLICKS_SCRIPT }}
        />
      </head>
      <body className="font-sans antialiased">
        <PageRuns />
        <header className="no-print flex items-center gap-3 border-b-2 border-line px-4 py-2">
          <Mark />
          <span className="text-lg font-bold">Every Trace</span>
        </header>
        <main id="main" className="px-4 py-6">
          {children}
        </main>
      </body>
    </html>
  );
}
