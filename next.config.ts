import path from 'node:path';
import type { NextConfig } from 'next';
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
  poweredByHeader: false,
  // Nobody reads them, and a first start waits for them.
  experimental: { turbopackSourceMaps: false, turbopackInputSourceMaps: false },
  turbopack: { root: path.resolve('.') },
  typescript: { ignoreBuildErrors: true },
  rewrites: async () => WORK_ADDRESSES.map((source) => ({ source, destination: WORK_DOCUMENT })),
};

export default config;
