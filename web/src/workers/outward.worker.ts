// Before anything that has texts.
import '../texts/de';
import { lintCalendar, writeForm, writePage } from '@zonal/core/forms';
import {
  differenceOf,
  outwardView,
  rangeOfHorizon,
  sightlines,
  takenBy,
  timesOf,
  whoSees,
  type OutwardView,
} from '@zonal/core/glass';
import { nextRevision, rekeyed } from '@zonal/core/reach';
import { afterChanges } from './afterChanges';
import { entriesOfAll, revisionOf } from './fetched';
import type {
  Answers,
  Outward,
  PastQuestion,
  PreviewQuestion,
  RehearsalQuestion,
  SightQuestion,
} from './questions';
import { insideLines } from './insideLines';
import { rehearseIn, viewLines } from './rehearseIn';
import { offer } from './offer';

async function preview(question: PreviewQuestion, stamp: string): Promise<Answers['preview']> {
  const { rules, reader, keyId, form, show, zone, now } = question;
  const byCalendar = await entriesOfAll(
    rules.sources.map((s) => s.calendarId),
    stamp,
  );
  const entries = [...byCalendar.values()].flat();
  const takes = takenBy(rules);
  const taken = entries.filter((e) =>
    [e, ...e.overrides.map((o) => o.content)].some((c) => takes(e.calendarId, c)),
  ).length;
  const live = keyId ? await revisionOf(keyId) : null;
  const view = outwardView(entries, rules, rangeOfHorizon(rules.horizon, rules.hostZone, now), reader);
  const revision = nextRevision(live && rekeyed(live, view), view, now);
  const titles = new Set<string>();
  for (const item of view.items) {
    if (titles.size === 4) break;
    if (item.kind !== 'busy') titles.add(item.content.title);
  }
  const told = { count: countOf(view), taken, all: entries.length, titles: [...titles] };
  if (form === 'feed' || form === 'freeBusy') {
    const text = writeForm(form, view, revision, { addresses: question.addresses, now });
    return { kind: 'text', text, findings: lintCalendar(text), ...told };
  }
  const text = writePage(view, revision, {
    form,
    query: { show, ...(zone ? { tz: zone } : {}) },
    now,
    // Links would leave the preview; the studio has its own switches.
    addresses: { ...question.addresses, self: '#', copy: '#' },
    assets: '/outside/',
  });
  return { kind: 'page', text, findings: [], ...told };
}

function countOf({ items }: OutwardView): number {
  return items.reduce((sum, item) => sum + timesOf(item), 0);
}

async function rehearsal(question: RehearsalQuestion, stamp: string): Promise<Answers['rehearsal']> {
  const { pairs, changes, watch, now } = question;
  const ids = pairs.flatMap(({ before, after }) =>
    [...(before?.rules.sources ?? []), ...(after?.rules.sources ?? [])].map((s) => s.calendarId),
  );
  const before = await entriesOfAll(ids, stamp);
  const after = afterChanges(before, changes);
  return rehearseIn({
    pairs,
    before: (id) => before.get(id) ?? [],
    after: (id) => after.get(id) ?? [],
    watch,
    now,
    revisionOf,
  });
}

async function matrix(question: SightQuestion, stamp: string): Promise<Answers['sightlines']> {
  const { calendarIds, windows, watch, now } = question;
  const entries = await entriesOfAll(calendarIds, stamp);
  return sightlines(calendarIds, windows, (id) => entries.get(id) ?? [], now, watch);
}

function past({ before, after, number, show, now }: PastQuestion): Answers['past'] {
  const difference = differenceOf(before, after);
  const revision = { ...nextRevision(null, after, now), number };
  const addresses = { see: '#', feed: '#', self: '#', copy: '#' };
  const page = writePage(after, revision, {
    form: 'page',
    query: { show },
    now,
    addresses,
    assets: '/outside/',
  });
  const view = { audience: 'street' as const, cap: null, keys: [], before, after, exposed: [] };
  return { page, lines: viewLines(view, difference, () => []) };
}

offer({
  preview,
  rehearsal,
  sightlines: matrix,
  who: ({ entry, windows, now }) => whoSees(entry, windows, now),
  past,
  inside: async (question, stamp) =>
    insideLines(
      (await entriesOfAll([question.calendar.id], stamp)).get(question.calendar.id) ?? [],
      question,
    ),
} satisfies Outward);
