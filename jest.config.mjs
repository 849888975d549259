export default {
  testEnvironment: 'node',
  roots: ['<rootDir>/core', '<rootDir>/src', '<rootDir>/cli', '<rootDir>/bench', '<rootDir>/scripts'],
  testMatch: ['**/*.test.ts', '**/*.test.tsx'],
  moduleNameMapper: { '^#core/(.*)$': '<rootDir>/core/$1', '^@/(.*)$': '<rootDir>/src/$1' },
  transform: {
    '^.+\\.(t|j)sx?$': [
      '@swc/jest',
      {
        jsc: { parser: { syntax: 'typescript', tsx: true }, target: 'es2022' },
        module: { type: 'commonjs' },
      },
    ],
  },
  globalSetup: '<rootDir>/testing/globalSetup.cjs',
  maxWorkers: 2,
  // A machine that does much else besides is slow, not wrong.
  testTimeout: 30_000,
};
