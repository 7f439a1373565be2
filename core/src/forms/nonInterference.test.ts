import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { AUDIENCES, GLASSES, outwardView, type OutwardView, type Reader, type WindowRules } from '../glass';
import type { Entry } from '../entries';
import {
  ledgerStep,
  nextRevision,
  toldChanges,
  touchedSince,
  viewAfter,
  type LedgerStep,
  type Revision,
} from '../reach';
import { digestLetter, letterHtml, letterText } from '../post';
import { RANGE, entryArbitrary, rulesArbitrary } from '../testing/arbitraries';
import { changeHidden, hiddenMaster, noise } from '../testing/hiddenChanges';
import { PAIRS } from '../testing/effort';
import { STREET, date, entry, rulesOf, zoned } from '../testing/samples';
import { FORMS, FORM_NAMES, fileNameOf } from './formTable';
import { davAnswer, type DavAsked } from './dav/collection';
import { differenceParts, knowsSince } from './difference';
import { entryFile } from './entryFile';
import { pushEvent } from './pushEvent';
import type { PageOptions, PageQuery } from './page/choice';
import { writePage } from './page/page';

const NOW = Date.UTC(2026, 5, 10, 15);
const ADDRESSES = {
  self: '/see/k',
  see: 'https://w.example/see/k',
  feed: 'https://w.example/feed/k.ics',
  copy: '/copy/k.ics',
  notices: '/notices',
};

/** Titles of generated entries, one letter of them, and a word that none has. */
const FINDS = ['e', 'nowhere'];

type Asked = Pick<PageOptions, 'form' | 'query' | 'page' | 'accepted'>;

/** Pages that a reader can ask for, of a view with some entries. */
function pagesOf({ items }: OutwardView): Asked[] {
  const from = '2026-03-02';
  const page = (query: PageQuery, form: 'page' | 'embed' = 'page'): Asked => ({
    form,
    query: { from, ...query },
  });
  // Entries that are there, and one that is not.
  const uids = [...items.slice(0, 2).map((i) => i.uid), '00000000-0000-8000-8000-000000000000'];
  return [
    page({ show: 'month', lang: 'fr' }),
    page({ show: 'list', tz: 'Asia/Kolkata', lang: 'ar' }),
    page({ show: 'week', lang: 'de', clock: '12', week: 'sunday' }, 'embed'),
    { ...page({ show: 'week' }), accepted: ['pt-BR', 'es'] },
    ...FINDS.map((find) => page({ find })),
    ...(['follow', 'settings', 'notices'] as const).map((kind) => ({ ...page({}), page: { kind } })),
    ...uids.map((uid) => ({ ...page({}), page: { kind: 'entry' as const, uid, on: '' } })),
  ];
}

const DAV = 'xmlns="DAV:" xmlns:C="urn:ietf:params:xml:ns:caldav"';
const YEAR = 'start="20260101T000000Z" end="20270101T000000Z"';
const LOOK = `<propfind ${DAV}><prop><sync-token/></prop></propfind>`;

/** What a program can ask of the collection that has a token, or none. */
function davAsked(token: string): DavAsked[] {
  const report = (body: string): DavAsked => ({ ...LOOKS, method: 'REPORT', body });
  const sync = (of: string) =>
    `<sync-collection ${DAV}><sync-token>${of}</sync-token><prop><getetag/><C:calendar-data/></prop></sync-collection>`;
  const filter = `<C:filter><C:comp-filter name="VCALENDAR"><C:comp-filter name="VEVENT"><C:time-range ${YEAR}/></C:comp-filter></C:comp-filter></C:filter>`;
  return [
    { ...LOOKS, deep: true, body: '' },
    report(sync('')),
    report(sync(token)),
    report(
      `<C:calendar-query ${DAV}><prop><C:calendar-data><C:expand ${YEAR}/></C:calendar-data></prop>${filter}<C:timezone-id>Asia/Kolkata</C:timezone-id></C:calendar-query>`,
    ),
    report(`<C:free-busy-query ${DAV}><C:time-range ${YEAR}/></C:free-busy-query>`),
  ];
}

