import type { CallName, OutwardWindow, WindowKey } from '@zonal/core/api';
import { EMPTY_CONTENT, type Entry } from '@zonal/core/entries';
import { readCalendar } from '@zonal/core/forms';
import { BLANK_WINDOW, rulesOfSaid } from '@zonal/core/glass';
import { describe, expect, it } from 'vitest';
import { archiveFiles, archivedWindow, type ArchiveFile, type Ask, type AskBytes } from './archiveFiles';

const NOW = Date.UTC(2026, 5, 1);
const SECRET = 'do-not-keep';
const IMAGE = 'a'.repeat(32);

const entry = {
  ...EMPTY_CONTENT,
  ...{
    id: 'e',
    uid: 'e@harbour.example',
    calendarId: 'a',
    version: 1,
    title: 'Night watch',
    hold: 'keep-in',
  },
  ...{ start: { kind: 'date', date: '2026-06-02' }, end: { kind: 'date', date: '2026-06-03' } },
  ...{ recurrence: null, overrides: [], image: { name: IMAGE, alt: 'The quay', width: 640, height: 480 } },
} as Entry;

const calendar = (id: string, name: string) => ({ id, name, zone: 'America/Halifax', entryCount: 1 });

/** Returns a key all of whose addresses have the secret in them. */
function keyFor(audience: 'street' | 'partners', cap: 'tinted' | null): WindowKey {
  const addresses = ['token', 'see', 'embed', 'feed', 'dav', 'freeBusy', 'jCal', 'table', 'changes', 'copy'];
  return {
    ...{
      id: `${audience}${cap}`,
      madeOutTo: 'Parish',
      audience,
      cap,
      contact: 'parish@far.example',
      notes: '',
    },
    ...Object.fromEntries(addresses.map((field) => [field, `https://window.example/${SECRET}`])),
    ...{ look: {}, hosts: [], turned: [], meantFor: 4, matters: true, readers: 9 },
  } as unknown as WindowKey;
}

const said = { ...BLANK_WINDOW, name: 'Works ahead', filter: null };
const outwardWindow = {
  ...rulesOfSaid(said, { secret: SECRET, ceilings: { house: {}, calendars: {} }, gone: [] }),
  ...{ id: 'w', slug: 'works-ahead', listed: false, publicGraceDays: 30, closedAt: null, closesAt: null },
  ...{
    version: 3,
    draft: null,
    keys: [keyFor('street', null), keyFor('street', null), keyFor('partners', 'tinted')],
  },
} as unknown as OutwardWindow;

const line = {
  at: '2026-05-01T00:00:00Z',
  by: ['Ida'],
  appeared: 1,
  vanished: 0,
  changed: 0,
  wording: false,
};
const journalLine = (id: number) => ({
  ...{ id, at: '2026-05-01T00:00:00Z', by: 'Ida', area: 'keys', kind: 'keys', turn: 'made', about: `n${id}` },
  changes: [],
});

/** Answers each call as a server would; the journal has two pages. */
const ANSWERS: Partial<Record<CallName, (sent: { query?: { before?: string } }) => unknown>> = {
  'GET /calendars': () => [calendar('a', 'Quay'), calendar('b', 'Quay!')],
  'GET /calendars/:id/entries': () => [entry],
  'GET /windows': () => [outwardWindow],
  'GET /house': () => ({ name: 'Harbour Trust', zone: 'America/Halifax' }),
  'GET /sheets': () => [
    { name: 'Links', note: '', items: [{ windowId: 'w', keyId: 'k', address: SECRET }], address: SECRET },
  ],
  'GET /people': () => [{ name: 'Ida', email: 'ida@harbour.example' }],
  'GET /standings': () => ({ calendars: [], stewards: [] }),
  'GET /invitations': () => [{ email: 'jon@harbour.example', handOutAddress: SECRET }],
  'GET /ceilings': () => ({ ceilings: [], requests: [] }),
  'GET /labels': () => [{ name: 'works', count: 2, calendarIds: [], windows: [] }],
  'GET /keys/:id/ledger': () => [{ ...line, number: 1, windowVersion: 1 }],
  'GET /journal': ({ query }) =>
    query?.before ? { lines: [journalLine(1)], more: false } : { lines: [journalLine(2)], more: true },
};
const ask = ((name: CallName, sent: object) => Promise.resolve(ANSWERS[name]!(sent))) as unknown as Ask;

/** Returns the path itself, as bytes. */
const askBytes: AskBytes = (path) => Promise.resolve(new TextEncoder().encode(path));
const textOf = ({ content }: ArchiveFile) =>
  typeof content === 'string' ? content : new TextDecoder().decode(content);

async function filesOf(answers: Ask): Promise<ArchiveFile[]> {
  const files: ArchiveFile[] = [];
  for await (const file of archiveFiles(answers, askBytes, NOW)) files.push(file);
  return files;
}

describe('the archive', () => {
  it('has everything of the house, each file under a name of its own', async () => {
    const files = await filesOf(ask);
    expect(files.map((file) => file.name)).toEqual([
      ...['README.txt', 'calendars.json', 'calendars/quay.ics', `images/${IMAGE}.webp`],
      ...[
        'calendars/quay-2.ics',
        'windows.json',
        'sheets.json',
        'people.json',
        'house.json',
        'ledger.csv',
        'journal.csv',
      ],
    ]);
    const text = (name: string) => textOf(files.find((file) => file.name === name)!);
    expect(
      readCalendar(new TextEncoder().encode(text('calendars/quay.ics')), ['UTC'], { now: NOW }).entries,
    ).toEqual([expect.objectContaining({ uid: 'e@harbour.example', title: 'Night watch', hold: 'keep-in' })]);
    // The image of both calendars' entries is there once.
    expect(text(`images/${IMAGE}.webp`)).toBe(`/calendars/a/images/${IMAGE}`);
    // The ledger of a view is there once, however many keys lead to it.
    expect(text('ledger.csv').trim().split('\r\n').slice(1)).toEqual([
      expect.stringMatching(/^Works ahead,street,1,/),
      expect.stringMatching(/^Works ahead,"partners, at most tinted",1,/),
    ]);
    expect(text('journal.csv')).toMatch(/n2[^]*n1/);
    for (const { name } of files.slice(1)) expect(text('README.txt')).toContain(name.split('/')[0]);
  });

  it('has no secret, and nothing by which a window could be read', async () => {
    for (const file of await filesOf(ask))
      expect([file.name, textOf(file).includes(SECRET)]).toEqual([file.name, false]);
    expect(archivedWindow(outwardWindow).keys[0]).toMatchObject({ issuedTo: 'Parish', expectedReaders: 4 });
  });

  it('says how far it has come, and ends with all of it', async () => {
    const shares = (await filesOf(ask)).map((file) => file.share);
    expect(shares).toEqual([...shares].sort((a, b) => a - b));
    expect(shares.at(-1)).toBe(1);
  });

  it('is not made if a call is refused', async () => {
    const refusing = ((name: CallName, sent: object) =>
      name === 'GET /people'
        ? Promise.reject(new Error('For stewards.'))
        : ask(name as 'GET /house', sent)) as Ask;
    await expect(filesOf(refusing)).rejects.toThrow('For stewards.');
  });
});
