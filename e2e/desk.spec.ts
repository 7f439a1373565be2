import { expect, test, type Locator, type Page } from '@playwright/test';
import { readFileSync, writeFileSync } from 'node:fs';
import { showOnly, signIn } from './demo';
import { partsOf, setWhen, setZone } from './fields';

/** Returns the day that lies some days after today, as the harbour's clocks say it. */
function dayFrom(days: number): string {
  const at = new Date(Date.now() + days * 86_400_000);
  return new Intl.DateTimeFormat('en-CA', { timeZone: 'America/Halifax' }).format(at);
}

/** Returns the day that lies some days after another. */
function later(day: string, days: number): string {
  return new Date(Date.parse(`${day}T12:00:00Z`) + days * 86_400_000).toISOString().slice(0, 10);
}

/** Returns 0 for Sunday to 6 for Saturday. */
const weekdayOf = (day: string) => new Date(`${day}T12:00:00Z`).getUTCDay();

const entry = (page: Page, title: string): Locator =>
  page.getByRole('region').getByRole('button', { name: title }).first();

async function make(page: Page, name: string, zone = ''): Promise<void> {
  await page.getByRole('button', { name: 'New calendar' }).click();
  await page.getByLabel('Name', { exact: true }).fill(name);
  if (zone) await setZone(page, 'Time zone', zone);
  await page.getByRole('button', { name: 'Create calendar' }).click();
  await expect(page.getByRole('dialog')).toBeHidden();
  await showOnly(page, name);
}

async function quick(page: Page, line: string): Promise<void> {
  await page.getByLabel(/Quick line/).fill(line);
  await page.getByLabel(/Quick line/).press('Enter');
  await expect(page.getByText(/^Added to /)).toBeVisible();
}

/** Drags from one point to another, in pixels from the middle of an element. */
async function drag(
  page: Page,
  from: Locator,
  by: { x: number; y: number },
  at = { x: 0.5, y: 0.5 },
): Promise<void> {
  const box = (await from.boundingBox())!;
  const [x, y] = [box.x + box.width * at.x, box.y + box.height * at.y];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x + by.x / 2, y + by.y / 2, { steps: 3 });
  await page.mouse.move(x + by.x, y + by.y, { steps: 3 });
  await page.mouse.up();
}

async function dayWidth(page: Page): Promise<number> {
  const heads = page
    .getByRole('region')
    .locator('[title]')
    .filter({ hasText: /^(Mon|Tue) \d/ });
  const [a, b] = [await heads.nth(0).boundingBox(), await heads.nth(1).boundingBox()];
  return b!.x - a!.x;
}

const said = (page: Page, text: string | RegExp) => expect(page.getByText(text).first()).toBeVisible();

test('lanes, week, month and list show the same days, search and choice', async ({ page }) => {
  await signIn(page);
  await showOnly(page, 'House diary');
  await entry(page, 'Team meeting').focus();
  for (const view of ['Week', 'Month', 'List', 'Lanes']) {
    await page.getByText(view, { exact: true }).click();
    const chosen = page.locator('[data-chosen]');
    await expect(chosen.first()).toContainText('Team meeting');
  }
  await page.getByRole('button', { name: 'Show Bridge and lock times' }).click();
  await page.getByLabel('Find').fill('team meeting');
  await said(page, /1 on these days; 1 entry in all/);
  for (const view of ['Week', 'Month', 'List', 'Lanes']) {
    await page.getByText(view, { exact: true }).click();
    await expect(page.getByText('Team meeting').first()).toBeVisible();
    await expect(page.getByRole('button', { name: /Bridge opens/ })).toHaveCount(0);
  }
  await page.getByLabel('Where to look', { exact: true }).selectOption('label');
  await said(page, /0 on these days; 0 entries in all/);
  await page.getByRole('button', { name: 'Clear search' }).click();

  await page.getByRole('button', { name: 'Show Events on the quay' }).click();
  await page.getByLabel('Find').fill('regatta');
  await page.getByLabel('Where to look', { exact: true }).selectOption('text');
  await page.getByRole('button', { name: /Ostrel regatta/ }).click();
  await expect(entry(page, 'Ostrel regatta')).toBeVisible();
  await page.getByRole('button', { name: 'Clear search' }).click();
  await page.getByRole('button', { name: 'Today' }).click();
  await setWhen(page, 'Go to a day', '2027-07-01');
  await expect(page.getByText('Mon 28 Jun 2027 to Sun 4 Jul 2027')).toBeVisible();

  // The choice of calendars and of the view is kept on this device, the day is not.
  await showOnly(page, 'House diary');
  await page.getByText('Month', { exact: true }).click();
  await page.reload();
  await expect(page.getByRole('region', { name: /^Month/ })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Show Dredging and works' })).toHaveAttribute(
    'aria-pressed',
    'false',
  );
});

