import type { Metadata, Viewport } from 'next';
import type { ReactNode } from 'react';
import { CommandPalette, EARLY_KEYS_SCRIPT } from '@/features/commands';
import { Outgoing } from '@/log/Outgoing';
import { AppShell } from '@/ui/AppShell';
import { EARLY_CLICKS_SCRIPT } from '@/ui/earlyClicks';
import { readingFace, textFace } from '@/ui/fonts';
import { THEME_SCRIPT } from '@/ui/theme';
import { WhoLine } from './WhoLine';
import '../globals.css';

export const metadata: Metadata = { title: 'Every Trace' };

export const viewport: Viewport = { width: 'device-width', initialScale: 1 };

export const dynamic = 'error';

/** Frame of the work views: one document, made when the application is built, the same for everybody. */
export default function WorkLayout({ children }: { children: ReactNode }) {
  return (
    <html lang="en-GB" className={`${textFace.variable} ${readingFace.variable}`} suppressHydrationWarning>
      <head>
        {/* biome-ignore lint/security/noDangerouslySetInnerHtml: a constant of this program, allowed by its hash */}
        <script dangerouslySetInnerHTML={{ __html: THEME_SCRIPT }} />
        {/* biome-ignore lint/security/noDangerouslySetInnerHtml: as above */}
        <script dangerouslySetInnerHTML={{ __html: EARLY_KEYS_SCRIPT }} />
        {/* biome-ignore lint/security/noDangerouslySetInnerHtml: as above */}
        <script dangerouslySetInnerHTML={{ __html: EARLY_CLICKS_SCRIPT }} />
      </head>
      <body className="font-sans antialiased">
        <AppShell works who={<WhoLine />} theme={null} find={<CommandPalette />} outgoing={<Outgoing />}>
          {children}
        </AppShell>
      </body>
    </html>
  );
}
