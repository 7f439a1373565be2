import { TestClient, windowInput } from '@zonal/server/testing';
import { chromium, type Page } from '@playwright/test';
import { fork } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import type { Figure } from './figure';
import { manyEntries } from './material';

const ACCOUNT = { name: 'Ida', email: 'ida@ostrel.example', password: 'tide-and-time', role: 'steward' };
/** A frame on the main thread may take so many milliseconds. */
const FRAME = 50;
const DESK_ENTRIES = 2000;

/** What the page's main thread was busy with while something was done, in milliseconds. */
interface Work {
  /** The longest single piece of work; 0 where none took more than 50 ms, which browsers do not report. */
  readonly longest: number;
  readonly count: number;
}

/** Notes every piece of work of more than 50 ms on the main thread of all pages to come (W3C Long Tasks). */
async function noteWork(page: Page): Promise<void> {
  await page.addInitScript(() => {
    const noted: number[] = [];
    const observer = new PerformanceObserver((list) => {
      for (const { duration } of list.getEntries()) noted.push(duration);
    });
    observer.observe({ type: 'longtask' });
    Object.assign(window, { noted, observer });
  });
}

/** Returns and forgets what was noted. */
function takeNoted(page: Page): Promise<number[]> {
  return page.evaluate(() => (window as unknown as { noted: number[] }).noted.splice(0));
}

async function workDuring(page: Page, act: () => Promise<void>): Promise<Work> {
  await takeNoted(page);
  await act();
  await page.waitForTimeout(1000);
  const noted = await takeNoted(page);
  return { longest: Math.max(0, ...noted), count: noted.length };
}

/** Throws unless a piece of work that takes long is noted: else every figure would look good. */
async function checkNoted(page: Page): Promise<void> {
  const { longest } = await workDuring(page, () =>
    page.evaluate(() => {
      return new Promise<void>((resolve) =>
        setTimeout(() => {
          const end = performance.now() + 120;
          while (performance.now() < end);
          resolve();
        }),
      );
    }),
  );
  if (longest < 100) throw new Error('The browser does not tell of long work, so nothing can be measured.');
}

function frameFigure(what: string, { longest, count }: Work, more = ''): Figure {
  const measured = longest
    ? `${count} longer frames, the longest ${Math.round(longest)} ms`
    : 'no frame over 50 ms';
  return {
    what: `${what}, longest frame`,
    measured: measured + more,
    ratio: longest / FRAME,
    budget: '≤ 1',
    kept: longest <= FRAME,
  };
}

/** Seeds a calendar by one staged edit, as an import does. */
async function fill(
  client: TestClient,
  name: string,
  plate: string,
  days: number,
  count: number,
): Promise<string> {
  const calendar = { name, plate, description: '', zone: 'America/Halifax', colour: 'steelblue' };
  const { id } = (await client.call('POST', '/calendars', calendar)).body;
  const from = Date.now() - 20 * 86_400_000;
  const changes = manyEntries(count).map(({ id: _i, calendarId: _c, version: _v, uid: _u, ...entry }, i) => {
    const start = from + Math.floor((i / count) * days * 96) * 900_000;
    const at = (ms: number) => ({
      kind: 'zoned',
      at: new Date(ms).toISOString().slice(0, 19),
      zone: 'America/Halifax',
    });
    return { version: 0, calendarId: id, entry: { ...entry, start: at(start), end: at(start + 3_600_000) } };
  });
  const edit = (await client.call('POST', '/edits', { label: 'Filled', staged: true, changes: [] })).body;
  for (let i = 0; i < changes.length; i += 400)
    await client.call('POST', `/edits/${edit.id}/changes`, { changes: changes.slice(i, i + 400) });
  const applied = await client.call('POST', `/edits/${edit.id}/apply`);
  if (applied.status !== 200)
    throw new Error(`The bench could not be filled: ${JSON.stringify(applied.body)}`);
  return id;
}

async function wheel(page: Page, x: number, y: number): Promise<void> {
  for (let i = 0; i < 60; i++) {
    await page.mouse.wheel(x, y);
    await page.waitForTimeout(25);
  }
}

/**
 * Measures the built application in Chromium: scrolling over 2,000 entries, the preview of a window
 * of 10,000, and a file of 20,000.
 */
export async function interfaceFigures(env: NodeJS.ProcessEnv): Promise<Figure[]> {
  const base = `http://127.0.0.1:${env['PORT']}`;
  await once(fork(env['SEED_MAIN']!, { env: { ...env, DEMO_ACCOUNTS: JSON.stringify([ACCOUNT]) } }), 'exit');
  const server = fork(env['SERVER_MAIN']!, { env });
  await once(server, 'message');
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-background-networking'],
  });
  try {
    const client = new TestClient(base);
    await client.signIn(ACCOUNT.password, ACCOUNT.email);
    const desk = ['DA', 'DB', 'DC', 'DD'];
    for (const plate of desk) await fill(client, `Desk ${plate}`, plate, 90, DESK_ENTRIES / desk.length);
    await fill(client, 'Imported', 'IMP', 1, 1);
    const big = await fill(client, 'Big', 'BIG', 365, 10_000);
    const horizon = { kind: 'rolling', pastDays: 30, nextDays: 365 };
    const window = (
      await client.call('POST', '/windows', windowInput(big, 'tinted', { name: 'Big', horizon }))
    ).body;
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await noteWork(page);
    await page.goto(base);
    await checkNoted(page);
    await page.getByLabel('E-mail address').fill(ACCOUNT.email);
    await page.getByLabel('Password').fill(ACCOUNT.password);
    await page.getByRole('button', { name: 'Sign in' }).click();
    return [
      ...(await deskFigures(page, desk)),
      ...(await previewFigures(page, `${base}/windows/${window.id}`)),
      ...(await importFigures(page, base)),
    ];
  } finally {
    await browser.close();
    server.kill('SIGTERM');
    await once(server, 'exit');
  }
}