test('a row of the list that is half in sight opens at the first click', async ({ page }) => {
  await signIn(page);
  await page.getByText('List', { exact: true }).click();
  await page.getByLabel('Days shown').selectOption('13');
  const table = page.getByRole('table', { name: 'Entries in order of time' });
  await expect(table.getByRole('row').nth(10)).toBeVisible();
  const frame = (await table.boundingBox())!;
  const titles = table.getByRole('button');
  const left = (await titles.first().boundingBox())!.x + 8;
  // Scrolled so that the last row in sight is cut in half.
  await table.evaluate((el) => (el.scrollTop = 33 * 4 + 33 - ((el.clientHeight - 30) % 33) + 16));
  await page.mouse.move(left, frame.y + frame.height - 6);
  await page.mouse.down();
  // A list that scrolls the row into sight at the press would draw it elsewhere by now.
  await page.evaluate(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))));
  await page.mouse.up();
  await expect(page.getByRole('dialog')).toBeVisible();
});

test('calendars stand side by side, with a second zone and ready-made layers', async ({ page }) => {
  await signIn(page);
  await page.getByRole('button', { name: 'Clocks and layers' }).click();
  await setZone(page, 'Second zone', 'Europe/Lisbon');
  await said(page, /Europe\/Lisbon is \+0[34]:00 h from America\/Halifax now, \+0[34]:00 h from/);
  await page.getByText('Week', { exact: true }).click();
  const ruler = page.getByLabel('The same hours in Europe/Lisbon');
  await expect(ruler).toContainText(/(12|13):00/);
  await page.getByText('Moon', { exact: true }).click();
  await page.getByText('Sunrise and sunset, Ostrel').click();
  await expect(page.getByText(/^sun \d\d:\d\d to \d\d:\d\d$/).first()).toBeVisible();
  // The next year's: no entry of the demo that is looked for here has ended or not yet begun by then.
  await setWhen(page, 'Go to a day', `${new Date().getFullYear() + 1}-07-01`);
  await page.getByText('Public holidays, CA-NS').click();
  await expect(page.getByText('Canada Day').first()).toBeVisible();
  await page.getByText('side by side').click();
  const beside = page.getByRole('region', { name: 'Calendars side by side, a row for each day' });
  await expect(beside.getByText('Lighthouse visits')).toBeVisible();
  await expect(beside.getByText('Canada Day')).toBeVisible();
  // The same cursor as in the other views: a day of a calendar is chosen by the arrows, and written on.
  const calendars: { name: string; archivedAt: string | null; onDesk: boolean }[] = await (
    await page.request.get('/api/calendars')
  ).json();
  const column = calendars
    .filter((calendar) => !calendar.archivedAt && calendar.onDesk)
    .findIndex((calendar) => calendar.name === 'Dredging and works');
  await beside.focus();
  // The first arrow puts the cursor into the first column.
  for (let presses = 0; presses <= column; presses++) await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowDown');
  await expect(page.getByText(/^Dredging and works, \w{3} \d/)).toBeAttached();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('dialog').getByLabel('Calendar', { exact: true })).toContainText('DW Dredging');
  await page.keyboard.press('Escape');
  // As a reader in another zone: the clocks of Lisbon are four hours ahead in July.
  await page.getByText('one over the other').click();
  await page.getByText('Lanes', { exact: true }).click();
  await expect(entry(page, 'Lamp room closed')).toContainText('08:00');
  await setZone(page, 'Read as somebody in', 'Europe/Lisbon');
  await expect(entry(page, 'Lamp room closed')).toContainText('12:00');
});

