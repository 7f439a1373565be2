import { expect, test, type Page } from '@playwright/test';
import { SECTIONS, signIn } from './demo';

/** Most that the page to sign in, and each section besides, may load as scripts and styles: bytes as they are sent. */
const MAX_SIGN_IN_BYTES = 120_000;
const MAX_SECTION_BYTES = 250_000;

/**
 * Returns the bytes of each script and style that a page has loaded, as they were sent. What only workers load is left out: they
 * fetch it when somebody asks for what they compute.
 */
async function weightsOf(page: Page): Promise<Map<string, number>> {
  const loaded = await page.evaluate(() =>
    performance
      .getEntriesByType('resource')
      .filter(({ name }) => /\.(js|css)$/.test(name) && !/worker/.test(name))
      .map((one) => [one.name, (one as PerformanceResourceTiming).encodedBodySize] as const),
  );
  return new Map(loaded);
}

const sum = (weights: Iterable<number>) => [...weights].reduce((total, bytes) => total + bytes, 0);

test('the page to sign in is light, and each section loads only what it shows', async ({ page }) => {
  await page.goto('/');
  await expect(page.getByRole('button', { name: 'Sign in' })).toBeVisible();
  await page.waitForLoadState('networkidle');
  const first = await weightsOf(page);
  expect(first.size).toBeGreaterThan(1);
  expect(sum(first.values())).toBeLessThan(MAX_SIGN_IN_BYTES);
  await signIn(page);
  for (const path of SECTIONS) {
    await page.goto(path);
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
    await page.waitForLoadState('networkidle');
    const own = [...(await weightsOf(page))].filter(([name]) => !first.has(name));
    const bytes = sum(own.map(([, weight]) => weight));
    expect(bytes, path).toBeGreaterThan(50_000);
    expect(bytes, path).toBeLessThan(MAX_SECTION_BYTES);
  }
});

test('a screen whose script does not arrive says so, and is loaded again', async ({ page }) => {
  await signIn(page);
  await page.route(/\/assets\/ReachPage-.*\.js$/, (route) => route.abort());
  await page.getByRole('link', { name: /^Reach/ }).click();
  await expect(page.getByRole('alert')).toContainText('This screen could not be opened.');
  // The rest goes on working.
  await page.getByRole('link', { name: /^Windows/ }).click();
  await expect(page.getByRole('heading', { name: 'Windows', level: 1 })).toBeVisible();
  await page.getByRole('link', { name: /^Reach/ }).click();
  await page.unroute(/\/assets\/ReachPage-.*\.js$/);
  await page.getByRole('button', { name: 'Load again' }).click();
  await expect(page.getByRole('heading', { name: 'Reach', level: 1 })).toBeVisible();
});

test('Escape before the script of the editor is there opens nothing, and a script lost once is fetched again', async ({
  page,
}) => {
  const script = /\/assets\/EntryEditor-.*\.js$/;
  let asked = 0;
  let release = () => {};
  const released = new Promise<void>((resolve) => (release = resolve));
  await page.route(script, async (route) => {
    asked++;
    await released;
    // The first answer is lost.
    await (asked === 1 ? route.abort() : route.continue());
  });
  await signIn(page);
  const write = page.getByRole('button', { name: 'New entry' });
  await write.click();
  await expect(page.getByText('Opening')).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByText('Opening')).toHaveCount(0);
  release();
  await write.click();
  await expect(page.getByRole('dialog').getByLabel('Title', { exact: true })).toBeFocused();
  expect(asked).toBe(2);
});
