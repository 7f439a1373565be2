export { nextRevision, printOf, type Revision, type Stamp } from './revision';
export { ledgerItem, ledgerStep, outwardItem, viewAfter, type LedgerItem, type LedgerStep } from './ledger';
