import { AxeBuilder } from '@axe-core/playwright';
import { expect, test, type Page } from '@playwright/test';
import { demoWindow, signIn } from './demo';

/** Goes to every section and sheet of the application, one after the other, and looks at each. */
async function throughAll(page: Page, look: (what: string) => Promise<void>): Promise<void> {
  const folded = page.getByRole('button', { name: /^View: / });
  if (await folded.isVisible()) await folded.click();
  for (const view of ['Lanes', 'Week', 'Month', 'List']) {
    await page.getByText(view, { exact: true }).click();
    await expect(page.getByText('Fetching entries')).toHaveCount(0);
    await look(view);
  }
  const link = (name: RegExp) => page.getByRole('link', { name });
  await link(/^Windows/).click();
  await expect(page.getByRole('link', { name: 'Works ahead' })).toBeVisible();
  await look('Windows');
  await page.getByRole('link', { name: 'Works ahead' }).click();
  await expect(page.getByText(/^\d+ times in all$/)).toBeVisible();
  await look('Studio');
  await page.getByRole('link', { name: 'On another site …' }).first().press('Enter');
  await expect(page.getByText('Try it on another site')).toBeVisible();
  await look('Another site');
  await page.getByRole('link', { name: 'Back to the studio' }).press('Enter');
  await page.getByRole('link', { name: 'Ledger' }).click();
  await expect(page.getByTitle('As outsiders saw it')).toBeVisible();
  await look('Ledger');
  await link(/^Sightlines/).click();
  await expect(page.getByRole('button', { name: /^Dredging and works for Partners/ })).toBeVisible();
  await look('Sightlines');
  await link(/^Reach/).click();
  await expect(page.getByRole('table', { name: 'Windows and their readers' })).toBeVisible();
  await look('Reach');
  await page.getByRole('link', { name: 'Works ahead', exact: true }).click();
  await expect(page.getByRole('table', { name: 'Keys and subscribers' })).toBeVisible();
  await look('Reach of a window');
  await link(/^House/).click();
  await expect(page.getByRole('heading', { name: 'Ceilings' })).toBeVisible();
  await expect(page.getByLabel('Ceiling of the house for Street')).toBeVisible();
  await look('House');
  for (const [part, there] of [
    ['People', 'Accounts'],
    ['Mail', 'Your own mail server'],
  ] as const) {
    await page.getByRole('navigation', { name: 'Pages of the house' }).getByText(part).press('Enter');
    await expect(page.getByRole('heading', { name: there, exact: true })).toBeVisible();
    await look(part);
  }
  await page.getByRole('link', { name: 'Journal' }).press('Enter');
  await expect(page.getByRole('table', { name: 'Journal' })).toBeVisible();
  await look('Journal');
  const you = page.getByRole('button', { name: /^You/ });
  if (await you.isVisible()) await you.press('Enter');
  await page.getByRole('link', { name: /^Your account/ }).press('Enter');
  await expect(page.getByRole('heading', { name: 'Where you are signed in' })).toBeVisible();
  await look('Account');
  await page.goto('/calendars/directory');
  await expect(page.getByRole('list', { name: 'Calendars of the house' })).toBeVisible();
  await look('Directory');
  await page.goto('/requests');
  await expect(page.getByRole('heading', { name: 'Requests for you' })).toBeVisible();
  await look('Requests');
  await page.goto('/first-day');
  await expect(page.getByRole('heading', { name: 'Your first day' })).toBeVisible();
  await look('First day');
  await page.goto('/welcome#nothing');
  await expect(page.getByRole('heading', { name: 'This address does not work' })).toBeVisible();
  await look('An address that does not open');
  const { see } = await demoWindow('on-the-quay');
  for (const more of [
    '?show=list',
    '?show=week',
    '?show=month',
    '?find=market',
    '/follow',
    '/notices',
    '/settings',
    '?lang=fr',
  ]) {
    await page.goto(see + more);
    await look(`page ${more}`);
  }
  await page.goto(`${see}?show=list`);
  await page.locator('a.what').first().click();
  await look('page of an entry');
}

/** Fails with what an accessibility checker finds; a preview is a page of its own and is checked as such. */
async function expectNoViolations(page: Page, what: string, rules?: string[]): Promise<void> {
  // What passes is counted, not described: that takes most of the time.
  // Without frames there is nothing to put together in a second page, which takes longer than the check itself.
  const builder = new AxeBuilder({ page })
    .exclude('iframe')
    .options({ resultTypes: ['violations'] })
    .setLegacyMode(true);
  const { violations, passes } = await (rules ? builder.withRules(rules) : builder).analyze();
  expect(passes.length).toBeGreaterThanOrEqual(rules?.length ?? 10);
  const found = violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.target.join(' ')).join(', ')}`);
  expect(found, what).toEqual([]);
}

test('every screen is accessible, in the light and in the dark theme', async ({ page }) => {
  const expectAccessible = async (what: string) => {
    await page.emulateMedia({ colorScheme: 'light' });
    await expectNoViolations(page, `${what}, light`);
    // Another theme can only change contrast.
    await page.emulateMedia({ colorScheme: 'dark' });
    await expectNoViolations(page, `${what}, dark`, ['color-contrast']);
  };
  await signIn(page);
  for (const sheet of ['New entry', 'Import a file', 'Export', 'New calendar']) {
    await page.getByRole('button', { name: sheet }).click();
    await expect(page.getByRole('dialog')).toBeVisible();
    await expectAccessible(sheet);
    await page.keyboard.press('Escape');
    await expect(page.getByRole('dialog')).toBeHidden();
  }
  await throughAll(page, expectAccessible);
});

test('no screen is wider than a phone, in the embed not even than 240 pixels', async ({ browser }) => {
  const page = await browser.newPage({ viewport: { width: 390, height: 800 } });
  const expectFits = async (what: string) => {
    const wide = () => page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);
    expect(await wide(), what).toBeLessThanOrEqual(0);
  };
  await signIn(page);
  await throughAll(page, expectFits);
  await page.setViewportSize({ width: 240, height: 600 });
  for (const show of ['list', 'week', 'month']) {
    await page.goto(`${(await demoWindow('works-ahead')).embed}?show=${show}`);
    await expectFits(`embed as ${show}`);
  }
  await page.close();
});
