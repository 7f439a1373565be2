import { html, type Html } from './page/html';
import type { WindowLink } from './windowLink';
import { XML_HEAD, xmlSafe } from './xml';

/** Returns one window as a line of an OPML file. */
export function opmlLine({ wording, feed, see }: WindowLink): Html {
  return html`<outline type="ical" text="${xmlSafe(wording.name)}" description="${xmlSafe(wording.description)}" xmlUrl="${feed}" htmlUrl="${see}"/>
`;
}

/** Returns an OPML 2.0 file: for programs that follow many feeds. */
export function opmlFile(title: string, lines: readonly Html[]): string {
  return `${XML_HEAD}${
    html`<opml version="2.0">
<head><title>${xmlSafe(title)}</title></head>
<body>
${lines}</body>
</opml>
`.text
  }`;
}
