import { expect, test, type Page } from '@playwright/test';
import { changeHeaders, confirmLarge, signIn } from './demo';
import { partsOf, setWhen } from './fields';
import { ACCOUNT } from './startDemo';

/** Opens the editor of a new entry and types a title that is not saved. */
async function typeTitle(page: Page, title: string): Promise<void> {
  await page.getByRole('button', { name: 'New entry' }).click();
  await page.getByRole('dialog').getByLabel('Title', { exact: true }).fill(title);
}

/** Ends the session of a page as from elsewhere, and waits until the page says so. */
async function endSession(page: Page): Promise<void> {
  await page.request.delete('/api/session', { headers: await changeHeaders(page) });
  await expect(page.getByText('Your session has ended, Ida Maren.')).toBeVisible();
}

/** Changes something that reloads the calendars in every open page. */
async function touchCalendars(page: Page): Promise<void> {
  const headers = await changeHeaders(page);
  const plate = { plate: 'TC', colour: 'teal', zone: 'America/Halifax', description: '' };
  const made = await page.request.post('/api/calendars', { headers, data: { ...plate, name: 'Touched' } });
  const { id } = await made.json();
  const gone = await page.request.delete(`/api/calendars/${id}?windows=take-out`, { headers });
  expect(gone.ok()).toBe(true);
}

test('what is on the screen stays there if fetching it again fails, and is fetched on request', async ({
  page,
}) => {
  await signIn(page);
  await typeTitle(page, 'Not to be lost');
  const calendars = /\/api\/calendars$/;
  await page.route(calendars, (route) =>
    route.request().method() === 'GET' ? route.fulfill({ status: 503, body: 'away' }) : route.continue(),
  );
  await touchCalendars(page);
  const trouble = page.locator('[role=alert]').filter({ hasText: 'What you see may be out of date' });
  await expect(trouble).toBeVisible();
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByLabel('Title', { exact: true })).toHaveValue('Not to be lost');
  await dialog.getByRole('button', { name: 'Discard changes' }).click();
  await expect(page.getByRole('button', { name: 'Show Bridge and lock times' })).toBeVisible();
  await page.unroute(calendars);
  await page.getByRole('button', { name: 'Try again' }).click();
  await expect(trouble).toBeHidden();
});

test('a page that has nothing yet says that it could not be loaded, and loads on request', async ({
  page,
}) => {
  await signIn(page);
  await page.route('**/api/sheets', (route) => route.fulfill({ status: 503, body: 'away' }));
  await page.goto('/sheets');
  await expect(page.getByText('This could not be loaded.')).toBeVisible();
  await page.unroute('**/api/sheets');
  await page.getByRole('button', { name: 'Try again' }).click();
  await expect(page.getByRole('heading', { name: 'Link sheets' })).toBeVisible();
});

test('a session that ends elsewhere leaves the page, and goes on where it was after signing in again', async ({
  page,
}) => {
  await signIn(page);
  await typeTitle(page, 'Half written');
  await endSession(page);
  await expect(page.getByRole('dialog')).toBeHidden();
  await expect(page.getByRole('button', { name: 'Show Bridge and lock times' })).toBeHidden();
  await expect(page.getByLabel('Email address')).toHaveValue(ACCOUNT.email);
  await page.getByLabel('Password').fill(ACCOUNT.password);
  await page.getByRole('button', { name: 'Sign in' }).click();
  const title = page.getByRole('dialog').getByLabel('Title', { exact: true });
  await expect(title).toHaveValue('Half written');
  // It is a session like any other: what was typed can be saved.
  await title.fill('Written in two sittings');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('dialog')).toBeHidden();
});

test('a person who signs in after somebody else finds nothing of theirs', async ({ page }) => {
  await signIn(page);
  await typeTitle(page, 'For Ida only');
  await endSession(page);
  await page.getByRole('button', { name: 'Siri Holme, colleague' }).click();
  await expect(page.getByRole('button', { name: 'Show Bridge and lock times' })).toBeVisible();
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await expect(page.getByRole('button', { name: 'Show House diary' })).toHaveCount(0);
});

