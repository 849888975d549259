import path from 'node:path';
import type { NextConfig } from 'next';

const config: NextConfig = {
  distDir: process.env.NEXT_DIST_DIR ?? '.next',
  serverExternalPackages: ['pg', 'pino', 'piscina', 'sharp'],
  poweredByHeader: false,
  turbopack: { root: path.resolve('.') },
  typescript: { ignoreBuildErrors: true },
};

export default config;
