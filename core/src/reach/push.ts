/** How a push stands: what an organiser is told, and what is to be done. */
export const PUSH_STATES = {
  on: { word: 'on', todo: '' },
  paused: { word: 'paused', todo: 'Nothing is sent. What changed meanwhile is told once it goes on.' },
  failing: {
    word: 'stopped',
    todo: 'It was tried again and again. Look at the last tries, have the other side mended, send a test, and let it go on.',
  },
} as const;
export type PushState = keyof typeof PUSH_STATES;
