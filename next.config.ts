import path from 'node:path';
import type { NextConfig } from 'next';
import { WORK_ADDRESSES, WORK_DOCUMENT } from './src/http/places';

const config: NextConfig = {
  distDir: process.env.NEXT_DIST_DIR ?? '.next',
  serverExternalPackages: ['pg', 'pino', 'piscina', 'sharp'],
  poweredByHeader: false,
  turbopack: { root: path.resolve('.') },
  typescript: { ignoreBuildErrors: true },
  rewrites: async () => WORK_ADDRESSES.map((source) => ({ source, destination: WORK_DOCUMENT })),
};

export default config;
