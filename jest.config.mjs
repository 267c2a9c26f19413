import nextJest from 'next/jest.js';

const make = nextJest({ dir: './' });
const config = make({
  testEnvironment: 'node',
  // A busy machine with two tests at a time is slow; a test that hangs is found all the same.
  testTimeout: 30_000,
  // Two workers on two cores: the runner's own share is small.
  maxWorkers: '100%',
  testMatch: ['<rootDir>/test/**/*.test.ts'],
  sandboxInjectedGlobals: ['Math'],
  setupFiles: ['<rootDir>/test/support/browser.ts', '<rootDir>/test/support/properties.ts'],
  moduleNameMapper: { '^@/(.*)$': '<rootDir>/src/$1' },
});

/** Packages that ship as modules alone are compiled like our own code: tests run as plain scripts, which is ten times as fast. */
export default async () => ({ ...(await config()), transformIgnorePatterns: ['/node_modules/(?!fractional-indexing/)'] });