test('entries are drawn, moved, stretched and copied with the pointer, and all of it is taken back', async ({
  page,
}) => {
  await signIn(page);
  await make(page, 'Pointers');
  await quick(page, 'mon Anchor check');
  const days = [0, 1, 2, 3, 4, 5, 6].map(dayFrom);
  const monday = days.find((d) => weekdayOf(d) === 1)!;
  await setWhen(page, 'Go to a day', monday);
  await page.getByLabel('Days shown').selectOption('2');
  const width = await dayWidth(page);
  const block = entry(page, 'Anchor check');
  const left = async () => Math.round(((await block.boundingBox())!.x - first) / width);
  const first = (await block.boundingBox())!.x;

  await drag(page, block, { x: 2 * width, y: 0 });
  await said(page, 'Moved “Anchor check”.');
  await expect.poll(left).toBe(2);
  const before = (await block.boundingBox())!.width;
  await drag(page, block, { x: width, y: 0 }, { x: 0.99, y: 0.5 });
  await said(page, 'Changed the length of “Anchor check”.');
  await expect.poll(async () => Math.round(((await block.boundingBox())!.width - before) / width)).toBe(1);

  await page.keyboard.down('Control');
  await drag(page, block, { x: -2 * width, y: 0 }, { x: 0.3, y: 0.5 });
  await page.keyboard.up('Control');
  await said(page, 'Copied “Anchor check”.');
  await expect(page.getByRole('region').getByRole('button', { name: 'Anchor check' })).toHaveCount(2);

  // Empty ground: a span that is drawn becomes a new entry.
  await page.getByText('Week', { exact: true }).click();
  const hours = page.getByLabel('Hours in America/Halifax');
  const hour = (await hours.boundingBox())!.width / 24;
  // Rows have their places once the entries of the week are there.
  await expect(page.locator('[aria-busy=true]')).toHaveCount(0);
  const row = page.getByText(/^Sun \d+ \w+$/).last();
  const [headBox, hoursBox] = [(await row.boundingBox())!, (await hours.boundingBox())!];
  await page.mouse.move(hoursBox.x + 8 * hour + 2, headBox.y + 34);
  await page.mouse.down();
  await page.mouse.move(hoursBox.x + 9 * hour, headBox.y + 34, { steps: 3 });
  await page.mouse.move(hoursBox.x + 10 * hour - 3, headBox.y + 34, { steps: 3 });
  await page.mouse.up();
  await expect(partsOf(page, 'Start time')).toContainText('08:00');
  await expect(partsOf(page, 'End time')).toContainText('10:00');
  await page.getByLabel('Title').fill('Drawn watch');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(entry(page, 'Drawn watch')).toContainText('08:00');

  await page.getByRole('region').focus();
  for (const step of ['Created “Drawn watch”', 'Copied', 'Changed the length', 'Moved']) {
    await page.keyboard.press('Control+z');
    await said(page, new RegExp(`Undone: ${step}`));
  }
  await page.getByText('Lanes', { exact: true }).click();
  await setWhen(page, 'Go to a day', monday);
  await expect.poll(left).toBe(0);
  await page.getByRole('region').focus();
  await page.keyboard.press('Control+Shift+z');
  await said(page, /Redone: Moved/);
  await expect.poll(left).toBe(2);
});

