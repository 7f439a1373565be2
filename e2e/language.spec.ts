import AxeBuilder from '@axe-core/playwright';
import { expect, test, type Page } from '@playwright/test';
import { de as insideDe } from '../web/src/texts/de/inside';
import { de as glassDe } from '../web/src/texts/de/glass';
import { de as houseDe } from '../web/src/texts/de/house';
import { de as outsideDe } from '../web/src/texts/de/outside';
import { de as shellDe } from '../web/src/texts/de/shell';
import { en as insideEn } from '../web/src/texts/en/inside';
import { en as glassEn } from '../web/src/texts/en/glass';
import { en as houseEn } from '../web/src/texts/en/house';
import { en as outsideEn } from '../web/src/texts/en/outside';
import { en as shellEn } from '../web/src/texts/en/shell';
import { SECTIONS, changeHeaders, signIn } from './demo';

const SCREENS = [...SECTIONS, '/house/post', '/house/journal', '/help', '/help/words'];

const german: Readonly<Record<string, string>> = {
  ...insideDe,
  ...glassDe,
  ...houseDe,
  ...outsideDe,
  ...shellDe,
};

/** English sentences and names of the application that are other ones in German. */
const ENGLISH = Object.entries({ ...insideEn, ...glassEn, ...houseEn, ...outsideEn, ...shellEn })
  .filter(([key, text]) => text !== german[key] && !/[{<]/.test(text) && text.split(' ').length > 2)
  .map(([, text]) => text);

async function chooseLanguage(page: Page, field: string, language: string, save: string): Promise<void> {
  await page.goto('/account');
  await page.getByLabel(field, { exact: true }).selectOption({ label: language });
  await page.getByRole('button', { name: save }).click();
}

// Other tests read the account in English, also after a failure here.
test.afterEach(async ({ page }) => {
  const { name } = await (await page.request.get('/api/account')).json();
  const data = { name, language: null };
  await page.request.put('/api/account', { headers: await changeHeaders(page), data });
});

test('somebody who chooses German finds every screen in German, on other devices too', async ({
  page,
  browser,
}) => {
  await signIn(page);
  await chooseLanguage(page, 'Language', 'Deutsch', 'Save name and language');
  await expect(page.getByRole('heading', { level: 1, name: 'Ihr Konto' })).toBeVisible();
  for (const path of SCREENS) {
    await page.goto(path);
    await expect(page.getByRole('heading', { level: 1 })).toBeAttached();
    await page.waitForLoadState('networkidle');
    const shown = await page.locator('body').innerText();
    expect(
      ENGLISH.filter((text) => shown.includes(text)),
      path,
    ).toEqual([]);
    expect((await new AxeBuilder({ page }).analyze()).violations, path).toEqual([]);
  }
  const refused = await page.evaluate(async () => {
    const answer = await fetch('/api/windows/none', { headers: { 'accept-language': 'de' } });
    return (await answer.json()) as { code: string; message: string };
  });
  expect(refused).toMatchObject({ code: 'not-found', message: /^Hier ist nichts\./ });

  // The account takes its language along.
  const other = await (await browser.newContext()).newPage();
  await signIn(other, 'Kalender');
  await expect(other.getByRole('link', { name: /^Fenster/ })).toBeVisible();
  await other.context().close();

  await chooseLanguage(page, 'Sprache', 'English', 'Name und Sprache speichern');
  await expect(page.getByRole('heading', { level: 1, name: 'Your account' })).toBeVisible();
  await chooseLanguage(page, 'Language', 'as in this browser', 'Save name and language');
  await expect(page.getByText('Saved.')).toBeVisible();
});
