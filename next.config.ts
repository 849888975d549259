import path from 'node:path';
import type { NextConfig } from 'next';
import { hashOf } from './scripts/lib/shell.mjs';
import { WORK_ADDRESSES, WORK_DOCUMENT } from './src/http/places';
import { policyOfDocument } from './src/http/policy';

/** Stands on every answer, of whatever path; what a document may run is said of each (`src/proxy.ts`). */
const ALWAYS = [
  { key: 'X-Content-Type-Options', value: 'nosniff' },
  { key: 'X-Frame-Options', value: 'DENY' },
  { key: 'Referrer-Policy', value: 'same-origin' },
  { key: 'Cross-Origin-Opener-Policy', value: 'same-origin' },
  { key: 'Cross-Origin-Resource-Policy', value: 'same-origin' },
];

const config: NextConfig = {
  distDir: process.env.NEXT_DIST_DIR ?? '.next',
  serverExternalPackages: [
    'better-auth',
    'drizzle-orm',
    'ical-generator',
    'papaparse',
    'pg',
    'pino',
    'piscina',
    'rate-limiter-flexible',
    'sharp',
    'zod',
    '@zxcvbn-ts/core',
    '@zxcvbn-ts/language-common',
  ],
  // What a browser keeps of a diagnosis is good for the program that worked it out.
  env: { NEXT_PUBLIC_CORE: hashOf(['core']).slice(0, 16) },
  poweredByHeader: false,
  // Nobody reads them, and a first start waits for them.
  experimental: { turbopackSourceMaps: false, turbopackInputSourceMaps: false },
  turbopack: { root: path.resolve('.') },
  typescript: { ignoreBuildErrors: true },
  headers: async () => [
    { source: '/:path*', headers: ALWAYS },
    { source: '/api/:path*', headers: [{ key: 'Content-Security-Policy', value: policyOfDocument('') }] },
  ],
  rewrites: async () => WORK_ADDRESSES.map((source) => ({ source, destination: WORK_DOCUMENT })),
};

export default config;
