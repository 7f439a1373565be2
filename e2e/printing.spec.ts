import { expect, test } from '@playwright/test';
import { signIn } from './demo';

test('the desk prints all entries of its days, whatever view shows them, and nothing typed is lost', async ({
  page,
}) => {
  await signIn(page);
  await page.getByText('List', { exact: true }).click();
  await page.getByLabel('Days shown').selectOption('13');
  const count = page.getByRole('status').filter({ hasText: /^\d+ entries\./ });
  await expect(count).toBeVisible();
  const total = Number(/^\d+/.exec((await count.textContent())!)![0]);
  expect(total).toBeGreaterThan(100);
  // The list on the screen draws only what is in sight.
  const onScreen = page.getByRole('table', { name: 'Entries in order of time' }).getByRole('row');
  expect(await onScreen.count()).toBeLessThan(total);
  await page.getByText('Lanes', { exact: true }).click();
  await page.getByRole('button', { name: 'New entry' }).click();
  const title = page.getByRole('dialog').getByLabel('Title', { exact: true });
  await title.fill('Half written');

  await page.emulateMedia({ media: 'print' });
  await page.evaluate(() => window.dispatchEvent(new Event('beforeprint')));
  const printed = page.locator('section[aria-label="Printed list"]');
  await expect(printed.locator('tbody tr')).toHaveCount(total);
  await expect(printed.locator('h1')).toHaveText(/\d{4} to .*\d{4}/);
  await expect(page.locator('header').getByText('Zonal Window')).toBeHidden();
  await page.evaluate(() => window.dispatchEvent(new Event('afterprint')));
  await page.emulateMedia({ media: 'screen' });
  await expect(printed).toHaveCount(0);
  await expect(title).toHaveValue('Half written');
});
