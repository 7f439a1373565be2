/** A word of the product, and what it means. */
export interface GlossaryWord {
  readonly word: string;
  readonly meaning: string;
}

/** The product's own words, from inside to outside. */
export const PRODUCT_WORDS = {
  window: {
    word: 'window',
    meaning:
      'One published view: some calendars, a filter, the days shown, a glass and a name. It has addresses of its own, and keys for those who get them.',
  },
  glass: {
    word: 'glass',
    meaning:
      'How much readers see through: Shut (nothing), Frosted (only when time is taken), Tinted (title, time and place), Clear (every field that may go out) or Cut (the fields that you choose).',
  },
  zone: {
    word: 'zone',
    meaning:
      'A ring of readers, from inside out: Crew (colleagues by name), House (everybody in the organisation), Partners (outsiders with a key of their own) and Street (anybody who has the address).',
  },
  ceiling: {
    word: 'ceiling',
    meaning:
      'The clearest glass that a zone may ever get. Stewards set it for the whole house or for one calendar; no window shows more.',
  },
  hold: {
    word: 'hold',
    meaning:
      'A mark on an entry that limits it everywhere: “Frost it” shows no more than that the time is taken, “Keep it in” shows nothing outside.',
  },
  key: {
    word: 'key',
    meaning:
      'A secret address of a window, issued to one place or person. You can rename it, let it expire, replace it or withdraw it without touching the others.',
  },
  sightlines: {
    word: 'sightlines',
    meaning: 'A table of your calendars by zones: who can see what, and why.',
  },
  rehearsal: {
    word: 'rehearsal',
    meaning: 'The exact difference that a change makes outside, shown before you make it.',
  },
  ledger: {
    word: 'ledger',
    meaning: 'The numbered history of what a window has shown outside.',
  },
  reach: {
    word: 'reach',
    meaning: 'Which subscribers have which revision, and when the others should get it.',
  },
  dispatch: {
    word: 'dispatch',
    meaning: 'A dated copy or an announcement that you send by mail.',
  },
  doorbell: {
    word: 'doorbell',
    meaning: 'A request from outside: for more detail, for a key or for a time.',
  },
  intake: {
    word: 'intake',
    meaning: 'Calendars that come in: a file imported once, or an outside feed that is followed.',
  },
  noticeBoard: {
    word: 'notice board',
    meaning: 'The public list of windows that are listed. Search engines can find them too.',
  },
  steward: {
    word: 'steward',
    meaning: 'Somebody who looks after the house: its people, its ceilings and its settings.',
  },
  publisher: {
    word: 'publisher',
    meaning: 'Somebody who opens windows over a calendar and issues keys to them.',
  },
  editor: { word: 'editor', meaning: 'Somebody who writes the entries of a calendar.' },
  reader: { word: 'reader', meaning: 'Somebody who sees a calendar through a glass.' },
  mirror: {
    word: 'mirror',
    meaning: 'A copy of a window in a web folder of your own, which is kept up to date.',
  },
  replySlip: {
    word: 'reply slip',
    meaning: 'The part of an entry’s page on which people outside say whether they are coming.',
  },
} as const satisfies Readonly<Record<string, GlossaryWord>>;
export type ProductWord = keyof typeof PRODUCT_WORDS;

/** Words of the trade, as the product uses them. */
export const TRADE_WORDS = {
  feed: {
    word: 'feed',
    meaning:
      'An address that calendar programs read again and again, so that they show changes by themselves.',
  },
  embed: { word: 'embed', meaning: 'A window shown inside a page of another web site.' },
  snapshot: {
    word: 'dated copy',
    meaning: 'A file with a calendar as it was at one moment. Later changes do not reach it.',
  },
  subscriber: { word: 'subscriber', meaning: 'A program that follows a feed for somebody.' },
  poll: {
    word: 'poll',
    meaning: 'One look of a program at a feed, to find out whether anything has changed.',
  },
  revision: {
    word: 'revision',
    meaning: 'A numbered state of what a window shows. There is a new one whenever its content changes.',
  },
  series: { word: 'series', meaning: 'An entry that recurs, by a rule or on dates of its own.' },
  milestone: {
    word: 'milestone',
    meaning:
      'An entry with a planned date. If it slips, readers see by how much, as far as their glass allows.',
  },
  tentative: { word: 'tentative', meaning: 'Not certain yet. Tentative entries can be marked or left out.' },
  freeBusy: { word: 'free/busy', meaning: 'A document that says only when time is taken.' },
  iCalendar: {
    word: 'iCalendar',
    meaning: 'The format of calendar files and feeds that nearly all calendar programs read (RFC 5545).',
  },
  calDav: {
    word: 'CalDAV',
    meaning: 'A way for programs to fetch only what has changed in a calendar (RFC 4791).',
  },
} as const satisfies Readonly<Record<string, GlossaryWord>>;

/** Returns the word list as a Markdown document. */
export function glossaryDocument(): string {
  const table = (words: Readonly<Record<string, GlossaryWord>>) =>
    Object.values(words)
      .map(({ word, meaning }) => `- **${word}**: ${meaning}`)
      .join('\n');
  return [
    '# Words',
    'The application shows the same list under *Help*, and each word where it stands first on a screen.',
    '## Words of this product',
    table(PRODUCT_WORDS),
    '## Words of the trade',
    table(TRADE_WORDS),
    '',
  ]
    .join('\n\n')
    .replace(/\n+$/, '\n');
}
