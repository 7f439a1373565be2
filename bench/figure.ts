/** One budget of docs/engineering and what was measured against it, both in this run on this machine. */
export interface Figure {
  readonly what: string;
  readonly measured: string;
  readonly ratio: number;
  readonly budget: string;
  readonly kept: boolean;
}
