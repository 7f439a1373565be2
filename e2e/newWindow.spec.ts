import { expect, test, type Page } from '@playwright/test';
import { confirmLarge, signIn } from './demo';

/** Opens the window that is being drafted, and returns the address of its studio. */
async function openDraft(page: Page): Promise<string> {
  await page.getByRole('button', { name: 'Open the window …' }).click();
  await confirmLarge(page);
  await page.getByRole('button', { name: 'Open the window now' }).click();
  await expect(page.getByText('What you see on the right is visible outside now.')).toBeVisible();
  return page.url();
}

test('a new window starts from a template, is copied without its name, and is deleted once it is closed', async ({
  page,
}) => {
  await signIn(page);
  await page.goto('/windows/new');
  const start = page.getByLabel('Start from');
  await start.selectOption({ label: 'Template: Public programme' });
  await expect(page.getByText('Titles, times and places of the coming year')).toBeVisible();
  // Discarding the draft ends the choice, too.
  await page.getByRole('button', { name: 'Discard draft' }).click();
  await expect(start).toHaveValue('blank');
  await start.selectOption({ label: 'Template: Public programme' });
  await page.getByRole('button', { name: 'Add Lighthouse visits' }).click();
  const glass = page.getByRole('radiogroup', { name: 'Glass for Lighthouse visits' });
  await expect(glass.getByRole('radio', { name: /Tinted/ })).toBeChecked();
  const name = page.getByLabel('Name that readers see');
  await name.fill('Lamp tours');
  const address = await openDraft(page);

  await page.getByRole('link', { name: 'Copy window' }).click();
  await expect(name).toHaveValue('');
  await expect(glass.getByRole('radio', { name: /Tinted/ })).toBeChecked();
  await expect(page.getByRole('button', { name: 'Open the window …' })).toBeDisabled();
  await name.fill('Lamp tours in winter');
  // Work that was begun is not replaced without asking.
  await start.selectOption({ label: 'Template: Busy times' });
  await page.getByRole('button', { name: 'Keep my draft' }).click();
  await expect(name).toHaveValue('Lamp tours in winter');
  await openDraft(page);

  await page.goto(address);
  await page.getByRole('button', { name: 'Close window …' }).click();
  await page.getByRole('button', { name: 'Close now, for everybody' }).click();
  await page.getByRole('button', { name: 'Delete window …' }).click();
  await page.getByRole('button', { name: 'Cancel' }).click();
  await page.getByRole('button', { name: 'Delete window …' }).click();
  await page.getByRole('button', { name: 'Delete window', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Windows', level: 1 })).toBeVisible();
  await expect(page.getByRole('link', { name: 'Lamp tours in winter' })).toBeVisible();
  await expect(page.getByRole('link', { name: 'Lamp tours', exact: true })).toHaveCount(0);
});
