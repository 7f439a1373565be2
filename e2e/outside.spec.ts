import { expect, test, type Browser } from '@playwright/test';
import ICAL from 'ical.js';
import { fork } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { once } from 'node:events';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { gzipSync } from 'node:zlib';
import { demoWindow, poll } from './demo';
import { BASE, OWN } from './startDemo';

const noScript = async (browser: Browser, options: object = {}) =>
  (await browser.newContext({ javaScriptEnabled: false, ...options })).newPage();

test('the page reads well with script off, and switches to the reader’s zone', async ({ browser }) => {
  const { see } = await demoWindow('bridge-times');
  const page = await noScript(browser);
  await page.goto(`${see}?show=list`);
  await expect(page.getByRole('heading', { name: 'Bridge times' })).toBeVisible();
  await expect(page.getByText('America/Halifax').first()).toBeVisible();
  // The list of zones is long, and on a page of its own.
  await expect(page.getByText('Asia/Kolkata')).toHaveCount(0);
  const time = await page.locator('.list .time').first().textContent();
  await page.getByRole('link', { name: 'Zone, clock and language' }).click();
  await page.getByLabel('Your time zone').selectOption('Asia/Kolkata');
  await page.getByRole('button', { name: 'Show', exact: true }).click();
  await expect(page.getByText('not in the host’s zone')).toBeVisible();
  await expect(page.locator('.list')).toBeVisible();
  expect(await page.locator('.list .time').first().textContent()).not.toBe(time);
  await page.getByRole('link', { name: 'Show the host’s times' }).click();
  await expect(page.getByText('the host’s zone.')).toBeVisible();
  expect(await page.locator('.list .time').first().textContent()).toBe(time);
  await expect(page.getByText('It does not get later changes.')).toBeVisible();
  await page.getByRole('link', { name: 'Follow', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Follow “Bridge times”' })).toBeVisible();
  const code = page.getByAltText('QR code of this page');
  await expect.poll(() => code.evaluate((img: HTMLImageElement) => img.naturalWidth)).toBeGreaterThan(0);
});

test('what a reader chose is kept for this calendar, and can be taken back', async ({ browser }) => {
  const { see } = await demoWindow('bridge-times');
  const other = await demoWindow('on-the-quay');
  const context = await browser.newContext({ timezoneId: 'Asia/Tokyo', locale: 'de-DE' });
  const page = await context.newPage();
  await page.goto(see);
  await expect(page.getByRole('link', { name: 'Folgen', exact: true })).toBeVisible();
  await page.getByRole('link', { name: 'Meine Zeit zeigen (Asia/Tokyo)' }).click();
  await expect(page.getByText('Zeiten in Asia/Tokyo')).toBeVisible();
  await page.getByRole('link', { name: 'Zone, Uhr und Sprache' }).click();
  await page.getByRole('combobox', { name: 'Sprache' }).selectOption('es');
  await page.getByRole('combobox', { name: 'Uhr' }).selectOption('12');
  await page.getByRole('button', { name: 'Zeigen' }).click();
  await expect(page.getByText('Las horas son las de Asia/Tokyo')).toBeVisible();
  // Come back by the bare address.
  await page.goto(see);
  await expect(page.getByText('Las horas son las de Asia/Tokyo')).toBeVisible();
  await page.goto(other.see);
  await expect(page.getByText('Zeiten in America/Halifax')).toBeVisible();
  await page.goto(see);
  await page.getByRole('link', { name: 'Mostrar las horas del anfitrión' }).click();
  await expect(page.getByText('Las horas son las de America/Halifax')).toBeVisible();
  await page.goto(see);
  await expect(page.getByText('Las horas son las de America/Halifax')).toBeVisible();
  await context.close();
});

test('an entry is found, has a page, and is added by itself', async ({ browser }) => {
  const { see } = await demoWindow('on-the-quay');
  const page = await noScript(browser);
  await page.goto(see);
  await page.getByRole('searchbox').fill('saturday MARKET');
  await page.getByRole('button', { name: 'Find' }).click();
  await expect(page.getByText(/times found for “saturday MARKET”/)).toBeVisible();
  await page.getByRole('link', { name: 'Saturday market', exact: true }).first().click();
  await expect(page.getByRole('heading', { name: 'Saturday market' })).toBeVisible();
  const [date] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Add just this date' }).click(),
  ]);
  const text = readFileSync((await date.path())!, 'utf8');
  const calendar = new ICAL.Component(ICAL.parse(text) as never);
  const [event, ...more] = calendar.getAllSubcomponents('vevent').map((c) => new ICAL.Event(c));
  expect(more).toEqual([]);
  expect(event!.isRecurring()).toBe(false);
  const on = new URL(page.url()).searchParams.get('on')!;
  expect(event!.startDate.toString()).toBe(on);
  expect(event!.summary).toBe('Saturday market');
});