test('a refusal marks its field and brings it into sight, and the end follows the start', async ({
  page,
}) => {
  await signIn(page);
  await typeTitle(page, 'Turned round');
  await setWhen(page, 'Start time', '10:00');
  await expect(partsOf(page, 'End time')).toHaveText(/11.*00/);
  await setWhen(page, 'End time', '09:30');
  await page.getByRole('dialog').getByLabel('Description').fill('Something to scroll past');
  const write = page.getByRole('button', { name: 'Save' });
  await write.click();
  await expect(page.getByRole('alert')).toContainText('before');
  const marked = partsOf(page, 'End time').getByRole('spinbutton').first();
  await expect(marked).toBeFocused();
  await expect(marked).toBeInViewport();
  await setWhen(page, 'End time', '12:00');
  await expect(page.getByRole('alert')).toHaveCount(0);
  await write.click();
  await expect(page.getByRole('dialog')).toBeHidden();
});

test('a button keeps the focus during its call, so that the keyboard stays in the dialog', async ({
  page,
}) => {
  await signIn(page);
  await typeTitle(page, 'Saved slowly');
  let answer = () => {};
  const isAnswered = new Promise<void>((resolve) => (answer = resolve));
  const edits = /\/api\/edits$/;
  await page.route(edits, async (route) => {
    await isAnswered;
    await route.fulfill({ status: 503, body: '{}' });
  });
  const dialog = page.getByRole('dialog').first();
  const save = dialog.getByRole('button', { name: 'Save' });
  await save.focus();
  await page.keyboard.press('Enter');
  await expect(save).toBeDisabled();
  await expect(save).toBeFocused();
  answer();
  await expect(dialog.getByRole('alert')).toBeVisible();
  await expect(save).toBeEnabled();
  await expect(save).toBeFocused();
  await page.unroute(edits);
  await page.keyboard.press('Escape');
  await expect(page.getByRole('alertdialog')).toBeVisible();
});

test('what was typed is not thrown away by Escape, another screen or closing the tab', async ({ page }) => {
  await signIn(page);
  await page.getByRole('link', { name: /^Windows/ }).click();
  await page.getByRole('link', { name: /^Calendars/ }).click();
  // Nothing was typed: nobody is asked.
  await page.getByRole('button', { name: 'New entry' }).click();
  const title = page.getByRole('dialog').getByLabel('Title', { exact: true });
  await expect(title).toBeFocused();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await typeTitle(page, 'Half a thought');
  const asked = page.getByRole('alertdialog', { name: 'Discard changes?' });
  await page.keyboard.press('Escape');
  await asked.getByRole('button', { name: 'Keep editing' }).click();
  await expect(title).toHaveValue('Half a thought');
  await expect(title).toBeFocused();
  await page.goBack();
  await asked.getByRole('button', { name: 'Keep editing' }).click();
  await expect(title).toHaveValue('Half a thought');
  await expect(title).toBeFocused();
  const closing = page.waitForEvent('dialog');
  await page.close({ runBeforeUnload: true });
  const dialog = await closing;
  expect(dialog.type()).toBe('beforeunload');
  await dialog.dismiss();
  await title.press('Escape');
  await asked.getByRole('button', { name: 'Discard changes' }).click();
  await expect(page.getByRole('dialog')).toHaveCount(0);
});

test('a new window is a draft from the first key typed, until it is discarded', async ({ page }) => {
  await signIn(page);
  await page.goto('/windows/new');
  const name = page.getByLabel('Name that readers see');
  await name.fill('Winter berths');
  await expect(page.getByText('This draft is stored on this device.')).toBeVisible();
  await page.reload();
  await expect(name).toHaveValue('Winter berths');
  await page.getByRole('button', { name: 'Discard draft' }).click();
  await expect(name).toHaveValue('');
  await page.reload();
  await expect(name).toHaveValue('');
  // Nor is it there again once it is open.
  await page.getByRole('button', { name: 'Add Lighthouse visits' }).click();
  await expect(page.getByText('This draft is stored on this device.')).toBeVisible();
  await page.getByRole('button', { name: 'Open the window …' }).click();
  await confirmLarge(page);
  await page.getByRole('button', { name: 'Open the window now' }).click();
  await expect(page.getByText('What you see on the right is visible outside now.')).toBeVisible();
  await page.goto('/windows/new');
  await expect(name).toHaveValue('');
});

