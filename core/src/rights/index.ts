export {
  DEEDS,
  deedWords,
  HOUSE_ROLES,
  STANDINGS,
  may,
  whoMay,
  type Deed,
  type HouseRole,
  type Sight,
  type Standing,
  type Who,
} from './rights';
export { HouseRights, type GuardedCalendar, type Made } from './houseRights';
export { DEFERRED_EFFECTS, type DeferredEffect } from './deferredEffects';
export { CALL_RIGHTS, type CallRight, type Concerned } from './callRights';
export {
  clearerInside,
  entriesInside,
  rangeInside,
  rulesInside,
  glassInside,
  type InsideGlass,
  type InsideSetting,
} from './insideView';
export { ACCOUNT_LIMITS } from './accountLimits';
export { PASSWORD_LIMITS, passwordTrouble, passwordWords, type PasswordTrouble } from './passwords';
export {
  INVITATION_DAYS,
  INVITATION_LIMITS,
  INVITATION_STATES,
  addressesIn,
  invitationState,
  isOutside,
  type InvitationState,
} from './invitations';
export { ceilingRequestWords, standingNames, standingWords, wishWords } from './wishWords';
export {
  insideCellOf,
  insideSight,
  type InsideCell,
  type InsideRow,
  type InsideWay,
  type NamedPerson,
} from './insideSight';
export { ownKeyCap } from './ownKey';
