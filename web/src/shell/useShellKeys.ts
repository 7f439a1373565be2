import { useEffect, useState } from 'react';
import { useLocation, useNavigate } from 'react-router';
import { WRITE_ON_ARRIVAL } from '../inside/useWriteKey';
import { isTyping } from '../inside/views/keys';

const DESK = '/calendars';

/** Listens for the keys that work on every screen: `?` lists all keys, Alt+W goes to the calendars and writes an entry there. */
export function useShellKeys() {
  const [isListed, setListed] = useState(false);
  const navigate = useNavigate();
  const { pathname } = useLocation();
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      // A dialog has keys of its own.
      if (document.querySelector('[role=dialog], [role=alertdialog]')) return;
      if (event.key === '?' && !isTyping(event.target)) setListed(true);
      else if (event.altKey && event.code === 'KeyW' && pathname !== DESK)
        void navigate(DESK, { state: WRITE_ON_ARRIVAL });
      else return;
      event.preventDefault();
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  }, [navigate, pathname]);
  return { isListed, list: () => setListed(true), close: () => setListed(false) };
}