test('everything goes by keyboard, for a series with the dates that are meant, over 50 steps back and forth', async ({
  page,
}) => {
  await signIn(page);
  await make(page, 'Keys');
  // The cursor of the lanes chooses a day, Enter writes there.
  const lanes = page.getByRole('region');
  await lanes.focus();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Enter');
  await page.getByLabel('Title').fill('Buoy check');
  await page.getByRole('button', { name: 'Save' }).press('Enter');
  await expect(page.getByRole('dialog')).toBeHidden();
  await page.getByText('List', { exact: true }).click();
  await page.getByLabel('Days shown').selectOption('13');
  const rows = page.getByRole('row', { name: /Buoy check/ });
  const open = rows.first().getByRole('button');
  const day = async () => rows.first().locator('time').first().textContent();
  const start = await day();
  await open.focus();
  for (let n = 0; n < 52; n++) {
    const before = await day();
    await page.keyboard.press('Alt+ArrowRight');
    await expect.poll(day, { intervals: [20] }).not.toBe(before);
  }
  const end = await day();
  expect(new Date(end!).getTime() - new Date(start!).getTime()).toBeCloseTo(52 * 86_400_000, -8);
  await page.getByText('Lanes', { exact: true }).click();
  await lanes.focus();
  for (let n = 0; n < 52; n++) {
    await page.keyboard.press('Control+z');
  }
  await expect(page.getByRole('button', { name: /^Undo: Created/ })).toBeEnabled();
  await page.getByText('List', { exact: true }).click();
  await expect.poll(day).toBe(start);

  // A series: from here on, by Alt and an arrow, and the question is answered by keyboard too.
  await open.press('Enter');
  await page.getByLabel('Repeats').selectOption('daily');
  await page.getByLabel('Ends', { exact: true }).last().selectOption('count');
  await page.getByLabel('Times', { exact: true }).fill('4');
  await page.getByRole('button', { name: 'Save', exact: true }).press('Enter');
  await expect(rows).toHaveCount(4);
  await rows.nth(2).getByRole('button').focus();
  await page.keyboard.press('Alt+ArrowRight');
  await page.getByRole('radio', { name: 'This and later dates' }).focus();
  await page.keyboard.press('Space');
  await said(page, /all later dates \(2 in two years\). 2 earlier ones stay/);
  await page.getByRole('button', { name: 'Move: This and later dates' }).press('Enter');
  await said(page, 'Moved “Buoy check”.');
  await expect(page.getByText('on these days')).toHaveCount(0);
  // Copy and paste, then delete one date.
  await rows.first().getByRole('button').focus();
  await page.keyboard.press('Control+c');
  await page.keyboard.press('Control+v');
  await expect(rows).toHaveCount(5);
  await rows.last().getByRole('button').focus();
  await page.keyboard.press('Delete');
  await page.getByRole('button', { name: 'Delete: This date' }).press('Enter');
  await expect(rows).toHaveCount(4);
});

test('two people change different fields of an entry, and both changes are kept', async ({
  page,
  browser,
}) => {
  await signIn(page);
  // On a Sunday tomorrow is in another week.
  await page.getByLabel('Days shown').selectOption('2');
  await make(page, 'Shared');
  await quick(page, 'today Crane test');
  const colleague = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
  await signIn(colleague);
  await colleague.getByLabel('Days shown').selectOption('2');
  // A calendar that a colleague makes is there without reload.
  await expect(colleague.getByRole('button', { name: 'Show Shared' })).toBeVisible();
  // By the keyboard: what arrives meanwhile may shift the entry below a pointer.
  await entry(colleague, 'Crane test').press('Enter');
  await colleague.getByLabel('Title').fill('Crane test, mine');
  await entry(page, 'Crane test').focus();
  await page.keyboard.press('Alt+ArrowRight');
  await said(page, 'Moved “Crane test”.');
  await expect(colleague.getByRole('alert')).toContainText('changed this entry (start, end)');
  await colleague.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(colleague.getByRole('dialog')).toBeHidden();
  await expect(entry(page, 'Crane test, mine')).toBeVisible();
  await entry(page, 'Crane test, mine').click();
  await expect(partsOf(page, 'First day')).toContainText(dayFrom(1).slice(8));
  await page.keyboard.press('Escape');
  // What a colleague changed since cannot be taken back over.
  await page.getByRole('button', { name: /^Undo: Moved/ }).click();
  await expect(page.getByRole('alert')).toContainText('has been changed since');
  // Nor is it deleted unseen.
  await entry(colleague, 'Crane test, mine').click();
  await entry(page, 'Crane test, mine').focus();
  await page.keyboard.press('Alt+ArrowRight');
  await said(page, 'Moved “Crane test, mine”.');
  const remove = colleague.getByRole('button', { name: 'Delete', exact: true });
  await remove.click();
  await expect(colleague.getByRole('alert').last()).toBeInViewport();
  await expect(partsOf(colleague, 'First day')).toContainText(dayFrom(2).slice(8));
  await remove.click();
  await expect(entry(page, 'Crane test, mine')).toHaveCount(0);
});

