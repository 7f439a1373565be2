import { expect, type Locator, type Page } from '@playwright/test';

/** Types a day (`2027-03-14`), a time (`02:30`) or both (`2027-03-14T02:30`) into a field, part by part as people do. */
export async function setWhen(page: Page, label: string, text: string): Promise<void> {
  await partsOf(page, label).getByRole('spinbutton').first().click();
  const [date, time] = text.includes('-') ? text.split('T') : ['', text];
  await page.keyboard.type(`${date!.split('-').reverse().join('')}${time?.replace(':', '') ?? ''}`);
}

/** The parts of a field for a day or a time. */
export function partsOf(page: Page, label: string): Locator {
  return page.getByRole('group', { name: label, exact: true }).last();
}

/** Finds a time zone by its name, and takes it once it is offered. */
export async function setZone(page: Page, label: string, typed: string): Promise<void> {
  const box = page.getByRole('combobox', { name: label, exact: true });
  // All zones are offered until the list follows what is typed; where the page is drawn anew meanwhile, it closes.
  await expect(async () => {
    await box.fill('');
    await box.fill(typed);
    await page.locator('[role=option]').filter({ hasText: typed }).first().click({ timeout: 4_000 });
  }).toPass();
}
