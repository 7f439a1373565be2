import { EMBED_WAYS, USUAL_HEIGHT } from '@zonal/core/forms';
import express, { type Express } from 'express';
import { toldSystem } from './toldSystem';
import { MODEL_PAGES, modelPage, policyOf, type Held, type ModelName } from './modelPages';

const STYLE = `
body { margin: 0; font: 17px/1.6 Georgia, serif; color: #222; background: #fff; }
header { padding: 12px 24px; border-bottom: 4px solid #3a6b5c; }
header span { color: #666; }
main { max-width: 1100px; margin: 0 auto; padding: 16px 24px; }
h1 { font-size: 28px; margin: 8px 0; }
iframe { display: block; }
.none { border: 2px dashed #999; padding: 24px; }
.article main { max-width: 680px; padding: 16px 0; }
.wide main { max-width: none; }
.column main { display: grid; grid-template-columns: 1fr 240px; gap: 24px; }
.column aside { grid-column: 2; grid-row: 1 / span 2; }
.dark { background: #15181c; color: #e6e2d8; }
.dark header span { color: #aaa; }
@media (max-width: 700px) { .article main { padding: 16px; } }
`;

/**
 * Returns a small site of somebody else, whose model pages hold embeds of a house: each as its code would be pasted there.
 * `?embed=` names the embed's address, `way`, `height` and `name` the rest of its code.
 */
export function hostSite(house: string): Express {
  const app = express();
  app.disable('x-powered-by');
  app.get('/site.css', (_req, res) => {
    res.type('css').send(STYLE);
  });
  app.get('/', (_req, res) => {
    res.redirect('/article');
  });
  app.use(toldSystem());
  for (const name of Object.keys(MODEL_PAGES) as ModelName[]) {
    app.get(`/${name}`, (req, res) => {
      res.set('Content-Security-Policy', policyOf(name, house));
      res.type('html').send(modelPage(name, house, heldIn(req.query, house)));
    });
  }
  return app;
}

/** Only embeds of the house are held: the site is no way to show anything else. */
function heldIn(query: Readonly<Record<string, unknown>>, house: string): Held | null {
  const { embed, name, way, height } = query;
  if (typeof embed !== 'string' || !embed.startsWith(`${house}/embed/`)) return null;
  const pixels = Number(height);
  return {
    embed,
    name: typeof name === 'string' ? name : 'Calendar',
    way: EMBED_WAYS.find((w) => w === way) ?? 'frame',
    height: Number.isInteger(pixels) && pixels >= 100 && pixels <= 5000 ? pixels : USUAL_HEIGHT,
  };
}
