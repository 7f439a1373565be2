import { AxeBuilder } from '@axe-core/playwright';
import { expect, test, type Page } from '@playwright/test';
import { readFile } from 'node:fs/promises';
import { signIn } from './demo';
import { FOLLOWERS, POSTBOX } from './startDemo';

let hasLooked = false;

/** Has all programs outside look that look at all within some hours of theirs. */
async function jump(hours: number): Promise<void> {
  hasLooked = true;
  await expect.poll(async () => (await told()).length).toBeGreaterThan(15);
  const answer = await fetch(`${FOLLOWERS}/jump`, {
    method: 'POST',
    body: new URLSearchParams({ hours: String(hours) }),
  });
  expect(answer.status).toBe(200);
}

interface Told {
  readonly whose: string;
  readonly shows: readonly string[];
}

async function told(): Promise<readonly Told[]> {
  const answer = await fetch(`${FOLLOWERS}/followers.json`);
  return ((await answer.json()) as { followers: Told[] }).followers;
}

async function openReach(page: Page, name: string): Promise<void> {
  await page.getByRole('link', { name: /^Reach/ }).click();
  await page.getByRole('link', { name, exact: true }).click();
  await expect(page.getByRole('heading', { name: `Reach of ${name}` })).toBeVisible();
}

test('an urgent change is followed from before it is saved until all programs outside have it', async ({
  page,
}) => {
  // Twice, so that each of them is known to follow.
  await jump(30);
  await jump(30);
  await signIn(page);
  await page.getByRole('link', { name: /^Reach/ }).click();
  const bridge = page.getByRole('row', { name: /Bridge times/ });
  // Other tests follow it too.
  await expect(bridge).toContainText(/(5\d) of \1 readers/);
  await expect(bridge).toContainText('all have it');
  expect((await new AxeBuilder({ page }).analyze()).violations).toEqual([]);

  await page.getByRole('link', { name: /^Calendars/ }).click();
  await page.getByRole('button', { name: 'New entry' }).click();
  await page.getByLabel('Title', { exact: true }).fill('Bridge closed tonight');
  await page.getByLabel('Calendar', { exact: true }).selectOption({ label: 'BL Bridge and lock times' });
  await page.getByRole('button', { name: 'What changes outside' }).press('Enter');
  const known = page.getByRole('region', { name: 'When readers will know' });
  await expect(known).toContainText(/Bridge times: half of 5\d readers/);
  await page.getByRole('button', { name: 'Save' }).press('Enter');
  await expect(page.getByRole('button', { name: 'Save' })).toHaveCount(0);

  await openReach(page, 'Bridge times');
  const state = page.getByText(/have the latest version/);
  await expect(state).toContainText(/\b0 % of 5\d readers/);
  await expect(page.getByText(/When it was published, 5\d readers followed/)).toBeVisible();
  await expect(page.getByRole('img', { name: /^How revision \d+ spread/ })).toBeVisible();
  await page.getByText('The same as a table').press('Enter');
  await expect(page.getByRole('cell', { name: 'at once' })).toBeVisible();
  expect((await new AxeBuilder({ page }).analyze()).violations).toEqual([]);

  const table = page.getByRole('table', { name: 'Keys and subscribers' });
  await expect(table.getByRole('button', { name: 'What it still shows' }).first()).toBeVisible();
  await table.getByRole('button', { name: 'What it still shows' }).first().press('Enter');
  await expect(page.getByRole('dialog')).toContainText('Bridge closed tonight');
  await expect(page.getByRole('dialog')).toContainText('appears');
  await page.keyboard.press('Escape');
  const showing = async () =>
    (await told()).filter((f) => f.shows.some((line) => line.includes('Bridge closed tonight'))).length;
  expect(await showing()).toBe(0);

  // The figures follow by themselves.
  await jump(30);
  await expect(state).toContainText(/(9\d|100) % of 5\d readers/);
  expect(await showing()).toBe(8);
  await page.getByLabel('Show', { exact: true }).selectOption('silent');
  await expect(page.getByText('No subscriber matches.')).toBeVisible();
  await page.getByLabel('Show', { exact: true }).selectOption('all');
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Subscribers as CSV' }).click(),
  ]);
  expect(file.suggestedFilename()).toBe('bridge-times-reach.csv');
  const csv = await readFile(await file.path(), 'utf8');
  expect(csv.trim().split('\r\n').length).toBeGreaterThanOrEqual(9);
  expect(csv).toContain('dav,1,');
});

