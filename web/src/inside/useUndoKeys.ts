import { useEffect } from 'react';
import { isTyping } from './views/keys';

/** Ctrl+Z takes back, Ctrl+Shift+Z or Ctrl+Y does again, unless something is being typed. */
export function useUndoKeys(undo: () => Promise<void>, redo: () => Promise<void>, on: boolean): void {
  useEffect(() => {
    if (!on) return;
    const key = (event: KeyboardEvent) => {
      if (!(event.ctrlKey || event.metaKey) || isTyping(event.target)) return;
      const letter = event.key.toLowerCase();
      if (letter === 'y' || (letter === 'z' && event.shiftKey)) void redo();
      else if (letter === 'z') void undo();
      else return;
      event.preventDefault();
    };
    window.addEventListener('keydown', key);
    return () => window.removeEventListener('keydown', key);
  });
}
