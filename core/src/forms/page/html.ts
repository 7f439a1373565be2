/** A piece of HTML that is safe to put into a page as it is. Only {@link html} makes it. */
export class Html {
  constructor(readonly text: string) {}
}

type Part = string | number | Html | readonly Part[] | null | undefined | false;

const ENTITIES: Record<string, string> = {
  '&': '&amp;',
  '<': '&lt;',
  '>': '&gt;',
  '"': '&quot;',
  "'": '&#39;',
};

/** Returns what every outside page has in its head: the mark in a browser's tab, and the style sheet of a folder that ends in `/`. */
export function headLinks(assets = '/outside/'): Html {
  return html`<link rel="icon" type="image/svg+xml" href="/mark.svg">
<link rel="stylesheet" href="${assets}outside.css">`;
}

/** Returns HTML in which every value that is not HTML itself is escaped; attributes must stand in quotes. */
export function html(strings: TemplateStringsArray, ...parts: Part[]): Html {
  let text = strings[0]!;
  parts.forEach((part, i) => {
    text += textOf(part) + strings[i + 1]!;
  });
  return new Html(text);
}

function textOf(part: Part): string {
  if (part === null || part === undefined || part === false) return '';
  if (part instanceof Html) return part.text;
  if (typeof part === 'object') return part.map(textOf).join('');
  return String(part).replace(/[&<>"']/g, (c) => ENTITIES[c]!);
}
