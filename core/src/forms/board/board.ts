import { compareText, plainText, wordsOf } from '../../entries';
import type { Instant } from '../../zones';
import type { WindowLink } from '../windowLink';
import { textFor } from '../page/choice';
import { zoneText } from '../page/words';

/** A listed window as everybody may know of it. */
export interface BoardWindow extends WindowLink {
  /** Since when it is listed. */
  readonly listedAt: Instant;
}

export const ORDERS = ['topic', 'place'] as const;
/** What the board is in order of. */
export type Order = (typeof ORDERS)[number];

/** Windows of one topic or of one place, in order of name. */
export interface Group {
  /** Empty for those that name none. */
  readonly heading: string;
  readonly windows: readonly BoardWindow[];
}

/** Returns the windows in which all words of a text are found: in what they are called in any language, topic, or place. */
export function findOnBoard(windows: readonly BoardWindow[], text: string): readonly BoardWindow[] {
  const words = wordsOf(text);
  if (!words.length) return windows;
  return windows.filter((w) => {
    const all = [w.wording, ...w.wording.translations].flatMap((t) => [t.name, t.description, t.topic]);
    const own = plainText([...all, w.wording.place ?? '', zoneText(w.zone)].join(' '));
    return words.every((word) => own.includes(word));
  });
}

/** Returns windows by topic or place as readers of some languages have it, those with none last. */
export function grouped(
  windows: readonly BoardWindow[],
  languages: readonly string[],
  order: Order = 'topic',
): Group[] {
  const groups = new Map<string, BoardWindow[]>();
  const nameOf = (w: BoardWindow) => textFor(w.wording, languages).name;
  for (const window of [...windows].sort(
    (a, b) => compareText(nameOf(a), nameOf(b)) || compareText(a.see, b.see),
  )) {
    const { wording } = window;
    const heading = order === 'place' ? (wording.place ?? '') : textFor(wording, languages).topic;
    const own = groups.get(heading);
    if (own) own.push(window);
    else groups.set(heading, [window]);
  }
  return [...groups]
    .map(([heading, own]) => ({ heading, windows: own }))
    .sort((a, b) => Number(!a.heading) - Number(!b.heading) || compareText(a.heading, b.heading));
}
