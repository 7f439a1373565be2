export { nextRevision, printOf, type Revision, type Stamp } from './revision';
export { ledgerStep, viewAfter, type LedgerItem, type LedgerStep } from './ledger';
