export { pick, randomFrom } from './random';
export { PLAIN, dueNext, looksOf, nextLook, type Hours, type Program } from './program';
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
export { EMPTY_SHELF, memoryOf, shelved, syncRequest, type Shelf } from './collection';
