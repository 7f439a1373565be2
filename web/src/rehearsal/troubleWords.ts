import type { OutwardWindow } from '@zonal/core/api';

/** Says what readers get of a window that cannot be worked out, and why. */
export function troubleWords({ reason, shows }: NonNullable<OutwardWindow['trouble']>): string {
  const what = shows === 'nothing' ? 'Readers get nothing just now' : 'Readers get what was last known';
  return `${what}: ${reason}`;
}
