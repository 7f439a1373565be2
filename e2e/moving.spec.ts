import { expect, test, type Page } from '@playwright/test';
import { signIn } from './demo';

const PHONE = { width: 390, height: 844 };
const SCREENS = ['/calendars', '/windows', '/sightlines', '/reach', '/house', '/requests', '/account'];

test('moving to another screen puts the focus on its heading, and nothing else takes it there', async ({
  page,
}) => {
  await signIn(page);
  for (const name of ['Windows', 'Sightlines', 'Reach', 'House', 'Calendars']) {
    await page
      .getByRole('navigation', { name: 'Sections' })
      .getByRole('link', { name: new RegExp(name) })
      .click();
    await expect(page.getByRole('heading', { level: 1 })).toBeFocused();
    await expect(page).toHaveTitle(new RegExp(`^${name}`));
  }
  // What a screen opens keeps the focus.
  await page.goto('/windows');
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  await page.keyboard.press('Alt+KeyW');
  await expect(page.getByRole('dialog').getByLabel('Title', { exact: true })).toBeFocused();
});

/** Returns what can be pressed and is smaller than 24 by 24 pixels, unless it stands in a line of text (WCAG 2.2, 2.5.8). */
const smallTargets = (page: Page) =>
  page.evaluate(() => {
    const small: string[] = [];
    for (const element of document.querySelectorAll<HTMLElement>(
      'a, button, select, input, summary, [role=radio]',
    )) {
      const box = element.getBoundingClientRect();
      const label = element.closest('label')?.getBoundingClientRect() ?? box;
      const isSeen = box.width > 1 && box.height > 1 && element.checkVisibility();
      // What is drawn to scale is in the list too; what is moved off the screen comes with the focus.
      const isElsewhere = box.right < 0 || element.closest('[data-key]') !== null;
      const isInText = getComputedStyle(element).display === 'inline';
      if (isSeen && !isElsewhere && !isInText && Math.min(label.width, label.height) < 23.5)
        small.push(
          `${element.tagName} ${element.getAttribute('aria-label') ?? element.textContent} ${label.width}x${label.height}`,
        );
    }
    return small;
  });

test('a phone has one line of sections, folded controls and targets that a finger meets', async ({
  page,
}) => {
  await page.setViewportSize(PHONE);
  await signIn(page);
  const small: string[] = [];
  for (const path of SCREENS) {
    await page.goto(path);
    await expect(page.getByRole('heading', { level: 1 })).toBeAttached();
    await expect(page.getByText(/^Fetching/)).toHaveCount(0);
    const sections = page.getByRole('navigation', { name: 'Sections' }).getByRole('link');
    const tops = await sections.evaluateAll((all) => all.map((a) => a.getBoundingClientRect().top));
    expect(new Set(tops).size, path).toBe(1);
    expect(await page.evaluate(() => document.documentElement.scrollWidth), path).toBeLessThanOrEqual(
      PHONE.width,
    );
    small.push(...(await smallTargets(page)).map((target) => `${path}: ${target}`));
  }
  expect(small).toEqual([]);
  await page.goto('/calendars');
  const view = page.getByRole('radiogroup', { name: 'View' });
  await expect(view).toBeHidden();
  await page.getByRole('button', { name: /^View: / }).click();
  await view.getByText('List', { exact: true }).click();
  await expect(page.getByRole('table', { name: 'Entries in order of time' })).toBeVisible();
  await expect(page.getByRole('link', { name: /^Your account/ })).toBeHidden();
  await page.getByRole('button', { name: /^You/ }).click();
  await page.getByRole('link', { name: /^Your account/ }).click();
  await expect(page.getByRole('heading', { level: 1 })).toBeFocused();
  await expect(page.getByRole('link', { name: /^Your account/ })).toBeHidden();
});

test('where colours are forced, what is chosen has a frame', async ({ page }) => {
  await page.emulateMedia({ forcedColors: 'active' });
  await signIn(page);
  const styles = (locator: ReturnType<Page['locator']>) =>
    locator.evaluate((e) => getComputedStyle(e).outlineStyle);
  expect(await styles(page.getByRole('navigation').getByRole('link', { name: /Calendars/ }))).toBe('solid');
  expect(await styles(page.getByRole('navigation').getByRole('link', { name: /Windows/ }))).toBe('none');
  const chosen = page.getByRole('radiogroup', { name: 'View' }).locator('label');
  expect(await chosen.evaluateAll((all) => all.map((e) => getComputedStyle(e).outlineStyle))).toEqual([
    'solid',
    'none',
    'none',
    'none',
  ]);
});