const FILE = (place: string, extra = '') =>
  Buffer.from(
    [
      'BEGIN:VCALENDAR',
      'VERSION:2.0',
      'BEGIN:VEVENT',
      'UID:one@elsewhere',
      `DTSTART;VALUE=DATE:${dayFrom(3).replace(/-/g, '')}`,
      'SUMMARY:Fender survey',
      `LOCATION:${place}`,
      'END:VEVENT',
      'BEGIN:VTODO',
      'UID:two@elsewhere',
      `DUE;VALUE=DATE:${dayFrom(4).replace(/-/g, '')}`,
      'SUMMARY:Survey report',
      'END:VTODO',
      extra,
      'END:VCALENDAR',
    ]
      .filter(Boolean)
      .join('\r\n'),
  );

async function bring(page: Page, calendar: string, name: string, buffer: Buffer): Promise<void> {
  await page.getByRole('button', { name: 'Import a file' }).click();
  await page.getByLabel('Into calendar').selectOption({ label: calendar });
  const chooser = page.waitForEvent('filechooser');
  await page.getByRole('button', { name: 'Choose a file' }).click();
  await (await chooser).setFiles({ name, mimeType: 'text/plain', buffer });
}

test('a newer file updates instead of doubling, conflicts are chosen, and one undo takes all of it back', async ({
  page,
}) => {
  await signIn(page);
  await make(page, 'Surveys');
  await page.getByText('List', { exact: true }).click();
  await page.getByLabel('Days shown').selectOption('2');
  const rows = page.getByRole('table').getByRole('row');
  await bring(
    page,
    'SUR Surveys',
    'a.ics',
    FILE('Berth 1', 'BEGIN:VTODO\r\nUID:x\r\nSUMMARY:Some day\r\nEND:VTODO'),
  );
  await said(page, '2 new, 0 changed, 0 in conflict, 0 unchanged, 1 left out.');
  await said(page, /It is a task with no due date/);
  await page.getByRole('button', { name: 'Import 2 entries' }).click();
  await page.getByRole('button', { name: 'Done' }).click();
  await expect(rows).toHaveCount(3);

  await bring(page, 'SUR Surveys', 'b.ics', FILE('Berth 2'));
  await said(page, '0 new, 1 changed, 0 in conflict, 1 unchanged, 0 left out.');
  await expect(page.getByRole('row', { name: 'place Berth 1 Berth 2' })).toBeVisible();
  await page.getByRole('button', { name: 'Import 1 entry' }).click();
  await page.getByRole('button', { name: 'Done' }).click();
  await expect(page.getByRole('row', { name: /Fender survey.*Berth 2/ })).toBeVisible();
  await expect(rows).toHaveCount(3);

  // Changed here and in the file: nothing is lost unless it is said so.
  await page.getByRole('button', { name: 'Fender survey' }).first().click();
  await page.getByLabel('Contact').fill('Lock keeper');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByRole('dialog')).toBeHidden();
  await bring(page, 'SUR Surveys', 'c.ics', FILE('Berth 3'));
  await said(page, '0 new, 0 changed, 1 in conflict, 1 unchanged, 0 left out.');
  await expect(page.getByRole('button', { name: 'Import 0 entries' })).toBeDisabled();
  await page.getByText('use the file’s version').last().click();
  await page.getByRole('button', { name: 'Import 1 entry' }).click();
  await page.getByRole('button', { name: 'Done' }).click();
  await expect(page.getByRole('row', { name: /Fender survey.*Berth 3/ })).toBeVisible();

  for (const place of ['Berth 2', 'Berth 2', 'Berth 1']) {
    await page.getByRole('button', { name: /^Undo/ }).click();
    await expect(page.getByRole('row', { name: new RegExp(`Fender survey.*${place}`) })).toBeVisible();
    await said(page, /Undone/);
  }
  await page.getByRole('button', { name: /^Undo: Imported a.ics/ }).click();
  await expect(rows).toHaveCount(0);
  await page.getByRole('button', { name: /^Redo: Imported a.ics/ }).click();
  await expect(rows).toHaveCount(3);
});

