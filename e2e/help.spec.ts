import { expect, test, type Page } from '@playwright/test';
import { signIn } from './demo';

const studio = async (page: Page) => {
  await page.goto('/windows');
  await page.getByRole('link', { name: 'Works ahead' }).first().click();
  await expect(page.getByRole('heading', { level: 1, name: 'Works ahead' })).toBeVisible();
};

test('a word of the product explains itself, and leads to the list of all words', async ({ page }) => {
  await signIn(page);
  await page.goto('/sightlines');
  await page.getByRole('button', { name: 'Sightlines' }).click();
  const meaning = page.getByRole('dialog', { name: 'sightlines' });
  await expect(meaning).toContainText('who can see what, and why');
  await page.keyboard.press('Escape');
  await expect(meaning).toBeHidden();
  await page.getByRole('button', { name: 'Sightlines' }).press('Enter');
  await meaning.getByRole('link', { name: 'All words' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Words');
  await expect(page.locator('dt#sightlines')).toBeInViewport();
  // The guides are the project's own documents.
  await page.getByRole('link', { name: 'Help' }).first().click();
  await page.getByRole('link', { name: 'Staying in sync' }).click();
  await expect(page.getByRole('table').first()).toBeVisible();
  await page.goto('/help/no-such-guide');
  await expect(page.getByText('There is no such guide')).toBeVisible();
});

test('the tour of the studio is offered once, leads from part to part, and ends with Escape', async ({
  page,
}) => {
  await signIn(page);
  await studio(page);
  await expect(page.getByText('Is this your first time here?')).toBeVisible();
  await page.getByRole('button', { name: 'Tour of the studio' }).click();
  for (const part of ['Inside', 'Glass', 'Outside', 'Nothing changes']) {
    await expect(page.getByRole('dialog', { name: new RegExp(`: ${part}`) })).toBeFocused();
    await page.getByRole('button', { name: /^(Next|Done)$/ }).click();
  }
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await page.reload();
  await page.getByRole('button', { name: 'Tour of the studio' }).click();
  await expect(page.getByText('Is this your first time here?')).toBeHidden();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toHaveCount(0);
});

test('settings in use come first, the others are folded, and a search finds all of them', async ({
  page,
}) => {
  await signIn(page);
  await studio(page);
  const pattern = page.getByLabel('Pattern of titles');
  const reminder = page.getByLabel('Suggest a reminder');
  await expect(pattern).toBeVisible();
  await expect(reminder).toBeHidden();
  await page.getByLabel('Find a setting').fill('remind');
  await expect(reminder).toBeVisible();
  await expect(pattern).toBeHidden();
  await page.getByLabel('Find a setting').fill('horizon');
  await expect(page.getByLabel('Days ahead')).toBeVisible();
  await expect(page.getByText('No setting in this column matches.')).toBeVisible();
  await page.getByLabel('Find a setting').fill('');

  // What is added has the focus; the outside view stays in sight while the settings scroll.
  await page.getByRole('button', { name: 'Add Events on the quay' }).click();
  const glass = page.getByRole('radiogroup', { name: 'Glass for Events on the quay' });
  await expect(glass.getByRole('radio', { name: 'Frosted' })).toBeFocused();
  await page.getByRole('button', { name: 'Add condition' }).click();
  await expect(page.getByLabel('Field').last()).toBeInViewport();
  await expect(page.getByRole('heading', { name: /^Outside/ })).toBeInViewport();
  await page.getByRole('button', { name: 'Discard draft' }).click();
});
