import { useEffect, useState } from 'react';
import { useLocation } from 'react-router';

/** What a screen that leads to the calendars says in the state of the address, to have a new entry written there. */
export const WRITE_ON_ARRIVAL = { writes: true } as const;

/** Returns whether the state of the address says so. It says so once: loading the page again writes nothing. */
export function useWritesOnArrival(): boolean {
  const { state } = useLocation() as { state: unknown };
  const [writes] = useState(() => typeof state === 'object' && state !== null && 'writes' in state);
  useEffect(() => {
    if (writes) window.history.replaceState({ ...window.history.state, usr: null }, '');
  }, [writes]);
  return writes;
}

/** Alt+W begins a new entry; `write` is null if there is none to begin now. */
export function useWriteKey(write: (() => void) | null): void {
  useEffect(() => {
    if (!write) return;
    const press = (event: KeyboardEvent) => {
      if (!event.altKey || event.code !== 'KeyW') return;
      event.preventDefault();
      write();
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  });
}
