/** What has become of a request. */
export type RequestState = 'open' | 'granted' | 'refused' | 'taken-back';

/** What every request of a colleague has, whatever it asks for. */
export interface RequestRecord {
  readonly id: string;
  /** Name of the person who asks. */
  readonly by: string;
  readonly at: string;
  readonly reason: string;
  readonly state: RequestState;
  readonly answeredBy: string;
  readonly answeredAt: string | null;
  /** Whether it is the caller's own. */
  readonly own: boolean;
  /** Whether the caller may answer it. */
  readonly toAnswer: boolean;
}
