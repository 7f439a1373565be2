import { expect, type Page } from '@playwright/test';
import { ACCOUNT, BASE } from './startDemo';

export interface DemoWindow {
  readonly slug: string;
  readonly see: string;
  readonly embed: string;
  readonly feed: string;
}

/** The addresses of the screens that show something to everybody who is signed in. */
export const SECTIONS = [
  '/calendars',
  '/calendars/directory',
  '/windows',
  '/windows/new',
  '/sightlines',
  '/reach',
  '/sheets',
  '/requests',
  '/house',
  '/house/people',
  '/account',
];

/** Returns a window of the demo by its slug, as /api/demo tells it. */
export async function demoWindow(slug: string): Promise<DemoWindow> {
  const { windows } = (await (await fetch(`${BASE}/api/demo`)).json()) as { windows: DemoWindow[] };
  return windows.find((w) => w.slug === slug)!;
}

/** Returns what a request that changes something must carry in the session of a page. */
export async function changeHeaders(page: Page): Promise<{ 'x-csrf-token': string }> {
  const { csrf } = await (await page.request.get('/api/session')).json();
  return { 'x-csrf-token': csrf };
}

export async function signIn(page: Page, heading = 'Calendars'): Promise<void> {
  await page.goto('/');
  await page.getByLabel('Email address').fill(ACCOUNT.email);
  await page.getByLabel('Password').fill(ACCOUNT.password);
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByRole('heading', { name: heading })).toBeVisible();
}

/** Switches all calendars off but one. */
export async function showOnly(page: Page, name: string): Promise<void> {
  await expect(page.getByRole('button', { name: `Show ${name}` })).toBeVisible();
  for (const plate of await page.getByRole('group', { name: 'Calendars shown' }).getByRole('button').all()) {
    const label = await plate.getAttribute('aria-label');
    if (!label?.startsWith('Show ')) continue;
    const wanted = label === `Show ${name}`;
    if ((await plate.getAttribute('aria-pressed')) !== String(wanted)) await plate.click();
  }
}

/** Returns what a subscriber gets who holds `etag`. */
export async function poll(feed: string, etag = ''): Promise<{ status: number; etag: string; text: string }> {
  const response = await fetch(feed, { headers: etag ? { 'if-none-match': etag } : {} });
  return { status: response.status, etag: response.headers.get('etag') ?? '', text: await response.text() };
}

/** Ticks every large effect of a rehearsal, once it is worked out. */
export async function confirmLarge(page: Page): Promise<void> {
  await expect(page.getByText(/times? afterwards\.|Nothing changes/).first()).toBeVisible();
  const effects = page.getByRole('group', { name: 'Large effects to confirm' }).getByRole('checkbox');
  for (const tick of await effects.all()) await tick.locator('xpath=ancestor-or-self::label').click();
}
