import type { OutwardView } from '../glass';
import { dayAt, dayToText, type Instant } from '../zones';
import { compactText, escapeText, utcText } from './icsText';
import { speechFor, type Speech } from './speech/speech';

/** What readers learn from `at` on: that their address, or the complete window, ends at `until`. */
export type Notice = { readonly at: Instant; readonly until: Instant } & (
  | {
      /** The address to use instead: this one was replaced. */
      readonly to: { readonly see: string; readonly feed: string };
    }
  | {
      readonly to: null;
      /** What ends: this address alone, or the window. */
      readonly ends: 'window' | 'address';
    }
);

/** What a notice is about, as its identifiers name it. */
export type NoticeKind = 'moved' | 'ends' | 'unlisted';

/** Returns what a notice is about: a replaced address, a window that ends, or an address that ends alone. */
export function noticeKind(notice: Notice): NoticeKind {
  if (notice.to) return 'moved';
  return notice.ends === 'window' ? 'ends' : 'unlisted';
}

/** What a notice says: its title, and a sentence with each address apart, so that pages can make links of them. */
export interface NoticeWords {
  readonly title: string;
  readonly say: string;
}

/** Returns a notice in words, by the clocks of the host; in the language of the window where no other is asked for. */
export function noticeWords(
  notice: Notice,
  { hostZone, wording }: OutwardView,
  speech: Speech = speechFor(wording.language),
): NoticeWords {
  const { until, to } = notice;
  const { name, contact } = wording;
  // The last day on which it is there.
  const day = speech.day(dayAt(hostZone, until - 1));
  if (to) return { title: speech.say('noticeTitle', { name }), say: speech.say('noticeSay', { day }) };
  const ask = contact ? [speech.say('questions', { contact })] : [];
  const [title, say] =
    noticeKind(notice) === 'ends'
      ? (['farewellTitle', 'farewellSay'] as const)
      : (['addressEndsTitle', 'addressEndsSay'] as const);
  return { title: speech.say(title, { name, day }), say: [speech.say(say, { day }), ...ask].join(' ') };
}

/** Returns a notice as one sentence or two, with the new feed where there is one. */
export function sayOf(notice: Notice, view: OutwardView): string {
  const { say } = noticeWords(notice, view);
  return notice.to ? `${say} ${notice.to.feed}` : say;
}

/** Returns the one entry with which a feed tells of a notice: whole days from the turn to the end (RFC 5545 section 3.6.1). */
export function noticeLines(notice: Notice, view: OutwardView): string[] {
  const { at, until, to } = notice;
  const { title, say } = noticeWords(notice, view);
  const day = (instant: Instant) => compactText(dayToText(dayAt(view.hostZone, instant)));
  const next = compactText(dayToText(dayAt(view.hostZone, until - 1) + 1));
  return [
    'BEGIN:VEVENT',
    `UID:${view.ids.calendar}-${noticeKind(notice)}`,
    `DTSTAMP:${utcText(at)}`,
    `LAST-MODIFIED:${utcText(at)}`,
    'SEQUENCE:0',
    `DTSTART;VALUE=DATE:${day(at)}`,
    `DTEND;VALUE=DATE:${next}`,
    `SUMMARY:${escapeText(title)}`,
    `DESCRIPTION:${escapeText(to ? `${say}\n\n${to.feed}\n${to.see}` : say)}`,
    ...(to ? [`URL:${to.see}`] : []),
    'STATUS:CONFIRMED',
    'TRANSP:TRANSPARENT',
    'END:VEVENT',
  ];
}
