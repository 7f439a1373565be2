import { expect, test } from '@playwright/test';
import ICAL from 'ical.js';
import { writeFileSync } from 'node:fs';
import { poll, showOnly, signIn } from './demo';
import { setWhen, setZone } from './fields';

/** A file as another program would export it, with an entry in the coming days. */
function exportedFile(path: string): string {
  const day = new Date(Date.now() + 3 * 86_400_000).toISOString().slice(0, 10);
  const compact = day.replace(/-/g, '');
  const lines = [
    'BEGIN:VCALENDAR',
    'VERSION:2.0',
    'PRODID:-//Sample//Other program//EN',
    'BEGIN:VEVENT',
    'UID:tug-1@elsewhere.example',
    'DTSTAMP:20260101T000000Z',
    `DTSTART;TZID=Atlantic Standard Time:${compact}T101500`,
    `DTEND;TZID=Atlantic Standard Time:${compact}T113000`,
    'SUMMARY:Tug handover',
    'DESCRIPTION:Crew list is with the harbour',
    '  master only',
    'LOCATION:Coal pier',
    'END:VEVENT',
    'END:VCALENDAR',
  ];
  writeFileSync(path, lines.join('\r\n'));
  return day;
}

test('from a file to an outsider’s page and feed, through an edit, another glass and closing', async ({
  page,
  browser,
}, info) => {
  const file = info.outputPath('tugs.ics');
  const day = exportedFile(file);
  await signIn(page);

  await test.step('make a calendar and bring the file in', async () => {
    await page.getByRole('button', { name: 'New calendar' }).click();
    await page.getByLabel('Name').fill('Tugs');
    await setZone(page, 'Time zone', 'America/Halifax');
    await page.getByRole('button', { name: 'Create calendar' }).click();
    await expect(page.getByRole('dialog')).toBeHidden();
    await page.getByRole('button', { name: 'Import a file' }).click();
    await page.getByLabel('Into calendar').selectOption({ label: 'TUG Tugs' });
    const chooser = page.waitForEvent('filechooser');
    await page.getByRole('button', { name: 'Choose a file' }).click();
    await (await chooser).setFiles(file);
    await expect(page.getByText('1 new, 0 changed, 0 in conflict, 0 unchanged, 0 left out.')).toBeVisible();
    await expect(page.getByText('it is the Windows name for it')).toBeVisible();
    await page.getByRole('button', { name: 'Import 1 entry' }).click();
    await page.getByRole('button', { name: 'Done' }).click();
  });

  await test.step('open a tinted window on it', async () => {
    await page.getByRole('link', { name: /Windows/ }).click();
    await page.getByRole('button', { name: 'Open a window' }).click();
    await page.getByRole('button', { name: 'Add Tugs' }).click();
    const glass = page.getByRole('radiogroup', { name: 'Glass for Tugs' });
    const preview = page.frameLocator('iframe[title="What readers see"]');
    await page.getByText('list', { exact: true }).click();
    await expect(preview.getByText('Busy')).toBeVisible();
    await expect(preview.getByText('Tug handover')).toBeHidden();
    await glass.getByText('Tinted').click();
    await expect(preview.getByText('Tug handover')).toBeVisible();
    await page.getByLabel('Name that readers see').fill('Tugs at work');
    await page.getByRole('button', { name: 'Open the window …' }).click();
    await page.getByRole('button', { name: 'Open the window now' }).click();
    await expect(page.getByText('is visible outside now')).toBeVisible();
  });

  const copied = async (what: string) => {
    // By key: the preview beside it may still scroll.
    await page.getByRole('button', { name: `Copy ${what}` }).press('Enter');
    await expect(page.getByText(`Copied: ${what}`)).toBeVisible();
    return page.evaluate(() => navigator.clipboard.readText());
  };
  // Until the preview is there, what stands below it still moves.
  await expect(page.getByText(/^\d+ times? in all$/)).toBeVisible();
  const see = await copied('page address');
  const feed = await copied('feed address');

  const outsider = await (await browser.newContext()).newPage();
  await test.step('an outsider with no account sees titles and no description', async () => {
    await outsider.goto(`${see}?show=list`);
    await expect(outsider.getByText('Tug handover')).toBeVisible();
    await expect(outsider.getByText('10:15–11:30')).toBeVisible();
    expect(await outsider.content()).not.toContain('Crew list');
    expect(await outsider.content()).not.toContain('elsewhere.example');
  });

  const first = await poll(feed);
  await test.step('a subscriber reads the feed', async () => {
    const event = new ICAL.Component(ICAL.parse(first.text) as never).getFirstSubcomponent('vevent')!;
    expect(event.getFirstPropertyValue('summary')).toBe('Tug handover');
    expect(event.getFirstPropertyValue('description')).toBeNull();
    expect((await poll(feed, first.etag)).status).toBe(304);
  });

  await test.step('the organiser moves the entry; page and feed show it at once', async () => {
    await page.getByRole('link', { name: /Calendars/ }).click();
    await showOnly(page, 'Tugs');
    await page.getByText('List', { exact: true }).click();
    await page.getByLabel('Days shown').selectOption('2');
    const open = page.getByRole('table').getByRole('button', { name: 'Tug handover' });
    await open.click();
    await setWhen(page, 'Start time', '12:45');
    await setWhen(page, 'End time', '13:30');
    await page.getByRole('button', { name: 'Save', exact: true }).click();
    await expect(page.getByRole('dialog')).toBeHidden();
    const saved = Date.now();
    await expect(async () => {
      const second = await poll(feed, first.etag);
      expect(second.status).toBe(200);
      expect(second.etag).not.toBe(first.etag);
      expect(second.text).toContain(`DTSTART;TZID=America/Halifax:${day.replace(/-/g, '')}T124500`);
      expect(second.text).toContain('SEQUENCE:1');
    }).toPass({ intervals: [20] });
    info.annotations.push({
      type: 'measured',
      description: `new bytes ${Date.now() - saved} ms after the save`,
    });
    await outsider.reload();
    await expect(outsider.getByText('12:45–13:30')).toBeVisible();
  });

  await test.step('the organiser frosts the window; the title is gone everywhere', async () => {
    await page.getByRole('link', { name: /Windows/ }).click();
    await page.getByRole('link', { name: 'Tugs at work' }).click();
    await page.getByRole('radiogroup', { name: 'Glass for Tugs' }).getByText('Frosted').click();
    await expect(page.getByText('readers still see the window as it was')).toBeVisible();
    await page.getByRole('button', { name: 'Show this outside …' }).click();
    await page.getByLabel(/Type the window’s name to confirm/).fill('Tugs at work');
    await page.getByRole('button', { name: 'Show this outside now' }).click();
    await expect(page.getByText('is visible outside now')).toBeVisible();
    for (const address of [
      see,
      see.replace('/see/', '/embed/'),
      feed,
      feed.replace('.ics', '.ifb'),
      feed.replace('/feed/', '/copy/'),
    ]) {
      const text = await (await fetch(address)).text();
      expect(text).not.toContain('Tug handover');
      expect(text).not.toContain('Coal pier');
    }
    await outsider.reload();
    await expect(outsider.getByText('12:45–13:30')).toBeVisible();
    await expect(outsider.getByText('Busy')).toBeVisible();
  });

  await test.step('the organiser closes it; page and feed are gone', async () => {
    await page.getByRole('button', { name: 'Close window' }).click();
    await page.getByRole('button', { name: 'Close now, for everybody' }).click();
    await expect(page.getByText('Closed: its addresses answer that it is gone.')).toBeVisible();
    expect((await poll(feed)).status).toBe(410);
    expect((await outsider.reload())!.status()).toBe(410);
    await expect(outsider.getByRole('heading', { name: 'This window is closed' })).toBeVisible();
  });
});
