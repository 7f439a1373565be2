export {
  JOURNAL_AREAS,
  JOURNAL_KINDS,
  journalField,
  journalKindWord,
  journalValue,
  type JournalArea,
  type JournalKind,
  type JournalKindName,
} from './kinds';
export { JOURNAL_TURNS, journalChanges, turnOf, type JournalChange, type JournalTurn } from './line';
