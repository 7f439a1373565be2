import { AxeBuilder } from '@axe-core/playwright';
import { expect, test } from '@playwright/test';
import { signIn } from './demo';

test('addresses are handed on together, checked first, at an address that is kept up to date', async ({
  page,
  browser,
}) => {
  await signIn(page);
  await page.goto('/windows');
  await page.getByRole('link', { name: 'link sheet' }).click();
  await expect(page.getByRole('link', { name: 'Harbour calendars for shipping agents' })).toBeVisible();
  await page.getByRole('button', { name: 'Create a link sheet' }).click();
  await page.getByLabel('Find a window or a key').fill('visitor');
  await page.getByRole('checkbox', { name: 'Visitor desk' }).setChecked(true, { force: true });
  await page.getByLabel('Find a window or a key').fill('');
  const bridge = page.getByRole('group', { name: 'Bridge times' });
  await bridge
    .getByRole('checkbox', { name: 'Anybody, by the public address' })
    .setChecked(true, { force: true });
  const sheet = page.getByRole('list', { name: 'On the sheet' });
  await expect(sheet.getByRole('listitem').first()).toContainText('shows busy times only');
  await expect(sheet.getByRole('listitem').nth(1)).toContainText('works for its readers');
  await page.getByRole('button', { name: 'Move Bridge times, anybody up' }).click();
  await expect(sheet.getByRole('listitem').first()).toContainText('Bridge times');
  await page.getByLabel('Name').fill('For new colleagues');
  await page.getByLabel('Note to readers').fill('Start with the bridge.');
  await page.getByRole('button', { name: 'Create the sheet and its address' }).click();
  await expect(page.getByRole('heading', { name: 'For new colleagues' })).toBeVisible();
  await page.getByLabel('Mail in').selectOption('German');
  await page.getByRole('button', { name: 'Write mail' }).click();
  await expect(page.getByLabel('Text of the mail')).toHaveValue(/Zeigt nur, wann etwas belegt ist\./);
  expect((await new AxeBuilder({ page }).analyze()).violations).toEqual([]);

  const href = (await page.getByRole('link', { name: 'View' }).getAttribute('href'))!;
  for (const [width, javaScriptEnabled] of [
    [240, false],
    [390, true],
    [1280, false],
  ] as const) {
    const outside = await browser.newContext({
      viewport: { width, height: 800 },
      javaScriptEnabled,
      locale: 'en-GB',
    });
    const reader = await outside.newPage();
    await reader.goto(href);
    await expect(reader.getByRole('heading', { name: 'Bridge times' })).toBeVisible();
    await expect(reader.getByText('Shows busy times only.')).toBeVisible();
    const html = reader.locator('html');
    // With no script in the page, there is none to ask for its width; its elements are where they are.
    const { width: wide } = (await html.boundingBox())!;
    expect(wide).toBeLessThanOrEqual(width);
    for (const code of await reader.getByText('/feed/').all()) {
      const box = (await code.boundingBox())!;
      expect(box.x + box.width).toBeLessThanOrEqual(width);
    }
    if (javaScriptEnabled) expect((await new AxeBuilder({ page: reader }).analyze()).violations).toEqual([]);
    await reader.getByRole('link', { name: 'Lighthouse slots' }).click();
    await expect(reader.getByRole('heading', { name: 'Lighthouse slots' })).toBeVisible();
    await outside.close();
  }

  await page.getByRole('button', { name: 'Remove Lighthouse slots, Visitor desk from the sheet' }).click();
  await expect(page.getByText('Its readers still see the former version.')).toBeVisible();
  await page.getByRole('button', { name: 'Save and publish' }).click();
  await expect(page.getByText('Its readers see this version.')).toBeVisible();
  await page.getByRole('button', { name: 'Replace address' }).click();
  await expect(page.getByRole('link', { name: 'View' })).not.toHaveAttribute('href', href);
  expect((await page.request.get(href)).status()).toBe(404);
  await page.getByLabel('Note to readers').fill('');
  await page.getByRole('button', { name: 'Save and publish' }).click();
  await expect(page.getByText('Its readers see this version.')).toBeVisible();
  const now = (await page.getByRole('link', { name: 'View' }).getAttribute('href'))!;
  expect(await (await page.request.get(`${now}.txt`)).text()).not.toMatch(/Lighthouse|Start with/);

  await page.getByRole('link', { name: 'Back to the link sheets' }).click();
  await page.getByRole('button', { name: 'Withdraw the link sheet “For new colleagues”' }).click();
  await expect(page.getByText(/its address no longer works/)).toBeVisible();
  expect((await page.request.get(now)).status()).toBe(410);
  await page.getByRole('button', { name: 'Restore' }).click();
  await expect(page.getByRole('button', { name: 'Copy sheet address' })).toHaveCount(2);
  expect((await page.request.get(now)).status()).toBe(200);
});
