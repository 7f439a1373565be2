import type { OutwardView } from '../glass';
import { dayAt, dayToText, type Instant } from '../zones';
import { compactText, escapeText, utcText } from './icsText';
import { speechFor, type Speech } from './speech/speech';

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

/** Returns a notice in words, by the clocks of the host; in the language of the window where no other is asked for. */
export function noticeWords(
  { until }: Notice,
  { hostZone, wording }: OutwardView,
  speech: Speech = speechFor(wording.language),
): NoticeWords {
  return {
    title: speech.say('noticeTitle', { name: wording.name }),
    say: speech.say('noticeSay', { day: speech.day(dayAt(hostZone, until)) }),
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
