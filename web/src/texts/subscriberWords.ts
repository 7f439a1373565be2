import * as reach from '@zonal/core/reach';
import * as german from '@zonal/core/words';
import { ownWords } from './ownWords';

/* The words for subscribers and pushes in the language of the page. The names are those of the core. */

export const PUSH_STATES = ownWords(reach.PUSH_STATES, german.PUSH_STATE_DE);
export const SUBSCRIBER_STATES = ownWords(reach.SUBSCRIBER_STATES, german.SUBSCRIBER_STATE_DE);
