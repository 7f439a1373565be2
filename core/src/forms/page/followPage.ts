import { addressWith, type Choice, type PageOptions } from './choice';
import type { OutwardView } from '../../glass';
import { html, type Html } from './html';
import { mayLeave } from './noticesPage';
import type { Speech } from '../speech/speech';

/** Returns the address by which programs of a device open a feed. */
export function webcalOf(feed: string): string {
  return feed.replace(/^https?:/, 'webcal:');
}

/** Returns the two ways to have a calendar, told apart in short. */
export function takePart(view: OutwardView, { speech }: Choice, options: PageOptions): Html {
  const { addresses } = options;
  return html`<section class="take" aria-label="${speech.list([speech.say('follow'), speech.say('copy')])}">
<div id="follow"><h2>${speech.say('follow')}</h2>
<p>${speech.say('followSay')}</p>
<p><a class="button" href="${webcalOf(addresses.feed)}">${speech.say('followOpen')}</a></p>
<p><a href="${addressWith(options, {}, '/follow')}">${speech.say('followHow')}</a></p>${
    mayLeave(view, options) &&
    html`
<p><a href="${addressWith(options, {}, '/notices')}">${speech.say('notices')}</a> <span>${speech.say('noticesShort')}</span></p>`
  }</div>
<div id="copy"><h2>${speech.say('copy')}</h2>
<p>${speech.say('copySay')}</p>
<p><a class="button quiet" href="${addresses.copy}" download>${speech.say('copyFile')}</a></p></div>
</section>`;
}

/** Returns an address to copy; the script adds the button, as nothing else can. */
function address(of: string, speech: Speech): Html {
  return html`<code class="address" data-copy="${speech.say('copyAddress')}" data-copied="${speech.say('copied')}">${of}</code>`;
}

/** Returns the page that tells in plain words how to follow, and what to expect. */
export function followPart({ speech, text }: Choice, options: PageOptions): Html {
  const { addresses, listed } = options;
  const { code } = addresses;
  const name = text.name;
  const open = speech.say('followOpen');
  const expect = [
    speech.say('followName', { name }),
    speech.say('followReadOnly'),
    speech.say('followOften'),
    speech.say('followStop'),
    listed ? '' : speech.say('followPrivate'),
  ].filter(Boolean);
  return html`<main id="entries" class="prose">
<p><a href="${addressWith(options, {})}">${speech.say('back', { name })}</a></p>
<h2>${speech.say('followTitle', { name })}</h2>
<p><a class="button" href="${webcalOf(addresses.feed)}">${open}</a></p>
<div class="beside"><div>
<h3>${speech.say('followAddress')}</h3>
<p>${address(addresses.feed, speech)}</p>
<h3>${speech.say('followSteps')}</h3>
<ol>${[speech.say('followStep1', { open }), speech.say('followStep2'), speech.say('followStep3'), speech.say('followStep4')].map((step) => html`<li>${step}</li>`)}</ol>
</div>${code ? html`<figure><img src="${code}" alt="${speech.say('followCodeAlt')}" width="200" height="200"><figcaption>${speech.say('followCode')}</figcaption></figure>` : ''}</div>
<h3>${speech.say('followExpect')}</h3>
<ul class="points">${expect.map((line) => html`<li>${line}</li>`)}</ul>
${
  addresses.dav
    ? html`<h3>${speech.say('followSync')}</h3>
<p>${speech.say('followSyncSay')}</p>
<p>${address(addresses.dav, speech)}</p>
`
    : ''
}<h3>${speech.say('followOrCopy')}</h3>
<p>${speech.say('followLive')}</p>
<p>${speech.say('followStill')} <a href="${addresses.copy}" download>${speech.say('copyFile')}</a></p>
</main>`;
}
