import { expect, test, type Page } from '@playwright/test';
import { signIn } from './demo';

const FILE = [
  'BEGIN:VCALENDAR',
  'VERSION:2.0',
  'PRODID:-//test//test//EN',
  'X-WR-CALNAME:Sail lofts',
  ...['one', 'two'].flatMap((uid) => [
    'BEGIN:VEVENT',
    `UID:${uid}@sails.example`,
    'DTSTAMP:20260101T000000Z',
    'DTSTART;VALUE=DATE:20260704',
    `SUMMARY:Open loft ${uid}`,
    'END:VEVENT',
  ]),
  'END:VCALENDAR',
  '',
].join('\r\n');

const calendarNames = async (page: Page): Promise<string[]> => {
  const calendars: { name: string }[] = await (await page.request.get('/api/calendars')).json();
  return calendars.map((calendar) => calendar.name);
};

async function chooseFile(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Import a file' }).click();
  await page.getByLabel('Into calendar').selectOption({ label: 'A new calendar' });
  const chooser = page.waitForEvent('filechooser');
  await page.getByRole('button', { name: 'Choose a file' }).click();
  await (
    await chooser
  ).setFiles({ name: 'export-7.ics', mimeType: 'text/calendar', buffer: Buffer.from(FILE) });
}

test('a file becomes a calendar of its own name, and leaves nothing behind if it is given up', async ({
  page,
}) => {
  await signIn(page);
  await chooseFile(page);
  const name = page.getByLabel('Name of the new calendar');
  await expect(name).toHaveValue('Sail lofts');
  await expect(page.getByText('For Sail lofts:')).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toBeHidden();
  expect(await calendarNames(page)).not.toContain('Sail lofts');

  // A refusal of its entries takes the calendar away again.
  await page.route(/\/api\/edits\/[^/]+\/apply$/, (route) => route.fulfill({ status: 503, body: '{}' }));
  await chooseFile(page);
  await page.getByRole('button', { name: 'Import 2 entries' }).click();
  await expect(page.getByRole('dialog').getByRole('alert')).toBeVisible();
  await expect.poll(() => calendarNames(page)).not.toContain('Sail lofts');
  await page.unroute(/\/api\/edits\/[^/]+\/apply$/);
  await page.keyboard.press('Escape');

  await chooseFile(page);
  await name.fill('');
  await expect(page.getByRole('button', { name: 'Import 2 entries' })).toBeDisabled();
  await name.fill('Sail lofts of the harbour');
  await page.getByRole('button', { name: 'Import 2 entries' }).click();
  await expect(page.getByText('2 entries were imported into Sail lofts of the harbour.')).toBeVisible();
  await page.getByRole('button', { name: 'Done' }).click();
  await expect(page.getByRole('button', { name: 'Show Sail lofts of the harbour' })).toBeVisible();
});
