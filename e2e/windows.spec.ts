import { expect, test, type Locator, type Page } from '@playwright/test';
import type { WindowReach } from '@zonal/core/api';
import { readFileSync } from 'node:fs';
import { demoWindow, poll, showOnly, confirmLarge, signIn } from './demo';
import { setWhen } from './fields';
import { BASE } from './startDemo';

const said = (page: Page, text: string | RegExp) => expect(page.getByText(text).first()).toBeVisible();
const preview = (page: Page) => page.frameLocator('iframe[title="What readers see"]');
const glassOf = (page: Page, calendar: string): Locator =>
  page.getByRole('radiogroup', { name: `Glass for ${calendar}` });

async function studio(page: Page, name: string): Promise<void> {
  await page.getByRole('link', { name: /^Windows/ }).click();
  await page.getByRole('link', { name, exact: true }).click();
  await expect(page.getByRole('heading', { name, level: 1 })).toBeVisible();
}

async function openWindow(page: Page, name: string, calendar: string, glass: string): Promise<void> {
  await page.getByRole('link', { name: /^Windows/ }).click();
  await page.getByRole('button', { name: 'Open a window' }).click();
  await page.getByRole('button', { name: `Add ${calendar}` }).click();
  await glassOf(page, calendar).getByText(glass).click();
  await page.getByLabel('Name that readers see').fill(name);
}

async function publish(page: Page): Promise<void> {
  await page.getByRole('button', { name: /^(Show this outside|Open the window) …$/ }).click();
  const now = page.getByRole('button', { name: /^(Show this outside|Open the window) now$/ });
  await confirmLarge(page);
  await now.click();
  await said(page, 'is visible outside now');
}

test('the studio shows what is served, by filter, cut, pattern and reader', async ({ page }) => {
  await signIn(page);
  await openWindow(page, 'Works for all', 'Dredging and works', 'Cut');
  await page.getByText('list', { exact: true }).click();
  const taken = page.getByText(/\d+ of \d+ entries match/);
  await expect(taken).toBeVisible();
  const count = async () => Number((await taken.textContent())!.match(/^\d+/)![0]);
  const all = await count();

  // A filter in words, with a count that follows.
  await page.getByRole('button', { name: 'Add condition' }).click();
  await page.getByLabel('Label', { exact: true }).selectOption('milestone');
  await said(page, 'entries labelled “milestone”');
  await expect.poll(count).toBe(5);
  await page.getByText('not', { exact: true }).click();
  await said(page, 'entries not labelled “milestone”');
  await expect.poll(count).toBe(all - 5);
  await page.getByRole('button', { name: 'Add condition' }).click();
  await page.getByRole('group', { name: 'Condition 2' }).getByLabel('Field').selectOption('kind');
  await page.getByRole('group', { name: 'Condition 2' }).getByLabel('Kind').selectOption('milestone');
  await page.getByLabel('Combine with').selectOption('any');
  await said(page, 'entries not labelled “milestone” or milestones');
  await expect.poll(count).toBe(all);
  await said(page, /The filter uses labels, which readers do not get/);

  // Field by field, and titles by a pattern with a fallback.
  await page.getByText('place', { exact: true }).click();
  await page.getByText(/^More: .*titles/).click();
  await page.getByLabel('Pattern of titles').fill('{calendar}: {label|title}');
  await expect(
    preview(page)
      .getByText(/^Dredging and works: /)
      .first(),
  ).toBeVisible();
  await page.getByLabel('Pattern of titles').fill('{weather}');
  await said(page, 'there is no part “weather”');
  await page.getByLabel('Pattern of titles').fill('{calendar}: {label|title}');
  await page.getByText('labels', { exact: true }).click();
  await expect(preview(page).getByText('Dredging and works: works').first()).toBeVisible();
  await publish(page);

  // What the studio shows as the feed is, byte for byte, what is served, but for identifiers: their secret stays inside.
  await page.getByText('Feed', { exact: true }).click();
  const text = await page.getByLabel('The document that programs fetch').textContent();
  await page.getByRole('button', { name: 'Copy feed address' }).press('Enter');
  const served = await poll(await page.evaluate(() => navigator.clipboard.readText()));
  const plain = (feed: string) =>
    feed
      .replace(/\r\n /g, '')
      .replace(/^UID:[0-9a-f-]{36}\r$/gm, 'UID:…\r')
      .replace(/^(URL:.*\/)[0-9a-f-]{36}\b/gm, '$1…');
  expect(plain(served.text)).toBe(plain(text!.replace(/\r?\n/g, '\r\n')));
  expect(served.text).not.toContain('LOCATION');
  expect(served.text).toContain('SUMMARY:Dredging and works: works');
});

