import { Empty, Loading } from '../ui/Notice';
import { ProblemNotice } from '../ui/ProblemNotice';
import { isRefused } from './fetchTrouble';
import { problemOf } from './baseApi';

interface WaitingProps {
  /** What is being fetched, as in “Fetching windows”. */
  readonly what: string;
  /** Why the query failed, if it did. */
  readonly error: unknown;
}

/** Stands in for what has not been fetched yet. The banner of the shell says what went wrong on the way, and tries again. */
export function Waiting({ what, error }: WaitingProps) {
  if (!error) return <Loading what={what} />;
  if (isRefused(error)) return <ProblemNotice problem={problemOf(error)} />;
  return <Empty>This could not be loaded. Try again above.</Empty>;
}
