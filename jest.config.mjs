export default {
  testEnvironment: 'node',
  roots: ['<rootDir>/core', '<rootDir>/src', '<rootDir>/cli', '<rootDir>/bench', '<rootDir>/scripts'],
  testMatch: ['**/*.test.ts', '**/*.test.tsx'],
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
  // The sign-in library, and what it is made of, are modules of the newer kind.
  transformIgnorePatterns: [
    '/node_modules/(?!(@?better-auth|better-call|@better-fetch|@noble|jose|defu|nanostores|kysely|rou3|uncrypto|@standard-schema|@opentelemetry)/)',
  ],
  globalSetup: '<rootDir>/testing/globalSetup.cjs',
  maxWorkers: 2,
  // A machine that does much else besides is slow, not wrong.
  testTimeout: 30_000,
};
