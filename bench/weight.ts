import { writePage } from '@zonal/core/forms';
import { outwardView } from '@zonal/core/glass';
import { nextRevision } from '@zonal/core/reach';
import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import type { Figure } from './figure';
import { RANGE, RULES, manyEntries } from './material';

const MOST = 60_000;
const ADDRESSES = {
  self: '/see/k',
  see: 'https://w.example/see/k',
  feed: 'https://w.example/feed/k.ics',
  copy: '/copy/k.ics',
};

/** All that a browser fetches for a page: what does not shrink is not compressed on the way. */
function assetBytes(folder: string): number {
  return readdirSync(folder)
    .filter((name) => /\.(css|js|woff2)$/.test(name) && name !== 'fit.js')
    .map((name) => readFileSync(join(folder, name)))
    .reduce((sum, bytes) => sum + Math.min(bytes.length, gzipSync(bytes).length), 0);
}

/** Weighs the pages of a window of 10,000 entries, with style sheet, script and typefaces. */
export function weightFigures({ OUTSIDE_FOLDER }: NodeJS.ProcessEnv): Figure[] {
  const view = outwardView(manyEntries(), RULES, RANGE, { audience: 'street', cap: null });
  const revision = nextRevision(null, view, 0);
  const uid = view.items[0]!.uid;
  const usual = { now: RANGE.from + 15_000_000_000, addresses: ADDRESSES, assets: '/outside/' };
  const write = (query: object, page: object = { kind: 'days' }, form: 'page' | 'embed' = 'page') =>
    gzipSync(writePage(view, revision, { ...usual, query, form, page: page as never })).length;
  const pages: Readonly<Record<string, number>> = {
    list: write({ show: 'list' }),
    week: write({ show: 'week' }),
    month: write({ show: 'month' }),
    embed: write({ show: 'list' }, undefined, 'embed'),
    found: write({ find: 'bridge' }),
    entry: write({}, { kind: 'entry', uid, on: '' }),
    settings: write({}, { kind: 'settings' }),
  };
  const assets = assetBytes(OUTSIDE_FOLDER!);
  const [heaviest, bytes] = Object.entries(pages).sort((a, b) => b[1] - a[1])[0]!;
  const kB = (n: number) => `${(n / 1000).toFixed(1)} kB`;
  return [
    {
      what: 'all bytes of the heaviest page of 10,000 entries, compressed, against 60 kB',
      measured: `${kB(assets)} of style sheet, script and typefaces; ${Object.entries(pages)
        .map(([name, n]) => `${name} ${kB(n)}`)
        .join(', ')}; heaviest: ${heaviest}`,
      ratio: (assets + bytes) / MOST,
      budget: '≤ 1',
      kept: assets + bytes <= MOST,
    },
  ];
}
