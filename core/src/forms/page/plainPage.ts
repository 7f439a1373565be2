import { headLinks, html } from './html';

/** What a page asks to be done: where it is sent, and what its button says. */
export interface PlainAsk {
  readonly action: string;
  readonly label: string;
}

/** Returns a page that says one thing, in one language, and may ask one. */
export function plainPage(title: string, say: string, language: string, ask?: PlainAsk): string {
  return html`<!doctype html>
<html lang="${language}">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>${title}</title>
${headLinks()}
</head>
<body>
<header><h1>${title}</h1></header>
<main><p>${say}</p>${ask && html`<form method="post" action="${ask.action}"><p><button>${ask.label}</button></p></form>`}</main>
</body>
</html>
`.text;
}
