import { useEffect, useRef, type RefObject } from 'react';
import { useLocation } from 'react-router';

/** How long a screen may take to show its heading before the focus stays where it is, in milliseconds. */
const PATIENCE_MS = 10_000;

/**
 * Moves the focus to the first heading of the screen after its address has changed, so that a screen reader says where it is. The
 * focus stays in a field or a dialog to which the new screen has moved it.
 */
export function useHeadingFocus(main: RefObject<HTMLElement | null>): void {
  const { pathname } = useLocation();
  const shown = useRef(pathname);
  useEffect(() => {
    const screen = main.current;
    if (!screen || shown.current === pathname) return;
    shown.current = pathname;
    const move = () => {
      const heading = screen.querySelector('h1');
      if (!heading) return false;
      const focused = document.activeElement;
      // A field or a dialog of the new screen that has the focus keeps it; a link has done its work.
      const isFree = !document.querySelector('[role=dialog], [role=alertdialog]');
      if (isFree && (!focused || !screen.contains(focused) || focused instanceof HTMLAnchorElement)) {
        heading.tabIndex = -1;
        heading.focus({ preventScroll: true });
      }
      return true;
    };
    const observer = new MutationObserver(() => move() && observer.disconnect());
    if (!move()) observer.observe(screen, { childList: true, subtree: true });
    const timer = setTimeout(() => observer.disconnect(), PATIENCE_MS);
    return () => {
      observer.disconnect();
      clearTimeout(timer);
    };
  }, [pathname, main]);
}