test('a draft is kept while it is typed, rehearsed, scheduled, discarded, and met by a colleague', async ({
  page,
  browser,
}) => {
  await signIn(page);
  await studio(page, 'Lighthouse slots');
  const { feed } = await demoWindow('lighthouse-slots');
  const before = await poll(feed);
  await glassOf(page, 'Lighthouse visits').getByText('Tinted').click();
  await said(page, 'A draft, saved by Ida Maren');
  await page.reload();
  await expect(glassOf(page, 'Lighthouse visits').getByRole('radio', { name: 'Tinted' })).toBeChecked();
  expect((await poll(feed, before.etag)).status).toBe(304);

  // A colleague meets the same draft, and neither is written over.
  const colleague = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
  await signIn(colleague);
  await studio(colleague, 'Lighthouse slots');
  await colleague.getByLabel('Description that readers see').fill('Ask for a time.');
  await expect(async () => {
    const windows = (await (await page.request.get('/api/windows')).json()) as {
      slug: string;
      draft: { body: { description: string } };
    }[];
    expect(windows.find((w) => w.slug === 'lighthouse-slots')!.draft.body.description).toBe(
      'Ask for a time.',
    );
  }).toPass();
  await page.getByLabel('Word for frosted entries').fill('Booked');
  await said(page, 'Somebody else is working on a draft of this window too');
  await page.getByRole('button', { name: 'Use their version' }).click();
  await expect(page.getByLabel('Description that readers see')).toHaveValue('Ask for a time.');

  // The rehearsal names what changes; where busy time gets clearer, nothing large vanishes.
  await page.getByRole('button', { name: 'Show this outside …' }).click();
  await said(page, /Of \d+ times: \d+ appear, \d+ disappear, \d+ change/);
  await expect(page.getByRole('list', { name: 'Entries that change' })).toContainText('Visit:');
  await expect(page.getByRole('button', { name: 'Show this outside now' })).toBeEnabled();
  const soon = new Date(Date.now() + 90_000_000);
  const local = new Date(soon.getTime() - soon.getTimezoneOffset() * 60_000).toISOString().slice(0, 16);
  await setWhen(page, 'Or at a time (in this device’s time zone)', local);
  await page.getByRole('button', { name: 'Show it then' }).click();
  await said(page, 'This draft is shown outside automatically at');
  await page.getByRole('button', { name: 'Cancel this time' }).click();
  await expect(page.getByText('This draft is shown outside automatically at')).toHaveCount(0);
  await page.getByRole('button', { name: 'Discard draft' }).click();
  await said(page, 'is visible outside now');
  expect((await poll(feed, before.etag)).status).toBe(304);
});

