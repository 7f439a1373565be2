import { expect, test, type Page } from '@playwright/test';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { demoWindow, signIn } from './demo';
import { HOST_SITE } from './startDemo';

/** Opens the page on which the first key of a window is put on another site. */
async function openBuilder(page: Page, name: string): Promise<void> {
  await signIn(page);
  await page.goto('/windows');
  await page.getByRole('link', { name }).click();
  await page.getByRole('link', { name: 'On another site …' }).first().press('Enter');
  await expect(page.getByRole('heading', { name: `${name} on another site` })).toBeVisible();
}

/** Presses something; a frame that scrolls away under the pointer would still get what is pressed in the same moment. */
async function press(page: Page, text: string): Promise<void> {
  const target = page.getByText(text, { exact: true });
  await target.scrollIntoViewIfNeeded();
  await target.click();
}

const trial = (page: Page, model: string) =>
  page.frameLocator(`iframe[title="${model} of another site"]`).frameLocator('iframe');

test('an embed is tried on another site before it is pasted, and says where something is cut off', async ({
  page,
}) => {
  await openBuilder(page, 'Lighthouse slots');
  for (const model of ['Side column', 'Article', 'Full width', 'Dark page', 'Strict policy'])
    await expect(trial(page, model).getByRole('heading', { name: 'Lighthouse slots' })).toBeAttached();
  const marks = page.getByRole('radiogroup', { name: 'Model page' }).getByLabel('something is cut off');
  await page.getByLabel('Height').fill('300');
  await expect(marks).toHaveCount(5);
  await expect(page.getByText(/pixels higher than the frame/)).toBeVisible();
  // A script fits it, but where the site lets none in.
  // It may come late, when the embed has said its size already.
  let release = () => undefined as unknown;
  const held = new Promise<void>((resolve) => (release = resolve));
  await page.route('**/outside/fit.js', async (route) => {
    await held;
    await route.continue();
  });
  await press(page, 'Fitted frame');
  for (const model of ['Side column', 'Article', 'Full width', 'Dark page'])
    await expect(trial(page, model).getByRole('heading', { name: 'Lighthouse slots' })).toBeAttached();
  release();
  await expect(marks).toHaveCount(1);
  await expect(page.getByText('Nothing is cut off here.')).toBeVisible();
  await press(page, 'Strict policy');
  await expect(page.getByText(/this site does not let the script run/)).toBeVisible();
  // The rest is a matter of what is shown.
  await press(page, 'Side column');
  await press(page, 'week');
  await expect(trial(page, 'Side column').getByText(/^Week of/)).toBeVisible();
  const html = trial(page, 'Side column').locator('html');
  expect(await html.evaluate((e) => e.scrollWidth - e.clientWidth)).toBe(0);
  expect(await html.evaluate(() => innerWidth)).toBe(240);
});

