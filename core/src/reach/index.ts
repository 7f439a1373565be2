export { nextRevision, printOf, rekeyed, type Revision, type Stamp } from './revision';
export { ledgerItem, ledgerStep, outwardItem, viewAfter, type LedgerItem, type LedgerStep } from './ledger';
export { isPassedOn, programOf, readersBehind } from './program';
