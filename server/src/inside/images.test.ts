import { EMPTY_CONTENT } from '@zonal/core/entries';
import { ACCOUNT_LIMITS } from '@zonal/core/rights';
import type { Sequelize } from 'sequelize';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { connect } from '../db/connect';
import { ImageRow } from '../db/imageModel';
import { colleague, freshDatabase, makeTo, quayServer, windowInput, TestClient } from '../testing';
import { dropUnusedImages } from './imageStore';

let house: Awaited<ReturnType<typeof quayServer>>;
let reader: Awaited<ReturnType<typeof colleague>>;
let sequelize: Sequelize;
let path: string;

beforeAll(async () => {
  const databaseUrl = await freshDatabase();
  house = await quayServer(databaseUrl);
  reader = await colleague(house.server.base, 'Ana');
  path = `/calendars/${house.calendarId}/images`;
  sequelize = connect(databaseUrl);
});
afterAll(async () => {
  await sequelize.close();
  await house.server.close();
});

type Format = 'png' | 'jpeg' | 'webp' | 'gif' | 'tiff';
interface Drawn {
  width: number;
  height: number;
  red: number;
  format?: Format;
}

/** Returns an image file of one colour that says where it was taken. */
function drawn({ width, height, red, format = 'jpeg' }: Drawn): Promise<Buffer> {
  return sharp({ create: { width, height, channels: 3, background: { r: red, g: 40, b: 80 } } })
    .withExif({ IFD0: { Copyright: 'Secret harbour' } })
    .toFormat(format)
    .toBuffer();
}

const upload = (client: TestClient, file: Buffer, type = 'image/jpeg') =>
  client.call('POST', path, new Uint8Array(file), type);

/** Fetches what is at an address of the house, whatever the house is called there. */
async function fetched(address: string, headers: Record<string, string> = {}) {
  const { pathname } = new URL(address);
  const response = await fetch(`${house.server.base}${pathname}`, { headers });
  return {
    status: response.status,
    headers: response.headers,
    bytes: Buffer.from(await response.arrayBuffer()),
  };
}
const seenBy = (client: TestClient, name: string) =>
  fetched(`${house.server.base}/api${path}/${name}`, client.headers());

const dayAhead = (days: number) => new Date(Date.now() + days * 86_400_000).toISOString().slice(0, 10);
const times = {
  start: { kind: 'date', date: dayAhead(3) },
  end: { kind: 'date', date: dayAhead(4) },
  recurrence: null,
  overrides: [],
} as const;

function write(image: object | null, parts: object = {}) {
  const entry = { ...EMPTY_CONTENT, ...times, title: 'Market', image, ...parts };
  return house.client.call('POST', `/calendars/${house.calendarId}/entries`, entry);
}

describe('an uploaded image', () => {
  it('is stored upright, small enough, as WebP and without what the file said of its taking', async () => {
    const { status, body } = await upload(house.client, await drawn({ width: 3200, height: 1000, red: 20 }));
    expect(status).toBe(201);
    expect(body).toEqual({
      name: expect.stringMatching(/^[0-9a-f]{32}$/) as string,
      width: 1600,
      height: 500,
    });
    const { bytes } = await seenBy(house.client, body.name);
    expect(await sharp(bytes).metadata()).toMatchObject({ format: 'webp', width: 1600, height: 500 });
    expect(bytes.includes('Secret harbour')).toBe(false);
  });

  it('has the same name each time, and another picture has another one', async () => {
    const [one, other] = [
      await drawn({ width: 60, height: 40, red: 40 }),
      await drawn({ width: 60, height: 40, red: 8 }),
    ];
    const { name } = (await upload(house.client, one)).body;
    expect((await upload(house.client, one)).body.name).toBe(name);
    expect((await upload(house.client, other)).body.name).not.toBe(name);
  });

  it('is refused if it is no picture, of another format, or claims to be huge', async () => {
    const svg = Buffer.from(
      '<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"><rect width="9" height="9"/></svg>',
    );
    const tiff = await drawn({ width: 40, height: 40, red: 60, format: 'tiff' });
    const huge = await drawn({ width: 9000, height: 9000, red: 60, format: 'png' });
    const broken = (await drawn({ width: 60, height: 40, red: 80 })).subarray(0, 200);
    for (const file of [svg, tiff, huge, broken, Buffer.from('GIF89a')])
      expect(await upload(house.client, file)).toMatchObject({
        status: 422,
        body: { code: 'image-unreadable' },
      });
    expect(await upload(house.client, Buffer.from('{}'), 'application/json')).toMatchObject({
      status: 422,
      body: { code: 'image-unreadable' },
    });
    expect(await upload(house.client, Buffer.alloc(13_000_000))).toMatchObject({ status: 413 });
  });

  it('can be sent by those who write the calendar only', async () => {
    const file = await drawn({ width: 60, height: 40, red: 100 });
    const stranger = new TestClient(house.server.base);
    await stranger.call('GET', '/session');
    expect((await upload(stranger, Buffer.alloc(13_000_000))).body).toMatchObject({ code: 'not-signed-in' });
    expect((await upload(reader.client, file)).status).toBe(404);
    await makeTo(house.calendarId, reader.id, 'reader', 'clear');
    expect(await upload(reader.client, file)).toMatchObject({ status: 403, body: { code: 'not-allowed' } });
  });
});

