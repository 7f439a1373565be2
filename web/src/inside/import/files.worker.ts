// Before anything that has texts.
import '../../texts/de';
import {
  checkMapping,
  csvTable,
  guessDateOrder,
  guessMapping,
  mergePlan,
  readCalendar,
  readCsv,
  writeCsv,
  writeEntries,
  writeJCal,
  type CsvTable,
  type MergeItem,
  type ReadResult,
} from '@zonal/core/forms';
import { Problem } from '@zonal/core/problems';
import { call } from '../../api/client';
import { afterChanges } from '../../workers/afterChanges';
import { entriesOf, entriesOfAll, revisionOf } from '../../workers/fetched';
import { rehearseIn } from '../../workers/rehearseIn';
import { requestsOf } from './parts';
import { planLine } from './planLine';
import { MOST_BYTES, MOST_ENTRIES, type Files, type Progress, type ReadPlan } from './fileTypes';
import { t } from '../../texts/inside';
import { LANGUAGE } from '../../texts/language';
import { offer } from '../../workers/offer';

/** What is being brought in. */
let table: CsvTable | null = null;
let target: { calendarId: string | null; zone: string } = { calendarId: null, zone: 'UTC' };
let plan: MergeItem[] = [];
let stopping = false;
/** Entries are fetched anew for each file. */
let stamp = 0;

let tell: Progress = () => undefined;
const progress = (what: string) => (share: number) => tell(what, share);

async function compare(read: ReadResult): Promise<ReadPlan> {
  if (read.entries.length > MOST_ENTRIES) throw new Problem('too-large', { limit: t('limitEntries') });
  progress(t('fetchingExisting'))(0);
  const existing = target.calendarId === null ? [] : await entriesOf(target.calendarId, String(stamp));
  plan = mergePlan(read, existing, target.zone, progress(t('comparing')), LANGUAGE);
  return { name: read.names[0]?.trim() ?? '', count: plan.length, notes: read.notes };
}

function chosenOf(take: readonly number[]): MergeItem[] {
  const wanted = new Set(take);
  return plan.filter((p, i) => p.draft && (p.kind !== 'conflict' || wanted.has(i)));
}

/** Sends changes in parts and applies them as one edit: all of it or nothing. Returns null if it was stopped. */
async function send(
  label: string,
  csrf: string,
  parts: ReturnType<typeof requestsOf>,
): Promise<{ readonly id: string; readonly size: number } | null> {
  stopping = false;
  const { id } = await call('POST /edits', { body: { label, changes: [], staged: true } }, csrf);
  const path = { id };
  const drop = () => call('DELETE /edits/:id', { path }, csrf);
  try {
    for (const [i, changes] of parts.entries()) {
      progress(t('sending'))(i / parts.length);
      await call('POST /edits/:id/changes', { path, body: { changes } }, csrf);
      if (stopping) {
        await drop();
        return null;
      }
    }
    progress(t('saving'))(1);
    const { size } = await call('POST /edits/:id/apply', { path }, csrf);
    return { id, size };
  } catch (error) {
    await drop().catch(() => undefined);
    throw error;
  }
}

const files: Files & { hear(told: Progress): void } = {
  hear(told) {
    tell = told;
  },

  async open(file, calendarId, zone) {
    stamp++;
    table = null;
    target = { calendarId, zone };
    if (file.size > MOST_BYTES) throw new Problem('too-large', { limit: '20 MB' });
    progress(t('readingFile'))(0);
    const bytes = new Uint8Array(await file.arrayBuffer());
    if (!/\.(csv|tsv|txt)$/i.test(file.name) && file.type !== 'text/csv') {
      // Where a file's own zone could be several, the calendar's is likely, and the house's next.
      const house = await call('GET /house', {});
      return compare(
        readCalendar(bytes, [zone, house.zone], {
          now: Date.now(),
          tell: progress(t('readingFile')),
          language: LANGUAGE,
        }),
      );
    }
    table = csvTable(bytes, LANGUAGE);
    const mapping = guessMapping(table.headings);
    const dates = table.rows.slice(0, 500).map((row) => row[mapping.startDate ?? -1] ?? '');
    return {
      headings: table.headings,
      sample: table.rows.slice(0, 3),
      rows: table.rows.length,
      mapping,
      dateOrder: guessDateOrder(dates),
    };
  },

  map(mapping, dateOrder) {
    checkMapping(mapping, LANGUAGE);
    return compare(readCsv(table!, { mapping, dateOrder, zone: target.zone, language: LANGUAGE }));
  },

  lines(from, to) {
    return plan.slice(from, to).map((item, i) => planLine(item, from + i));
  },

  async rehearse(windows, watch, take, now) {
    const before = await entriesOfAll(
      windows.flatMap((w) => w.rules.sources.map((s) => s.calendarId)),
      String(stamp),
    );
    const after = afterChanges(before, requestsOf(chosenOf(take), target.calendarId!).flat());
    return rehearseIn({
      pairs: windows.map((w) => ({ before: w, after: w })),
      before: (id) => before.get(id) ?? [],
      after: (id) => after.get(id) ?? [],
      watch,
      now,
      revisionOf,
    });
  },

  async apply(label, csrf, take, newCalendar) {
    if (!newCalendar) return send(label, csrf, requestsOf(chosenOf(take), target.calendarId!));
    const { id } = await call('POST /calendars', { body: newCalendar }, csrf);
    const remove = () => call('DELETE /calendars/:id', { path: { id }, query: {} }, csrf);
    try {
      const applied = await send(label, csrf, requestsOf(chosenOf(take), id));
      if (!applied) await remove();
      return applied;
    } catch (error) {
      await remove().catch(() => undefined);
      throw error;
    }
  },

  stop() {
    stopping = true;
  },

  async take({ form, calendarId, entries, ...setting }) {
    const all = calendarId
      ? await call('GET /calendars/:id/entries', { path: { id: calendarId }, query: {} })
      : (entries ?? []);
    if (form === 'csv') return writeCsv(all);
    return form === 'json' ? writeJCal(all, setting) : writeEntries(all, setting);
  },
};

offer(files);
