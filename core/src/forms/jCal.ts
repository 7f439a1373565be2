import ICAL from 'ical.js';
import type { OutwardView } from '../glass';
import type { Revision } from '../reach';
import { calendarPieces, pagesOf, type CalendarOptions } from './icsCalendar';
import { BELOW, type Parts } from './parts';

type Component = readonly [name: string, properties: readonly unknown[], components: readonly unknown[]];

/** What was written of a piece, as long as it is the same one. */
const known = new WeakMap<object, string>();

/** No text of an entry can look like it: a quotation mark in one is escaped. */
const ADDRESS_BELOW = new RegExp(`(\\["(?:url|image)",\\{\\},"uri",")\\\\${inJson(BELOW).slice(1)}`, 'g');

function inJson(text: string): string {
  return JSON.stringify(text).slice(1, -1);
}

/** Returns the components of some content lines as jCal, with commas between. */
function componentsOf(text: string): string {
  const [, , components] = ICAL.parse(`BEGIN:VCALENDAR\r\n${text}END:VCALENDAR\r\n`) as Component;
  return components.map((c) => JSON.stringify(c)).join(',');
}

/** Returns the same document as calendarParts as jCal (RFC 7265): each property and component of it, in its order. */
export function jCalParts(view: OutwardView, revision: Revision, options: CalendarOptions): Parts {
  const { head, zones, blocks, gone } = calendarPieces(view, revision, options);
  const [name, properties, told] = ICAL.parse(`${head}END:VCALENDAR\r\n`) as Component;
  const first = told.map((c) => `${JSON.stringify(c)},`).join('');
  const pieces = blocks.map((block) => {
    let text = known.get(block);
    if (text === undefined) known.set(block, (text = componentsOf(block.text)));
    return text;
  });
  const all = [...(zones ? [componentsOf(zones)] : []), ...pieces, ...gone.map(componentsOf)];
  return {
    head: `["${name}",${JSON.stringify(properties)},[${first}`,
    blocks: [...all.map((text, i) => (i ? `,${text}` : text)), ']]\n'],
    fill: (block) =>
      block.replace(ADDRESS_BELOW, (_match, head: string) => head + inJson(`${pagesOf(options)}/`)),
  };
}