test('a table is matched by its columns, remembered, and stopped halfway without a trace', async ({
  page,
}) => {
  await signIn(page);
  await make(page, 'Tables');
  await page.getByText('List', { exact: true }).click();
  const table = (n: number) =>
    Buffer.from(
      `Was;Wann;Raum\n${Array.from({ length: n }, (_, i) => `Row ${i};${dayFrom(i % 5)} 10:00;Hall`).join('\n')}\n`,
    );
  await bring(page, 'TAB Tables', 'plan.csv', table(2));
  const go = page.getByRole('button', { name: 'Preview the import' });
  await expect(go).toBeDisabled();
  await page.getByLabel('Column Was contains').selectOption('title');
  await page.getByLabel('Column Wann contains').selectOption('startDate');
  await go.click();
  await said(page, '2 new, 0 changed');
  await page.getByRole('button', { name: 'Cancel' }).click();

  await bring(page, 'TAB Tables', 'plan2.csv', table(3000));
  await said(page, 'These are your choices for an earlier table with the same headings');
  await go.click();
  await page.getByRole('button', { name: 'Import 3,000 entries' }).click();
  await expect(page.getByText('Sending …')).toBeVisible();
  await page.getByRole('button', { name: 'Stop' }).click();
  await said(page, 'Stopped. Nothing was imported.');
  await page.getByRole('button', { name: 'Close', exact: true }).click();
  await said(page, 'No entries on these days.');
});

test('a file that is too large is refused with a sentence, and one that is read can be stopped', async ({
  page,
}, info) => {
  await signIn(page);
  await make(page, 'Limits');
  const file = (name: string, text: string) => {
    const path = info.outputPath(name);
    writeFileSync(path, text);
    return path;
  };
  const choose = async (path: string) => {
    const chooser = page.waitForEvent('filechooser');
    await page.getByRole('button', { name: 'Choose a file' }).click();
    await (await chooser).setFiles(path);
  };
  await page.getByRole('button', { name: 'Import a file' }).click();
  await page.getByLabel('Into calendar').selectOption({ label: 'LIM Limits' });
  await choose(file('heavy.ics', 'X'.repeat(20 * 1024 * 1024 + 1)));
  await expect(page.getByRole('alert')).toContainText('20 MB');
  const events = (count: number) =>
    Array.from(
      { length: count },
      (_, i) => `BEGIN:VEVENT\r\nUID:${i}\r\nDTSTART;VALUE=DATE:20270105\r\nSUMMARY:${i}\r\nEND:VEVENT\r\n`,
    ).join('');
  const calendarOf = (count: number) => `BEGIN:VCALENDAR\r\nVERSION:2.0\r\n${events(count)}END:VCALENDAR\r\n`;
  await choose(file('many.ics', calendarOf(20_001)));
  await expect(page.getByRole('alert')).toContainText('20,000 entries');
  await choose(file('most.ics', calendarOf(20_000)));
  await page.getByRole('button', { name: 'Stop' }).click();
  await said(page, 'Stopped. Nothing was imported.');
});

test('a file’s own zone that could be several is taken for the house’s', async ({ page }, info) => {
  await page.route('**/api/house', async (route) => {
    const answer = await route.fetch();
    await route.fulfill({ response: answer, json: { ...(await answer.json()), zone: 'America/Thule' } });
  });
  await signIn(page);
  await make(page, 'Elsewhere', 'Europe/Lisbon');
  const onset = (kind: string, month: number, day: string, from: string, to: string) => [
    `BEGIN:${kind}`,
    `DTSTART:2007${String(month).padStart(2, '0')}01T020000`,
    `RRULE:FREQ=YEARLY;BYMONTH=${month};BYDAY=${day}`,
    `TZOFFSETFROM:${from}`,
    `TZOFFSETTO:${to}`,
    `END:${kind}`,
  ];
  const path = info.outputPath('own.ics');
  const lines = [
    ...['BEGIN:VCALENDAR', 'VERSION:2.0', 'BEGIN:VTIMEZONE', 'TZID:Our own'],
    ...onset('STANDARD', 11, '1SU', '-0300', '-0400'),
    ...onset('DAYLIGHT', 3, '2SU', '-0400', '-0300'),
    ...['END:VTIMEZONE', 'BEGIN:VEVENT', 'UID:1', 'DTSTART;TZID=Our own:20270610T100000'],
    ...['SUMMARY:Ice report', 'END:VEVENT', 'END:VCALENDAR', ''],
  ];
  writeFileSync(path, lines.join('\r\n'));
  await page.getByRole('button', { name: 'Import a file' }).click();
  await page.getByLabel('Into calendar').selectOption({ label: 'ELS Elsewhere' });
  const chooser = page.waitForEvent('filechooser');
  await page.getByRole('button', { name: 'Choose a file' }).click();
  await (await chooser).setFiles(path);
  await expect(page.getByText('“Our own” was read as America/Thule')).toBeVisible();
});

