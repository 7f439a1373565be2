import type { Wording, WordingText } from '../glass';
import type { ZoneName } from '../zones';

/** A window as it is handed on: how it names itself, and where it is. Nothing else of it is told. */
export interface WindowLink {
  readonly wording: WordingText & Pick<Wording, 'colour' | 'place' | 'translations'>;
  readonly zone: ZoneName;
  /** Absolute addresses of its page and its feed. */
  readonly see: string;
  readonly feed: string;
}
