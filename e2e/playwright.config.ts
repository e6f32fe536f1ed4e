import { defineConfig } from '@playwright/test';

export default defineConfig({
  testDir: '.',
  outputDir: '.out',
  fullyParallel: true,
  workers: 2,
  timeout: 180_000,
  expect: { timeout: 30_000 }, // a laden machine takes its time,
  retries: 0,
  reporter: [['list']],
  use: {
    viewport: { width: 1280, height: 800 },
    launchOptions: {
      executablePath: '/usr/bin/chromium-headless-shell',
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    },
  },
});
