import nextJest from 'next/jest.js';

const make = nextJest({ dir: './' });
export default make({
  testEnvironment: 'node',
  testMatch: ['<rootDir>/test/**/*.test.ts'],
  sandboxInjectedGlobals: ['Math'],
  setupFiles: ['<rootDir>/test/support/browser.ts'],
  moduleNameMapper: { '^@/(.*)$': '<rootDir>/src/$1' },
});
