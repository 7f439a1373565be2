import { expect, test, type Page } from '@playwright/test';
import { EMPTY_CONTENT } from '@zonal/core/entries';
import { changeHeaders, showOnly, signIn } from './demo';

/** Makes a calendar with three entries in the next days. */
async function threeEntries(page: Page): Promise<void> {
  const headers = await changeHeaders(page);
  const post = async (path: string, data: object) =>
    (await page.request.post(`/api${path}`, { headers, data })).json();
  const plate = { plate: 'RG', colour: 'teal', zone: 'America/Halifax', description: '' };
  const { id } = await post('/calendars', { ...plate, name: 'Rigging' });
  const day = (n: number) => new Date(Date.now() + n * 86_400_000).toISOString().slice(0, 10);
  const entry = (title: string, n: number) => ({
    version: 0,
    calendarId: id,
    entry: {
      ...{ ...EMPTY_CONTENT, title, recurrence: null, overrides: [] },
      ...{ start: { kind: 'date', date: day(n) }, end: { kind: 'date', date: day(n + 1) } },
    },
  });
  const changes = [entry('Mast out', 1), entry('Mast in', 2), entry('Sea trial', 3)];
  const { entries } = await post('/edits', { label: 'Made', changes });
  expect(entries).toHaveLength(3);
}

test('several entries are selected and changed in one step, with its effect in sight, and taken back', async ({
  page,
}) => {
  await signIn(page);
  await threeEntries(page);
  await showOnly(page, 'Rigging');
  await page.getByText('List', { exact: true }).click();
  // On a Sunday the next days are in another week.
  await page.getByLabel('Days shown').selectOption('4');
  await page.getByLabel('Find', { exact: true }).first().fill('Mast');
  const rows = page.getByRole('table', { name: 'Entries in order of time' }).getByRole('row');
  await expect(rows).toHaveCount(3);
  await page.getByLabel('Select all').check();
  const bar = page.getByRole('group', { name: 'Selected entries' });
  await expect(bar).toContainText('2 selected');
  await bar.getByRole('button', { name: 'Change selected …' }).click();
  const sheet = page.getByRole('dialog', { name: 'Change 2 entries' });
  await sheet.getByLabel('Action').selectOption({ label: 'Add a label' });
  await expect(sheet.getByRole('button', { name: 'Add a label' })).toBeDisabled();
  await sheet.getByLabel('Label', { exact: true }).fill('crane');
  await sheet.getByRole('button', { name: 'What changes outside' }).click();
  await expect(sheet.getByText('No open window shows this calendar.')).toBeVisible();
  await sheet.getByRole('button', { name: 'Add a label' }).click();
  await expect(sheet).toBeHidden();
  await expect(page.getByText('Labelled 2 entries.')).toBeVisible();
  await expect(bar).toBeHidden();

  await page.getByLabel('Select all').check();
  await bar.getByRole('button', { name: 'Change selected …' }).click();
  await sheet.getByLabel('Action').selectOption({ label: 'Delete' });
  await sheet.getByRole('button', { name: 'Delete' }).click();
  await expect(page.getByText('No entries on these days.')).toBeVisible();
  await page.getByRole('button', { name: 'Undo: Deleted 2 entries' }).click();
  await expect(rows).toHaveCount(3);
  await rows.nth(1).getByRole('button').click();
  const title = page.getByRole('dialog').getByLabel('Title', { exact: true });
  await expect(page.getByRole('dialog').getByLabel(/^Labels/)).toHaveValue('crane');

  // One entry is duplicated from its editor.
  await page.getByRole('button', { name: 'Duplicate' }).click();
  await expect(page.getByRole('dialog', { name: 'New entry' })).toBeVisible();
  await expect(title).toHaveValue('Mast out');
  await title.fill('Mast out again');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(rows).toHaveCount(4);
});
