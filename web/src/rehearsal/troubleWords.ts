import type { OutwardWindow } from '@zonal/core/api';
import { sentence } from '@zonal/core/problems';
import { LANGUAGE } from '../texts/language';
import { t } from '../texts/rehearsal';

/** Says what readers get of a window that cannot be worked out, and why. */
export function troubleWords({ problem, shows }: NonNullable<OutwardWindow['trouble']>): string {
  return t(shows === 'nothing' ? 'readersGetNothing' : 'readersGetLast', {
    reason: sentence(problem.code, problem.details, LANGUAGE),
  });
}