const LOOKS: DavAsked = { method: 'PROPFIND', name: '', deep: false, body: LOOK, minimal: false };

/** In so many turns all pages are asked for once. */
const TURNS = 5;

/** What was shown before: its revision, and the ledger up to it. */
interface Past {
  readonly revision: Revision;
  readonly steps: readonly LedgerStep[];
  /** By which a program tells what it holds of the collection. */
  readonly token: string;
}

/** Everything that a reader can fetch, by name: bytes (from which ETags follow), file names, revision. */
function everythingOutward(
  entries: readonly Entry[],
  rules: WindowRules,
  reader: Reader,
  before: Past | null,
  at = before ? NOW : NOW - 86_400_000,
  /** Pages take most of the time: a part of them is written in each turn; all with null. */
  turn: number | null = null,
): Past & { told: Record<string, string> } {
  const view = outwardView(entries, rules, RANGE, reader);
  const revision = nextRevision(before?.revision ?? null, view, at);
  const known = before && { revision: before.revision, wording: view.wording, hostZone: view.hostZone };
  const steps = [...(before?.steps ?? [])];
  if (revision !== before?.revision) steps.push(ledgerStep(known, revision, view));
  const told: Record<string, string> = {
    revision: JSON.stringify(revision),
    view: JSON.stringify(view),
    ledger: JSON.stringify(steps),
  };
  // What the ledger says of the past is what readers got.
  expect(viewAfter(steps).items).toEqual(view.items);
  for (const name of FORM_NAMES) {
    // Also where it is cut, on which its compressed bytes depend.
    told[name] = JSON.stringify(FORMS[name].parts(view, revision, { addresses: ADDRESSES, now: NOW }));
    told[`${name} file`] = fileNameOf(name, view, NOW);
  }
  if (before) {
    const since = Math.max(1, revision.number - 1);
    const options = { source: ADDRESSES.feed, page: ADDRESSES.see };
    told['difference'] = JSON.stringify([
      knowsSince(revision, since),
      differenceParts(view, revision, since, options),
    ]);
    told['pushed'] = JSON.stringify(pushEvent(view, revision, since));
    told['digest'] = JSON.stringify(digestOf(view, revision, steps.slice(0, since)));
  }
  const inTurn = (_: unknown, i: number) => turn === null || i % TURNS === turn % TURNS;
  const dav = { addresses: { ...ADDRESSES, dav: 'https://w.example/dav/k/' }, of: 'view' };
  for (const asked of davAsked(before?.token ?? '').filter(inTurn)) {
    const answer = davAnswer(view, revision, dav, asked);
    expect(answer.status).toBeLessThan(300);
    told[asked.body] = JSON.stringify(answer);
  }
  const token = /<D:sync-token>(.*)<\/D:sync-token>/.exec(davAnswer(view, revision, dav, LOOKS).text)![1]!;
  for (const asked of pagesOf(view).filter(inTurn)) {
    // Listed ones tell more.
    const options = { ...asked, now: NOW, addresses: ADDRESSES, assets: '/outside/', listed: true };
    told[JSON.stringify(asked)] = writePage(view, revision, options);
    if (asked.page?.kind !== 'entry') continue;
    const { uid, on } = asked.page;
    told[`file ${uid}`] = JSON.stringify(entryFile(view, revision, { uid, on }, ADDRESSES.see, NOW));
  }
  return { told, revision, steps, token };
}

