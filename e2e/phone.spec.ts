import { expect, test, type Page } from '@playwright/test';
import { changeHeaders, signIn } from './demo';

test.use({ viewport: { width: 390, height: 800 } });

/** Makes every answer of the API late, as on a bad line. */
async function slowLine(page: Page): Promise<void> {
  await page.route('**/api/**', async (route) => {
    await new Promise((resolve) => setTimeout(resolve, 400));
    await route.fallback();
  });
}

/** Fails the next request that changes something at an address. */
async function failOnce(page: Page, address: RegExp): Promise<void> {
  let hasFailed = false;
  await page.route(address, (route) => {
    if (hasFailed || route.request().method() === 'GET') return route.fallback();
    hasFailed = true;
    return route.fulfill({
      status: 503,
      contentType: 'application/json',
      body: JSON.stringify({ code: 'storage-away', message: 'The database is unavailable.', details: {} }),
    });
  });
}

const openTools = (page: Page) => page.getByRole('button', { name: 'Write, find, files' }).click();

test('on a phone with a bad line, an entry that is refused stays typed, is saved again, and is taken back after a reload', async ({
  page,
}) => {
  await slowLine(page);
  await signIn(page);
  await openTools(page);
  await page.getByRole('button', { name: 'New entry' }).click();
  const sheet = page.getByRole('dialog');
  const title = sheet.getByLabel('Title', { exact: true });
  await title.fill('Ferry late');
  await failOnce(page, /\/api\/edits$/);
  const write = sheet.getByRole('button', { name: 'Save' });
  await write.click();
  await expect(sheet.getByRole('alert')).toContainText('The database is unavailable.');
  await expect(sheet.getByRole('alert')).toBeInViewport();
  await expect(title).toHaveValue('Ferry late');
  await page.keyboard.press('Escape');
  const asked = page.getByRole('alertdialog', { name: 'Discard changes?' });
  await expect(asked.getByRole('button', { name: 'Discard changes' })).toBeInViewport();
  await asked.getByRole('button', { name: 'Keep editing' }).click();
  await write.click();
  await expect(sheet).toBeHidden();
  await page.reload();
  await page.getByRole('button', { name: /^View: / }).click();
  const undo = page.getByRole('button', { name: /^Undo: / });
  await expect(undo).toBeEnabled();
  await undo.click();
  await expect(page.getByText(/^Undone: /)).toBeVisible();
});

test('on a phone with a bad line, a failed reload leaves the form there, and an ended session goes on after signing in', async ({
  page,
}) => {
  await slowLine(page);
  await signIn(page);
  await openTools(page);
  await page.getByRole('button', { name: 'New entry' }).click();
  const title = page.getByRole('dialog').getByLabel('Title', { exact: true });
  await title.fill('Half written on the quay');
  await page.request.delete('/api/session', { headers: await changeHeaders(page) });
  await expect(page.getByText('Your session has ended, Ida Maren.')).toBeVisible();
  await page.getByRole('button', { name: /^Ida Maren/ }).click();
  await expect(title).toHaveValue('Half written on the quay');
  await page.keyboard.press('Escape');
  await page.getByRole('alertdialog').getByRole('button', { name: 'Discard changes' }).click();
  await expect(page.getByRole('dialog')).toHaveCount(0);
});

test('on a phone, a file becomes a calendar, its entries are changed together, and a window starts from it', async ({
  page,
}) => {
  await slowLine(page);
  await signIn(page);
  await openTools(page);
  const day = new Date(Date.now() + 2 * 86_400_000).toISOString().slice(0, 10).replaceAll('-', '');
  const events = ['one', 'two'].flatMap((uid) => [
    'BEGIN:VEVENT',
    `UID:${uid}@nets.example`,
    'DTSTAMP:20260101T000000Z',
    `DTSTART;VALUE=DATE:${day}`,
    `SUMMARY:Net mending ${uid}`,
    'END:VEVENT',
  ]);
  const file = ['BEGIN:VCALENDAR', 'VERSION:2.0', 'PRODID:-//test//test//EN', ...events, 'END:VCALENDAR', ''];
  await page.getByRole('button', { name: 'Import a file' }).click();
  await page.getByLabel('Into calendar').selectOption({ label: 'A new calendar' });
  const chooser = page.waitForEvent('filechooser');
  await page.getByRole('button', { name: 'Choose a file' }).click();
  const buffer = Buffer.from(file.join('\r\n'));
  await (await chooser).setFiles({ name: 'Nets.ics', mimeType: 'text/calendar', buffer });
  await page.getByLabel('Name of the new calendar').fill('Nets');
  await page.getByRole('button', { name: 'Import 2 entries' }).click();
  await page.getByRole('button', { name: 'Done' }).click();

  await page.getByRole('button', { name: /^View: / }).click();
  await page.getByRole('radiogroup', { name: 'View' }).getByText('List', { exact: true }).click();
  await page.getByLabel('Days shown').selectOption('4');
  await page.getByLabel('Find', { exact: true }).first().fill('Net mending');
  await expect(page.getByLabel(/^Select Net mending/)).toHaveCount(2);
  await page.getByLabel('Select all').check();
  await page.getByRole('button', { name: 'Change selected …' }).click();
  const sheet = page.getByRole('dialog', { name: 'Change 2 entries' });
  await sheet.getByLabel('Action').selectOption({ label: 'Add a label' });
  await sheet.getByLabel('Label', { exact: true }).fill('nets');
  await failOnce(page, /\/api\/edits$/);
  await sheet.getByRole('button', { name: 'Add a label' }).click();
  await expect(sheet.getByRole('alert')).toBeInViewport();
  await sheet.getByRole('button', { name: 'Add a label' }).click();
  await expect(page.getByText('Labelled 2 entries.')).toBeVisible();

  await page.goto('/windows/new');
  await page.getByRole('button', { name: 'Add Nets' }).click();
  await expect(page.getByLabel('Name that readers see')).toHaveValue('Nets');
  await page.reload();
  await expect(page.getByLabel('Name that readers see')).toHaveValue('Nets');
  await page.getByRole('button', { name: 'Discard draft' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('New window');
});
