import { html } from './html';

/** Returns a page that says one thing, in one language. */
export function plainPage(title: string, say: string, language: string): string {
  return html`<!doctype html>
<html lang="${language}">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>${title}</title>
<link rel="stylesheet" href="/outside/outside.css">
</head>
<body>
<header><h1>${title}</h1></header>
<main><p>${say}</p></main>
</body>
</html>
`.text;
}
