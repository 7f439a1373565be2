import type { Entry } from '@zonal/core/entries';
import { FORMS, writePage } from '@zonal/core/forms';
import { occurrencesOfView, outwardView, rangeOfHorizon } from '@zonal/core/glass';
import { nextRevision, type Revision } from '@zonal/core/reach';
import type { PreviewAnswer, PreviewQuestion } from './previewTypes';

/** Entries by calendar, as fetched for one stamp of the data. */
const fetched = new Map<string, { stamp: string; entries: Promise<Entry[]> }>();

function entriesOf(calendarId: string, stamp: string): Promise<Entry[]> {
  const known = fetched.get(calendarId);
  if (known?.stamp === stamp) return known.entries;
  const entries = ask<Entry[]>(`/api/calendars/${calendarId}/entries`);
  fetched.set(calendarId, { stamp, entries });
  entries.catch(() => fetched.delete(calendarId));
  return entries;
}

async function ask<T>(path: string): Promise<T> {
  const response = await fetch(path);
  const body = (await response.json()) as T & { message?: string };
  if (!response.ok) throw new Error(body.message ?? 'The entries could not be fetched.');
  return body;
}

async function answer(question: PreviewQuestion): Promise<PreviewAnswer> {
  const { id, rules, reader, keyId, form, show, zone, stamp, now } = question;
  const lists = await Promise.all(rules.sources.map((s) => entriesOf(s.calendarId, stamp)));
  const live = keyId ? await ask<Revision | null>(`/api/keys/${keyId}/revision`) : null;
  const view = outwardView(lists.flat(), rules, rangeOfHorizon(rules.horizon, rules.hostZone, now), reader);
  const revision = nextRevision(live, view, now);
  const count = occurrencesOfView(view).length;
  const isLive = revision === live;
  if (form === 'feed' || form === 'freeBusy') {
    const text = FORMS[form].write(view, revision, { addresses: question.addresses, now });
    return { id, kind: 'text', text, count, isLive };
  }
  const text = writePage(view, revision, {
    form,
    query: { show, ...(zone ? { tz: zone } : {}) },
    now,
    // Links would leave the preview; the studio has its own switches.
    addresses: { ...question.addresses, self: '#', copy: '#' },
    assets: '/outside/',
  });
  return { id, kind: 'page', text, count, isLive };
}

self.onmessage = (event: MessageEvent<PreviewQuestion>) => {
  const { id } = event.data;
  answer(event.data).then(
    (told) => self.postMessage(told),
    (error: unknown) =>
      self.postMessage({ id, kind: 'error', text: (error as Error).message } satisfies PreviewAnswer),
  );
};
