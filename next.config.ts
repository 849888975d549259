import path from 'node:path';
import type { NextConfig } from 'next';
import { hashOf } from './scripts/lib/shell.mjs';
import { WORK_ADDRESSES, WORK_DOCUMENT } from './src/http/places';

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
  rewrites: async () => WORK_ADDRESSES.map((source) => ({ source, destination: WORK_DOCUMENT })),
};

export default config;
