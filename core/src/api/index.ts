export type * from './answers';
export type * from './directory';
export type * from './journal';
export type * from './people';
export type * from './requests';
export type { AnswerOf, BodyOf, CallName, Calls, PathPart, QueryOf } from './calls';
export type * from './reach';
