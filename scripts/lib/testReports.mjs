import { relative } from 'node:path';
import { stripVTControlCharacters } from 'node:util';
import { ROOT } from './run.mjs';

/** Returns all tests of one runner's JSON report: name, file, duration in milliseconds, and messages if it failed. */
const TESTS_OF = {
  vitest: (report) =>
    report.testResults.flatMap(({ name, status, message, assertionResults }) => {
      const file = relative(ROOT, name);
      return [
        ...assertionResults.map(({ fullName, duration, status: outcome, failureMessages }) => ({
          name: fullName,
          file,
          took: duration ?? 0,
          failures: outcome === 'failed' ? failureMessages : [],
        })),
        // A file that could not be loaded has no tests, only a message.
        ...(status === 'failed' && assertionResults.length === 0
          ? [{ name: 'The file itself', file, took: 0, failures: [message] }]
          : []),
      ];
    }),
  playwright: (report) =>
    specsOf(report.suites).map(({ title, file, ok, tests }) => {
      const results = tests.flatMap((test) => test.results);
      return {
        name: title,
        file,
        took: results.reduce((sum, { duration }) => sum + duration, 0),
        failures: ok ? [] : results.flatMap((result) => result.errors.map((error) => error.message ?? '')),
      };
    }),
};

function specsOf(suites = []) {
  return suites.flatMap((suite) => [...(suite.specs ?? []), ...specsOf(suite.suites)]);
}

/** Returns the tests of a JSON report, whichever of the two runners wrote it. */
export function testsOf(report) {
  return TESTS_OF[report.suites ? 'playwright' : 'vitest'](report);
}

/** Returns the slowest tests as lines, slowest first. */
export function slowestLines(tests, max = 10) {
  return tests
    .toSorted((a, b) => b.took - a.took)
    .slice(0, max)
    .map(({ name, took }) => `${(took / 1000).toFixed(1).padStart(7)} s  ${name}`);
}

/** How many lines of a failure's message are repeated at the end of a run. */
const MAX_MESSAGE_LINES = 12;

/** Returns what failed as lines: file and name of each test, with the beginning of its message. */
export function failureLines(tests) {
  return tests
    .filter(({ failures }) => failures.length > 0)
    .flatMap(({ name, file, failures }) => [
      `${file}: ${name}`,
      ...failures.flatMap((message) =>
        stripVTControlCharacters(message)
          .split('\n')
          .filter((line) => !line.includes('node_modules'))
          .slice(0, MAX_MESSAGE_LINES)
          .map((line) => `    ${line}`),
      ),
    ]);
}
