import { expect, test } from '@playwright/test';
import { showOnly, signIn } from './demo';
import { partsOf, setWhen } from './fields';

test('an entry is written, recurs, is frosted and deleted, all from the keyboard', async ({ page }) => {
  await signIn(page);
  await page.getByText('List', { exact: true }).click();
  await page.getByRole('button', { name: 'New entry' }).press('Enter');
  await page.getByLabel('Calendar', { exact: true }).selectOption({ label: 'HD House diary' });
  await page.getByLabel('Title').fill('Key inventory');
  await page.getByLabel('Repeats').selectOption('daily');
  await expect(page.getByText('every day', { exact: true })).toBeVisible();
  await page.getByLabel('Ends', { exact: true }).last().selectOption('count');
  await page.getByLabel('Times', { exact: true }).fill('2');
  await expect(page.getByText('every day, 2 times')).toBeVisible();
  await page.getByRole('radio', { name: 'Frost it' }).focus();
  await page.keyboard.press('Space');
  await expect(page.getByText('never shows more than busy time')).toBeVisible();
  await page.getByRole('button', { name: 'Save' }).press('Enter');
  await expect(page.getByRole('dialog')).toBeHidden();
  await page.getByLabel('Days shown').selectOption('2');
  // Whatever day it is, both dates are in sight then.
  await showOnly(page, 'House diary');
  const rows = page.getByRole('row', { name: /Key inventory/ });
  await expect(rows).toHaveCount(2);
  await expect(rows.first()).toContainText('recurring, frosted: busy time at most');
  await rows.first().getByRole('button').press('Enter');
  await page.getByText('All dates', { exact: true }).click();
  await page.getByRole('button', { name: 'Delete all dates' }).press('Enter');
  await expect(rows).toHaveCount(0);
});

test('of two edits only what both changed is asked, with both texts in sight', async ({ page, browser }) => {
  await signIn(page);
  const colleague = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
  await signIn(colleague);
  for (const desk of [page, colleague]) {
    await showOnly(desk, 'House diary');
    await desk.getByText('List', { exact: true }).click();
    await desk.getByLabel('Days shown').selectOption('4');
    await desk.getByRole('table').getByRole('button', { name: 'Tender opening, dredger charter' }).click();
  }
  await page.getByLabel('Place').fill('Map room');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByRole('dialog')).toBeHidden();
  await colleague.getByLabel('Title').fill('Tender opening, upstairs');
  await colleague.getByLabel('Place').fill('Loft');
  await colleague.getByRole('button', { name: 'Save', exact: true }).click();
  const dispute = colleague.getByRole('radiogroup', { name: 'place' });
  await expect(dispute.getByText('Loft')).toBeVisible();
  await expect(dispute.getByText('Map room')).toBeVisible();
  await expect(colleague.getByRole('radiogroup', { name: 'title' })).toHaveCount(0);
  await dispute.getByText('Map room').click();
  await colleague.getByRole('button', { name: 'Save these' }).click();
  await expect(colleague.getByRole('dialog')).toBeHidden();
  await colleague.getByRole('table').getByRole('button', { name: 'Tender opening, upstairs' }).click();
  await expect(colleague.getByLabel('Place')).toHaveValue('Map room');
});

test('a malformed file is refused with its line, and nothing is imported', async ({ page }) => {
  await signIn(page);
  await page.getByRole('button', { name: 'Import a file' }).click();
  const chooser = page.waitForEvent('filechooser');
  await page.getByRole('button', { name: 'Choose a file' }).click();
  const buffer = Buffer.from('BEGIN:VCALENDAR\r\nX-A:1\r\nBEGIN:VEVENT\r\nthis is no property\r\n');
  await (await chooser).setFiles({ name: 'broken.ics', mimeType: 'text/calendar', buffer });
  await expect(page.getByRole('alert')).toContainText('Line 3');
  await expect(page.getByRole('alert')).toContainText('Nothing was imported');
});

test('the application breaks none of its own content policy, light and dark', async ({ page }) => {
  const refused: string[] = [];
  page.on('console', (message) => {
    if (message.type() === 'error') refused.push(message.text());
  });
  await signIn(page);
  await page.getByRole('button', { name: /Theme/ }).click();
  await page.getByRole('button', { name: /Theme/ }).click();
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'dark');
  await page.getByRole('link', { name: /Windows/ }).click();
  await page.getByRole('link', { name: 'On the quay' }).click();
  await expect(page.frameLocator('iframe').getByRole('heading', { name: 'On the quay' })).toBeVisible();
  // A preview frame is not allowed to run the page's script; that refusal is wanted.
  expect(refused.filter((text) => !text.includes('about:srcdoc'))).toEqual([]);
});

