import type { Trouble as Told } from '@zonal/core/api';

/** What cannot be worked out for a window. Its reason is for organisers: it may name what readers must not see. */
export interface Trouble extends Told {
  readonly windowId: string;
}