test('sensitive matter is named before it goes to the Street, also by a hold and by a file', async ({
  page,
}) => {
  await signIn(page);
  await page.getByRole('button', { name: 'New calendar' }).click();
  await page.getByLabel('Name', { exact: true }).fill('Salvors');
  await page.getByRole('button', { name: 'Create calendar' }).click();
  await showOnly(page, 'Salvors');
  await page.getByRole('button', { name: 'New entry' }).click();
  await page.getByLabel('Calendar', { exact: true }).selectOption({ label: 'SAL Salvors' });
  await page.getByLabel('Title').fill('Dive, ask bo@salvors.example');
  await page.getByRole('radio', { name: 'Keep in' }).focus();
  await page.keyboard.press('Space');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('dialog')).toBeHidden();
  await openWindow(page, 'Divers', 'Salvors', 'Tinted');
  await publish(page);

  // The hold of an entry, rehearsed from the entry itself.
  await page.getByRole('link', { name: /^Calendars/ }).click();
  await page
    .getByRole('region')
    .getByRole('button', { name: /Dive, ask/ })
    .first()
    .click();
  await page.getByRole('button', { name: 'What changes outside' }).click();
  const effect = page.getByRole('region', { name: 'What changes outside' });
  await expect(effect).toContainText('Nobody outside would notice anything.');
  await page.getByRole('radio', { name: 'No hold' }).focus();
  await page.keyboard.press('Space');
  await page.getByRole('button', { name: 'What changes outside' }).click();
  await expect(effect).toContainText('appears');
  await expect(effect).toContainText('mail address bo@salvors.example in the title');
  // Whether it was looked at or not: saving asks for what is large.
  const save = page.getByRole('button', { name: 'Save', exact: true });
  await save.click();
  const asked = page.getByRole('group', { name: 'Large effects to confirm' });
  await expect(asked).toContainText(
    'Sensitive details become visible on the Street that were not there before.',
  );
  await expect(save).toBeDisabled();
  await asked.getByText('I have reviewed this and want it.').click();
  await save.click();
  await expect(page.getByRole('dialog')).toBeHidden();

  // A quick line is asked about as well, and changing it takes the question back.
  const line = page.getByLabel(/Quick line/);
  await line.fill('tomorrow Ask ann@salvors.example');
  await line.press('Enter');
  await expect(asked).toBeVisible();
  await expect(page.getByRole('button', { name: 'Add' })).toBeDisabled();
  await line.fill('tomorrow Ask Ann');
  await expect(asked).toBeHidden();
  await line.press('Enter');
  await said(page, /Added to Salvors/);

  // A file, rehearsed before it is brought in.
  await page.getByRole('button', { name: 'Import a file' }).click();
  await page.getByLabel('Into calendar').selectOption({ label: 'SAL Salvors' });
  const day = new Date(Date.now() + 4 * 86_400_000).toISOString().slice(0, 10).replace(/-/g, '');
  const lines = [
    'BEGIN:VCALENDAR',
    'VERSION:2.0',
    'BEGIN:VEVENT',
    'UID:salvage',
    `DTSTART;VALUE=DATE:${day}`,
  ];
  const buffer = Buffer.from(
    [...lines, 'SUMMARY:Salvage of a barge', 'END:VEVENT', 'END:VCALENDAR'].join('\r\n'),
  );
  const chooser = page.waitForEvent('filechooser');
  await page.getByRole('button', { name: 'Choose a file' }).click();
  await (await chooser).setFiles({ name: 'salvage.ics', mimeType: 'text/calendar', buffer });
  await page.getByRole('button', { name: 'What changes outside' }).click();
  const change = page.getByRole('region', { name: 'What changes in Divers' });
  await expect(change).toContainText('Salvage of a barge');
  await expect(change).toContainText('sensitive word salvage');
  await expect(page.getByRole('button', { name: 'Import 1 entry' })).toBeDisabled();
  await page.getByRole('button', { name: 'Cancel' }).click();

  // Without having looked, the step itself shows what is large and waits.
  await page.getByRole('button', { name: 'Import a file' }).click();
  await page.getByLabel('Into calendar').selectOption({ label: 'SAL Salvors' });
  const again = page.waitForEvent('filechooser');
  await page.getByRole('button', { name: 'Choose a file' }).click();
  await (await again).setFiles({ name: 'salvage.ics', mimeType: 'text/calendar', buffer });
  await page.getByRole('button', { name: 'Import 1 entry' }).click();
  await asked.getByText('I have reviewed this and want it.').click();
  await page.getByRole('button', { name: 'Import 1 entry' }).click();
  await said(page, '1 entry was imported into Salvors.');
  await page.getByRole('button', { name: 'Done' }).click();

  // Listing it is a step of its own to confirm.
  await studio(page, 'Divers');
  await page.getByText('List the window on the notice board').click();
  await page.getByRole('button', { name: 'Show this outside …' }).press('Enter');
  const now = page.getByRole('button', { name: 'Show this outside now' });
  await said(page, /^The window becomes listed: it appears on the notice board/);
  await expect(now).toBeDisabled();
  await page.getByText('I have reviewed this and want it.').click();
  await now.click();
  await said(page, 'is visible outside now');

  // An address that is public anyway is answered once.
  await page.getByRole('link', { name: /^Sightlines/ }).click();
  await page.getByRole('button', { name: /^Salvors for Street: .*sensitive details/ }).click();
  const ways = page.getByRole('region', { name: 'Ways to Salvors for street' });
  await expect(ways).toContainText('bo@salvors.example');
  await page.getByRole('button', { name: 'Mark bo@salvors.example as public' }).click();
  await expect(ways).not.toContainText('bo@salvors.example');
  await page.getByRole('link', { name: /^House/ }).click();
  await expect(page.getByLabel(/^Your public mail addresses/)).toHaveValue(/bo@salvors\.example/);
});

