import { defineConfig } from '@playwright/test';
import { CHROMIUM_OPTIONS } from './scripts/lib/browser.mjs';

/** Runs inside `npm test`, which makes the database and the build and names them in the environment. */
export default defineConfig({
  testDir: 'e2e',
  testMatch: process.env.E2E_SHOTS ? '**/*.shot.ts' : '**/*.spec.ts',
  outputDir: process.env.E2E_OUTPUT ?? 'test-results',
  // Every test has a server and a database of its own, so two run beside each other; what measures time runs alone.
  workers: 2,
  fullyParallel: true,
  projects: [
    { name: 'beside each other', grepInvert: /@alone/ },
    { name: 'alone', grep: /@alone/, workers: 1, dependencies: ['beside each other'] },
  ],
  timeout: 120_000,
  expect: { timeout: 15_000 },
  reporter: [
    [process.env.E2E_QUIET ? 'dot' : 'list'],
    ['json', { outputFile: process.env.E2E_REPORT ?? 'test-results/report.json' }],
  ],
  use: {
    launchOptions: CHROMIUM_OPTIONS,
    viewport: { width: 1280, height: 800 },
    locale: 'en-GB',
    trace: 'off',
  },
});
