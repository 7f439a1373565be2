export { pick, randomFrom } from './random';
export { PLAIN, dueNext, looksOf, type Hours, type Program } from './program';
export { someProgram, truthOf, type Follower, type Truth } from './crowd';
export {
  KEEPING,
  NO_MEMORY,
  remember,
  rememberDifference,
  shownBy,
  timeLine,
  timesIn,
  type Keeping,
  type Memory,
} from './memory';
