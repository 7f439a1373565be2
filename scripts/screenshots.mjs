import { chromium } from '@playwright/test';
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { testBrowser } from './lib/packages.mjs';
import { ROOT } from './lib/run.mjs';
import { Refusal, main } from './lib/say.mjs';

const BASE = process.env.BASE ?? 'http://127.0.0.1:4310';
const FOLDER = process.env.SHOTS ?? join(ROOT, 'docs', 'screenshots');
const WANTED = process.argv.slice(2);

/** Takes the pictures of docs/screenshots from a running demo; names given as arguments choose some of them. */
await main(async () => {
  const demo = await fetch(`${BASE}/api/demo`).then(
    (r) => r.json(),
    () => {
      throw new Refusal(`No demo answers at ${BASE}. Start it first: npm run demo`);
    },
  );
  mkdirSync(FOLDER, { recursive: true });
  const browser = await chromium.launch({ executablePath: testBrowser(), args: ['--no-sandbox'] });
  const see = (slug) => demo.windows.find((w) => w.slug === slug);
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });

  const shot = async (name, prepare, size = { width: 1280, height: 800 }) => {
    if (WANTED.length && !WANTED.includes(name)) return;
    try {
      await page.setViewportSize(size);
      await prepare();
      await page.waitForTimeout(600);
      await page.screenshot({ path: join(FOLDER, `${name}.png`) });
    } catch (error) {
      // Or the browser would keep this program from ending.
      await browser.close();
      throw error;
    }
    console.log(`${name}.png`);
  };
  const studio = async (title) => {
    await page.goto(`${BASE}/windows`);
    await page.getByRole('link', { name: title }).click();
    await page.getByTitle('What readers see').waitFor();
  };

  await page.goto(BASE);
  const { email, password } = demo.accounts[0];
  await page.getByLabel('Email address').fill(email);
  await page.getByLabel('Password').fill(password);
  await page.getByRole('button', { name: 'Sign in' }).click();
  await page.getByRole('region', { name: /Lanes/ }).waitFor();

  await shot('calendars', async () => {
    await page.goto(`${BASE}/calendars`);
    await page
      .getByRole('status')
      .filter({ hasText: /^\d+ entries/ })
      .waitFor();
  });
  await shot('entry-editor', async () => {
    await page.goto(`${BASE}/calendars`);
    await page
      .getByRole('button', { name: /Team meeting/ })
      .first()
      .click();
    await page.getByLabel('Title').waitFor();
  });
  const desk = async (view, span) => {
    await page.goto(`${BASE}/calendars`);
    await page.getByText(view, { exact: true }).click();
    if (span) await page.getByLabel('Days shown').selectOption(span);
    await page.getByRole('region').waitFor();
  };
  await shot('people', async () => {
    await desk('Lanes', '1');
    await page.getByRole('button', { name: 'House diary', exact: true }).last().click();
    await page.getByRole('button', { name: 'People …' }).click();
    await page.getByRole('list', { name: 'People' }).waitFor();
  });
  await shot('windows', () => page.goto(`${BASE}/windows`));
  const api = async (method, path, body) => {
    // The picture before may have been one of somebody else's page.
    if (!page.url().startsWith(BASE)) await page.goto(`${BASE}/calendars`);
    return page.evaluate(
      async ([m, p, b]) => {
        const { csrf } = await (await fetch('/api/session')).json();
        const headers = { 'content-type': 'application/json', 'x-csrf-token': csrf };
        const answer = await fetch(`/api${p}`, {
          method: m,
          headers,
          ...(b ? { body: JSON.stringify(b) } : {}),
        });
        const text = await answer.text();
        return text ? JSON.parse(text) : null;
      },
      [method, path, body],
    );
  };
  await shot('studio', () => studio('Works ahead'));
  await shot('keys', async () => {
    await studio('Works ahead');
    await page.getByRole('button', { name: 'Card of Shipping agents: QR code, print' }).press('Enter');
    await page.getByRole('img', { name: /^QR code of/ }).waitFor();
    await page
      .getByRole('heading', { name: 'Keys to hand out' })
      .evaluate((e) => e.scrollIntoView({ block: 'center' }));
  });
  await shot('rehearsal', async () => {
    await studio('Works ahead');
    const glass = page.getByRole('radiogroup', { name: 'Glass for Dredging and works' });
    await glass.getByText('Clear').click();
    await page.getByRole('button', { name: 'Show this outside …' }).click();
    await page
      .getByText(/times afterwards/)
      .first()
      .waitFor();
  });
  if (!WANTED.length || WANTED.includes('rehearsal')) {
    await page.getByRole('button', { name: 'Close', exact: true }).click();
    await page.getByRole('button', { name: 'Discard draft' }).click();
    await page.getByText('is visible outside now').waitFor();
  }
  await shot('sightlines', async () => {
    await page.goto(`${BASE}/sightlines`);
    await page.getByRole('button', { name: /Dredging and works for Partners/ }).click();
  });
  await shot('reach', async () => {
    await page.goto(`${BASE}/reach`);
    await page.getByRole('table', { name: 'Windows and their readers' }).waitFor();
  });
  await shot('reach-window', async () => {
    await page.goto(`${BASE}/reach`);
    await page.getByRole('link', { name: 'Works ahead', exact: true }).click();
    await page.getByRole('img', { name: /^How revision/ }).waitFor();
  });
  if (process.env.FOLLOWERS_URL) await shot('followers', () => page.goto(process.env.FOLLOWERS_URL));
  await shot('ledger', async () => {
    // Something must have changed outside: an entry is moved, and moved back.
    const { entries } = await api('GET', '/find?text=Berth%202%20clear&in=text');
    const {
      id,
      version,
      uid,
      calendarId,
      imported: _imported,
      ...entry
    } = entries.find((e) => e.title === 'Berth 2 clear for the ferry');
    const change = { id, uid, version, calendarId, entry: { ...entry, place: 'Ferry berth 2, north side' } };
    const edit = await api('POST', '/edits', { label: 'Named the place', changes: [change] });
    await page.waitForTimeout(1500);
    await api('POST', `/edits/${edit.id}/take-back`);
    await page.waitForTimeout(1500);
    await studio('Works ahead');
    await page.getByRole('link', { name: 'Ledger' }).click();
    await page.getByTitle('As outsiders saw it').waitFor();
  });
  await shot('requests', async () => {
    await page.goto(`${BASE}/requests`);
    await page.getByRole('button', { name: /^Review the request/ }).waitFor();
  });
  await shot(
    'postbox',
    async () => {
      const reader = 'rowan@far-bay.example';
      const { postbox } = await api('GET', '/session');
      const opened = async (subject) => {
        const came = page.getByRole('link', { name: subject });
        for (let n = 0; n < 120 && !(await came.count()); n++) {
          await page.goto(`${postbox}/?to=${reader}`);
          await page.waitForTimeout(500);
        }
        await came.first().click();
      };
      await page.goto(`${see('works-ahead').see}/notices?tz=Europe/Lisbon`);
      await page.getByLabel('Your mail address').fill(reader);
      await page.getByRole('button').click();
      await opened(/^Confirm/);
      await page.goto(await page.locator('pre a').first().getAttribute('href'));
      await page.getByRole('button').click();
      await page.goto(`${BASE}/calendars`);
      const works = (await api('GET', '/calendars')).find((c) => c.name === 'Dredging and works');
      const days = (when, by) =>
        when.date
          ? { ...when, date: new Date(Date.parse(when.date) + by * 864e5).toISOString().slice(0, 10) }
          : when;
      const soon = days({ date: new Date().toISOString().slice(0, 10) }, 2).date;
      const entries = (await api('GET', `/calendars/${works.id}/entries`))
        .filter((e) => e.start.date > soon && !e.recurrence)
        .sort((x, y) => (x.start.date < y.start.date ? -1 : 1));
      const written = ({ id: _id, calendarId: _c, uid: _u, imported: _m, version: _v, ...rest }) => rest;
      const put = (e, more) => api('PUT', `/entries/${e.id}`, { ...written(e), version: e.version, ...more });
      const [moved, cancelled, placed, left] = entries;
      await put(moved, { start: days(moved.start, 2), end: days(moved.end, 2) });
      await put(cancelled, { status: 'cancelled' });
      await put(placed, { place: 'North mole, berth 4' });
      await put(left, { hold: 'keep-in' });
      const fresh = { ...written(placed), title: 'Sounding of the new channel', description: '' };
      await api('POST', `/calendars/${works.id}/entries`, fresh);
      await opened(/^“Works ahead”/);
      await page.frameLocator('iframe').getByText('Sounding').waitFor();
    },
    { width: 1280, height: 1000 },
  );
  await shot('first-day', async () => {
    // As it is with nothing in it.
    await page.route('**/api/calendars', (route) => route.fulfill({ json: [] }));
    await page.route('**/api/windows', (route) => route.fulfill({ json: [] }));
    await page.goto(`${BASE}/first-day`);
    await page.getByRole('button', { name: 'Empty calendar' }).waitFor();
    await page.unroute('**/api/calendars');
    await page.unroute('**/api/windows');
  });
  if (!WANTED.length || WANTED.includes('first-day')) await page.evaluate(() => sessionStorage.clear());
  await shot('embed-builder', async () => {
    await studio('On the quay');
    await page.getByRole('link', { name: 'On another site …' }).first().press('Enter');
    await page.getByText('Try it on another site').waitFor();
    await page.getByText('week', { exact: true }).click();
    const held = page.frameLocator('iframe[title="Article of another site"]').frameLocator('iframe');
    await held.locator('.week').waitFor();
    await page.waitForTimeout(1500);
  });
  await shot('page', () => page.goto(`${see('bridge-times').see}?show=week`));
  await shot('board', () => page.goto(`${BASE}/board`));
  await shot('embed', () => page.goto(`${see('on-the-quay').embed}?show=list`), { width: 520, height: 640 });
  await browser.close();
});
