import { defineConfig } from '@playwright/test';
import { CHROMIUM } from './scripts/chromium';

const port = 4173;

export default defineConfig({
  testDir: 'e2e',
  timeout: 120_000,
  expect: { timeout: 15_000 },
  workers: 1,
  forbidOnly: true,
  reporter: [['list']],
  use: {
    baseURL: `http://localhost:${port}`,
    serviceWorkers: 'block',
    viewport: { width: 1280, height: 800 },
    launchOptions: CHROMIUM,
  },
  webServer: { command: 'node scripts/serve.mjs', url: `http://localhost:${port}`, env: { PORT: String(port) }, reuseExistingServer: false },
});
