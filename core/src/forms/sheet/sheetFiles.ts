import type { Message } from '../speech/catalogue';
import type { Speech } from '../speech/speech';
import { tableText } from '../csv/writeCsv';
import { opmlFile, opmlLine } from '../opml';
import { textFor } from '../page/choice';
import { followAddress } from '../page/windowLine';
import { zoneText } from '../page/words';
import type { LinkSheet, SheetLink } from './linkSheet';

/** What is said of an address where it shows less than one would think. */
export const SHOWS_SAY: Readonly<Record<NonNullable<SheetLink['shows']>, Message | null>> = {
  entries: null,
  busy: 'sheetBusy',
  nothing: 'sheetNothing',
};

/** One row of the files: each heading with what stands below it. */
const COLUMNS = {
  name: ({ wording }: SheetLink) => wording.name,
  description: ({ wording }: SheetLink) => wording.description,
  topic: ({ wording }: SheetLink) => wording.topic,
  zone: ({ zone }: SheetLink) => zone,
  shows: ({ shows }: SheetLink) => shows ?? '',
  page: ({ see }: SheetLink) => see,
  follow: followAddress,
  feed: ({ feed }: SheetLink) => feed,
};
const NAMES = Object.keys(COLUMNS) as (keyof typeof COLUMNS)[];

/** Returns a link sheet as a table (RFC 4180), one row an address. */
export function sheetCsv({ links }: LinkSheet): string {
  return tableText([NAMES, ...links.map((link) => NAMES.map((name) => COLUMNS[name](link)))]);
}

/** Returns a link sheet as JSON: its name, note and address, and one object an address with what the table has. */
export function sheetJson({ name, note, address, links }: LinkSheet): string {
  const told = links.map((link) =>
    Object.fromEntries(NAMES.map((column) => [column, COLUMNS[column](link)])),
  );
  return `${JSON.stringify({ name, note, address, links: told }, null, 2)}\n`;
}

/** Returns a link sheet as an OPML 2.0 file. */
export function sheetOpml({ name, links }: LinkSheet): string {
  return opmlFile(name, links.map(opmlLine));
}

/** Returns a link sheet as the text of a mail, in a language. */
export function sheetMail({ name, note, address, links }: LinkSheet, speech: Speech): string {
  const one = (link: SheetLink) => {
    const { name: called, description } = textFor(link.wording, [speech.locale]);
    const say = link.shows && SHOWS_SAY[link.shows];
    return [
      called,
      description,
      `${speech.say('boardZone', { zone: zoneText(link.zone) })}.`,
      say && speech.say(say),
      speech.say('sheetPage', { address: link.see }),
      speech.say('sheetFeed', { address: link.feed }),
    ];
  };
  const none = links.length ? [] : [[speech.say('sheetEmpty')]];
  const foot = [[speech.say('sheetLasting', { address })], [speech.say('sheetCare')]];
  const parts = [[name], [note], ...links.map(one), ...none, ...foot];
  return `${parts
    .map((lines) => lines.filter(Boolean).join('\n'))
    .filter(Boolean)
    .join('\n\n')}\n`;
}
