import { KEEPING, type Keeping } from '@zonal/core/followers';
import { convergenceTrial, type Following } from '@zonal/core/testing/convergenceTrial';
import { line, percent, table, verdict } from './print';

const HISTORIES = 400;
const SEED = 20261127;
/** Habits by which a program cannot always end with what is outside, with the reason; docs/sync.md says more. */
const CANNOT: Partial<Record<Following, string>> = {
  'instance-only':
    'dates of an entry that has left are not named any more, as that would tell when they were',
};

line(
  `Programs that look now and then while ${HISTORIES} windows change at random, and what they hold in the end (seed ${SEED}).`,
);
line();
const told = convergenceTrial(HISTORIES, SEED);
const SAY: Readonly<Record<Following, string>> = {
  ...(Object.fromEntries(Object.entries(KEEPING).map(([h, { say }]) => [h, say])) as Record<Keeping, string>),
  difference: 'asks only for what has changed since its last look, and lets go of what is told as deleted',
  dav: 'syncs a collection by difference: takes members that changed, and drops those that are not found',
};
const habits = Object.keys(SAY) as Following[];
table(
  ['habit', 'histories', 'converged', ''],
  habits.map((habit) => {
    const { histories, converged } = told[habit];
    return [habit, histories, converged, percent(converged / histories)];
  }),
);
line();
for (const habit of habits) line(`${habit}: ${SAY[habit]}${CANNOT[habit] ? `; ${CANNOT[habit]}` : ''}.`);
line();
for (const habit of habits) {
  const { histories, converged, example } = told[habit];
  if (CANNOT[habit]) continue;
  verdict(`${habit} ended with what is outside in all histories`, converged === histories);
  if (example)
    line(`          history ${example.history}: missing ${example.missing[0]}, more ${example.more[0]}`);
}
