import type { Metadata, Viewport } from 'next';
import { cookies, headers } from 'next/headers';
import type { ReactNode } from 'react';
import { CommandPalette, EARLY_KEYS_SCRIPT } from '@/features/commands';
import { pageActor } from '@/http/pageActor';
import { Outgoing } from '@/log/Outgoing';
import { AppShell } from '@/ui/AppShell';
import { workshopZone } from '@/ui/dates';
import { EARLY_CLICKS_SCRIPT } from '@/ui/earlyClicks';
import { readingFace, textFace } from '@/ui/fonts';
import { isTheme } from '@/ui/theme';
import { WhoWords } from '@/ui/WhoWords';
import '../globals.css';

export const metadata: Metadata = {
  title: { default: 'Every Trace', template: '%s · Every Trace' },
  description: 'Finds out why a 12-volt circuit failed, step by step.',
};

export const viewport: Viewport = { width: 'device-width', initialScale: 1 };

/** Frame of the pages that the server makes, each for who asks. */
export default async function PagesLayout({ children }: { children: ReactNode }) {
  const chosen = (await cookies()).get('theme')?.value;
  const theme = isTheme(chosen) ? chosen : undefined;
  const nonce = (await headers()).get('x-nonce') ?? undefined;
  const actor = await pageActor();
  return (
    <html
      lang="en-GB"
      data-theme={theme}
      data-zone={workshopZone()}
      className={`${textFace.variable} ${readingFace.variable}`}
    >
      <head>
        {/* A browser hides the nonce from the program, which then finds none. */}
        <script
          nonce={nonce}
          suppressHydrationWarning
          // biome-ignore lint/security/noDangerouslySetInnerHtml: a constant of this program, allowed by its nonce
          dangerouslySetInnerHTML={{ __html: `${EARLY_KEYS_SCRIPT};${EARLY_CLICKS_SCRIPT}` }}
        />
      </head>
      <body className="font-sans antialiased">
        <AppShell
          who={<WhoWords {...actor} />}
          theme={theme ?? null}
          find={<CommandPalette />}
          outgoing={<Outgoing />}
        >
          {children}
        </AppShell>
      </body>
    </html>
  );
}
