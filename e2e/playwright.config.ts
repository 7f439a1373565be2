import { defineConfig } from '@playwright/test';
import { join } from 'node:path';
import { BASE } from './startDemo';

const reports = process.env['REPORTS'] ?? 'test-results';
/** Each of several runs at once writes reports of its own. */
const name = process.env['E2E_NAME'] ?? 'e2e';

export default defineConfig({
  testDir: '.',
  testMatch: '*.spec.ts',
  outputDir: join(reports, name),
  reporter: [['list'], ['json', { outputFile: join(reports, `${name}.json`) }]],
  // Tests of one demo run one after the other.
  workers: 1,
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
