import type { Entry } from '@zonal/core/entries';
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
import { afterChanges } from '../../workers/afterChanges';
import { entriesOfAll, revisionOf } from '../../workers/fetched';
import { rehearseIn } from '../../workers/rehearseIn';
import { requestsOf } from './parts';
import { planLine } from './planLine';
import { MOST_BYTES, MOST_ENTRIES, type FileAnswer, type FileQuestion, type TakeRequest } from './fileTypes';

/** What is being brought in. */
let table: CsvTable | null = null;
let target: { calendarId: string; zone: string } = { calendarId: '', zone: 'UTC' };
let plan: MergeItem[] = [];
let stopping = false;

const AT_ONCE = 1000;

const tell = (answer: FileAnswer) => self.postMessage(answer);
const progress = (what: string) => (share: number) => tell({ kind: 'progress', what, share });

async function ask<T>(method: string, path: string, body?: unknown, csrf = ''): Promise<T> {
  const response = await fetch(`/api${path}`, {
    method,
    headers: { 'content-type': 'application/json', 'x-csrf-token': csrf },
    ...(body === undefined ? {} : { body: JSON.stringify(body) }),
  });
  const text = await response.text();
  const answer = (text ? JSON.parse(text) : null) as T & { message?: string };
  if (!response.ok) throw new Error(answer.message ?? 'The server refused this. Try again.');
  return answer;
}

async function open({ file, calendarId, zone }: Extract<FileQuestion, { kind: 'open' }>): Promise<void> {
  table = null;
  target = { calendarId, zone };
  if (file.size > MOST_BYTES) throw new Problem('too-large', { limit: '20 MB' });
  progress('Reading the file')(0);
  const bytes = new Uint8Array(await file.arrayBuffer());
  if (!/\.(csv|tsv|txt)$/i.test(file.name) && file.type !== 'text/csv') {
    // Where a file's own zone could be several, the calendar's is likely, and the house's next.
    const house = await ask<{ zone: string }>('GET', '/house');
    return compare(readCalendar(bytes, [zone, house.zone], progress('Reading the file')));
  }
  table = csvTable(bytes);
  const mapping = guessMapping(table.headings);
  const dates = table.rows.slice(0, 500).map((row) => row[mapping.startDate ?? -1] ?? '');
  tell({
    kind: 'table',
    headings: table.headings,
    sample: table.rows.slice(0, 3),
    rows: table.rows.length,
    mapping,
    dateOrder: guessDateOrder(dates),
  });
}

async function compare(read: ReadResult): Promise<void> {
  if (read.entries.length > MOST_ENTRIES) throw new Problem('too-large', { limit: '20,000 entries' });
  progress('Fetching what the calendar has')(0);
  const existing = await ask<Entry[]>('GET', `/calendars/${target.calendarId}/entries`);
  plan = mergePlan(read, existing, target.zone, progress('Comparing'));
  const lines = plan.map(planLine);
  for (let i = 0; i < lines.length; i += AT_ONCE) tell({ kind: 'lines', lines: lines.slice(i, i + AT_ONCE) });
  tell({ kind: 'plan', notes: read.notes });
}

/** Works out what readers outside would see differently if the file were brought in. */
async function rehearseFile({
  windows,
  watch,
  take,
  now,
}: Extract<FileQuestion, { kind: 'rehearse' }>): Promise<void> {
  const stamp = String(now);
  const before = await entriesOfAll(
    windows.flatMap((w) => w.rules.sources.map((s) => s.calendarId)),
    stamp,
  );
  const after = afterChanges(before, requestsOf(chosenOf(take), target.calendarId).flat());
  const rehearsals = await rehearseIn({
    pairs: windows.map((w) => ({ before: w, after: w })),
    before: (id) => before.get(id) ?? [],
    after: (id) => after.get(id) ?? [],
    watch,
    now,
    revisionOf,
  });
  tell({ kind: 'rehearsed', rehearsals });
}

function chosenOf(take: readonly number[]): MergeItem[] {
  const wanted = new Set(take);
  return plan.filter((p, i) => p.draft && (p.kind !== 'conflict' || wanted.has(i)));
}

/** Sends the changes in parts and applies them as one edit: all of it or nothing. */
async function apply({ label, csrf, take }: Extract<FileQuestion, { kind: 'apply' }>): Promise<void> {
  stopping = false;
  const parts = requestsOf(chosenOf(take), target.calendarId);
  const { id } = await ask<{ id: string }>('POST', '/edits', { label, changes: [], staged: true }, csrf);
  try {
    for (const [i, changes] of parts.entries()) {
      progress('Sending')(i / parts.length);
      await ask('POST', `/edits/${id}/changes`, { changes }, csrf);
      if (stopping) {
        await ask('DELETE', `/edits/${id}`, undefined, csrf);
        return tell({ kind: 'stopped' });
      }
    }
    progress('Saving')(1);
    const { size } = await ask<{ size: number }>('POST', `/edits/${id}/apply`, undefined, csrf);
    tell({ kind: 'applied', id, label, size });
  } catch (error) {
    await ask('DELETE', `/edits/${id}`, undefined, csrf).catch(() => undefined);
    throw error;
  }
}

async function takeOut({ form, calendarId, entries, ...setting }: TakeRequest): Promise<void> {
  const all = calendarId ? await ask<Entry[]>('GET', `/calendars/${calendarId}/entries`) : (entries ?? []);
  const text =
    form === 'csv' ? writeCsv(all) : form === 'json' ? writeJCal(all, setting) : writeEntries(all, setting);
  tell({ kind: 'taken', text });
}

async function answer(question: FileQuestion): Promise<void> {
  switch (question.kind) {
    case 'open':
      return open(question);
    case 'map':
      checkMapping(question.mapping);
      return compare(
        readCsv(table!, { mapping: question.mapping, dateOrder: question.dateOrder, zone: target.zone }),
      );
    case 'apply':
      return apply(question);
    case 'stop':
      stopping = true;
      return;
    case 'take':
      return takeOut(question);
    case 'rehearse':
      return rehearseFile(question);
  }
}

self.onmessage = ({ data }: MessageEvent<FileQuestion>) => {
  answer(data).catch((error: unknown) => tell({ kind: 'problem', message: (error as Error).message }));
};
