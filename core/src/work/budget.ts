import { Problem } from '../problems';

/**
 * Counts the steps of one computation on what somebody wrote, and refuses to go on when there are too many. Steps are
 * counted, not time, so that the same input is taken or refused on every machine.
 */
export class Budget {
  private left: number;

  /** `what` says in a sentence's middle what is too much: "the recurrence rule". */
  constructor(
    readonly most: number,
    private readonly what: string,
  ) {
    this.left = most;
  }

  /** Takes some steps. Throws `too-much-work` when there are not as many left. */
  spend(steps = 1): void {
    this.left -= steps;
    if (this.left < 0) throw new Problem('too-much-work', { what: this.what });
  }
}