async function deskFigures(page: Page, plates: readonly string[]): Promise<Figure[]> {
  const figures: Figure[] = [];
  await page.getByRole('region').waitFor();
  for (const plate of await page.getByRole('group', { name: 'Calendars shown' }).getByRole('button').all()) {
    const name = (await plate.getAttribute('aria-label')) ?? '';
    if (name.startsWith('Show ') && !plates.some((p) => name === `Show Desk ${p}`)) await plate.click();
  }
  for (const [view, span, x, y] of [
    ['Lanes', '13', 90, 0],
    ['Lanes', '13', 0, 60],
    ['List', '13', 0, 90],
    ['Month', '', 0, 60],
    ['Week', '', 0, 60],
  ] as const) {
    await page.getByText(view, { exact: true }).click();
    if (span) await page.getByLabel('Span').selectOption(span);
    await page.waitForTimeout(1500);
    await page.mouse.move(700, 500);
    const work = await workDuring(page, () => wheel(page, x, y));
    figures.push(
      frameFigure(`scrolling ${view}${x ? ' sideways' : ''} over ${DESK_ENTRIES} entries in 90 days`, work),
    );
  }
  return figures;
}

async function previewFigures(page: Page, studio: string): Promise<Figure[]> {
  const figures: Figure[] = [];
  await page.goto(studio);
  // Not by a locator: it would read megabytes of shown text at each look.
  const told = (text: string) =>
    page.waitForFunction(
      (wanted) => document.querySelector('#outside')?.nextElementSibling?.textContent?.includes(wanted),
      text,
    );
  await told('times in all');
  for (const [form, glass] of [
    ['Page', 'Clear'],
    ['Feed', 'Tinted'],
    ['Busy times', 'Frosted'],
    ['Embed', 'Tinted'],
  ] as const) {
    await page.getByRole('radiogroup', { name: 'Form' }).getByText(form).click();
    await page.waitForTimeout(2500);
    let ms = 0;
    const work = await workDuring(page, async () => {
      const start = Date.now();
      await page.getByRole('radiogroup', { name: 'Glass before Big' }).getByText(glass).click();
      await told('Working');
      await told('times in all');
      ms = Date.now() - start;
    });
    const what = `preview as ${form.toLowerCase()} of 10,000 entries after a change of glass`;
    figures.push({
      what: `${what}, first result in seconds`,
      measured: `${ms} ms`,
      ratio: ms / 1000,
      budget: '< 1',
      kept: ms < 1000,
    });
    figures.push(frameFigure(what, work));
  }
  return figures;
}

const IMPORTED = 20_000;

/** A file as large as the limit allows. */
function largeFile(): string {
  const lines = ['BEGIN:VCALENDAR', 'VERSION:2.0'];
  for (let i = 0; i < IMPORTED; i++) {
    const day = new Date(Date.UTC(2026, 0, 1) + (i % 700) * 86_400_000)
      .toISOString()
      .slice(0, 10)
      .replaceAll('-', '');
    lines.push(
      'BEGIN:VEVENT',
      `UID:${i}@elsewhere`,
      `DTSTART;TZID=America/Halifax:${day}T100000`,
      `DTEND;TZID=America/Halifax:${day}T113000`,
      `SUMMARY:Sounding survey ${i}`,
      'LOCATION:North Channel',
      'DESCRIPTION:Keep 50 m clear of the plant. The channel stays open for small craft.',
      'END:VEVENT',
    );
  }
  return [...lines, 'END:VCALENDAR', ''].join('\r\n');
}

async function importFigures(page: Page, base: string): Promise<Figure[]> {
  await page.goto(base);
  await page.getByRole('button', { name: 'Bring in a file' }).click();
  await page.getByLabel('Into calendar').selectOption({ label: 'IMP Imported' });
  const file = join(mkdtempSync(join(tmpdir(), 'bench-')), 'large.ics');
  writeFileSync(file, largeFile());
  const start = Date.now();
  const figures: Figure[] = [];
  const step = async (what: string, act: () => Promise<void>) => {
    const work = await workDuring(page, act);
    const more = `, ${Math.round((Date.now() - start) / 1000)} s after the start`;
    figures.push(frameFigure(`${what} ${IMPORTED} entries of a file`, work, more));
  };
  await step('reading and comparing', async () => {
    const chooser = page.waitForEvent('filechooser');
    await page.getByRole('button', { name: 'Choose a file' }).click();
    await (await chooser).setFiles(file);
    await page.getByText(`${IMPORTED} new, 0 changed`).waitFor({ timeout: 120_000 });
  });
  await step('bringing in', async () => {
    await page.getByRole('button', { name: `Bring in ${IMPORTED} entries` }).click();
    await page.getByText(`${IMPORTED} entries were brought into Imported.`).waitFor({ timeout: 300_000 });
  });
  rmSync(dirname(file), { recursive: true });
  await step('going back to the calendars with', () => page.getByRole('button', { name: 'Done' }).click());
  return figures;
}
