import { expect, test, type Page } from '@playwright/test';
import { signIn } from './demo';

/** Opens the sheet of a calendar's people. */
async function openPeople(page: Page, name: string): Promise<void> {
  await page.goto('/calendars');
  await page.getByText('Lanes', { exact: true }).click();
  const lanes = page.getByRole('region', { name: /Lanes/ });
  await expect(page.getByText('Fetching entries')).toHaveCount(0);
  // By key: a press of the pointer can meet a lane that just moves.
  await lanes.getByRole('button', { name, exact: true }).press('Enter');
  await page.getByRole('button', { name: 'People …' }).press('Enter');
}

test('a colleague sees through a glass, and at once what is given and taken, with the page open', async ({
  page,
  browser,
}) => {
  await signIn(page);
  const other = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const colleague = await other.newPage();
  // The demo offers its people with one press.
  await colleague.goto('/');
  await colleague.getByRole('button', { name: 'Siri Holme, colleague' }).click();
  // The house diary is not theirs to know of.
  await expect(colleague.getByRole('button', { name: 'Show Bridge and lock times' })).toBeVisible();
  await expect(colleague.getByRole('button', { name: 'Show House diary' })).toHaveCount(0);

  await openPeople(page, 'House diary');
  await page.getByLabel('Add a colleague').selectOption({ label: 'Siri Holme, siri@ostrel.example' });
  const seen = page.getByRole('list', { name: 'Preview' });
  await page.getByLabel('Preview as').selectOption('Siri Holme');
  await expect(seen.getByRole('listitem').first()).toContainText('Busy');
  await page.getByLabel('Preview as').selectOption('everybody else in the house');
  await expect(page.getByText('They do not see that this calendar exists')).toBeVisible();
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(colleague.getByRole('button', { name: 'Show House diary' })).toBeVisible();
  await colleague.getByText('List', { exact: true }).click();
  await expect(colleague.getByRole('button', { name: /Busy/ }).first()).toBeVisible();
  await expect(colleague.getByText('Team meeting')).toHaveCount(0);
  await colleague.getByRole('button', { name: /Busy/ }).first().click();
  await expect(colleague.getByText(/through frosted glass: only when time is taken/)).toBeVisible();
  await expect(colleague.getByRole('button', { name: 'Save' })).toHaveCount(0);
  await colleague.keyboard.press('Escape');

  await openPeople(page, 'House diary');
  await page.getByLabel('Glass of Siri Holme').selectOption('tinted');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(colleague.getByRole('button', { name: /Team meeting/ }).first()).toBeVisible();

  await openPeople(page, 'House diary');
  await page.getByRole('button', { name: 'Remove Siri Holme' }).click();
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(colleague.getByRole('button', { name: 'Show House diary' })).toHaveCount(0);
  await expect(colleague.getByRole('button', { name: /Team meeting/ })).toHaveCount(0);

  // Nothing is offered that they may not do.
  await expect(colleague.getByRole('button', { name: 'New entry' })).toBeDisabled();
  await colleague.goto('/windows');
  await expect(colleague.getByText(/There is no window that you may see/)).toBeVisible();
  await other.close();
});
