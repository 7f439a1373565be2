/** How a push stands: what an organiser is told, and what is to be done. */
export const PUSH_STATES = {
  on: { word: 'on', todo: '' },
  paused: { word: 'paused', todo: 'Nothing is sent. Changes are reported once you resume.' },
  failing: {
    word: 'stopped',
    todo: 'Several attempts failed. Look at the latest ones, have the cause fixed, send a test, and resume.',
  },
} as const;
export type PushState = keyof typeof PUSH_STATES;
