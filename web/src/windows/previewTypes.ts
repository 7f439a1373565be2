import type { Reader, WindowRules } from '@zonal/core/glass';
import type { Showing } from '@zonal/core/forms';

export const PREVIEW_FORMS = ['page', 'embed', 'feed', 'freeBusy'] as const;
export type PreviewForm = (typeof PREVIEW_FORMS)[number];

/** What the studio asks of the worker. `stamp` changes whenever entries may have changed. */
export interface PreviewQuestion {
  readonly id: number;
  readonly rules: WindowRules;
  readonly reader: Reader;
  /** The key whose revision comes before the draft's; null for a window that is not opened yet. */
  readonly keyId: string | null;
  readonly form: PreviewForm;
  readonly show: Showing;
  /** The reader's zone, or empty for the host's. */
  readonly zone: string;
  readonly stamp: string;
  readonly now: number;
  readonly addresses: { readonly see: string; readonly feed: string };
}

export type PreviewAnswer =
  | {
      readonly id: number;
      readonly kind: 'page' | 'text';
      readonly text: string;
      /** Number of single times that a reader would see. */
      readonly count: number;
      /** Whether this is what is served now. */
      readonly isLive: boolean;
    }
  | { readonly id: number; readonly kind: 'error'; readonly text: string };
