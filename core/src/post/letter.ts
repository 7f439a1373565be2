import { html, type Html } from '../forms/page/html';

export interface LetterThing {
  readonly title: string;
  readonly lines: readonly string[];
}

/** A piece of a letter. */
export type LetterPart =
  | { readonly kind: 'text'; readonly text: string }
  | { readonly kind: 'heading'; readonly text: string }
  | { readonly kind: 'list'; readonly items: readonly string[] }
  /** Things with a title and what is said of each, a line each. */
  | { readonly kind: 'things'; readonly items: readonly LetterThing[] }
  /** An address to follow, with what it does. */
  | { readonly kind: 'link'; readonly label: string; readonly href: string }
  /** What stands below the rest, smaller. */
  | { readonly kind: 'note'; readonly text: string };

/** A mail as it is meant: plain text and HTML are made of it. */
export interface Letter {
  readonly subject: string;
  /** In which it is written (RFC 5646); English where it is left out. */
  readonly language?: string;
  readonly parts: readonly LetterPart[];
}

/** Returns one line without what could end it or begin another header (RFC 5322 section 2.2). */
export function headerText(text: string): string {
  return text
    .replace(/[\u0000-\u001f\u007f-\u009f\u2028\u2029]+/g, ' ')
    .trim()
    .slice(0, 250);
}

/** Returns a letter as plain text, its lines ended by LF. */
export function letterText({ parts }: Letter): string {
  const blocks = parts.map((part) => {
    if (part.kind === 'list') return part.items.map((item) => `- ${item}`).join('\n');
    if (part.kind === 'things')
      return part.items
        .map(({ title, lines }) => [`- ${title}`, ...lines.map((l) => `  ${l}`)].join('\n'))
        .join('\n');
    if (part.kind === 'link') return `${part.label}:\n${part.href}`;
    return part.text;
  });
  return `${blocks.join('\n\n')}\n`;
}

const STYLE = {
  body: 'margin:0;padding:24px;background:#f6f1e5;color:#1f2730;font:16px/1.5 Georgia,serif',
  sheet: 'max-width:560px;margin:0 auto;padding:24px;background:#fffdf7;border:1px solid #b9b09c',
  link: 'display:inline-block;padding:9px 16px;border:1px solid #1f2730;color:#1f2730;text-decoration:none',
  things: 'list-style:none;margin:8px 0;padding:0',
  thing: 'border-left:3px solid #b9b09c;padding:2px 0 2px 12px;margin:0 0 10px',
  heading: 'font-size:16px;margin:20px 0 0',
  note: 'color:#666055;font-size:14px',
} as const;

/** Returns a letter as an HTML document that fetches nothing and runs nothing; every text in it is escaped. */
export function letterHtml(letter: Letter): string {
  const document = html`<!doctype html>
<html lang="${letter.language ?? 'en'}"><head><meta charset="utf-8"><title>${headerText(letter.subject)}</title></head>
<body style="${STYLE.body}"><div style="${STYLE.sheet}">
${letter.parts.map(partHtml)}
</div></body></html>
`;
  return document.text;
}

function partHtml(part: LetterPart): Html {
  switch (part.kind) {
    case 'text':
      return html`<p>${part.text}</p>`;
    case 'heading':
      return html`<h2 style="${STYLE.heading}">${part.text}</h2>`;
    case 'list':
      return html`<ul>${part.items.map((item) => html`<li dir="auto">${item}</li>`)}</ul>`;
    case 'things':
      return html`<ul style="${STYLE.things}">${part.items.map(({ title, lines }) => html`<li style="${STYLE.thing}" dir="auto"><strong>${title}</strong>${lines.map((line) => html`<br>${line}`)}</li>`)}</ul>`;
    case 'link':
      return html`<p><a style="${STYLE.link}" href="${part.href}">${part.label}</a></p><p style="${STYLE.note}">${part.href}</p>`;
    case 'note':
      return html`<p style="${STYLE.note}">${part.text}</p>`;
  }
}
