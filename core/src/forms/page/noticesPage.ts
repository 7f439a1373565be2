import type { OutwardView } from '../../glass';
import { addressWith, hiddenFields, type Choice, type PageOptions } from './choice';
import { html, type Html } from './html';
import { zoneChoices } from './settingsPage';

/** How often somebody is written to, by what a form says. */
export const NOTICE_WAYS = ['at-once', 'daily'] as const;
export type NoticeWay = (typeof NOTICE_WAYS)[number];

const WAYS = { 'at-once': 'noticesAtOnce', daily: 'noticesDaily' } as const;

/** Whether readers of a page may leave a mail address to hear of changes. */
export function mayLeave(
  { wording }: Pick<OutwardView, 'wording'>,
  { addresses, form }: PageOptions,
): boolean {
  return wording.notices !== false && addresses.notices !== undefined && form === 'page';
}

/** Returns the page on which somebody leaves a mail address to hear of changes. */
export function noticesPart(view: OutwardView, choice: Choice, options: PageOptions): Html {
  const { speech, text, zone, zoneAsked } = choice;
  const { name } = text;
  const back = html`<p><a href="${addressWith(options, {})}">${speech.say('back', { name })}</a></p>`;
  if (!mayLeave(view, options))
    return html`<main id="entries" class="prose">
${back}
<h2>${speech.say('noticesNoMailTitle')}</h2>
<p>${speech.say('noticesNoMailSay')}</p>
</main>`;
  const token = options.addresses.see.split('/').at(-1)!;
  return html`<main id="entries" class="prose">
${back}
<h2>${speech.say('noticesTitle', { name })}</h2>
<p>${speech.say('noticesSay')}</p>
<form method="post" action="${options.addresses.notices}" class="settings">
${hiddenFields([
  ['at', token],
  ['lang', options.query.lang || speech.locale],
  ['clock', speech.clock],
])}
<p><label>${speech.say('noticesMail')}<br><input name="mail" type="email" required maxlength="200" autocomplete="email"></label></p>
<fieldset><legend>${speech.say('noticesWhen')}</legend>
${NOTICE_WAYS.map((way, i) => html`<p><label><input type="radio" name="way" value="${way}"${i === 0 && html` checked`}> ${speech.say(WAYS[way])}</label></p>`)}
</fieldset>
<p><label>${speech.say('yourZone')}<br><select name="tz">${zoneChoices(view.hostZone, zoneAsked ? zone : null, choice, options.now)}</select></label></p>
<p><button>${speech.say('noticesSend')}</button></p>
<p class="about">${speech.say('noticesKept')}</p>
</form></main>`;
}
