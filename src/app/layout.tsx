import type { Metadata, Viewport } from 'next';
import { cookies } from 'next/headers';
import type { ReactNode } from 'react';
import { currentActor } from '@/access';
import { CommandPalette } from '@/features/commands';
import { Outgoing } from '@/log/Outgoing';
import { AppShell } from '@/ui/AppShell';
import { workshopZone } from '@/ui/dates';
import { readingFace, textFace } from '@/ui/fonts';
import './globals.css';

export const metadata: Metadata = {
  title: { default: 'Every Trace', template: '%s · Every Trace' },
  description: 'Finds out why a 12-volt circuit failed, step by step.',
};

export const viewport: Viewport = { width: 'device-width', initialScale: 1 };

export default async function RootLayout({ children }: { children: ReactNode }) {
  const chosen = (await cookies()).get('theme')?.value;
  const theme = chosen === 'daylight' || chosen === 'footwell' ? chosen : null;
  const actor = await currentActor();
  return (
    <html
      lang="en-GB"
      data-theme={theme ?? undefined}
      data-zone={workshopZone()}
      className={`${textFace.variable} ${readingFace.variable}`}
    >
      <body className="font-sans antialiased">
        <AppShell
          shopName={`${actor.shopName}, ${actor.town}`}
          personName={actor.personName}
          theme={theme}
          find={<CommandPalette />}
          outgoing={<Outgoing />}
        >
          {children}
        </AppShell>
      </body>
    </html>
  );
}