/** The letter to a reader who was told of what some steps of the ledger led to. */
function digestOf(view: OutwardView, revision: Revision, steps: readonly LedgerStep[]) {
  const since = steps.length;
  const touched = touchedSince(revision, since);
  const uids = new Set([...touched.set, ...touched.gone]);
  const was = viewAfter(steps);
  const known = { items: was.items.filter((i) => uids.has(i.uid)), until: was.range.to };
  const changes = toldChanges(view, revision, since, known, RANGE.from);
  const reading = { lang: 'de', tz: 'Asia/Kolkata' };
  const letter = digestLetter(view, changes, {
    ...{ reading, since: NOW - 86_400_000, see: ADDRESSES.see, stop: 'https://w.example/notices/stop/x' },
  });
  return letter && [letter.subject, letterText(letter), letterHtml(letter)];
}

const reader: fc.Arbitrary<Reader> = fc.record({
  audience: fc.constantFrom(...AUDIENCES),
  cap: fc.constantFrom(null, null, null, null, null, null, ...GLASSES),
});

describe('non-interference', () => {
  it(
    'what a reader may not see changes no byte of what the reader gets, in thousands of pairs of insides',
    { timeout: 1_200_000 },
    () => {
      let differing = 0;
      let told = 0;
      let turn = 0;
      fc.assert(
        fc.property(
          fc.array(entryArbitrary, { minLength: 1, maxLength: 4 }),
          rulesArbitrary,
          reader,
          noise,
          noise,
          (entries, rules, who, first, second) => {
            // Two histories of two states each: the revision before must not tell anything either.
            const past = changeHidden(entries.slice(1), rules, who, first);
            const present = changeHidden(entries, rules, who, second);
            const [earlier, now] = [NOW - 86_400_000, NOW];
            turn++;
            const before = everythingOutward(entries.slice(1), rules, who, null, earlier, turn);
            const beforeOther = everythingOutward(past, rules, who, null, earlier, turn);
            expect(beforeOther.told).toEqual(before.told);
            const after = everythingOutward(entries, rules, who, before, now, turn);
            const afterOther = everythingOutward(present, rules, who, beforeOther, now, turn);
            expect(afterOther.told).toEqual(after.told);
            if (/"(single|series)"/.test(after.told['view']!)) told++;
            if (JSON.stringify(present) !== JSON.stringify(entries)) differing++;
          },
        ),
        { numRuns: PAIRS, seed: PAIRS <= 2000 ? 99 : Date.now() },
      );
      // Most pairs must really differ inside, or the property would hold for nothing.
      expect(differing).toBeGreaterThan(PAIRS * 0.9);
      // Many must show entries and not only busy time or nothing.
      expect(told).toBeGreaterThan(PAIRS * 0.3);
    },
  );

  it('a master that no visible date bears has no say, whatever it says and however long it is', () => {
    let shown = 0;
    fc.assert(
      fc.property(hiddenMaster, rulesArbitrary, reader, ([one, other], rules, who) => {
        const told = everythingOutward([one], rules, who, null).told;
        expect(everythingOutward([other], rules, who, null).told).toEqual(told);
        if (/"(single|series)"/.test(told['view']!)) shown++;
      }),
      { numRuns: PAIRS / 4, seed: 7 },
    );
    expect(shown).toBeGreaterThan(PAIRS / 16);
  });

  it('a history has a revision for each change that can be seen, however many hidden ones stand between', () => {
    fc.assert(
      fc.property(
        fc.array(entryArbitrary, { minLength: 3, maxLength: 4 }),
        rulesArbitrary,
        reader,
        fc.array(noise, { minLength: 6, maxLength: 6 }),
        (entries, rules, who, noises) => {
          let [plain, busy]: [Past | null, Past | null] = [null, null];
          for (let n = 1; n <= entries.length; n++) {
            const state = entries.slice(0, n);
            plain = everythingOutward(state, rules, who, plain, NOW + n * 60_000, n);
            busy = everythingOutward(state, rules, who, busy, NOW + n * 60_000, n);
            for (const [i, hidden] of noises.slice(n, n + 2).entries())
              busy = everythingOutward(
                changeHidden(state, rules, who, hidden),
                rules,
                who,
                busy,
                NOW + n * 60_000 + i * 9000,
                n,
              );
          }
          expect(busy).toEqual(plain);
        },
      ),
      { numRuns: PAIRS / 10, seed: 5 },
    );
  });

  it('would notice a leak: the same check fails when a visible field differs', () => {
    const a = entry({ start: zoned('2026-06-12T10:00') });
    const one = everythingOutward([a], rulesOf('tinted'), STREET, null).told;
    for (const change of [{ title: 'Other' }, { place: 'Quay' }, { status: 'tentative' as const }]) {
      expect(everythingOutward([{ ...a, ...change }], rulesOf('tinted'), STREET, null).told).not.toEqual(one);
    }
  });

  it('two entries that touch look like one behind frosted glass', () => {
    const whole = [entry({ start: zoned('2026-06-12T10:00'), end: zoned('2026-06-12T12:00') })];
    const halves = [
      entry({ id: 'x', start: zoned('2026-06-12T11:00'), end: zoned('2026-06-12T12:00') }),
      entry({ id: 'y', start: zoned('2026-06-12T10:00'), end: zoned('2026-06-12T11:00') }),
      entry({
        id: 'z',
        start: zoned('2026-06-12T14:30', 'Europe/London'),
        end: zoned('2026-06-12T15:00', 'Europe/London'),
      }),
    ];
    expect(everythingOutward(halves, rulesOf('frosted'), STREET, null)).toEqual(
      everythingOutward(whole, rulesOf('frosted'), STREET, null),
    );
  });

  it('a whole day behind frosted glass looks the same as its 24 hours', () => {
    const day = [entry({ start: date('2026-06-12') })];
    const hours = [entry({ id: 'h', start: zoned('2026-06-12T00:00'), end: zoned('2026-06-13T00:00') })];
    expect(everythingOutward(day, rulesOf('frosted'), STREET, null)).toEqual(
      everythingOutward(hours, rulesOf('frosted'), STREET, null),
    );
  });

  it('a rule tells nothing of dates that are held back or lie outside the range', () => {
    const series = (rule: string, hold: 'none' | 'keep-in') =>
      entry({
        start: zoned('2026-06-01T10:00'),
        recurrence: { rule, dates: [], exceptDates: [] },
        overrides: [
          {
            slot: zoned('2026-06-15T10:00'),
            start: zoned('2026-06-15T10:00'),
            end: zoned('2026-06-15T11:00'),
            content: { ...entry({ start: date('2026-01-01') }), title: 'Secret', hold },
          },
        ],
      });
    const bounded = everythingOutward(
      [series('FREQ=WEEKLY;COUNT=60', 'keep-in')],
      rulesOf('clear'),
      STREET,
      null,
    );
    const endless = everythingOutward(
      [series('FREQ=WEEKLY;BYDAY=MO', 'keep-in')],
      rulesOf('clear'),
      STREET,
      null,
    );
    expect(endless).toEqual(bounded);
    expect(endless.told['feed']).not.toContain('Secret');
    expect(endless.told['feed']).toContain('EXDATE;TZID=America/Halifax:20260615T100000');
    expect(
      everythingOutward([series('FREQ=WEEKLY', 'none')], rulesOf('clear'), STREET, null).told['feed'],
    ).toContain('Secret');
  });

  it('a title that no visible date bears does not go out', () => {
    const hidden = entry({
      title: 'Old name',
      start: zoned('2026-06-01T10:00'),
      recurrence: { rule: 'FREQ=DAILY;COUNT=2', dates: [], exceptDates: [] },
      overrides: ['2026-06-01', '2026-06-02'].map((d) => ({
        slot: zoned(`${d}T10:00`),
        start: zoned(`${d}T10:00`),
        end: zoned(`${d}T11:00`),
        content: { ...entry({ start: date(d) }), title: 'New name' },
      })),
    });
    const { told } = everythingOutward([hidden], rulesOf('clear'), STREET, null);
    expect(JSON.stringify(told)).not.toContain('Old name');
    expect(told['feed']).toContain('New name');
  });
});