test('a calendar is taken out as a file and comes back the same', async ({ page }) => {
  await signIn(page);
  await showOnly(page, 'Dredging and works');
  const take = async (form: string) => {
    await page.getByRole('button', { name: 'Export' }).click();
    const what = page.getByLabel('What');
    const whole = what.locator('option', { hasText: 'All of Dredging and works' });
    await what.selectOption((await whole.getAttribute('value'))!);
    await page.getByText(form).click();
    const download = page.waitForEvent('download');
    await page.getByRole('button', { name: 'Save file' }).click();
    const path = await (await download).path();
    await page.getByRole('button', { name: 'Close', exact: true }).click();
    return readFileSync(path);
  };
  const ics = await take('iCalendar (.ics)');
  expect(ics.toString()).toContain('X-ZONAL-KIND:MILESTONE');
  await bring(page, 'DW Dredging and works', 'again.ics', ics);
  await said(page, /0 new, 0 changed, 0 in conflict, \d+ unchanged, 0 left out/);
  await page.getByRole('button', { name: 'Cancel' }).click();
  expect(JSON.parse((await take('jCal (.json)')).toString())[0]).toBe('vcalendar');
  expect((await take('Table (.csv)')).toString()).toContain('Title,Start date');
});

test('a milestone slips in sight of the organiser and of outsiders, and a due item is done', async ({
  page,
}) => {
  await signIn(page);
  await page.getByRole('button', { name: 'New entry' }).click();
  await page.getByLabel('Calendar', { exact: true }).selectOption({ label: 'EV Events on the quay' });
  await page.getByLabel('Kind').selectOption('milestone');
  await page.getByLabel('Title').fill('Stage is up');
  // Planned for a Friday some weeks ahead, expected on the Tuesday after it.
  const monday = Array.from({ length: 7 }, (_, i) => dayFrom(40 + i)).find((d) => weekdayOf(d) === 1)!;
  const [due, planned, expected] = [1, 4, 8].map((n) => later(monday, n)) as [string, string, string];
  await setWhen(page, 'Now expected on', expected);
  await setWhen(page, 'Planned for', planned);
  await said(page, 'Now 4 days (2 working days) later than planned.');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('dialog')).toBeHidden();
  await setWhen(page, 'Go to a day', monday);
  await page.getByLabel('Days shown').selectOption('2');
  await expect(entry(page, 'Stage is up')).toContainText('+4 d (+2 working)');

  // A due item, done.
  await page.getByRole('button', { name: 'New entry' }).click();
  await page.getByLabel('Calendar', { exact: true }).selectOption({ label: 'EV Events on the quay' });
  await page.getByLabel('Kind').selectOption('due');
  await page.getByLabel('Title').fill('Stage plans to the town');
  await setWhen(page, 'Due on', due);
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('dialog')).toBeHidden();
  await entry(page, 'Stage plans to the town').click();
  await page.getByLabel('Status').selectOption('done');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByRole('dialog')).toBeHidden();
  await expect(entry(page, 'Stage plans to the town')).toHaveAttribute('data-status', 'done');

  await page.getByRole('link', { name: /Windows/ }).click();
  await page.getByRole('link', { name: 'On the quay' }).click();
  const preview = page.frameLocator('iframe[title="What readers see"]');
  await page.getByText('list', { exact: true }).click();
  await expect(preview.getByRole('heading', { name: 'On the quay' })).toBeVisible();
  const { windows } = (await (await page.request.get('/api/demo')).json()) as {
    windows: { slug: string; see: string }[];
  };
  const { see } = windows.find((w) => w.slug === 'on-the-quay')!;
  await expect(async () => {
    const text = await (await fetch(`${see}?show=list&from=${monday}`)).text();
    expect(text).toMatch(
      /Milestone: planned for Fri,? \d+ \w+( \d+)?, now 4 days \(2 working days\) later than planned\./,
    );
    expect(text).toMatch(/Due Tue,? \d+ \w+( \d+)?, done\./);
  }).toPass();
});

