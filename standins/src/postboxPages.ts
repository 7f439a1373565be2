import { escape } from './html';
import type { ReceivedMail } from './postbox';

const STYLE = `
body { margin: 0; font: 16px/1.5 Georgia, serif; background: #e9ecea; color: #20262b; }
header { background: #2f4a43; color: #fff; padding: 14px 24px; }
header a { color: #fff; }
main { max-width: 860px; margin: 0 auto; padding: 16px 24px 48px; }
ul { list-style: none; margin: 0; padding: 0; }
li { background: #fff; border: 1px solid #b8c2bd; border-bottom-width: 3px; margin: 0 0 10px; padding: 10px 14px; }
li a { font-weight: bold; color: #20262b; overflow-wrap: anywhere; }
li span, dt { color: #5a6660; }
.when { float: right; margin-left: 12px; }
dl { display: grid; grid-template-columns: 5rem 1fr; gap: 2px 12px; margin: 16px 0; }
dd { margin: 0; overflow-wrap: anywhere; }
iframe { width: 100%; height: 460px; border: 1px solid #b8c2bd; background: #fff; }
pre { background: #fff; border: 1px solid #b8c2bd; padding: 14px; white-space: pre-wrap; overflow-wrap: anywhere; }
input { font: inherit; padding: 4px 8px; width: 16rem; max-width: 100%; }
button { font: inherit; padding: 4px 12px; }
`;

const page = (title: string, body: string) => `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>${escape(title)}</title>
<style>${STYLE}</style>
</head>
<body>
<header><strong>Postbox</strong> stands in for everybody’s mail: nothing leaves this machine. <a href="/">All mails</a></header>
<main>
${body}
</main>
</body>
</html>
`;

const whenWords = (at: string) => `${new Date(at).toISOString().slice(0, 16).replace('T', ' ')} UTC`;

/** Returns the page of the mails that came; `to` is the address that was asked for, or empty. */
export function listPage(mails: readonly ReceivedMail[], to: string): string {
  const lines = mails.map(
    ({ id, at, from, to: all, subject }) =>
      `<li><span class="when">${whenWords(at)}</span><a href="/mails/${id}">${escape(subject || 'no subject')}</a><br><span>to ${escape(all.join(', '))}, from ${escape(from)}</span></li>`,
  );
  const list = lines.length ? `<ul>\n${lines.join('\n')}\n</ul>` : '<p>No mail has come yet.</p>';
  return page(
    'Postbox',
    `<form><p><label>To <input name="to" value="${escape(to)}" placeholder="everybody"></label> <button>Show</button></p></form>\n${list}`,
  );
}

/** Returns the page of one mail: as a program shows it, and as plain text. */
export function mailPage({ at, from, to, subject, text, html }: ReceivedMail): string {
  const shown = html
    ? `<h2>As a page</h2>\n<iframe sandbox="allow-popups allow-popups-to-escape-sandbox" title="The mail as a page" srcdoc="${escape(html.replace('<head>', '<head><base target="_blank">'))}"></iframe>\n`
    : '';
  return page(
    subject,
    `<h1>${escape(subject)}</h1>
<dl><dt>To</dt><dd>${escape(to.join(', '))}</dd><dt>From</dt><dd>${escape(from)}</dd><dt>Came</dt><dd>${whenWords(at)}</dd></dl>
${shown}<h2>As plain text</h2>
<pre>${linked(text)}</pre>`,
  );
}

/** Addresses in a text can be followed. */
function linked(text: string): string {
  return escape(text).replace(/https?:\/\/[^\s<]+/g, (address) => `<a href="${address}">${address}</a>`);
}