test('a ceiling is shown where it cuts, asked about, raised, and set with its effect first', async ({
  page,
}) => {
  await signIn(page);
  await studio(page, 'Bridge times');
  await page.getByRole('button', { name: 'Add Pilots’ duty roster' }).click();
  await glassOf(page, 'Pilots’ duty roster').getByText('Tinted').click();
  await said(page, /For Street, the ceiling of this calendar is Frosted, set by Ida Maren on/);
  // As the Street the watches are busy time; as the Crew, who have no key yet, they would be read.
  await page.getByText('list', { exact: true }).click();
  await expect(preview(page).getByText('Closed', { exact: true }).first()).toBeVisible();
  await expect(preview(page).getByText(/Pilot on duty/)).toHaveCount(0);
  await page.getByLabel('As the reader').selectOption('crew');
  await expect(
    preview(page)
      .getByText(/Pilot on duty/)
      .first(),
  ).toBeVisible();
  await page.getByRole('button', { name: 'Ask for a higher ceiling' }).click();
  await page.getByLabel('Reason for raising it').fill('The town wants to see watches');
  await page.getByRole('button', { name: 'Ask for Tinted' }).click();
  await said(page, 'The stewards have your request.');
  await page.getByRole('button', { name: 'Discard draft' }).click();

  await page.getByRole('link', { name: /^House/ }).click();
  await page.getByRole('link', { name: /higher ceiling/ }).click();
  // What granting it would disclose is shown first.
  await page.getByRole('button', { name: /^Review .* “Pilots’ duty roster” for Street to Tinted/ }).click();
  await expect(page.getByRole('dialog')).toContainText('“The town wants to see watches”');
  await said(page, 'Nobody outside would notice anything.');
  await page.getByRole('button', { name: 'Set ceiling now' }).click();
  await expect(page.getByRole('dialog')).toBeHidden();
  await page.getByRole('link', { name: /^House/ }).click();
  const ceiling = page.getByLabel('Ceiling of Pilots’ duty roster for Street');
  await expect(ceiling).toHaveValue('tinted');

  const { feed } = await demoWindow('bridge-times');
  expect((await poll(feed)).text).toContain('SUMMARY:Bridge opens');
  await page.getByLabel('Ceiling of the house for Street').selectOption('frosted');
  await expect(page.getByRole('region', { name: 'What changes in Bridge times' })).toContainText('disappear');
  const set = page.getByRole('button', { name: 'Set ceiling now' });
  await expect(set).toBeDisabled();
  await page.getByLabel(/Type the organisation’s name to confirm/).fill('Ostrel Harbour Trust');
  await set.click();
  await expect(page.getByRole('dialog')).toBeHidden();
  expect((await poll(feed)).text).not.toContain('SUMMARY:Bridge opens');
  await page.getByLabel('Ceiling of the house for Street').selectOption('');
  await page.getByText('I have reviewed this and want it.').click();
  await set.click();
  await expect(page.getByRole('dialog')).toBeHidden();
  expect((await poll(feed)).text).toContain('SUMMARY:Bridge opens');
});

