import type {
  AnswerOf,
  Calendar,
  CallName,
  Invitation,
  JournalLine,
  OutwardWindow,
  Sheet,
  WindowKey,
} from '@zonal/core/api';
import { imageNamesOf } from '@zonal/core/entries';
import { journalTable, ledgerTable, plainName, writeEntries, type LedgerOfView } from '@zonal/core/forms';
import { saidByRules } from '@zonal/core/glass';
import type { Instant } from '@zonal/core/zones';
import type { Sent } from '../../api/client';
import { t } from '../../texts/house';

/** A file of the archive, with how far the work has come: what comes next, and the share (0 to 1) that is done. */
export interface ArchiveFile {
  readonly name: string;
  readonly content: string | Uint8Array;
  readonly next: string;
  readonly share: number;
}

/** Makes a call of the API. Throws an error with a sentence if it is refused. */
export type Ask = <N extends CallName>(name: N, sent: Sent<N>) => Promise<AnswerOf<N>>;

/** Returns the bytes at a path of the API. Throws an error with a sentence if they are refused. */
export type AskBytes = (path: string) => Promise<Uint8Array>;

const json = (value: unknown) => `${JSON.stringify(value, null, 2)}\n`;

/**
 * Returns a window as the archive has it: its rules and whom its keys are for. No address, no token and no secret is in it, so
 * nobody can read a window by means of the archive.
 */
export function archivedWindow(window: OutwardWindow) {
  const { id, slug, closedAt, closesAt, version, keys, draft } = window;
  return {
    ...{ id, publicName: slug, closedAt, closesAt, version },
    rules: saidByRules(window, window),
    draft: draft && { rules: draft.body, by: draft.by, at: draft.at, publishAt: draft.publishAt },
    keys: keys.map(archivedKey),
  };
}

function archivedKey(key: WindowKey) {
  const { madeOutTo, audience, cap, userId, contact, notes, meantFor, matters } = key;
  const { madeAt, expiresAt, withdrawnAt, fetchedAt, hosts, look } = key;
  return {
    ...{ issuedTo: madeOutTo, audience, cap, userId, contact, notes },
    ...{ expectedReaders: meantFor, isImportant: matters },
    ...{ issuedAt: madeAt, expiresAt, withdrawnAt, lastUsedAt: fetchedAt, hosts, embed: look },
  };
}

function archivedCalendar(calendar: Calendar) {
  const { id, name, description, zone, plate, colour, shape, pattern } = calendar;
  const { place, latitude, longitude, archivedAt, lockedAt, entryCount } = calendar;
  return {
    ...{ id, name, description, zone, plate, colour, shape, pattern },
    ...{ place, latitude, longitude, archivedAt, lockedAt, entryCount },
  };
}

function archivedInvitation({ email, steward, standings, state, by, sentAt, endsAt }: Invitation) {
  return { email, steward, standings, state, by, sentAt, endsAt };
}

function archivedSheet({ name, note, items, withdrawnAt, by, at }: Sheet) {
  const pairs = items.map(({ windowId, keyId }) => ({ windowId, keyId }));
  return { name, note, items: pairs, withdrawnAt, by, at };
}

const README = (
  house: string,
  now: Instant,
) => `Archive of ${house || 'a house'}, made by Zonal Window at ${new Date(now).toISOString()}

calendars/      each calendar with all its entries, as iCalendar (RFC 5545); each can be imported again
images/         the images of entries, under the names that the entries have in X-ZONAL-IMAGE
calendars.json  the calendars: name, zone, plate, place
windows.json    the windows with their rules, and their keys without addresses and secrets
sheets.json     the link sheets without their addresses
people.json     accounts, their rights to calendars, and invitations
house.json      settings, ceilings with the requests for them, labels
ledger.csv      what the outside could see: each revision of each view, with who changed it
journal.csv     who changed rights, accounts, ceilings, windows, keys and settings

The files hold everything that is known inside, also what is held back from outside. Keep them as you would keep the calendars.
`;

/**
 * Fetches everything of a house as the person who asks may see it, a file at a time; the reader can stop in between. `ask` throws
 * why a call was refused, and so does this.
 */
export async function* archiveFiles(ask: Ask, askBytes: AskBytes, now: Instant): AsyncGenerator<ArchiveFile> {
  const calendars = await ask('GET /calendars', {});
  const windows = await ask('GET /windows', { query: {} });
  const house = await ask('GET /house', {});
  const views = windows.flatMap(viewsOf);
  const total = calendars.length + views.length + 7;
  let done = 0;
  const file = (name: string, content: string | Uint8Array, next: string): ArchiveFile => {
    done++;
    return { name, content, next, share: Math.min(1, done / total) };
  };

  yield file('README.txt', README(house.name, now), t('calendars'));
  yield file('calendars.json', json(calendars.map(archivedCalendar)), t('calendars'));
  const names = new Set<string>();
  for (const { id, name, zone } of calendars) {
    const entries = await ask('GET /calendars/:id/entries', { path: { id }, query: {} });
    yield file(
      `calendars/${freeName(plainName(name, 'calendar'), names)}.ics`,
      writeEntries(entries, { name, zone, now }),
      t('calendarNamed', { name }),
    );
    for (const image of entries.flatMap(imageNamesOf)) {
      if (names.has(image)) continue;
      names.add(image);
      const bytes = await askBytes(`/calendars/${id}/images/${image}`);
      yield file(`images/${image}.webp`, bytes, t('calendarNamed', { name }));
    }
  }
  yield file('windows.json', json(windows.map(archivedWindow)), t('linkSheets'));
  yield file('sheets.json', json((await ask('GET /sheets', {})).map(archivedSheet)), t('people'));
  const people = {
    accounts: await ask('GET /people', {}),
    rights: (await ask('GET /standings', {})).calendars,
    invitations: (await ask('GET /invitations', {})).map(archivedInvitation),
  };
  yield file('people.json', json(people), t('settings'));
  const ceilings = await ask('GET /ceilings', {});
  const labels = (await ask('GET /labels', {})).map(({ name, count }) => ({ name, count }));
  yield file('house.json', json({ settings: house, ...ceilings, labels }), t('ledger'));
  const ledgers: LedgerOfView[] = [];
  for (const { window, audience, keyId } of views) {
    ledgers.push({
      window,
      audience,
      lines: await ask('GET /keys/:id/ledger', { path: { id: keyId } }),
    });
    done++;
  }
  yield file('ledger.csv', ledgerTable(ledgers), t('journal'));
  yield file('journal.csv', journalTable(await wholeJournal(ask)), t('packing'));
}

/** Returns the views of a window, each with a key by which its ledger is fetched. */
function viewsOf({ wording, keys }: OutwardWindow) {
  const views = new Map<string, { window: string; audience: string; keyId: string }>();
  for (const { id, audience, cap } of keys) {
    const reader = cap ? `${audience}, at most ${cap}` : audience;
    if (!views.has(reader)) views.set(reader, { window: wording.name, audience: reader, keyId: id });
  }
  return [...views.values()];
}

async function wholeJournal(ask: Ask): Promise<JournalLine[]> {
  const lines: JournalLine[] = [];
  for (;;) {
    const before = lines.at(-1)?.id;
    const page = await ask('GET /journal', {
      query: before === undefined ? {} : { before: String(before) },
    });
    lines.push(...page.lines);
    if (!page.more || !page.lines.length) return lines;
  }
}

/** Returns a name that no earlier file has. */
function freeName(name: string, taken: Set<string>): string {
  let free = name;
  for (let n = 2; taken.has(free); n++) free = `${name}-${n}`;
  taken.add(free);
  return free;
}
