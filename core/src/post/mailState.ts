/** How a mail stands, and what to do about it; `waiting` and `sending` see to themselves. */
export const MAIL_STATES = {
  waiting: { word: 'waiting', todo: '' },
  sending: { word: 'being sent', todo: '' },
  sent: { word: 'sent', todo: '' },
  kept: {
    word: 'kept here',
    todo: 'No mail server is set. Set one below, and it is sent.',
  },
  failed: {
    word: 'not sent',
    todo: 'The mail server did not take it. Look at the reason, mend it, and send it again.',
  },
  unsure: {
    word: 'may have been sent',
    todo: 'The connection broke while it was handed over. Ask whether it came before you send it again.',
  },
} as const;
export type MailState = keyof typeof MAIL_STATES;
