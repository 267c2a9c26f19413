import { defineConfig } from '@playwright/test';

const args = [
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
];
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
    launchOptions: { executablePath: process.env['CHROMIUM'] ?? '/usr/bin/chromium', args },
  },
  webServer: { command: 'node scripts/serve.mjs', url: `http://localhost:${port}`, env: { PORT: String(port) }, reuseExistingServer: false },
});