test('sightlines tell who sees what and why, of a calendar and of one entry, and lock it down', async ({
  page,
}) => {
  await signIn(page);
  await page.getByRole('link', { name: /^Sightlines/ }).click();
  const cell = page.getByRole('button', {
    name: /^Dredging and works for Partners: Tinted, 3 keys, not used for 60 days/,
  });
  await cell.click();
  const ways = page.getByRole('region', { name: 'Ways to Dredging and works for partners' });
  await expect(ways).toContainText(
    'Works ahead, key “Shipping agents”: Tinted. glass of the window: tinted (decides)',
  );
  const street = page.getByRole('button', {
    name: /^Events on the quay for Street: Clear, .*sensitive details/,
  });
  await street.click();
  await expect(page.getByRole('region', { name: /Ways to Events/ })).toContainText('quay@ostrel.example');

  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Table (.csv)' }).click();
  const table = readFileSync((await (await download).path())!, 'utf8');
  expect(table).toContain('Calendar,Usual glass,Audience');
  expect(table).toMatch(/Dredging and works,tinted,partners,tinted,Works ahead,Shipping agents,tinted,/);
  await page.emulateMedia({ media: 'print' });
  await expect(page.getByRole('button', { name: 'Table (.csv)' })).toBeHidden();
  await expect(page.getByText('glass of the window: clear (decides)').first()).toBeVisible();
  await page.emulateMedia({ media: 'screen' });

  await page.getByLabel('Find the entry').fill('Berth 2 clear for the ferry');
  await page
    .getByRole('button', { name: /Berth 2 clear for the ferry/ })
    .first()
    .click();
  const who = page.getByRole('table', { name: /Who can see Berth 2/ });
  const row = who.getByRole('row', { name: /Works ahead, “Ferry line’s operations desk”/ });
  await expect(row).toContainText('Tinted');
  await expect(row).toContainText('title');
  await expect(row).toContainText('planned');
  await expect(row).not.toContainText('labels');

  const { feed } = await demoWindow('works-ahead');
  expect((await poll(feed)).text).toContain('SUMMARY:Works:');
  await page.getByRole('button', { name: 'Lock Dredging and works down' }).click();
  await expect(page.getByRole('region', { name: 'What changes in Works ahead' })).toContainText('disappears');
  await page.getByRole('button', { name: 'Lock down now' }).click();
  await said(page, 'Locked down since');
  expect((await poll(feed)).text).not.toContain('SUMMARY:Works:');
  await page.getByRole('button', { name: 'Undo the lock-down' }).click();
  await expect(page.getByText('Locked down since')).toHaveCount(0);
  expect((await poll(feed)).text).toContain('SUMMARY:Works:');
});

