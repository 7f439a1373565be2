import Bowser from 'bowser';

/** Returns the program that a reader's header names, and what it runs on, in words: `Firefox on Linux`. */
export function programOf(userAgent: string | undefined): string {
  if (!userAgent) return 'a program that does not say its name';
  const { browser, os } = Bowser.parse(userAgent.slice(0, 500));
  const name = browser.name || userAgent.split(/[/ ]/)[0]!;
  return (os.name ? `${name} on ${os.name}` : name).slice(0, 80);
}