test('a colleague’s change appears without reload, in the lanes and in the studio', async ({
  page,
  browser,
}) => {
  await signIn(page);
  const colleague = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
  await signIn(colleague);
  await colleague.getByRole('link', { name: /Windows/ }).click();
  await colleague.getByRole('link', { name: 'On the quay' }).click();
  await colleague.getByText('list', { exact: true }).click();
  const preview = colleague.frameLocator('iframe[title="What readers see"]');
  await expect(preview.getByText('Saturday market').first()).toBeVisible();
  await page.getByRole('button', { name: 'New entry', exact: true }).click();
  await page.getByLabel('Calendar', { exact: true }).selectOption({ label: 'EV Events on the quay' });
  await page.getByLabel('Title').fill('Lantern walk');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(preview.getByText('Lantern walk')).toBeVisible();
  const [first] = await Promise.all([
    page.getByRole('region').getByRole('button', { name: 'Lantern walk' }).first(),
    colleague.getByRole('link', { name: /Calendars/ }).click(),
  ]);
  const walk = colleague.getByRole('region').getByRole('button', { name: 'Lantern walk' });
  await expect(walk).toBeVisible();
  await first.click();
  await page.getByRole('button', { name: 'Delete', exact: true }).click();
  await expect(walk).toHaveCount(0);
});

test('one date, all later dates, or all dates of a series are changed, as chosen', async ({ page }) => {
  await signIn(page);
  await showOnly(page, 'House diary');
  await page.getByText('List', { exact: true }).click();
  await page.getByLabel('Days shown').selectOption('2');
  await page.getByRole('button', { name: 'New entry', exact: true }).click();
  await page.getByLabel('Calendar', { exact: true }).selectOption({ label: 'HD House diary' });
  await page.getByLabel('Title').fill('Tide gauge');
  await page.getByLabel('Repeats').selectOption('daily');
  await page.getByLabel('Ends', { exact: true }).last().selectOption('count');
  await page.getByLabel('Times', { exact: true }).fill('6');
  await page.getByRole('button', { name: 'Save' }).click();
  const rows = page.getByRole('row', { name: /Tide gauge/ });
  await expect(rows).toHaveCount(6);
  const open = async (n: number) => {
    await rows.nth(n).getByRole('button').click();
    await expect(page.getByRole('dialog')).toBeVisible();
  };
  const save = async () => {
    await page.getByRole('button', { name: 'Save', exact: true }).click();
    await expect(page.getByRole('dialog')).toBeHidden();
  };

  await open(1);
  await expect(page.getByText('All others stay.')).toBeVisible();
  await page.getByLabel('Title').fill('Tide gauge, cleaned');
  await save();
  await expect(page.getByRole('row', { name: /cleaned/ })).toHaveCount(1);

  await open(3);
  await setWhen(page, 'Start time', '11:00');
  await page.getByText('This and later dates').click();
  await expect(page.getByText('all later dates (3 in two years). 3 earlier ones stay.')).toBeVisible();
  // What was typed is carried over to the other choice of dates.
  await expect(partsOf(page, 'Start time')).toContainText('11:00');
  await setWhen(page, 'End time', '11:30');
  await save();
  await expect(page.getByRole('row', { name: /11:00–11:30.*Tide gauge/ })).toHaveCount(3);
  await expect(page.getByRole('row', { name: /09:00–10:00.*Tide gauge/ })).toHaveCount(3);

  await open(4);
  await page.getByRole('button', { name: 'Skip this date' }).click();
  await expect(rows).toHaveCount(5);
  await open(0);
  await page.getByText('All dates', { exact: true }).click();
  await page.getByLabel('Place').fill('Pier head');
  await save();
  await expect(page.getByRole('row', { name: /Tide gauge.*Pier head/ })).toHaveCount(2);
  for (const n of [0, 0]) {
    const before = await rows.count();
    await open(n);
    await page.getByText('All dates', { exact: true }).click();
    await page.getByRole('button', { name: 'Delete all dates' }).click();
    await expect(page.getByRole('dialog')).toBeHidden();
    // What is gone must not be opened once more.
    await expect(rows).not.toHaveCount(before);
  }
  await expect(rows).toHaveCount(0);
});

test('a quick line shows what was understood, and writes it', async ({ page }) => {
  await signIn(page);
  await page.getByText('List', { exact: true }).click();
  await page.getByLabel('Calendar for the quick line').selectOption({ label: 'HD House diary' });
  const line = page.getByLabel(/Quick line/);
  await line.fill('today 14:00-15:30');
  await expect(page.getByText('A title is missing.')).toBeVisible();
  await line.fill('today 14:00-15:30 Rope count @ Net loft #stock');
  await expect(
    page.getByText(/^For .*: .*14:00 to 15:30, “Rope count”, at Net loft, labelled stock\./),
  ).toBeVisible();
  await line.press('Enter');
  await expect(page.getByText(/Added to House diary/)).toBeVisible();
  await expect(page.getByRole('row', { name: /14:00–15:30.*Rope count.*Net loft/ })).toBeVisible();
  const rope = page.getByRole('table').getByRole('button', { name: 'Rope count' });
  await rope.click();
  await page.getByRole('button', { name: 'Delete', exact: true }).click();
  await expect(rope).toHaveCount(0);
});