test('whose programs do not look in time can be written to', async ({ page }) => {
  // A second look some minutes after the first would be taken for their rhythm, and then nobody is late.
  if (!hasLooked) await jump(30);
  await signIn(page);
  await openReach(page, 'Works ahead');
  await page.getByLabel('Readers must know the newest change').selectOption('within the hour');
  await expect(page.getByText(/readers are expected to have it/)).toContainText(/(\d) of \1 readers/);
  await page.getByRole('link', { name: /^Calendars/ }).click();
  await page.getByRole('button', { name: 'New entry' }).click();
  await page.getByLabel('Title', { exact: true }).fill('Berth 2 closed');
  await page.getByLabel('Calendar', { exact: true }).selectOption({ label: 'DW Dredging and works' });
  await page.getByRole('button', { name: 'Save' }).press('Enter');
  await expect(page.getByRole('button', { name: 'Save' })).toHaveCount(0);
  await openReach(page, 'Works ahead');
  await page.getByLabel('Readers must know the newest change').selectOption('within the hour');
  const late = page.getByRole('list', { name: 'Keys whose readers are late' });
  await expect(late).toContainText('agents@quayside.example');
  await page.getByRole('button', { name: /^Write to/ }).press('Enter');
  await page
    .getByLabel('Your message; it is sent as you write it')
    .fill('Berth 2 cannot be used before Monday.');
  await page.getByRole('button', { name: /^Send/ }).press('Enter');
  await expect(page.getByText(/(is|are) on the way\./)).toBeVisible();
  const box = await page.context().newPage();
  await expect(async () => {
    await box.goto(`${POSTBOX}/?to=agents@quayside.example`);
    await expect(box.getByRole('link', { name: '“Works ahead” has changed' }).first()).toBeVisible({
      timeout: 1000,
    });
  }).toPass();
  await box.getByRole('link', { name: '“Works ahead” has changed' }).first().click();
  await expect(box.locator('pre')).toContainText('Berth 2 cannot be used before Monday.');
});

test('what needs a look is told, and can be muted', async ({ page }) => {
  await signIn(page);
  await page.goto('/reach');
  const needs = page.getByRole('list', { name: 'Needs attention' });
  // It is looked each minute.
  const shared = needs.getByRole('listitem').filter({ hasText: 'you expected 6' });
  await expect(shared).toBeVisible({ timeout: 300_000 });
  await shared.getByRole('button', { name: 'Mute' }).press('Enter');
  await expect(shared).toHaveCount(0);
  await page.getByText(/^Muted: 1/).press('Enter');
  const muted = page.getByRole('list', { name: 'Muted alerts' });
  await expect(muted).toContainText('Shipping agents');
  expect((await new AxeBuilder({ page }).analyze()).violations).toEqual([]);
  await muted.getByRole('button', { name: 'Unmute' }).press('Enter');
  await expect(shared).toBeVisible();

  await page.goto('/reach');
  await page.getByRole('link', { name: 'On the quay', exact: true }).click();
  await page.getByRole('button', { name: /^Urgent: alert me/ }).press('Enter');
  await expect(page.getByText(/^You get an alert if too few know by/)).toBeVisible();
  await page.getByRole('button', { name: 'No longer urgent' }).press('Enter');
  await expect(page.getByText(/^You get an alert if too few know by/)).toHaveCount(0);
});
