import { compareText, plainText, wordsOf } from '../../entries';
import type { Instant } from '../../zones';
import type { WindowLink } from '../windowLink';
import { textFor } from '../page/choice';

/** A listed window as everybody may know of it. */
export interface BoardWindow extends WindowLink {
  /** Since when it is listed. */
  readonly listedAt: Instant;
}

/** Windows of one topic, in order of name. */
export interface Topic {
  /** Empty for those that name none. */
  readonly topic: string;
  readonly windows: readonly BoardWindow[];
}

/** Returns the place of a window: the one that its zone is called after. */
export function placeOf({ zone }: BoardWindow): string {
  return zone.split('/').at(-1)!.replace(/_/g, ' ');
}

/** Returns the windows in which all words of a text are found: in what they are called in any language, topic, or place. */
export function findOnBoard(windows: readonly BoardWindow[], text: string): readonly BoardWindow[] {
  const words = wordsOf(text);
  if (!words.length) return windows;
  return windows.filter((w) => {
    const all = [w.wording, ...w.wording.translations].flatMap((t) => [t.name, t.description, t.topic]);
    const own = plainText([...all, placeOf(w)].join(' '));
    return words.every((word) => own.includes(word));
  });
}

/** Returns windows by topic as readers of some languages have it, those with none last. */
export function byTopic(windows: readonly BoardWindow[], languages: readonly string[]): Topic[] {
  const topics = new Map<string, BoardWindow[]>();
  const nameOf = (w: BoardWindow) => textFor(w.wording, languages).name;
  for (const window of [...windows].sort(
    (a, b) => compareText(nameOf(a), nameOf(b)) || compareText(a.see, b.see),
  )) {
    const { topic } = textFor(window.wording, languages);
    const own = topics.get(topic);
    if (own) own.push(window);
    else topics.set(topic, [window]);
  }
  return [...topics]
    .map(([topic, own]) => ({ topic, windows: own }))
    .sort((a, b) => Number(!a.topic) - Number(!b.topic) || compareText(a.topic, b.topic));
}
