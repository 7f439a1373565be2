import { textFor, type PageQuery } from '../forms/page/choice';
import { titleOf } from '../forms/page/entryLine';
import { zoneText } from '../forms/page/words';
import { noticeWords, type Notice } from '../forms/notice';
import { readingOf } from '../forms/speech/reading';
import { momentText, speechOf, type Speech } from '../forms/speech/speech';
import { summaryText, timeText } from '../forms/summaryText';
import type { OutwardView } from '../glass';
import type { ToldChange, ToldChanges, ToldPart } from '../reach';
import type { Message } from '../forms/speech/catalogue';
import { zoneNamed, type Instant } from '../zones';
import { headerText, type Letter, type LetterPart, type LetterThing } from './letter';

/** How somebody reads who left a mail address on a page: its language, zone and clock, as in the page's address. */
export type DigestReading = Pick<PageQuery, 'lang' | 'tz' | 'clock'>;

interface DigestSetting {
  readonly reading: DigestReading;
  /** When the reader was told last. */
  readonly since: Instant;
  /** Absolute: of the page, and where these mails are stopped. */
  readonly see: string;
  readonly stop: string;
  readonly notice?: Notice | null;
}

/** So many changes are told one by one. */
const MOST = 40;

const PARTS = {
  time: 'partTime',
  title: 'partTitle',
  place: 'partPlace',
  details: 'partDetails',
} as const satisfies Record<ToldPart, Message>;

/** Returns how a reader of a window is spoken to. */
function speechToReader(view: OutwardView, { lang, clock }: DigestReading): Speech {
  return speechOf(readingOf({ lang, clock, own: view.wording.language }));
}

/**
 * Returns the letter that tells a reader what has changed outwardly, in the reader's zone and language; null where nothing
 * ahead has. `told` null stands for more than can be told one by one.
 */
export function digestLetter(
  view: OutwardView,
  told: ToldChanges | null,
  setting: DigestSetting,
): Letter | null {
  const { reading, since, see, stop, notice = null } = setting;
  const { changes, gone } = told ?? { changes: [], gone: 0 };
  if (told && !changes.length && !gone) return null;
  const speech = speechToReader(view, reading);
  const zone = (reading.tz && zoneNamed(reading.tz)) || view.hostZone;
  const { name } = textFor(view.wording, reading.lang ? [reading.lang] : []);
  const text = (said: string): LetterPart => ({ kind: 'text', text: said });
  const thing = (change: ToldChange) => thingOf(change, view, zone, speech);
  const section = (heading: Message, all: readonly ToldChange[]): LetterPart[] =>
    all.length
      ? [
          { kind: 'heading', text: speech.say(heading) },
          { kind: 'things', items: all.map(thing) },
        ]
      : [];
  const shown = changes.slice(0, MOST);
  const rest = changes.length - shown.length;
  const words = notice && noticeWords(notice, view, speech);
  return {
    subject: headerText(
      told
        ? speech.say('digestSubject', { name, count: changes.length + gone })
        : speech.say('digestSubjectMuch', { name }),
    ),
    language: speech.locale,
    parts: [
      ...(words ? [text(`${words.title}. ${words.say}${notice.to ? ` ${notice.to.see}` : ''}`)] : []),
      text(
        speech.say('digestSince', {
          name,
          moment: momentText(speech, since, zone),
          zone: zoneText(zone),
        }),
      ),
      ...section(
        'digestNew',
        shown.filter((c) => c.kind === 'new'),
      ),
      ...section(
        'digestChanged',
        shown.filter((c) => c.kind === 'changed'),
      ),
      ...(rest ? [text(speech.say('digestRest', { count: rest }))] : []),
      ...(gone ? [text(speech.say('digestGone', { count: gone }))] : []),
      ...(told ? [] : [text(speech.say('digestMuch'))]),
      { kind: 'link', label: speech.say('digestSee'), href: see },
      { kind: 'note', text: speech.say('digestWhy', { name }) },
      { kind: 'link', label: speech.say('digestStop'), href: stop },
    ],
  };
}

function thingOf(
  { one, was, parts, more }: ToldChange,
  view: OutwardView,
  zone: string,
  speech: Speech,
): LetterThing {
  const apart = parts.filter((part) => !(part === 'time' && was)).map((part) => speech.say(PARTS[part]));
  const lines = [
    summaryText(one, zone, view.hostZone, speech),
    was && speech.say('digestWas', { when: timeText(was, zone, speech) }),
    apart.length && speech.say('digestParts', { parts: speech.list(apart) }),
    more && speech.say('digestMore', { count: more }),
  ];
  return {
    title: titleOf({ one }, { busyWord: view.wording.busyWord, speech }),
    lines: lines.filter((line) => typeof line === 'string'),
  };
}

/** Returns the letter by which somebody confirms that they want to hear of changes in a window. */
export function noticeConfirmLetter(
  view: OutwardView,
  { reading, href }: { readonly reading: DigestReading; readonly href: string },
): Letter {
  const speech = speechToReader(view, reading);
  const { name } = textFor(view.wording, reading.lang ? [reading.lang] : []);
  return {
    subject: headerText(speech.say('noticesConfirmSubject', { name })),
    language: speech.locale,
    parts: [
      { kind: 'text', text: speech.say('noticesConfirmSay', { name }) },
      { kind: 'link', label: speech.say('noticesConfirmDo'), href },
      { kind: 'note', text: speech.say('noticesConfirmNote') },
    ],
  };
}
