import fc, { type RunDetails } from 'fast-check';

/**
 * Prints how many cases a property took, and throws if one of them failed. Otherwise nobody would notice a property that a bound
 * or a filter has cut short. Vitest loads this file before each file of tests.
 */
function sayCases<T>(details: RunDetails<T>): void {
  const { numRuns, numSkips, failed, errorInstance } = details;
  // eslint-disable-next-line no-console -- Vitest shows it with the test's name.
  console.log(`${numRuns} ${numRuns === 1 ? 'case' : 'cases'}${numSkips ? `, ${numSkips} skipped` : ''}`);
  if (failed) throw new Error(fc.defaultReportMessage(details), { cause: errorInstance });
}

// Serves asynchronous properties, too.
fc.configureGlobal({ reporter: sayCases });
