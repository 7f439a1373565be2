export type * from './answers';
export type { AnswerOf, BodyOf, CallName, Calls, PathPart, QueryOf } from './calls';