describe('the image of an entry', () => {
  it('needs a text, and has to be stored', async () => {
    const { body } = await upload(house.client, await drawn({ width: 60, height: 40, red: 120 }));
    expect((await write({ ...body, alt: ' ' })).body).toMatchObject({ code: 'image-text-missing' });
    const unknown = { ...body, name: 'f'.repeat(32), alt: 'Quay' };
    expect((await write(unknown)).body).toMatchObject({ code: 'image-unknown' });
    expect((await write({ ...body, name: '../x', alt: 'Quay' })).body).toMatchObject({
      code: 'input-invalid',
    });
    expect((await write({ ...body, alt: 'Quay' })).status).toBe(201);
  });

  it('is shown inside to those who see it, and no longer once they do not', async () => {
    const { name, ...size } = (await upload(house.client, await drawn({ width: 60, height: 40, red: 140 })))
      .body;
    const image = { name, ...size, alt: 'Boats at the quay' };
    const { body: entry } = await write(image);
    await makeTo(house.calendarId, reader.id, 'reader', 'clear');
    expect((await seenBy(reader.client, name)).status).toBe(200);
    await makeTo(house.calendarId, reader.id, 'reader', 'tinted');
    expect((await seenBy(reader.client, name)).status).toBe(404);
    await makeTo(house.calendarId, reader.id, 'reader', 'clear');
    const held = { ...entry, hold: 'keep-in' };
    const { id, calendarId: _calendar, uid: _uid, imported: _imported, ...input } = held;
    expect((await house.client.call('PUT', `/entries/${id}`, input)).status).toBe(200);
    expect((await seenBy(reader.client, name)).status).toBe(404);
    expect((await seenBy(reader.client, 'f'.repeat(32))).status).toBe(404);
  });

  it('goes out below each key that shows it, and nowhere else', async () => {
    const { name, ...size } = (await upload(house.client, await drawn({ width: 60, height: 40, red: 160 })))
      .body;
    const image = { name, ...size, alt: 'Boats & nets' };
    const { body: entry } = await write(image, { title: 'Fair' });
    const open = async (glass: 'clear' | 'tinted') =>
      (await house.client.call('POST', '/windows', windowInput(house.calendarId, glass, { name: glass })))
        .body.keys[0] as { see: string; feed: string };
    const [clear, tinted] = [await open('clear'), await open('tinted')];
    const picture = (see: string, wanted = name) => fetched(`${see}/image/${wanted}.webp`);

    const shown = await picture(clear.see);
    expect(shown).toMatchObject({ status: 200, bytes: (await seenBy(house.client, name)).bytes });
    expect(shown.headers.get('content-type')).toBe('image/webp');
    expect(shown.headers.get('cache-control')).toBe('public, no-cache');
    const tag = { 'if-none-match': shown.headers.get('etag')! };
    expect((await fetched(`${clear.see}/image/${name}.webp`, tag)).status).toBe(304);

    const feed = (await fetched(clear.feed)).bytes.toString().replaceAll('\r\n ', '');
    expect(feed).toContain(`IMAGE;VALUE=URI:${clear.see}/image/${name}.webp\r\n`);
    const page = /URL:(\S+)/.exec(feed.slice(feed.indexOf('SUMMARY:Fair')))![1]!;
    expect((await fetched(page)).bytes.toString()).toContain(
      `src="${new URL(clear.see).pathname}/image/${name}.webp" alt="Boats &amp; nets" width="60" height="40"`,
    );

    // A reader who may not see it gets what somebody gets who asks for an image that never was.
    const [hidden, unknown] = [await picture(tinted.see), await picture(tinted.see, 'f'.repeat(32))];
    expect(hidden.status).toBe(404);
    expect(hidden.bytes).toEqual(unknown.bytes);
    expect([...hidden.headers].filter(([header]) => header !== 'date')).toEqual(
      [...unknown.headers].filter(([header]) => header !== 'date'),
    );
    expect((await fetched(tinted.feed)).bytes.toString()).not.toContain(name);

    const { id, calendarId: _calendar, uid: _uid, imported: _imported, ...input } = entry;
    await house.client.call('PUT', `/entries/${id}`, { ...input, image: null });
    expect((await picture(clear.see)).status).toBe(404);
  });
});

it('is kept as long as an entry has it, and for a time after', async () => {
  const { name, ...size } = (await upload(house.client, await drawn({ width: 60, height: 40, red: 180 })))
    .body;
  const other = (await upload(house.client, await drawn({ width: 60, height: 40, red: 200 }))).body.name;
  await write({ name, ...size, alt: 'Crane' });
  const recent = (await upload(house.client, await drawn({ width: 60, height: 40, red: 220 }))).body.name;
  const old = new Date(Date.now() - 100 * 86_400_000);
  await ImageRow.update({ usedAt: old }, { where: { name: [name, other] } });
  await dropUnusedImages(sequelize);
  const left = (await ImageRow.findAll({ attributes: ['name'], raw: true })).map((row) => row.name);
  expect(left).toContain(name);
  expect(left).toContain(recent);
  expect(left).not.toContain(other);
});

it('can be uploaded so many times a day by one account, and nobody else is kept from it', async () => {
  const rows = Array.from({ length: ACCOUNT_LIMITS.imagesPerDay }, (_, n) => ({
    name: n.toString(16).padStart(32, '0'),
    bytes: Buffer.alloc(1),
    ...{ width: 1, height: 1, userId: reader.id },
  }));
  await ImageRow.bulkCreate(rows);
  await makeTo(house.calendarId, reader.id, 'editor');
  const file = await drawn({ width: 60, height: 40, red: 240 });
  expect(await upload(reader.client, file)).toMatchObject({ status: 422, body: { code: 'too-many-images' } });
  expect((await upload(house.client, file)).status).toBe(201);
});