test('a new entry starts in the calendar that was last written or chosen', async ({ page }) => {
  await signIn(page);
  const calendar = page.getByRole('dialog').getByLabel('Calendar', { exact: true });
  await page.getByLabel('Calendar for the quick line').selectOption({ label: 'LV Lighthouse visits' });
  await page.getByRole('button', { name: 'New entry' }).click();
  await expect(calendar.locator('option:checked')).toHaveText(/Lighthouse visits/);
  await calendar.selectOption({ label: 'HD House diary' });
  await page.getByRole('dialog').getByLabel('Title', { exact: true }).fill('Somewhere else');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('dialog')).toBeHidden();
  await page.getByRole('button', { name: 'New entry' }).click();
  await expect(calendar.locator('option:checked')).toHaveText(/House diary/);
});

test('an entry written for another week says where it is, and is shown there', async ({ page }) => {
  await signIn(page);
  await typeTitle(page, 'Far ahead');
  const later = new Date(Date.now() + 100 * 86_400_000).toISOString().slice(0, 10);
  await setWhen(page, 'Starts on', later);
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText(/“Far ahead” is on/)).toBeVisible();
  await page.getByRole('button', { name: 'Show it' }).click();
  await expect(page.locator('[data-key]').filter({ hasText: 'Far ahead' })).toBeVisible();
  await expect(page.getByText(/“Far ahead” is on/)).toHaveCount(0);
});

test('undo survives a reload, and an entry shows its history and goes back to an earlier version', async ({
  page,
}) => {
  await signIn(page);
  await typeTitle(page, 'First wording');
  await page.getByRole('button', { name: 'Save' }).click();
  const entry = (title: string) => page.locator('[data-key]').filter({ hasText: title }).first();
  await entry('First wording').dblclick();
  const title = page.getByRole('dialog').getByLabel('Title', { exact: true });
  await title.fill('Second wording');
  await page.getByRole('dialog').getByRole('button', { name: 'Save' }).click();
  await expect(entry('Second wording')).toBeVisible();

  await page.reload();
  await page.getByRole('button', { name: /^Undo:/ }).click();
  await expect(entry('First wording')).toBeVisible();
  await page.getByRole('button', { name: /^Redo:/ }).click();
  await entry('Second wording').dblclick();
  await page.getByText('History', { exact: true }).click();
  const lines = page.getByRole('list', { name: 'History' }).getByRole('listitem');
  await expect(lines.first()).toContainText('Ida Maren: changed title');
  await expect(lines.last()).toContainText('Ida Maren: created it');
  // What was typed would be lost.
  await title.fill('Third wording');
  await expect(lines.last().getByRole('button', { name: /^Restore/ })).toBeDisabled();
  await title.fill('Second wording');
  await lines
    .last()
    .getByRole('button', { name: /^Restore/ })
    .click();
  await expect(entry('First wording')).toBeVisible();

  // Nobody else finds it.
  await page.getByRole('button', { name: 'Sign out' }).click();
  await expect(page.getByRole('button', { name: 'Sign in' })).toBeVisible();
  expect(await page.evaluate(() => sessionStorage.length)).toBe(0);
});

test('a changed calendar is not left for its people without asking', async ({ page }) => {
  await signIn(page);
  await page.getByRole('button', { name: 'New calendar' }).click();
  const name = page.getByRole('dialog').getByLabel('Name', { exact: true });
  await name.fill('Pilot cutters');
  await page.getByRole('button', { name: 'Create calendar' }).click();
  await page
    .getByRole('region')
    .getByRole('button', { name: /Pilot cutters$/ })
    .click();
  await name.fill('Pilot cutters and tenders');
  await page.getByRole('button', { name: /^People …/ }).click();
  const asked = page.getByRole('alertdialog', { name: 'Discard changes?' });
  await asked.getByRole('button', { name: 'Keep editing' }).click();
  await expect(name).toHaveValue('Pilot cutters and tenders');
  await page.getByRole('button', { name: /^People …/ }).click();
  await asked.getByRole('button', { name: 'Discard changes' }).click();
  await expect(page.getByRole('dialog', { name: 'People of Pilot cutters' })).toBeVisible();
});
