import { compareText } from '../entries';
import { safeUri, type OutwardItem, type OutwardOccurrence, type OutwardView } from '../glass';
import type { Revision, Stamp } from '../reach';
import { noticeWords, sayOf, type Notice } from './notice';
import { titleOf } from './page/entryLine';
import { html, type Html } from './page/html';
import type { Parts } from './parts';
import { speechFor, type Speech } from './speech/speech';
import { summaryText } from './summaryText';
import { XML_HEAD, momentOf, xmlSafe } from './xml';

/** Addresses, absolute: of this feed, of the page, and below which the pages of entries are. */
export interface ChangesSetting {
  readonly self: string;
  readonly page: string;
  readonly notice?: Notice | null;
  /** Where programs can ask to be told of changes (WebSub section 4). */
  readonly hub?: string;
}

/** So many of the newest changes are told. */
const MOST_CHANGES = 100;

/**
 * Returns what a reader could see change last, as an Atom feed (RFC 4287): the newest first, each entry as it is now, under
 * its outward identifier. What is no longer shown is not told of.
 */
export function changesParts(view: OutwardView, revision: Revision, setting: ChangesSetting): Parts {
  const speech = speechFor(view.wording.language);
  const { wording, ids } = view;
  const { notice = null, page, self, hub } = setting;
  const changed = view.items
    .map((item) => ({ item, stamp: revision.stamps[item.uid]! }))
    .sort(
      (a, b) =>
        b.stamp.at - a.stamp.at || b.stamp.sequence - a.stamp.sequence || compareText(a.item.uid, b.item.uid),
    )
    .slice(0, MOST_CHANGES);
  const document = html`<feed xmlns="http://www.w3.org/2005/Atom"${wording.language && html` xml:lang="${wording.language}"`}>
<id>urn:uuid:${ids.calendar}</id>
<title>${xmlSafe(wording.name)}</title>
${wording.description && html`<subtitle>${xmlSafe(wording.description)}</subtitle>`}
<updated>${momentOf(revision.at)}</updated>
<author><name>${xmlSafe(wording.name)}</name></author>
<link rel="self" type="application/atom+xml" href="${uri(self)}"/>
<link rel="alternate" type="text/html" href="${uri(page)}"/>
${
  hub &&
  html`<link rel="hub" href="${uri(hub)}"/>
`
}${notice && noticeEntry(notice, view, speech, page)}${changed.map((c) => entry(c.item, c.stamp, view, speech, notice?.to?.see ?? page))}</feed>
`;
  return { head: XML_HEAD + document.text, blocks: [] };
}

const uri = (address: string) => safeUri(address) ?? address;

function entry(item: OutwardItem, stamp: Stamp, view: OutwardView, speech: Speech, pages: string): Html {
  const one = oneOf(item);
  const title = titleOf({ one }, { busyWord: view.wording.busyWord, speech });
  return html`<entry>
<id>urn:uuid:${item.uid}</id>
<title>${xmlSafe(title)}</title>
<updated>${momentOf(stamp.at)}</updated>
<link rel="alternate" type="text/html" href="${uri(`${pages}/${item.uid}`)}"/>
<summary>${xmlSafe(summaryText(one, view.hostZone, view.hostZone, speech))}</summary>
</entry>
`;
}

/** An entry is told by its first time. */
function oneOf(item: OutwardItem): OutwardOccurrence {
  const content = item.kind === 'busy' ? null : item.content;
  return { ...item, content, tentative: item.kind === 'busy' ? false : content?.status === 'tentative' };
}

function noticeEntry(notice: Notice, view: OutwardView, speech: Speech, page: string): Html {
  const { title } = noticeWords(notice, view, speech);
  return html`<entry>
<id>urn:uuid:${view.ids.calendar}#${notice.to ? 'moved' : 'ends'}</id>
<title>${xmlSafe(title)}</title>
<updated>${momentOf(notice.at)}</updated>
<link rel="alternate" type="text/html" href="${uri(notice.to?.see ?? page)}"/>
<summary>${xmlSafe(sayOf(notice, view))}</summary>
</entry>
`;
}
