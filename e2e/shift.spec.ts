import { expect, test, type Page } from '@playwright/test';
import { demoWindow, signIn } from './demo';

/** Layout shift above which a page is felt to jump. */
const LIMIT = 0.1;

/** Has a page add up the shifts that nobody caused, from now on; fonts arrive a second late. */
async function watchShifts(page: Page): Promise<void> {
  await page.addInitScript(() => {
    const seen = window as unknown as { shifts: { value: number; of: string }[] };
    seen.shifts = [];
    new PerformanceObserver((list) => {
      for (const entry of list.getEntries() as (PerformanceEntry & {
        value: number;
        hadRecentInput: boolean;
        sources: { node: Element | null }[];
      })[])
        if (!entry.hadRecentInput)
          seen.shifts.push({
            value: entry.value,
            of: entry.sources
              .map(({ node }) => `${node?.nodeName} ${node?.textContent?.slice(0, 40)}`)
              .join(' | '),
          });
    }).observe({ type: 'layout-shift', buffered: true });
  });
  await page.route(/\.woff2$/, async (route) => {
    await new Promise((resolve) => setTimeout(resolve, 1000));
    await route.continue();
  });
}

/** Expects that what a page has shifted until its fonts are there is below the limit, and names what did. */
async function expectStill(page: Page, name: string): Promise<void> {
  await page.waitForLoadState('networkidle');
  await page.evaluate(() => document.fonts.ready);
  await page.evaluate(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))));
  const shifts = await page.evaluate(
    () => (window as unknown as { shifts: { value: number; of: string }[] }).shifts,
  );
  const sum = shifts.reduce((all, { value }) => all + value, 0);
  expect(sum, `${name}: ${JSON.stringify(shifts)}`).toBeLessThan(LIMIT);
}

test('outside pages do not jump, also where fonts come late', async ({ page }) => {
  await watchShifts(page);
  const { see, embed } = await demoWindow('bridge-times');
  for (const address of [see, `${see}?show=week`, `${see}?show=list`, `${see}/follow`, embed]) {
    await page.goto(address);
    await expectStill(page, address);
  }
});

test('the screens of the application do not jump while they fill', async ({ page }) => {
  await signIn(page);
  await watchShifts(page);
  for (const path of ['/calendars', '/windows', '/sightlines', '/reach', '/house', '/requests']) {
    await page.goto(path);
    await expect(page.getByRole('heading', { level: 1 })).toBeAttached();
    await expect(page.getByText(/^Fetching/)).toHaveCount(0);
    await expectStill(page, path);
  }
});
