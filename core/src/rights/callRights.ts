import type { CallName } from '../api';
import type { Deed } from './rights';

/**
 * Where the calendars are named that a call concerns: by its path, by what its path leads to, or in what is sent. `all of
 * a window` are all its sources; `any of a window` is enough where one of them is one's own.
 */
export type Concerned =
  | 'calendar'
  | 'known calendar'
  | 'wish'
  | 'source'
  | 'entry'
  | 'edit'
  | 'changes'
  | 'sources'
  | 'ceiling'
  | 'all of a window'
  | 'all of a window and sources'
  | 'all of a window and sent draft'
  | 'all of a window and stored draft'
  | 'any of a window'
  | 'all of a key'
  | 'any of a key'
  | 'sheet'
  | 'sheet and items'
  | 'items';

/** Who may make a call; `cut` are those whose answer has nothing but what the asker may see. */
export type CallRight =
  'anybody' | 'signed in' | 'cut' | 'steward' | { readonly deed: Deed; readonly on: Concerned };

const on = (deed: Deed, concerned: Concerned): CallRight => ({ deed, on: concerned });

/** Who may make each call of the API: a route that has no line here does not compile, and does not start. */
export const CALL_RIGHTS: Readonly<Record<CallName, CallRight>> = {
  'GET /demo': 'anybody',
  'GET /session': 'anybody',
  'POST /session': 'anybody',
  'DELETE /session': 'anybody',

  'GET /calendars': 'cut',
  'POST /calendars': 'signed in',
  'PUT /calendars/:id': on('manage', 'calendar'),
  'DELETE /calendars/:id': on('manage', 'calendar'),
  'PUT /calendars/:id/archive': on('manage', 'calendar'),
  'POST /calendars/:id/zone': on('manage', 'calendar'),
  'GET /calendars/:id/impact': on('manage', 'calendar'),
  'POST /calendars/:id/lock-down': on('publish', 'calendar'),
  'DELETE /calendars/:id/lock-down': on('publish', 'calendar'),
  'GET /calendars/:id/people': on('people', 'calendar'),
  'PUT /calendars/:id/people': on('people', 'calendar'),

  'GET /calendars/:id/entries': on('see', 'calendar'),
  'POST /calendars/:id/entries': on('write', 'calendar'),
  'POST /calendars/:id/images': on('write', 'calendar'),
  'GET /calendars/:id/images/:name': 'cut',
  'GET /find': 'cut',
  'GET /entries/:id': on('see-all', 'entry'),
  'GET /entries/:id/history': on('see-all', 'entry'),
  'PUT /entries/:id': on('write', 'entry'),
  'DELETE /entries/:id': on('write', 'entry'),

  'POST /edits': on('write', 'changes'),
  'POST /edits/:id/changes': on('write', 'changes'),
  'DELETE /edits/:id': on('write', 'edit'),
  'POST /edits/:id/apply': on('write', 'edit'),
  'POST /edits/:id/take-back': on('write', 'edit'),
  'POST /edits/:id/again': on('write', 'edit'),

  'GET /windows': 'cut',
  'GET /windows/:id': on('see-windows', 'any of a window'),
  'POST /windows': on('publish', 'sources'),
  'PUT /windows/:id': on('publish', 'all of a window and sources'),
  'PUT /windows/:id/draft': on('publish', 'all of a window and sent draft'),
  'DELETE /windows/:id/draft': on('publish', 'all of a window'),
  'POST /windows/:id/schedule': on('publish', 'all of a window and stored draft'),
  'GET /windows/:id/versions': on('see-windows', 'any of a window'),
  'DELETE /windows/:id/sources/:calendarId': on('publish', 'source'),
  'PUT /windows/:id/closing': on('publish', 'all of a window'),
  'POST /windows/:id/close': on('publish', 'all of a window'),
  'POST /windows/:id/open': on('publish', 'all of a window'),
  'DELETE /windows/:id': on('publish', 'all of a window'),

  'GET /keys/:id/revision': on('see-windows', 'any of a key'),
  'POST /windows/:id/keys': on('publish', 'all of a window'),
  'PUT /keys/:id': on('publish', 'all of a key'),
  'PUT /keys/:id/embed': on('publish', 'all of a key'),
  'POST /keys/:id/turn': on('publish', 'all of a key'),
  'POST /keys/:id/withdraw': on('publish', 'all of a key'),
  'POST /keys/:id/bring-back': on('publish', 'all of a key'),
  'GET /keys/:id/ledger': on('see-windows', 'any of a key'),
  'GET /keys/:id/ledger/:number': on('see-windows', 'any of a key'),

  'GET /keys/:id/push': on('publish', 'all of a key'),
  'PUT /keys/:id/push': on('publish', 'all of a key'),
  'PUT /keys/:id/push/state': on('publish', 'all of a key'),
  'POST /keys/:id/push/secret': on('publish', 'all of a key'),
  'POST /keys/:id/push/test': on('publish', 'all of a key'),
  'DELETE /keys/:id/push': on('publish', 'all of a key'),

  'GET /reach': 'cut',
  'GET /reach/knowing': 'cut',
  'GET /windows/:id/reach': on('see-windows', 'any of a window'),
  'GET /alerts': 'cut',
  'PUT /windows/:id/alerts': on('see-windows', 'any of a window'),
  'PUT /windows/:id/urgent': on('see-windows', 'any of a window'),
  'POST /windows/:id/reach/mail': on('publish', 'all of a window'),

  'GET /sheets': 'cut',
  'POST /sheets': on('see-windows', 'items'),
  'POST /sheets/check': on('see-windows', 'items'),
  'PUT /sheets/:id': on('see-windows', 'sheet and items'),
  'POST /sheets/:id/turn': on('see-windows', 'sheet'),
  'POST /sheets/:id/withdraw': on('see-windows', 'sheet'),
  'POST /sheets/:id/bring-back': on('see-windows', 'sheet'),

  'GET /changes': 'cut',

  'GET /ceilings': 'cut',
  'PUT /ceilings': 'steward',
  'POST /ceilings/requests': on('ask-ceiling', 'ceiling'),
  'POST /ceilings/requests/:id': 'steward',
  'DELETE /ceilings/requests/:id': 'cut',

  'GET /house': 'cut',
  'PUT /house': 'steward',
  'GET /house/watch': 'cut',
  'GET /labels': 'cut',
  'DELETE /labels/:name': 'steward',
  'GET /directory': 'cut',
  'PUT /directory/:id/desk': on('see', 'known calendar'),
  'GET /wishes': 'cut',
  'POST /calendars/:id/wishes': on('ask-to-see', 'known calendar'),
  'POST /wishes/:id': on('people', 'wish'),
  // One's own.
  'DELETE /wishes/:id': 'cut',

  'GET /people': 'cut',
  'GET /standings': 'cut',
  'PUT /people/:id/steward': 'steward',
  'POST /people/:id/password-address': 'steward',
  'PUT /people/:id/rest': 'steward',

  'GET /invitations': 'steward',
  'POST /invitations': 'steward',
  'PUT /invitations/:id': 'steward',
  'POST /invitations/:id/resend': 'steward',
  'DELETE /invitations/:id': 'steward',

  // Whoever has the address: it says itself whom it is for.
  'POST /passes': 'anybody',
  'POST /passes/invitation': 'anybody',
  'POST /passes/first': 'anybody',
  'POST /passes/password': 'anybody',
  'POST /passes/address': 'anybody',
  'POST /forgotten': 'anybody',

  // One's own.
  'GET /account': 'signed in',
  'PUT /account': 'signed in',
  'PUT /account/password': 'signed in',
  'POST /account/address': 'signed in',
  'DELETE /account/devices': 'signed in',
  'DELETE /account/devices/:id': 'signed in',

  'GET /journal': 'steward',

  'GET /post': 'steward',
  'PUT /post/server': 'steward',
  'DELETE /post/server': 'steward',
  'POST /post/test': 'steward',
  'POST /post/:id/again': 'steward',
};
