import { defineConfig } from '@playwright/test';
import { join } from 'node:path';
import { BASE, WORKERS } from './startDemo';

const reports = process.env['REPORTS'] ?? 'test-results';

export default defineConfig({
  testDir: '.',
  testMatch: '*.spec.ts',
  outputDir: join(reports, 'e2e'),
  reporter: [['list'], ['json', { outputFile: join(reports, 'e2e.json') }]],
  workers: WORKERS,
  retries: 0,
  // Nothing is tested by its time. A machine with ten times as much to do as it has cores meets these.
  timeout: 900_000,
  expect: { timeout: 90_000 },
  globalSetup: './startDemo.ts',
  use: {
    actionTimeout: 90_000,
    baseURL: BASE,
    viewport: { width: 1280, height: 800 },
    // Outside pages are read by the customs of the reader's language.
    locale: 'en-GB',
    // Half as fast again without: switched on where a failure is looked into.
    trace: process.env['TRACE'] ? 'retain-on-failure' : 'off',
    permissions: ['clipboard-read', 'clipboard-write'],
    launchOptions: {
      executablePath: process.env['TEST_BROWSER'] ?? '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    },
  },
});