test('code that stands on a site already is read, and says which of its options are none', async ({
  page,
}) => {
  await openBuilder(page, 'On the quay');
  const { embed } = await demoWindow('on-the-quay');
  await page.getByText('Read code that is already on a site').click();
  await page.getByLabel('Code or address').fill(`<iframe src="${embed}?show=week&amp;clock=13">`);
  await expect(page.getByText('“clock” cannot be “13”. Readers get the default')).toBeVisible();
  await page.getByRole('button', { name: 'Copy its options' }).press('Enter');
  await press(page, 'fixed in the code');
  const code = page.getByRole('textbox', { name: 'Code to paste' });
  await expect(code).toHaveValue(/\/embed\/[\w-]+\?show=week"/);
  await page.getByLabel('Height').fill('7');
  await expect(page.getByText('640 is taken instead')).toBeVisible();
  await expect(code).toHaveValue(/height="640"/);
});

test('what is stored with the key changes what was pasted; what is fixed in the code stays', async ({
  page,
  context,
}) => {
  await openBuilder(page, 'Works ahead');
  const code = page.getByRole('textbox', { name: 'Code to paste' });
  await press(page, 'month');
  await page.getByRole('checkbox', { name: 'Description, contact' }).setChecked(false, { force: true });
  await page.getByLabel('Language').selectOption('de');
  await press(page, 'fixed in the code');
  await expect(code).toHaveValue(/show=month&amp;parts=title%2Czone[^"]*&amp;lang=de/);
  const [fixed] = /https?:[^"]*/.exec((await code.inputValue()).replaceAll('&amp;', '&'))!;
  await press(page, 'stored with the key');
  const [held] = /https?:[^"]*/.exec(await code.inputValue())!;
  expect(held).not.toContain('?');
  const site = await context.newPage();
  const shown = async (embed: string) => {
    await site.goto(`${HOST_SITE}/article?${new URLSearchParams({ embed }).toString()}`);
    return site.frameLocator('iframe');
  };
  await expect((await shown(held)).locator('.list')).toBeVisible();
  await page.getByRole('button', { name: 'Show this on other sites' }).press('Enter');
  await expect(page.getByText('Other sites show the stored version.')).toBeVisible();
  await expect((await shown(held)).getByText('Zeiten in America/Halifax')).toBeVisible();
  await expect((await shown(held)).getByText('Questions:')).toHaveCount(0);
  await press(page, 'week');
  await page.getByRole('button', { name: 'Show this on other sites' }).press('Enter');
  await expect(page.getByText('Other sites show the stored version.')).toBeVisible();
  await expect((await shown(held)).locator('.week')).toBeVisible();
  await expect((await shown(fixed)).locator('.grid')).toBeVisible();
});

test('an embed stands in the sites that are named and in no other', async ({ page, context }) => {
  await openBuilder(page, 'On the quay');
  await page.getByLabel('Sites that may show it').fill('town.example');
  await page.getByRole('button', { name: 'Show this on other sites' }).press('Enter');
  await expect(page.getByText('Other sites show the stored version.')).toBeVisible();
  await expect(page.getByLabel('Sites that may show it')).toHaveValue('https://town.example');
  const { embed } = await demoWindow('on-the-quay');
  const other = createServer((_req, res) => {
    res.setHeader('content-type', 'text/html');
    res.end(`<iframe src="${embed}" title="held"></iframe>`);
  });
  await new Promise<void>((resolve) => other.listen(0, '127.0.0.1', resolve));
  const elsewhere = await context.newPage();
  const held = () => elsewhere.frameLocator('iframe').getByRole('heading', { name: 'On the quay' });
  const refused = elsewhere.waitForEvent('console', (m) => /frame-ancestors/.test(m.text()));
  await elsewhere.goto(`http://127.0.0.1:${(other.address() as AddressInfo).port}/`);
  await refused;
  await expect(held()).toHaveCount(0);
  await page.getByLabel('Sites that may show it').fill('');
  await page.getByRole('button', { name: 'Show this on other sites' }).press('Enter');
  await expect(page.getByText('Other sites show the stored version.')).toBeVisible();
  await elsewhere.reload();
  await expect(held()).toBeVisible();
  other.close();
});

test('the studio shows pages as wide as readers have them, and starts a new window by name', async ({
  page,
}) => {
  await signIn(page);
  await page.goto('/windows');
  await page.getByRole('link', { name: 'On the quay' }).click();
  const pane = page.frameLocator('iframe[title="What readers see"]');
  await expect(pane.locator('html')).toBeVisible();
  const width = () => pane.locator('html').evaluate(() => document.documentElement.clientWidth);
  await expect.poll(width).toBeGreaterThan(1080);
  await page.getByText('Phone', { exact: true }).click();
  await expect.poll(width).toBeLessThanOrEqual(390);
  await page.goto('/windows/new');
  await expect(page.getByText(/times in all/)).toHaveCount(0);
  await page.getByRole('button', { name: 'Add Lighthouse visits' }).click();
  await expect(page.getByLabel('Name that readers see')).toHaveValue('Lighthouse visits');
  await expect(page.getByText(/times in all/)).toBeVisible();
});
