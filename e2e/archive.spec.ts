import { expect, test } from '@playwright/test';
import { strFromU8, unzipSync } from 'fflate';
import { readFileSync } from 'node:fs';
import { demoWindow, signIn } from './demo';

test('a steward makes an archive of everything, without any address by which a window is read', async ({
  page,
}) => {
  await signIn(page);
  await page.getByRole('link', { name: /^House/ }).click();
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Create an archive' }).click();
  const file = await download;
  expect(file.suggestedFilename()).toMatch(/^archive-\d{4}-\d\d-\d\d\.zip$/);
  await expect(page.getByText(`Saved as ${file.suggestedFilename()}.`)).toBeVisible();
  const files = unzipSync(readFileSync(await file.path()));
  const text = (name: string) => strFromU8(files[name]!);
  expect(Object.keys(files)).toContain('calendars/bridge-and-lock-times.ics');
  expect(text('calendars/pilots-duty-roster.ics')).toContain('SUMMARY:Pilot on duty');
  expect(text('windows.json')).toContain('"issuedTo": "Shipping agents"');
  expect(text('ledger.csv')).toContain('Works ahead,');
  expect(text('people.json')).toContain('"ida@ostrel.example"');
  const token = (await demoWindow('works-ahead')).feed.split('/').at(-1)!.replace('.ics', '');
  expect(token.length).toBeGreaterThan(20);
  for (const name of Object.keys(files)) expect(text(name), name).not.toContain(token);
});

test('an archive can be stopped, and says why it could not be made', async ({ page }) => {
  await signIn(page);
  await page.getByRole('link', { name: /^House/ }).click();
  let release = () => {};
  const released = new Promise<void>((resolve) => (release = resolve));
  await page.route('**/api/standings', async (route) => {
    await released;
    await route.abort();
  });
  await page.getByRole('button', { name: 'Create an archive' }).click();
  await expect(page.getByRole('progressbar', { name: 'Archive' })).toBeVisible();
  await page.getByRole('button', { name: 'Stop' }).click();
  await expect(page.getByText('Stopped. No archive was created.')).toBeVisible();
  release();
  await page.unroute('**/api/standings');
  await page.route('**/api/standings', (route) => route.fulfill({ status: 503, body: '{}' }));
  await page.getByRole('button', { name: 'Create an archive' }).click();
  await expect(page.getByRole('alert').filter({ hasText: 'No archive was created:' })).toBeVisible();
});

test('people who are no stewards have no archive to make', async ({ page: siri }) => {
  await siri.goto('/');
  await siri.getByRole('button', { name: 'Siri Holme, colleague' }).press('Enter');
  await siri.getByRole('link', { name: /^House/ }).click();
  await expect(siri.getByRole('heading', { name: 'Ceilings' })).toBeVisible();
  await expect(siri.getByRole('button', { name: 'Create an archive' })).toHaveCount(0);
});
