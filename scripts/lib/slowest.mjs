/** Returns the tests of one runner's report with how long each took, in milliseconds. */
const TIMES = {
  unit: (report) =>
    report.testResults.flatMap((file) =>
      file.assertionResults.map(({ duration, fullName }) => ({ name: fullName, took: duration ?? 0 })),
    ),
  e2e: (report) => specsOf(report.suites).map(({ title, tests }) => ({ name: title, took: tookOf(tests) })),
};

function specsOf(suites = []) {
  return suites.flatMap((suite) => [...(suite.specs ?? []), ...specsOf(suite.suites)]);
}

function tookOf(tests) {
  return tests.flatMap((t) => t.results).reduce((sum, { duration }) => sum + duration, 0);
}

/** Returns the slowest tests of some reports as lines, slowest first. */
export function slowest(reports, most = 10) {
  return Object.entries(reports)
    .flatMap(([runner, report]) => TIMES[runner](report))
    .sort((a, b) => b.took - a.took)
    .slice(0, most)
    .map(({ name, took }) => `${(took / 1000).toFixed(1).padStart(7)} s  ${name}`);
}