test('the ledger shows any revision again, compares two, and takes old rules up', async ({ page }) => {
  await signIn(page);
  await page.getByRole('button', { name: 'New calendar' }).click();
  await page.getByLabel('Name', { exact: true }).fill('Logbook');
  await page.getByRole('button', { name: 'Create calendar' }).click();
  await showOnly(page, 'Logbook');
  await page.getByLabel(/Quick line/).fill('tomorrow Net drying');
  await page.getByLabel(/Quick line/).press('Enter');
  await said(page, /^Added to /);
  await openWindow(page, 'Nets', 'Logbook', 'Tinted');
  await publish(page);
  await glassOf(page, 'Logbook').getByText('Frosted').click();
  await page.getByRole('button', { name: 'Show this outside …' }).click();
  await page.getByLabel(/Type the window’s name to confirm/).fill('Nets');
  await page.getByRole('button', { name: 'Show this outside now' }).click();
  await said(page, 'is visible outside now');

  await page.getByRole('link', { name: 'Ledger' }).click();
  await said(page, /2 revisions in \d+ kB; only differences are stored\./);
  const past = page.frameLocator('iframe[title="As outsiders saw it"]');
  await expect(page.getByRole('heading', { name: 'Revision 2, compared with revision 1' })).toBeVisible();
  await expect(page.getByRole('list', { name: 'Entries that change' })).toContainText('disappears');
  await page.getByText('list', { exact: true }).click();
  await expect(past.getByText('Net drying')).toHaveCount(0);
  const first = page.getByRole('listitem').filter({ hasText: 'Revision 1' });
  await expect(first).toContainText('By a change of Ida Maren');
  await first.getByRole('button', { name: 'Show' }).click();
  await expect(past.getByText('Net drying').first()).toBeVisible();
  await first.getByRole('button', { name: 'Restore these rules' }).click();
  await said(page, 'A draft, saved by Ida Maren');
  await expect(glassOf(page, 'Logbook').getByRole('radio', { name: 'Tinted' })).toBeChecked();
  await page.getByRole('button', { name: 'Discard draft' }).click();
});

test('a filter that lost a label shows less and says so, and a window that shows nothing says so too', async ({
  page,
}) => {
  await signIn(page);
  await page.getByRole('button', { name: 'New calendar' }).click();
  await page.getByLabel('Name', { exact: true }).fill('Moorings');
  await page.getByRole('button', { name: 'Create calendar' }).click();
  await showOnly(page, 'Moorings');
  const quick = async (line: string) => {
    await page.getByLabel(/Quick line/).fill(line);
    await page.getByLabel(/Quick line/).press('Enter');
    await said(page, /^Added to /);
  };
  await quick('tomorrow Ring check #shorthand');
  await quick('tomorrow Chain check');
  await openWindow(page, 'Rings', 'Moorings', 'Tinted');
  await page.getByRole('button', { name: 'Add condition' }).click();
  await page.getByLabel('Label', { exact: true }).selectOption('shorthand');
  await page.getByText('not', { exact: true }).click();
  await page.getByText('list', { exact: true }).click();
  await expect(preview(page).getByText('Chain check').first()).toBeVisible();
  await expect(preview(page).getByText('Ring check')).toHaveCount(0);
  await publish(page);
  await page.getByRole('link', { name: /^Calendars/ }).click();
  // On a Sunday tomorrow is next week.
  await page.getByLabel('Days shown').selectOption('2');
  await page
    .getByRole('region')
    .getByRole('button', { name: /Ring check/ })
    .first()
    .focus();
  await page.keyboard.press('Delete');
  await said(page, 'Deleted “Ring check”.');
  await page.getByRole('link', { name: /^House/ }).click();
  await said(page, 'on no entry, in the filter of Rings');
  await page.getByRole('button', { name: 'Delete the label shorthand' }).click();
  await expect(page.getByRole('button', { name: 'Delete the label shorthand' })).toHaveCount(0);
  await page.getByRole('link', { name: /^Windows/ }).click();
  await expect(page.getByRole('row', { name: /^Rings/ })).toContainText(
    'Shows less: its filter names something that no longer exists: label “shorthand”',
  );
  await studio(page, 'Rings');
  await said(page, 'The filter names something that no longer exists: label “shorthand”');
  await said(page, 'Nothing at all is shown');
});

