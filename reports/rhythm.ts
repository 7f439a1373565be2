import { rhythmTrial } from '@zonal/core/testing/rhythmTrial';
import { line, percent, table, verdict } from './print';

/** Polls that are known of each follower, and the share that is to be right then. */
const TRIALS = [
  { polls: 4, aim: 0.8 },
  { polls: 10, aim: 0.95 },
  { polls: 30, aim: 0.95 },
  { polls: 100, aim: 0.95 },
];
const FOLLOWERS = 3000;
const SEED = 20261127;

line(
  `States told of ${FOLLOWERS} generated followers each, at any moment, against what is true of them (seed ${SEED}).`,
);
for (const { polls, aim } of TRIALS) {
  const { cases, right, confusion, byProgram } = rhythmTrial(polls, FOLLOWERS, SEED);
  const states = Object.keys(confusion) as (keyof typeof confusion)[];
  line();
  line(`After ${polls} polls`);
  table(
    ['true, down; told, across', ...states],
    states.map((truth) => [truth, ...states.map((told) => confusion[truth][told])]),
  );
  table(
    ['program', 'right', 'of'],
    Object.entries(byProgram).map(([name, [own, of]]) => [name, percent(own / of), of]),
  );
  verdict(`${percent(right / cases)} right, over ${percent(aim)} is aimed for`, right / cases > aim);
}
