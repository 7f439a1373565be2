import { expect, test } from '@playwright/test';
import { signIn } from './demo';

test('a key writes an entry from every screen, and another lists the keys unless somebody is typing', async ({
  page,
}) => {
  await signIn(page);
  const title = page.getByRole('dialog').getByLabel('Title', { exact: true });
  await page.keyboard.press('Alt+w');
  await expect(title).toBeFocused();
  // Nothing happens to what is being written.
  await page.keyboard.type('Half?');
  await page.keyboard.press('Alt+w');
  await expect(title).toHaveValue('Half?');
  await page.keyboard.press('Escape');
  await page.getByRole('alertdialog').getByRole('button', { name: 'Discard changes' }).click();
  await expect(page.getByRole('dialog')).toHaveCount(0);

  await page.getByRole('link', { name: /^Reach/ }).click();
  await expect(page.getByRole('heading', { name: 'Reach', level: 1 })).toBeVisible();
  await page.keyboard.press('?');
  const keys = page.getByRole('dialog', { name: 'Keyboard shortcuts' });
  await expect(keys.getByRole('row').filter({ hasText: 'Alt+W' })).toContainText('New entry');
  await page.keyboard.press('Escape');
  await expect(keys).toBeHidden();
  await page.keyboard.press('Alt+w');
  await expect(title).toBeFocused();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  // It is not written again by loading the page once more.
  await page.reload();
  await expect(page.getByRole('button', { name: 'New entry' })).toBeVisible();
  await expect(page.getByRole('dialog')).toHaveCount(0);
});