// The keys stand below what is still being worked out: by key, where a pointer could miss them.
test('a key ends with a day: it is marked where it is soon, told when it is over, and taken back', async ({
  page,
}) => {
  await signIn(page);
  await studio(page, 'On the quay');
  const { see } = await demoWindow('on-the-quay');
  const day = (days: number) => new Date(Date.now() + days * 86_400_000).toISOString().slice(0, 10);
  const key = page.getByRole('group', { name: 'Town web site' });
  const change = async (work: () => Promise<void>) => {
    await key.getByRole('button', { name: /^Change the key/ }).press('Enter');
    await work();
    await page.getByRole('button', { name: 'Save', exact: true }).click();
  };
  await change(() => setWhen(page, 'Valid to the end of', day(-3)));
  await expect(page.getByRole('alert')).toContainText('A key cannot end in the past.');
  expect((await fetch(see)).status).toBe(200);
  await setWhen(page, 'Valid to the end of', day(9));
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByRole('dialog')).toBeHidden();
  await page.reload();
  await expect(key).toContainText(/valid to the end of/);
  await page.getByRole('link', { name: /^Sightlines/ }).click();
  const cell = page.getByRole('button', { name: /^Events on the quay for Street: Clear/ });
  await expect(cell).toHaveAccessibleName(/ends within 30 days/);
  await studio(page, 'On the quay');
  await change(() => page.getByRole('button', { name: 'Remove the end' }).click());
  await expect(page.getByRole('dialog')).toBeHidden();
  await expect(key).not.toContainText(/valid to the end of/);
  await page.getByRole('link', { name: /^Sightlines/ }).click();
  await expect(cell).not.toHaveAccessibleName(/ends within 30 days/);
});

test('a key is made out to a place, capped, turned with a notice, withdrawn and brought back', async ({
  page,
}) => {
  await signIn(page);
  await studio(page, 'On the quay');
  await page.getByRole('button', { name: 'New key' }).press('Enter');
  await page.getByLabel('For (person or place)').fill('Parish newsletter');
  await page.getByRole('radiogroup', { name: 'Zone' }).getByText('Street', { exact: true }).click();
  await page.getByLabel('Shows at most').selectOption('frosted');
  await page.getByRole('dialog').getByLabel('Contact').fill('editor@parish.example');
  await page.getByRole('button', { name: 'Create key' }).click();
  const key = page.getByRole('group', { name: 'Parish newsletter' });
  await expect(key).toContainText('Street, at most Frosted, not used yet');
  const address = async () => {
    await key.getByRole('button', { name: /Cop(y|ied) (the )?page address/ }).click();
    return page.evaluate(() => navigator.clipboard.readText());
  };
  const first = await address();
  const text = async (see: string) => (await fetch(see)).text();
  await expect.poll(() => text(first)).toMatch(/Busy|Taken|On the quay/);
  expect(await text(first)).not.toMatch(/Film on the slipway|editor@parish/);

  // Turned: the address before leads on, and says where it went.
  await key.getByRole('button', { name: /^New address for/ }).press('Enter');
  await page.getByLabel('Days for which the old address keeps working').fill('5');
  await page.getByRole('button', { name: 'Replace address' }).click();
  await expect(key).toContainText(/the former address works until/);
  await expect.poll(address).not.toBe(first);
  const second = await address();
  expect(await text(first)).toContain(second);
  await page.goto(first);
  await page.getByRole('link', { name: 'Go to the new page' }).click();
  await expect(page).toHaveURL(second);
  await expect(page.getByText('New address for')).toHaveCount(0);

  await page.goBack();
  await page.goBack();
  const withdraw = key.getByRole('button', { name: /^Withdraw the key/ });
  const question = page.getByRole('alertdialog', { name: 'Withdraw the key of Parish newsletter?' });
  await withdraw.press('Enter');
  await expect(question).toContainText('used it this week');
  await page.keyboard.press('Escape');
  await expect(withdraw).toBeFocused();
  for (const see of [first, second]) expect((await fetch(see)).status).toBe(200);
  await withdraw.press('Enter');
  await question.getByRole('button', { name: 'Withdraw key' }).press('Enter');
  await expect(key).toContainText(/withdrawn on/);
  for (const see of [first, second]) expect((await fetch(see)).status).toBe(410);
  await key.getByRole('button', { name: 'Restore' }).click();
  await expect(key).not.toContainText(/withdrawn on/);
  for (const see of [first, second]) expect((await fetch(see)).status).toBe(200);

  // As a card: its code leads where the address does.
  await key.getByRole('button', { name: /^Card of/ }).click();
  await expect(page.getByRole('img', { name: `QR code of ${second}` })).toBeVisible();
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save as PNG' }).click(),
  ]);
  expect(file.suggestedFilename()).toMatch(/^on-the-quay-parish-newsletter-page\.png$/);
});

