import type { OutwardWindow } from '@zonal/core/api';
import { t } from '../texts/rehearsal';

/** Says what readers get of a window that cannot be worked out, and why. */
export function troubleWords({ reason, shows }: NonNullable<OutwardWindow['trouble']>): string {
  return t(shows === 'nothing' ? 'readersGetNothing' : 'readersGetLast', { reason });
}
