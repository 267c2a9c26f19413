import nextJest from 'next/jest.js';

const make = nextJest({ dir: './' });
const config = make({
  testEnvironment: 'node',
  testMatch: ['<rootDir>/test/**/*.test.ts'],
  sandboxInjectedGlobals: ['Math'],
  setupFiles: ['<rootDir>/test/support/browser.ts'],
  moduleNameMapper: { '^@/(.*)$': '<rootDir>/src/$1' },
});

/** Packages that ship as modules alone are compiled like our own code: tests run as plain scripts, which is ten times as fast. */
export default async () => ({ ...(await config()), transformIgnorePatterns: ['/node_modules/(?!fractional-indexing/)'] });
