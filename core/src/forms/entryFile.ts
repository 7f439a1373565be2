import { compactText, joinLines } from './icsText';
import { PRODUCT, calendarPieces, withPages } from './icsCalendar';
import { copyWords } from './copyWords';
import { onText } from './onText';
import { timesOfEntry } from './page/entryPage';
import { plainName } from './plainName';
import type { OutwardItem, OutwardView } from '../glass';
import type { Revision } from '../reach';
import type { Instant } from '../zones';

export interface EntryFile {
  readonly text: string;
  /** What the file is called: by the entry's title in plain letters. */
  readonly name: string;
}

/**
 * Returns an iCalendar document (RFC 5545) with one entry of a view as of `now`: all its dates, or the one that `on` names;
 * null where the view has none such. It has no name of its own, so that programs add it to a calendar that is there.
 */
export function entryFile(
  view: OutwardView,
  revision: Revision,
  { uid, on }: { readonly uid: string; readonly on: string },
  see: string,
  now: Instant,
): EntryFile | null {
  const times = timesOfEntry(view, uid, on, now);
  const stamp = revision.stamps[uid];
  if (!times || !stamp) return null;
  const { one } = times;
  // One date of a series is an entry of its own at the other end, and not the whole of it.
  const own = on && times.all.length > 1 ? `${uid}-${compactText(onText(one.start))}` : uid;
  const { start, end, from, to, content, tentative } = one;
  const time = { uid: own, start, end, from, to };
  const items = (
    own === uid
      ? view.items.filter((item) => item.uid === uid).map((item) => ({ ...item }))
      : [content ? { kind: 'single', ...time, content } : { kind: 'busy', ...time, tentative }]
  ) as OutwardItem[];
  const { zones, blocks } = calendarPieces(
    { ...view, items },
    { ...revision, stamps: { [own]: stamp } },
    { source: '', page: see, copy: copyWords(view, now, see) },
  );
  const head = ['BEGIN:VCALENDAR', 'VERSION:2.0', `PRODID:${PRODUCT}`, 'CALSCALE:GREGORIAN'];
  const text = [
    joinLines(head),
    zones,
    ...blocks.map((b) => withPages(b.text, see)),
    'END:VCALENDAR\r\n',
  ].join('');
  return { text, name: `${plainName(content?.title || view.wording.busyWord, 'entry')}.ics` };
}
