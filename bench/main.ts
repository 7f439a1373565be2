import { compileFigures } from './compile';
import { expansionFigures } from './expansion';
import { pollFigures } from './poll';

/** One budget of docs/engineering and what was measured against it, both in this run on this machine. */
export interface Figure {
  readonly what: string;
  readonly measured: string;
  readonly ratio: number;
  readonly budget: string;
  readonly kept: boolean;
}

const figures = [...expansionFigures(), ...compileFigures(), ...(await pollFigures())];
for (const { what, measured, ratio, budget, kept } of figures) {
  process.stdout.write(
    `${kept ? 'kept  ' : 'MISSED'}  ${what}: ${ratio.toFixed(3)} (budget ${budget}) — ${measured}\n`,
  );
}
