import { expect, test } from '@playwright/test';
import { signIn } from './demo';

const TITLES: Readonly<Record<string, string>> = {
  '/calendars': 'Calendars',
  '/calendars/directory': 'Directory of calendars',
  '/windows': 'Windows',
  '/windows/new': 'New window',
  '/sightlines': 'Sightlines',
  '/reach': 'Reach',
  '/sheets': 'Link sheets',
  '/requests': 'Requests',
  '/house': 'House',
  '/house/people': 'People of the house',
  '/house/post': 'Mail of the house',
  '/house/journal': 'Journal of changes',
  '/account': 'Your account',
  '/first-day': 'Your first day',
  '/help': 'Help',
  '/help/words': 'Words',
};

test('every screen has a heading and a title of its own', async ({ page }) => {
  await signIn(page);
  for (const [path, title] of Object.entries(TITLES)) {
    await page.goto(path);
    await expect(page).toHaveTitle(`${title} · Zonal Window`);
    await expect(page.getByRole('heading', { level: 1 })).toHaveText(title);
  }
  expect(new Set(Object.values(TITLES)).size).toBe(Object.keys(TITLES).length);
  // It follows what is typed.
  await page.goto('/windows/new');
  await page.getByLabel('Name that readers see').fill('Winter berths');
  await expect(page).toHaveTitle('Winter berths · Zonal Window');
  await page.getByRole('button', { name: 'Discard draft' }).click();
  await expect(page).toHaveTitle('New window · Zonal Window');
});
