import { directionOf } from '../speech/reading';
import type { WindowLink } from '../windowLink';
import { textFor } from './choice';
import { html, type Html } from './html';

/** Returns the address of the page that tells how to follow a calendar. */
export function followAddress({ see }: Pick<WindowLink, 'see'>): string {
  return `${see}/follow`;
}

/** Returns how a window is told of on a page of several: its name, which leads to its page, and what it is about. */
export function windowHead(link: WindowLink, level: 'h2' | 'h3', languages: readonly string[]): Html {
  const { language, name, description } = textFor(link.wording, languages);
  const marked = language && html` lang="${language}" dir="${directionOf(language)}"`;
  return html`<${level}${marked}><span class="plate plate-${link.wording.colour}" aria-hidden="true"></span><a href="${link.see}">${name}</a></${level}>
${description && html`<p${marked}>${description}</p>`}`;
}
