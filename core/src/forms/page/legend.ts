import { compareText, plainText } from '../../entries';
import type { OutwardView } from '../../glass';
import { dayToText } from '../../zones';
import { addressWith, hiddenFields, queryWith, type Choice, type PageOptions } from './choice';
import { swatchOf } from './entryLine';
import { html, type Html } from './html';

/** Labels to choose from, at most; more would make the page heavy. */
const MAX_LABELS = 200;

/** Returns the names and patterns of a window's calendars, links that switch each on and off, and a field for one label. */
export function legend(view: OutwardView, choice: Choice, options: PageOptions): Html {
  const calendars = view.wording.calendars ?? [];
  // Narrow embeds have room for it where they have room to find something.
  const labels = choice.parts.has('find') ? labelsOf(view, choice.label) : [];
  if (calendars.length < 2 && labels.length < 2) return html``;
  const name = choice.speech.say(calendars.length > 1 ? 'calendars' : 'label');
  return html`<section class="legend" aria-label="${name}">${calendars.length > 1 && switches(calendars, choice, options)}${labels.length > 1 && labelForm(labels, choice, options)}</section>`;
}

/** The days and words that stay as they are while a reader chooses other calendars or another label. */
function daysQuery({ show, from, find }: Choice) {
  return { show, from: dayToText(from), find };
}

function switches(calendars: readonly string[], choice: Choice, options: PageOptions): Html {
  const { speech } = choice;
  const isShown = (name: string) => !choice.calendars || choice.calendars.has(name);
  const lines = calendars.map((name) => {
    const shown = isShown(name);
    const next = calendars.flatMap((other, i) => ((other === name) !== isShown(other) ? [i + 1] : []));
    // All and none are the same: a page without entries would say nothing.
    const asked = next.length && next.length < calendars.length ? next.join('.') : null;
    const href = addressWith(options, { ...daysQuery(choice), calendars: asked });
    const say = speech.say(shown ? 'hideCalendar' : 'showCalendar', { name });
    return html`<li><a href="${href}" class="${shown ? 'on-show' : 'off-show'}" aria-label="${say}" title="${say}">${swatchOf(name, { calendars }, false)}<span dir="auto">${name}</span></a></li>`;
  });
  return html`<ul>${lines}</ul>`;
}

function labelForm(labels: readonly string[], choice: Choice, options: PageOptions): Html {
  const { speech, label } = choice;
  const { self } = options.addresses;
  const chosen = plainText(label);
  const choices = labels.map(
    (own) => html`<option value="${own}"${plainText(own) === chosen && html` selected`}>${own}</option>`,
  );
  return html`<form method="get" action="${self}"><label>${speech.say('label')} <select name="label"><option value="">${speech.say('anyLabel')}</option>${choices}</select></label>${hiddenFields(queryWith(options, { ...daysQuery(choice), label: null }))}<button>${speech.say('show')}</button></form>`;
}

/** Returns the labels that readers see in a view, each as it is written first, and the one that is asked for. */
function labelsOf({ items }: OutwardView, asked: string): string[] {
  const labels = new Map<string, string>();
  const add = (label: string) => {
    const plain = plainText(label);
    if (plain && !labels.has(plain)) labels.set(plain, label);
  };
  for (const item of items) {
    if (item.kind === 'busy') continue;
    item.content.labels?.forEach(add);
    if (item.kind === 'series') for (const { content } of item.overrides) content.labels?.forEach(add);
  }
  const all = [...labels.values()].sort(compareText).slice(0, MAX_LABELS);
  return asked && !all.some((own) => plainText(own) === plainText(asked)) ? [...all, asked] : all;
}
