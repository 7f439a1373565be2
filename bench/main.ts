import { compileFigures } from './compile';
import { crowdedFigures } from './crowded';
import { expansionFigures } from './expansion';
import type { Figure } from './figure';
import { interfaceFigures } from './interface';
import { loadFigures } from './load';
import { pollFigures } from './poll';
import { standstillFigures } from './standstill';
import { storeFigures } from './store';
import { weightFigures } from './weight';
import { yearFigures } from './year';

const PARTS: Readonly<Record<string, () => Figure[] | Promise<Figure[]>>> = {
  expansion: expansionFigures,
  compile: compileFigures,
  weight: () => weightFigures(process.env),
  poll: pollFigures,
  standstill: () => standstillFigures(process.env),
  crowded: () => crowdedFigures(process.env),
  store: () => storeFigures(process.env),
  load: () => loadFigures(process.env),
  year: () => yearFigures(process.env),
  interface: () => interfaceFigures(process.env),
};

/** All parts, or those named as arguments. */
const wanted = process.argv.slice(2);
const figures: Figure[] = [];
for (const [name, part] of Object.entries(PARTS))
  if (!wanted.length || wanted.includes(name)) figures.push(...(await part()));
for (const { what, measured, ratio, budget, kept } of figures) {
  process.stdout.write(
    `${kept ? 'kept  ' : 'MISSED'}  ${what}: ${ratio.toFixed(3)} (budget ${budget}) — ${measured}\n`,
  );
}
