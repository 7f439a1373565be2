import { AxeBuilder } from '@axe-core/playwright';
import { EMPTY_CONTENT } from '@zonal/core/entries';
import { expect, test, type Page } from '@playwright/test';
import { demoWindow, signIn } from './demo';
import { HOST_SITE, POSTBOX } from './startDemo';

const READER = 'reader@far-bay.example';

/** Writes an entry into a calendar by the API, as whoever is signed in. */
async function write(page: Page, calendar: string, title: string): Promise<void> {
  const day = (ahead: number) => new Date(Date.now() + ahead * 86_400_000).toISOString().slice(0, 10);
  const date = (ahead: number) => ({ kind: 'date' as const, date: day(ahead) });
  const times = { start: date(5), end: date(6), recurrence: null, overrides: [] };
  const entry = { ...EMPTY_CONTENT, title, ...times };
  const status = await page.evaluate(
    async ({ calendar, entry }) => {
      const { csrf } = (await (await fetch('/api/session')).json()) as { csrf: string };
      const all = (await (await fetch('/api/calendars')).json()) as { id: string; name: string }[];
      const { id } = all.find((c) => c.name === calendar)!;
      const answer = await fetch(`/api/calendars/${id}/entries`, {
        method: 'POST',
        headers: { 'content-type': 'application/json', 'x-csrf-token': csrf },
        body: JSON.stringify(entry),
      });
      return answer.status;
    },
    { calendar, entry },
  );
  expect(status).toBe(201);
}

/** Opens the newest mail to the reader whose subject is like that. */
async function openMail(box: Page, subject: RegExp): Promise<void> {
  await expect(async () => {
    await box.goto(`${POSTBOX}/?to=${READER}`);
    await box.getByRole('link', { name: subject }).first().click({ timeout: 1000 });
  }).toPass();
}

test('a reader leaves a mail address, confirms it, hears of a change in their own zone, and stops', async ({
  page,
  browser,
}) => {
  await signIn(page);
  const reader = await (await browser.newContext({ locale: 'fr' })).newPage();
  const { see } = await demoWindow('works-ahead');
  await reader.goto(`${see}?tz=Asia/Kolkata`);
  await reader.getByRole('link', { name: 'Apprendre les changements par courriel' }).click();
  expect((await new AxeBuilder({ page: reader }).analyze()).violations).toEqual([]);
  await reader.getByLabel('Votre adresse électronique').fill(READER);
  await expect(reader.getByLabel('Votre fuseau horaire')).toHaveValue('Asia/Kolkata');
  await reader.getByRole('button').press('Enter');
  await expect(reader.getByRole('heading', { name: 'Regardez votre boîte aux lettres' })).toBeVisible();

  const box = await browser.newPage();
  await openMail(box, /^Confirmer/);
  await reader.goto((await box.locator('pre a').first().getAttribute('href'))!);
  await reader.getByRole('button', { name: 'Oui, écrivez-moi' }).click();
  await expect(reader.getByRole('heading', { name: 'Vous apprendrez les changements' })).toBeVisible();

  await write(page, 'Dredging and works', 'Night sounding');
  await openMail(box, /^« Works ahead »/);
  await expect(box.locator('pre')).toContainText('Night sounding');
  await expect(box.locator('pre')).toContainText('Asia/Kolkata');
  await page.getByRole('link', { name: /^Reach/ }).click();
  await page.getByRole('link', { name: 'Works ahead', exact: true }).click();
  await expect(page.getByText('1 gets changes by mail')).toBeVisible();

  await reader.goto((await box.locator('pre a').last().getAttribute('href'))!);
  await reader.getByRole('button', { name: 'Arrêter' }).click();
  await expect(reader.getByRole('heading', { name: 'C’est arrêté' })).toBeVisible();
  await expect(page.getByText('1 gets changes by mail')).toHaveCount(0);
});

test('changes are pushed to a system of somebody else, which checks them, refuses them, and takes them again', async ({
  page,
}) => {
  await signIn(page);
  await page.getByRole('link', { name: /^Reach/ }).click();
  await page.getByRole('link', { name: 'Works ahead', exact: true }).click();
  await page.getByRole('button', { name: 'Push to a system of Ferry line’s operations desk' }).press('Enter');
  const sheet = page.getByRole('dialog');
  await sheet.getByLabel('Address to notify').fill('https://10.0.0.1/in');
  await sheet.getByRole('button', { name: 'Push changes' }).press('Enter');
  await expect(sheet.getByText(/it leads into a private network/)).toBeVisible();
  await sheet.getByLabel('Address to notify').fill(`${HOST_SITE}/told`);
  await sheet.getByRole('button', { name: 'Push changes' }).press('Enter');
  const secret = sheet.locator('code');
  await expect(secret).toContainText('whsec_');
  expect((await new AxeBuilder({ page }).include('[role=dialog]').analyze()).violations).toEqual([]);

  const system = await page.context().newPage();
  await system.goto(`${HOST_SITE}/told`);
  await system.getByLabel(/Secret/).fill((await secret.textContent())!);
  await system.getByRole('button', { name: 'Keep' }).click();
  await sheet.getByRole('button', { name: 'Send a test' }).press('Enter');
  const tries = sheet.getByRole('table', { name: 'Latest attempts' });
  await expect(tries.getByRole('row')).toHaveCount(2);
  await write(page, 'Dredging and works', 'Crane on the mole');
  await expect(async () => {
    await system.goto(`${HOST_SITE}/told`);
    await expect(system.getByText('calendar.changed').first()).toBeVisible({ timeout: 1000 });
  }).toPass();
  await expect(system.getByText('signature right').first()).toBeVisible();
  await expect(system.getByText('Crane')).toHaveCount(0);

  await system.getByRole('button', { name: /wants no more/ }).click();
  await write(page, 'Dredging and works', 'Crane is gone');
  await expect(sheet.getByText('It is stopped.')).toBeVisible();
  await expect(tries).toContainText('It answered 410');
  await system.getByRole('button', { name: /takes it/ }).click();
  await sheet.getByRole('button', { name: 'Resume' }).press('Enter');
  await expect(tries.getByRole('row').nth(1)).toContainText('told');
  await sheet.getByRole('button', { name: 'Remove push' }).press('Enter');
  await expect(tries).toHaveCount(0);
});
