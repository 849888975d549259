import localFont from 'next/font/local';

/** Shipped with the application; nothing is fetched. */
export const textFace = localFont({
  src: '../../node_modules/@fontsource-variable/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-wght-normal.woff2',
  variable: '--font-text',
  weight: '200 800',
  display: 'swap',
});

export const readingFace = localFont({
  src: '../../node_modules/@fontsource-variable/atkinson-hyperlegible-mono/files/atkinson-hyperlegible-mono-latin-wght-normal.woff2',
  variable: '--font-reading',
  weight: '200 800',
  display: 'swap',
});