test('a calendar gets its zone changed with a preview, is put away, and is deleted once its windows are told', async ({
  page,
}) => {
  await signIn(page);
  await make(page, 'Movers');
  await quick(page, 'today 14:00-15:00 Tide talk');
  const sheet = async () =>
    page.getByRole('region').getByRole('button', { name: 'Movers', exact: true }).click();
  await sheet();
  await page.getByRole('button', { name: 'Change time zone' }).click();
  await setZone(page, 'New time zone', 'Europe/Lisbon');
  await said(page, '1 of 1 entries are rewritten, 1 of them take place at another moment.');
  await page.getByText('Keep the moments').click();
  await said(page, '1 of 1 entries are rewritten, 0 of them take place at another moment.');
  await page.getByText('Keep the clock times').click();
  await page.getByRole('button', { name: 'Change time zone' }).click();
  await expect(page.getByRole('dialog')).toBeHidden();
  await said(page, /in the time zone of each calendar: Europe\/Lisbon/);
  await expect(entry(page, 'Tide talk')).toContainText('14:00');
  await sheet();
  await said(page, /The house is in America\/Halifax/);
  await page.getByRole('button', { name: 'Close', exact: true }).click();
  await page.getByRole('button', { name: /^Undo: Moved Movers/ }).click();
  await said(page, /in the time zone of each calendar: America\/Halifax/);

  await sheet();
  await page.getByRole('button', { name: 'Put away' }).click();
  await expect(page.getByRole('button', { name: 'Show Movers' })).toHaveCount(0);
  await page.getByRole('button', { name: /put away/ }).click();
  await page.getByRole('button', { name: 'MOV Movers' }).click();
  await page.getByRole('button', { name: 'Show again' }).click();
  await expect(page.getByRole('button', { name: 'Show Movers' })).toBeVisible();

  await showOnly(page, 'Bridge and lock times');
  await page.getByRole('region').getByRole('button', { name: 'Bridge and lock times', exact: true }).click();
  await page.getByRole('button', { name: 'Delete', exact: true }).click();
  await said(page, /visible outside, in 1 window with 1 key/);
  await said(page, /It has no other calendar, so it is closed/);
  await page.getByRole('button', { name: 'Keep calendar' }).click();
});

test('a time that clocks skip is flagged, and a series tells what readers elsewhere see', async ({
  page,
}) => {
  await signIn(page);
  await page.getByRole('button', { name: 'Clocks and layers' }).click();
  await setZone(page, 'Second zone', 'Europe/Lisbon');
  await page.getByRole('button', { name: 'New entry' }).click();
  await setWhen(page, 'Starts on', '2027-03-14');
  await setWhen(page, 'Start time', '02:30');
  await setWhen(page, 'End time', '04:00');
  await expect(page.getByRole('alert')).toContainText(
    'does not exist in America/Halifax. Everybody will see 03:30 instead.',
  );
  await setWhen(page, 'Starts on', dayFrom(1));
  await setWhen(page, 'Start time', '09:00');
  await setWhen(page, 'End time', '10:00');
  await page.getByLabel('Repeats').selectOption('daily');
  await said(page, /For readers in Europe\/Lisbon the time changes with the clocks: 1[23]:00 from/);
});

test('the house defines properties, and entries take them', async ({ page }) => {
  await signIn(page);
  await page.getByRole('link', { name: /House/ }).click();
  await expect(page.getByLabel('Property 1')).toHaveValue('Contract');
  await page.getByRole('button', { name: 'Add property' }).click();
  await page.getByLabel('Property 4').fill('Draught');
  await page.getByLabel('Kind').last().selectOption('number');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await page.getByRole('link', { name: /Calendars/ }).click();
  await page.getByRole('button', { name: 'New entry' }).click();
  await page.getByLabel('Title').fill('Deep keel');
  await page.getByLabel('Draught').fill('deep');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('alert')).toContainText('must be a number such as');
  await page.getByLabel('Draught').fill('7.5');
  await page.getByRole('button', { name: 'Add person or group' }).click();
  await page.getByLabel('Name 1').fill('Pilots');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('dialog')).toBeHidden();
  await page.getByLabel('Find').fill('draught: 7.5');
  await page.getByLabel('Where to look', { exact: true }).selectOption('property');
  await expect(entry(page, 'Deep keel')).toBeVisible();
  await page.getByRole('region').focus();
  await page.keyboard.press('Control+z');
  await said(page, /Undone/);
});