test('a week has a ruler of hours where there is room, and entries stand at theirs', async ({ browser }) => {
  const { see } = await demoWindow('bridge-times');
  const page = await noScript(browser, { viewport: { width: 1100, height: 900 } });
  await page.goto(`${see}?show=week`);
  const tops = async () =>
    page.evaluate(() => {
      const top = (e: Element) => e.getBoundingClientRect().top;
      const [first] = document.querySelectorAll('.ruler ol li');
      const hour = first!.getBoundingClientRect().height;
      const hourOf = (text: string) => Number(text.slice(0, 2)) + Number(text.slice(3, 5)) / 60;
      const start = hourOf(first!.textContent!);
      return [...document.querySelectorAll('.hours li')].map((li) => ({
        told: hourOf(li.querySelector('.time')!.textContent!),
        drawn: start + (top(li) - top(first!)) / hour,
      }));
    });
  const drawn = await tops();
  expect(drawn.length).toBeGreaterThan(5);
  // By quarters of an hour; what begins late stands no lower than its words need.
  for (const { told, drawn: at } of drawn) expect(Math.abs(told - at)).toBeLessThan(0.5);
  await page.setViewportSize({ width: 390, height: 800 });
  await expect(page.locator('.ruler')).toBeHidden();
});

test('no words of a week are cut off, and no time is broken into two lines', async ({ page }) => {
  const { see } = await demoWindow('bridge-times');
  for (const width of [1280, 1000, 860]) {
    await page.setViewportSize({ width, height: 800 });
    await page.goto(`${see}?show=week`);
    const entries = page.locator('.week .hours li');
    expect(await entries.count()).toBeGreaterThan(5);
    const cut = await entries.evaluateAll((all) =>
      all
        .filter((li) => {
          const time = li.querySelector('.time')!;
          const isBroken = time.getClientRects().length > 1 || time.scrollWidth > li.clientWidth;
          return isBroken || li.scrollHeight > li.clientHeight + 2 || li.scrollWidth > li.clientWidth + 2;
        })
        .map((li) => li.textContent),
    );
    expect(cut, `at ${width} pixels`).toEqual([]);
  }
});

test('the address to follow is copied by a button beside it', async ({ page }) => {
  const { see, feed } = await demoWindow('bridge-times');
  await page.goto(`${see}/follow`);
  await page.getByRole('button', { name: 'Copy' }).first().click();
  await expect(page.getByRole('button', { name: 'Copied' })).toBeVisible();
  expect(await page.evaluate(() => navigator.clipboard.readText())).toBe(feed);
});

test('an all-day entry stays on its day in every zone', async ({ browser }) => {
  const { see } = await demoWindow('on-the-quay');
  const page = await noScript(browser);
  const dayOf = async (tz: string) => {
    const soon = new Date(Date.now() + 45 * 86_400_000).toISOString().slice(0, 10);
    await page.goto(`${see}?show=list&from=${soon}&tz=${tz}`);
    return page.locator('section', { hasText: 'Harbour open day' }).locator('h3').first().textContent();
  };
  const days = [
    await dayOf('America/Halifax'),
    await dayOf('Pacific/Kiritimati'),
    await dayOf('Pacific/Pago_Pago'),
  ];
  expect(days[0]).toMatch(/^Sun\b/);
  expect(new Set(days).size).toBe(1);
});

test('page and feed, read by an independent reader, give the same occurrences', async ({ browser }) => {
  for (const slug of ['bridge-times', 'on-the-quay', 'works-ahead', 'lighthouse-slots']) {
    const { see, feed } = await demoWindow(slug);
    const { text } = await poll(feed);
    const page = await noScript(browser);
    const from = new Date(Date.now() + 86_400_000).toISOString().slice(0, 10);
    await page.goto(`${see}?show=list&from=${from}`);
    const shown = await page.locator('.list section').evaluateAll((sections) =>
      sections.flatMap((section) => {
        const day = section.querySelector('time')!.getAttribute('datetime');
        return [...section.querySelectorAll('li')].map((li) => {
          const time = li.querySelector('.time')!.textContent!.slice(0, 5).replace('all d', '00:00');
          return `${day} ${time} ${li.querySelector('.what')!.textContent}`;
        });
      }),
    );
    const all = occurrencesIn(text);
    const read = all.filter(({ line }) => line >= from && line < dayAfter(from, 30)).map(({ line }) => line);
    // What began before the first day and still goes on is told on that day.
    const going = all.filter(({ line, end }) => line < from && end > `${from} 00:00`);
    expect(shown.length, slug).toBeGreaterThan(3);
    expect(
      [...shown].sort().filter((line) => read.includes(line)),
      slug,
    ).toEqual(read.sort());
    expect(shown.length, slug).toBe(read.length + going.length);
  }
});

