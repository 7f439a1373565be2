export { PROBLEMS, type ProblemCode } from './table';
export { Problem, sentence, type ProblemDetails } from './problem';
