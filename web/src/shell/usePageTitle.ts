import { useEffect, type RefObject } from 'react';

const APPLICATION = 'Zonal Window';

/** Gives the browser's tab the title of the screen: its first heading, whenever that comes or changes. */
export function usePageTitle(main: RefObject<HTMLElement | null>): void {
  useEffect(() => {
    const screen = main.current;
    if (!screen) return;
    const show = () => {
      const heading = screen.querySelector('h1')?.textContent?.trim();
      document.title = heading ? `${heading} · ${APPLICATION}` : APPLICATION;
    };
    show();
    const observer = new MutationObserver(show);
    observer.observe(screen, { childList: true, subtree: true, characterData: true });
    return () => {
      observer.disconnect();
      document.title = APPLICATION;
    };
  }, [main]);
}