const dayAfter = (day: string, days: number) =>
  new Date(Date.parse(day) + days * 86_400_000).toISOString().slice(0, 10);

/**
 * Returns `2026-05-31 14:30 Title` and the end of every occurrence of a feed, on the clocks of its home zone, read with
 * ical.js.
 */
function occurrencesIn(text: string): { line: string; end: string }[] {
  const calendar = new ICAL.Component(ICAL.parse(text) as never);
  ICAL.TimezoneService.reset();
  for (const zone of calendar.getAllSubcomponents('vtimezone'))
    ICAL.TimezoneService.register(new ICAL.Timezone(zone));
  const events = calendar.getAllSubcomponents('vevent').map((c) => new ICAL.Event(c));
  const home = new Intl.DateTimeFormat('sv', {
    timeZone: 'America/Halifax',
    dateStyle: 'short',
    timeStyle: 'short',
  });
  const lines: { line: string; end: string }[] = [];
  const at = (time: ICAL.Time) =>
    time.isDate ? `${time.toString()} 00:00` : home.format(new Date(time.toUnixTime() * 1000));
  const tell = (title: string, start: ICAL.Time, end: ICAL.Time) => {
    lines.push({ line: `${at(start)} ${title}`, end: at(end) });
  };
  for (const master of events.filter((e) => !e.isRecurrenceException())) {
    for (const other of events) {
      if (other.isRecurrenceException() && other.uid === master.uid) master.relateException(other);
    }
    if (!master.isRecurring()) tell(master.summary, master.startDate, master.endDate);
    else {
      const iterator = master.iterator();
      for (let slot = iterator.next(); slot; slot = iterator.next()) {
        const { item, startDate, endDate } = master.getOccurrenceDetails(slot);
        tell(item.summary, startDate, endDate);
      }
    }
  }
  return lines;
}

test('the embed stands in another site at any width, and the page does not', async ({ browser }) => {
  const { embed, see } = await demoWindow('on-the-quay');
  const frame = (src: string, width: number) =>
    `<iframe src="${src}" style="width:${width}px;height:500px;border:0" title="${width}"></iframe>`;
  const host = createServer((_req, res) => {
    res.setHeader('content-type', 'text/html');
    res.end([240, 360, 900].map((w) => frame(`${embed}?show=month`, w)).join('') + frame(see, 500));
  });
  await new Promise<void>((resolve) => host.listen(0, '127.0.0.1', resolve));
  const page = await browser.newPage();
  await page.goto(`http://127.0.0.1:${(host.address() as AddressInfo).port}/`);
  for (const width of [240, 360, 900]) {
    const inside = page.frameLocator(`iframe[title="${width}"]`);
    await expect(inside.getByRole('heading', { name: 'On the quay' })).toBeVisible();
    const overflow = await inside.locator('html').evaluate((html) => html.scrollWidth - html.clientWidth);
    expect(overflow, `${width} px`).toBeLessThanOrEqual(0);
  }
  await expect(
    page.frameLocator('iframe[title="500"]').getByRole('heading', { name: 'On the quay' }),
  ).toBeHidden();
  await page.close();
  host.close();
});

test('all bytes of a page and an embed stay under 60 kB compressed', async ({ request }) => {
  const { see, embed } = await demoWindow('bridge-times');
  const size = async (address: string) => gzipSync(await (await request.get(address)).body()).length;
  const base = new URL(see).origin;
  const assets = ['outside.css', 'outside.js', 'b612-400.woff2', 'b612-700.woff2'];
  let shared = 0;
  for (const name of assets) shared += await size(`${base}/outside/${name}`);
  for (const address of [see, embed])
    for (const more of ['', '?show=week', '?show=list', '?find=bridge', '/follow', '/settings'])
      expect(shared + (await size(address + more)), more).toBeLessThan(60_000);
});

test('a second server process gives the same bytes for every window', async () => {
  const port = OWN.secondPort;
  const env = { ...process.env, DATABASE_URL: OWN.databaseUrl, PORT: String(port) };
  const other = fork(process.env['SERVER_MAIN']!, {
    env: {
      ...env,
      SESSION_SECRET: 'another secret of the tests',
      KEYS_SECRET: 'a secret of the tests',
      PUBLIC_URL: BASE,
    },
  });
  try {
    await once(other, 'message');
    for (const slug of ['bridge-times', 'on-the-quay', 'works-ahead', 'lighthouse-slots']) {
      const { feed } = await demoWindow(slug);
      const here = await poll(feed);
      const there = await poll(feed.replace(/:\d+\//, `:${port}/`));
      expect(there.text).toBe(here.text);
      expect(there.etag).toBe(here.etag);
      expect((await poll(feed.replace(/:\d+\//, `:${port}/`), here.etag)).status).toBe(304);
    }
  } finally {
    other.kill('SIGTERM');
    await once(other, 'exit');
  }
});