test('the preview ends with the last of several fast changes', async ({ page }) => {
  await signIn(page);
  await studio(page, 'On the quay');
  const shown = preview(page).locator('nav [aria-current]');
  await expect(shown).toHaveText('Month');
  for (let round = 0; round < 5; round++) {
    for (const last of ['week', 'list', 'month', 'list'])
      await page.getByText(last, { exact: true }).click({ noWaitAfter: true });
    await expect(shown).toHaveText('List');
    await page.getByText('month', { exact: true }).click();
    await expect(shown).toHaveText('Month');
  }
});

test('a window closes at the end of a day that is set, tells its readers before, and can be left open', async ({
  page,
}) => {
  await signIn(page);
  await studio(page, 'Lighthouse slots');
  const { see } = await demoWindow('lighthouse-slots');
  await page.getByRole('button', { name: 'Close window' }).press('Enter');
  await page.getByRole('group', { name: 'Or at the end of' }).getByRole('spinbutton').first().click();
  await page.keyboard.type('31122098');
  await page.getByRole('button', { name: 'Close then' }).press('Enter');
  await expect(
    page.getByText(/closes automatically at the end of Wed 31 Dec 2098\. Its readers get a notice\./),
  ).toBeVisible();
  const outside = await page.context().newPage();
  await outside.goto(see);
  await expect(outside.getByText('“Lighthouse slots” ends on Wed, 31 Dec 2098')).toBeVisible();
  await page.getByRole('button', { name: 'Leave open' }).press('Enter');
  await expect(page.getByText(/closes automatically/)).toHaveCount(0);
  await outside.reload();
  await expect(outside.getByRole('heading', { name: 'Lighthouse slots' })).toBeVisible();
  await expect(outside.getByText(/ends on/)).toHaveCount(0);
});

test('unlisting counts who loses the public address, which goes on for a while with a notice', async ({
  page,
}) => {
  await signIn(page);
  // A program of many readers follows the public address, and is counted.
  const agent = { 'User-Agent': 'Relay (30 subscribers)' };
  expect((await fetch(`${BASE}/feed/bridge-times.ics`, { headers: agent })).status).toBe(200);
  const api = async (path: string) => (await page.request.get(`${BASE}/api${path}`)).json();
  const windows = (await api('/windows')) as { id: string; slug: string }[];
  const { id } = windows.find((w) => w.slug === 'bridge-times')!;
  const followed = async () => {
    const { keys } = (await api(`/windows/${id}/reach`)) as WindowReach;
    return keys.find((k) => k.id === id)?.subscribers.some((s) => s.readers === 30);
  };
  await expect.poll(followed).toBe(true);
  await studio(page, 'Bridge times');
  const publish = async (told: RegExp) => {
    await expect(page.getByText(/^\d+ times in all$/)).toBeVisible();
    await page.getByText('List the window on the notice board').click();
    await page.getByRole('button', { name: 'Show this outside …' }).click();
    await confirmLarge(page);
    const effects = page.getByRole('group', { name: 'Large effects to confirm' });
    await expect(effects).toContainText(told);
    await page.getByRole('button', { name: 'Show this outside now' }).click();
    await expect(page.getByRole('dialog')).toBeHidden();
  };
  // There may be others by now, from other tests.
  await publish(/\d{2,} readers will lose it\. It keeps working until/);
  const address = page.getByRole('group', { name: 'Notice board' });
  await expect(address).toContainText('no longer listed; works until');
  const outside = async (path: string) => (await fetch(`${BASE}${path}`)).text();
  expect(await outside('/see/bridge-times?lang=en')).toContain('This address of “Bridge times” ends on');
  expect(await outside('/board')).not.toContain('/see/bridge-times');
  await page.reload();
  await publish(/The window becomes listed/);
  await expect(address).toContainText('open to search engines');
  expect(await outside('/board')).toContain('/see/bridge-times');
});
