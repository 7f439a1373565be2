import { crowdTrial, forecastTrial } from '@zonal/core/testing/forecastTrial';
import { line, percent, table, verdict } from './print';

const FOLLOWERS = 3000;
const CROWDS = 60;
const SEED = 20261127;

line(
  `Forecasts of ${FOLLOWERS} generated followers, made at any moment, against when they looked next (seed ${SEED}).`,
);
const { nineInTen, byKnown, byProgram, brier, constant, calibration } = forecastTrial(FOLLOWERS, SEED);
line();
table(
  ['chance told', 'mean', 'happened', 'of'],
  calibration.map(({ told, happened, of }, i) => [
    `${i * 10} to ${i * 10 + 10} %`,
    percent(told),
    percent(happened),
    of,
  ]),
);
for (const [heading, held] of [
  ['known for', byKnown],
  ['program', byProgram],
] as const) {
  line();
  table(
    [heading, 'nine in ten held', 'of'],
    Object.entries(held).map(([name, [own, of]]) => [name, percent(own / of), of]),
  );
}
line();
verdict(
  `nine-in-ten forecasts held ${percent(nineInTen)} of the time, 85 % to 95 % is aimed for`,
  nineInTen >= 0.85 && nineInTen <= 0.95,
);
verdict(
  `Brier score ${brier.toFixed(4)}, that of a constant guess for each length of time is ${constant.toFixed(4)}`,
  brier < constant,
);
const crowds = crowdTrial(CROWDS, SEED);
line();
line(
  `The share that holds a change, told for ${CROWDS} windows with 60 followers each, against what happened:`,
);
table(
  ['after', 'told', 'happened', 'mean distance'],
  crowds.map(({ hours, told, happened, apart }) => [
    `${hours} h`,
    percent(told),
    percent(happened),
    percent(apart),
  ]),
);
