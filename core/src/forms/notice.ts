import type { OutwardView } from '../glass';
import { dayAt, dayToText, type Instant } from '../zones';
import { compactText, escapeText, utcText } from './icsText';
import { dayText } from './page/words';

/** That an address was turned: from `at` to `until` it leads to the same view still, and says where that is from now on. */
export interface Notice {
  readonly see: string;
  readonly feed: string;
  readonly at: Instant;
  readonly until: Instant;
}

/** What a notice says: its title, and a sentence with each address apart, so that pages can make links of them. */
export interface NoticeWords {
  readonly title: string;
  readonly say: string;
}

/** Returns a notice in words, by the clocks of the host. */
export function noticeWords({ until }: Notice, { hostZone, wording }: OutwardView): NoticeWords {
  const day = dayText(dayAt(hostZone, until));
  return {
    title: `New address for “${wording.name}”`,
    say: `This address ends on ${day}. Follow the new one instead; what is shown there is the same.`,
  };
}

/** Returns the one entry with which a feed tells of a notice: whole days from the turn to the end (RFC 5545 section 3.6.1). */
export function noticeLines(notice: Notice, view: OutwardView): string[] {
  const { at, until, see, feed } = notice;
  const { title, say } = noticeWords(notice, view);
  const day = (instant: Instant) => compactText(dayToText(dayAt(view.hostZone, instant)));
  const next = compactText(dayToText(dayAt(view.hostZone, until) + 1));
  return [
    'BEGIN:VEVENT',
    `UID:${view.ids.calendar}-moved`,
    `DTSTAMP:${utcText(at)}`,
    `LAST-MODIFIED:${utcText(at)}`,
    'SEQUENCE:0',
    `DTSTART;VALUE=DATE:${day(at)}`,
    `DTEND;VALUE=DATE:${next}`,
    `SUMMARY:${escapeText(title)}`,
    `DESCRIPTION:${escapeText(`${say}\n\n${feed}\n${see}`)}`,
    `URL:${see}`,
    'STATUS:CONFIRMED',
    'TRANSP:TRANSPARENT',
    'END:VEVENT',
  ];
}
