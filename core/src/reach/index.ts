export {
  byLeaving,
  fingerprintOf,
  isTold,
  leavingAt,
  nextRevision,
  overAt,
  printOf,
  rekeyed,
  type Gone,
  type Revision,
  type Stamp,
} from './revision';
export { ledgerItem, ledgerStep, outwardItem, viewAfter, type LedgerItem, type LedgerStep } from './ledger';
export { isPassedOn, programOf, readersBehind } from './program';
export { habitAfter, type Habit } from './habit';
export { priorOf, type Prior } from './waiting';
export {
  CURVE,
  forecastOf,
  nextLookOf,
  shareAfter,
  type Awaited,
  type Forecast,
  type NextLook,
} from './forecast';
export { SUBSCRIBER_STATES, stateOf, type SubscriberState } from './state';
export {
  KEPT_DAYS,
  POLL_FORMS,
  USUAL_KEPT_DAYS,
  packPolls,
  unpackPolls,
  type PollForm,
  type PollRecord,
} from './pollRecord';
export {
  ALERT_KINDS,
  alertWords,
  alertsOf,
  type AlertFacts,
  type AlertKind,
  type AlertProblem,
  type Raised,
  type Watched,
} from './alerts';
export { COUNTED_FOR, knowsBy, spreadCurve, standingOf, type Spread, type Standing } from './standing';
export { PUSH_STATES, type PushState } from './push';
export {
  nextMorning,
  toldChanges,
  touchedSince,
  type ToldBefore,
  type ToldChange,
  type ToldChanges,
  type ToldPart,
} from './told';
