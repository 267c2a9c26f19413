import { defineConfig } from '@playwright/test';
import { CHROMIUM } from './scripts/chromium';

const port = 4173;

export default defineConfig({
  testDir: 'e2e',
  timeout: 240_000,
  expect: { timeout: 15_000 },
  workers: 2,
  // On a machine that does something else as well a deadline can be missed once: what passes only then is listed as flaky.
  retries: 1,
  forbidOnly: true,
  reporter: [['list']],
  use: {
    baseURL: `http://localhost:${port}`,
    serviceWorkers: 'block',
    viewport: { width: 1280, height: 800 },
    contextOptions: { reducedMotion: 'reduce' },
    // The first-run tour was seen; the test of the tour begins without this.
    storageState: { cookies: [], origins: [{ origin: `http://localhost:${port}`, localStorage: [{ name: 'zesty-comfort', value: '{"toured":true}' }] }] },
    launchOptions: CHROMIUM,
  },
  webServer: { command: 'node scripts/serve.mjs', url: `http://localhost:${port}`, env: { PORT: String(port) }, reuseExistingServer: false },
});
