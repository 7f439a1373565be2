import { embedCode, fitScript, type EmbedWay } from '@zonal/core/forms';
import { escape } from './html';

/** A page of another site as it might hold an embed. */
interface ModelPage {
  readonly title: string;
  /** Its class in the style sheet. */
  readonly look: string;
  /** Whether its content policy lets no script and no style in the text do anything. */
  readonly strict?: true;
}

/** The model pages, each at its name. */
export const MODEL_PAGES = {
  column: { title: 'A side column of 240 pixels', look: 'column' },
  article: { title: 'An article of 680 pixels', look: 'article' },
  wide: { title: 'The full width', look: 'wide' },
  dark: { title: 'A dark page', look: 'article dark' },
  strict: { title: 'A page with a strict content policy', look: 'article', strict: true },
} as const satisfies Record<string, ModelPage>;
export type ModelName = keyof typeof MODEL_PAGES;

/** Returns the content policy of a model page: frames of the house alone, and of scripts its one at most. */
export function policyOf(name: ModelName, house: string): string {
  const strict = 'strict' in MODEL_PAGES[name];
  const inText = strict ? '' : " 'unsafe-inline'";
  const script = strict ? "'none'" : house;
  return `default-src 'none'; style-src 'self'${inText}; script-src ${script}; frame-src ${house}; base-uri 'none'`;
}

export interface Held {
  /** The embed's address. */
  readonly embed: string;
  readonly name: string;
  readonly way: EmbedWay;
  readonly height: number;
}

/** Returns a model page with an embed in it, as its code is pasted; none shows where it would stand. */
export function modelPage(name: ModelName, house: string, held: Held | null): string {
  const { title, look } = MODEL_PAGES[name];
  const code = held
    ? embedCode({
        ...held,
        see: held.embed.replace('/embed/', '/see/').split('?')[0]!,
        script: fitScript(house),
      })
    : '<p class="none">An embed of the house is shown here when its address is given.</p>';
  return `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>${escape(title)}: Skarn Point town site</title>
<link rel="stylesheet" href="/site.css">
</head>
<body class="${look}">
<header><strong>Skarn Point</strong> <span>the town’s own pages</span></header>
<main>
<article>
<h1>By the water</h1>
<p>The ferry leaves every half hour until the last lamp is lit. Bring a coat: the wind over the narrows keeps its own timetable.</p>
<p>What the harbour announces stands beside this text, as the harbour keeps it.</p>
</article>
<aside>
${code}
</aside>
<article><p>Questions about these pages go to the town desk, behind the blue door.</p></article>
</main>
</body>
</html>
`;
}
