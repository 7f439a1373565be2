/** How a mail stands, and what to do about it; `waiting` and `sending` see to themselves. */
export const MAIL_STATES = {
  waiting: { word: 'waiting', todo: '' },
  sending: { word: 'being sent', todo: '' },
  sent: { word: 'sent', todo: '' },
  kept: {
    word: 'stored here',
    todo: 'No mail server is set up. Set one up below, and it is sent.',
  },
  failed: {
    word: 'not sent',
    todo: 'The mail server did not accept it. Read the reason, fix it, and send it again.',
  },
  unsure: {
    word: 'may have been sent',
    todo: 'The connection broke while it was being sent. Ask whether it arrived before you send it again.',
  },
} as const;
export type MailState = keyof typeof MAIL_STATES;
