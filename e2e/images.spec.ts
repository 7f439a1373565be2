import { expect, test } from '@playwright/test';
import { demoWindow, signIn } from './demo';

/** A drawing that is no image which can be uploaded. */
const drawing = (colour: string) =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="40" height="30"><rect width="40" height="30" fill="${colour}"/></svg>`;

test('an entry gets an image with a text, and readers see it until it is removed', async ({
  page,
  context,
}) => {
  await signIn(page);
  await page.getByRole('button', { name: 'New entry' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Title', { exact: true }).fill('Lantern night');
  await dialog.getByLabel('Calendar', { exact: true }).selectOption({ label: 'EV Events on the quay' });

  const choose = async (name: string, mimeType: string, buffer: Buffer) => {
    const chooser = page.waitForEvent('filechooser');
    await dialog.getByRole('button', { name: /^Choose an(other)? image$/ }).click();
    await (await chooser).setFiles({ name, mimeType, buffer });
  };
  await choose('drawing.svg', 'image/svg+xml', Buffer.from(drawing('teal')));
  await expect(dialog.getByText('This file is not an image that can be shown.')).toBeVisible();

  const png = await page.evaluate(async () => {
    const canvas = new OffscreenCanvas(40, 30);
    canvas.getContext('2d')!.fillRect(0, 0, 40, 30);
    return [...new Uint8Array(await (await canvas.convertToBlob()).arrayBuffer())];
  });
  await choose('lantern.png', 'image/png', Buffer.from(png));
  await expect(dialog.getByRole('button', { name: 'Remove the image' })).toBeVisible();
  await dialog.getByRole('button', { name: 'Save', exact: true }).click();
  const text = dialog.getByLabel('What the image shows');
  await expect(dialog.getByText('Describe what the image shows.').first()).toBeVisible();
  await expect(text).toBeFocused();
  await text.fill('A lantern above the water');
  await dialog.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(dialog).toBeHidden();

  const { see } = await demoWindow('on-the-quay');
  const outside = await context.newPage();
  await outside.goto(`${see}?find=Lantern`);
  await outside.getByRole('link', { name: 'Lantern night', exact: true }).click();
  const image = outside.getByRole('img', { name: 'A lantern above the water' });
  await expect(image).toBeVisible();
  await expect.poll(() => image.evaluate((img: HTMLImageElement) => img.naturalWidth)).toBe(40);
  const address = new URL((await image.getAttribute('src'))!, see).href;

  const lanes = page.getByRole('region', { name: /Lanes/ });
  await lanes.getByRole('button', { name: /Lantern night/ }).click();
  await expect(dialog.getByRole('img', { name: 'A lantern above the water' })).toBeVisible();
  await dialog.getByRole('button', { name: 'Remove the image' }).click();
  await dialog.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(dialog).toBeHidden();
  expect((await page.request.get(address)).status()).toBe(404);
});
