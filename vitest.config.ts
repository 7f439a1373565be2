import { defineConfig } from 'vitest/config';
import { BaseSequencer, type TestSpecification } from 'vitest/node';

/** The files that take longest. They begin first, so that no worker is left alone with one of them in the end. */
const LONGEST = [
  'server/src/histories/',
  'core/src/forms/nonInterference',
  'docs/addingAField',
  'server/src/processes',
  'server/src/edges',
  'server/src/people/rights',
  'server/src/stopping',
  'server/src/reach/tellingProcesses',
  'server/src/outside/closedViews',
];

class LongestFirst extends BaseSequencer {
  override async sort(files: TestSpecification[]): Promise<TestSpecification[]> {
    const rank = ({ moduleId }: TestSpecification) => {
      const at = LONGEST.findIndex((name) => moduleId.includes(name));
      return at < 0 ? LONGEST.length : at;
    };
    return (await super.sort(files)).sort((a, b) => rank(a) - rank(b));
  }
}

export default defineConfig({
  test: {
    include: [
      'core/src/**/*.test.ts',
      'server/src/**/*.test.ts',
      'web/src/**/*.test.{ts,tsx}',
      'demo/src/**/*.test.ts',
      'standins/src/**/*.test.ts',
      'docs/*.test.ts',
    ],
    setupFiles: ['core/src/testing/sayCases.ts'],
    // Many tests of the server wait for other processes: a third worker keeps two cores busy meanwhile.
    maxWorkers: 3,
    sequence: { sequencer: LongestFirst },
    // Modules are read once for many files: none of them keeps anything that another one would meet.
    isolate: false,
    // Nothing is tested by its time. A machine with ten times as much to do as it has cores meets these.
    testTimeout: 600_000,
    hookTimeout: 600_000,
  },
});
