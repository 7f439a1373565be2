import type { OutwardView } from '../../glass';
import { hasSlipped, instantOfWhen, slipOf, type When } from '../../entries';
import { dayFromText, dayToText, isoOffset, offsetAt, wallAt, wallToText } from '../../zones';
import type { PageEntry } from './agenda';
import type { Choice, PageOptions } from './choice';
import { imagePath } from '../parts';
import { Html, html } from './html';

/** What search engines and social networks are told of a page: Open Graph tags, and one event of schema.org. */
export interface Told {
  readonly title: string;
  readonly description: string;
  /** Absolute. */
  readonly address: string;
  readonly entry: PageEntry | null;
}

/** Returns what the head of a listed page says to programs that pass it on; of unlisted ones nothing is said. */
export function socialPart(
  told: Told,
  view: OutwardView,
  { speech, text }: Choice,
  options: PageOptions,
): Html {
  if (!options.listed) return html``;
  const { title, description, address, entry } = told;
  const image = entry?.one.content?.image;
  const picture = image ? `${options.addresses.see}/${imagePath(image)}` : '';
  const data = entry?.one.content ? eventData(told, picture, view) : null;
  return html`
<link rel="canonical" href="${address}">
<meta property="og:type" content="website">
<meta property="og:site_name" content="${text.name}">
<meta property="og:title" content="${title}">
${description && html`<meta property="og:description" content="${description}">`}
${
  image &&
  html`<meta property="og:image" content="${picture}">
<meta property="og:image:alt" content="${image.alt}">`
}
<meta property="og:url" content="${address}">
<meta property="og:locale" content="${speech.locale.replace('-', '_')}">${data && jsonLd(data)}`;
}

/** What stands in a script must not end it. */
function jsonLd(data: object): Html {
  const text = JSON.stringify(data).replace(
    /[<>&\u2028\u2029]/g,
    (c) => `\\u${c.charCodeAt(0).toString(16).padStart(4, '0')}`,
  );
  return new Html(`\n<script type="application/ld+json">${text}</script>`);
}

/** Returns one date of an entry as an Event of schema.org; only what its content says. */
function eventData({ title, address, entry }: Told, image: string, view: OutwardView): object {
  const { one } = entry!;
  const content = one.content!;
  const { planned } = content;
  const slip = planned ? slipOf(planned, one.start, view.hostZone) : null;
  const moved = slip !== null && hasSlipped(slip);
  return {
    '@context': 'https://schema.org',
    '@type': 'Event',
    name: title,
    startDate: isoText(one.start, view),
    ...(one.to > one.from
      ? { endDate: one.end.kind === 'date' ? lastDayText(one.end.date) : isoText(one.end, view) }
      : {}),
    eventStatus: `https://schema.org/${content.status === 'cancelled' ? 'EventCancelled' : moved ? 'EventRescheduled' : 'EventScheduled'}`,
    ...(moved ? { previousStartDate: isoText(planned!, view) } : {}),
    ...(content.place ? { location: { '@type': 'Place', name: content.place } } : {}),
    ...(content.description ? { description: content.description } : {}),
    ...(image ? { image } : {}),
    url: address,
  };
}

/** A day, or a time with its distance from UTC (ISO 8601); floating times are the host's. */
function isoText(when: When, { hostZone }: OutwardView): string {
  if (when.kind === 'date') return when.date;
  const zone = when.kind === 'zoned' ? when.zone : hostZone;
  const at = instantOfWhen(when, hostZone);
  return `${wallToText(wallAt(zone, at))}${isoOffset(offsetAt(zone, at))}`;
}

/** People mean the last day itself. */
function lastDayText(end: string): string {
  return dayToText(dayFromText(end) - 1);
}
