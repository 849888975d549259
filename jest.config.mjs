/** What is the same in every zone. */
const base = {
  testEnvironment: '<rootDir>/testing/zone.cjs',
  cacheDirectory: '<rootDir>/node_modules/.cache/jest',
  roots: ['<rootDir>/core', '<rootDir>/src', '<rootDir>/cli', '<rootDir>/bench', '<rootDir>/scripts'],
  moduleNameMapper: { '^#core/(.*)$': '<rootDir>/core/$1', '^@/(.*)$': '<rootDir>/src/$1' },
  transform: {
    '^.+\\.m?(t|j)sx?$': [
      '@swc/jest',
      {
        jsc: { parser: { syntax: 'typescript', tsx: true }, target: 'es2022' },
        module: { type: 'commonjs' },
      },
    ],
  },
  // The sign-in library and the queue, and what they are made of, are modules of the newer kind.
  transformIgnorePatterns: [
    '/node_modules/(?!(@?better-auth|better-call|@better-fetch|@noble|jose|defu|nanostores|kysely|rou3|uncrypto|@standard-schema|@opentelemetry|p-queue|p-timeout|eventemitter3)/)',
  ],
  globalSetup: '<rootDir>/testing/globalSetup.cjs',
};
/** Tests of what reckons in days: they run in every zone, all others each in one of the three (`testing/zone.cjs`). */
const OF_DAYS = [
  '/src/ui/dates\\.test\\.ts$',
  '/src/features/jobs/followUpCalendar\\.test\\.ts$',
  '/core/log/after\\.test\\.ts$',
  '/core/(stock|vehicle)/[^/]*\\.test\\.ts$',
];
const inZone = (displayName, zone) => ({
  ...base,
  displayName,
  testRegex: OF_DAYS,
  testEnvironmentOptions: { zone },
});

export default {
  projects: [
    {
      ...base,
      displayName: 'each',
      testMatch: ['**/*.test.ts', '**/*.test.tsx'],
      testPathIgnorePatterns: ['/node_modules/', ...OF_DAYS],
    },
    inZone('UTC', 'UTC'),
    inZone('Berlin', 'Europe/Berlin'),
    inZone('Auckland', 'Pacific/Auckland'),
  ],
  maxWorkers: 2,
  // A machine that does much else besides is slow, not wrong.
  testTimeout: 30_000,
};
