/** What cannot be worked out for a window, and what readers get meanwhile: what they had, or nothing. */
export interface Trouble {
  readonly windowId: string;
  readonly at: string;
  /** For organisers: it may name what readers must not see. */
  readonly reason: string;
  readonly shows: 'last' | 'nothing';
}
