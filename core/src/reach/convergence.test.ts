import { describe, expect, it } from 'vitest';
import { cases } from '../testing/effort';
import { convergenceTrial } from '../testing/convergenceTrial';

describe('programs that follow a window through random histories', () => {
  const told = convergenceTrial(cases(150), 17);

  it.each([
    'replace-all',
    'merge-uid',
    'merge-sequence',
    'drop-missing',
    'ignore-cancelled',
    'cache-dtstamp',
    'merge-blind',
    'difference',
    'dav',
  ] as const)('end with what is outside: %s', (habit) => {
    const { converged, histories, example } = told[habit];
    expect(example).toBeNull();
    expect(converged).toBe(histories);
  });

  it('end so mostly, where each component is kept for itself: dates of an entry that has left are not named', () => {
    const { converged, histories } = told['instance-only'];
    expect(converged / histories).toBeGreaterThan(0.6);
  });

  it('would not, if they were never told what has left', () => {
    const silent = convergenceTrial(cases(30), 17, 0);
    expect(silent['replace-all'].converged).toBe(silent['replace-all'].histories);
    for (const habit of ['merge-uid', 'merge-sequence', 'merge-blind'] as const)
      expect(silent[habit].converged).toBeLessThan(silent[habit].histories * 0.75);
  });
});
