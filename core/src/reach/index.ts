export { nextRevision, printOf, type Revision, type Stamp } from './revision';
