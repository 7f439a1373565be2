import { FIRST_DAYS, CLOCKS } from '../speech/reading';
import { CATALOGUE, LANGUAGES, type Message } from '../speech/catalogue';
import { allZones, type Day, type Instant, type ZoneName } from '../../zones';
import type { OutwardView } from '../../glass';
import { THEMES, addressWith, hiddenFields, type Choice, type PageOptions } from './choice';
import { zoneText, zoneWithOffset } from './words';
import { html, Html } from './html';

const THEME_WORDS = { auto: 'themeAuto', light: 'themeLight', dark: 'themeDark' } as const satisfies Record<
  (typeof THEMES)[number],
  Message
>;
const CLOCK_WORDS = { 24: 'clock24', 12: 'clock12' } as const satisfies Record<
  (typeof CLOCKS)[number],
  Message
>;
/** Any Monday. */
const MONDAY: Day = 4;

/** Returns the page on which readers say how they read: their zone, clock, language, first weekday and colours. */
export function settingsPart(view: OutwardView, choice: Choice, options: PageOptions): Html {
  const { speech, zone, theme } = choice;
  const { now, addresses, query } = options;
  const field = (label: string, name: string, choices: Html) =>
    html`<p><label>${label}<br><select name="${name}">${choices}</select></label></p>`;
  const option = (value: string, text: string, chosen: boolean) =>
    html`<option value="${value}"${chosen && html` selected`}>${text}</option>`;
  const weeks = Object.entries(FIRST_DAYS).map(([name, n]) =>
    option(name, speech.weekdayLong(MONDAY + n), n === speech.firstDay),
  );
  const languages = LANGUAGES.map((l) => option(l, languageName(l), l === speech.language));
  const own = view.wording.translations
    .concat(view.wording)
    .filter(({ language }) => language && !Object.hasOwn(CATALOGUE, language.split('-')[0]!))
    .map(({ language }) => option(language, languageName(language), language === query.lang));
  return html`<main id="entries" class="prose">
<p><a href="${addressWith(options, {})}">${speech.say('back', { name: choice.text.name })}</a></p>
<h2>${speech.say('settingsTitle')}</h2>
<form method="get" action="${addresses.self}" class="settings">
${field(speech.say('yourZone'), 'tz', zoneChoices(view.hostZone, choice.zoneAsked ? zone : null, choice, now))}
${field(speech.say('language'), 'lang', html`${languages}${own}`)}
${field(
  speech.say('clock'),
  'clock',
  html`${CLOCKS.map((c) => option(c, speech.say(CLOCK_WORDS[c]), c === speech.clock))}`,
)}
${field(speech.say('firstDay'), 'week', html`${weeks}`)}
${field(speech.say('theme'), 'theme', html`${THEMES.map((t) => option(t, speech.say(THEME_WORDS[t]), t === theme))}`)}
${hiddenFields((['show', 'from', 'parts', 'accent'] as const).flatMap((name) => (query[name] === undefined ? [] : [[name, query[name]] as const])))}
<p><button>${speech.say('show')}</button></p>
<p class="about">${speech.say('kept')}</p>
</form></main>`;
}

/** Returns the zones to choose from, that of the host first. */
export function zoneChoices(
  host: ZoneName,
  chosen: ZoneName | null,
  { speech }: Pick<Choice, 'speech'>,
  now: Instant,
): Html {
  return html`<option value="">${speech.say('hostZoneChoice', { zone: zoneWithOffset(host, now) })}</option>${zoneOptions(chosen)}`;
}

/** A language by its own name. */
export function languageName(tag: string): string {
  try {
    return new Intl.DisplayNames(tag, { type: 'language' }).of(tag) ?? tag;
  } catch {
    return tag;
  }
}

let optionTexts: { zone: ZoneName; text: string }[] | undefined;

/** The list of zones is long and always the same but for the one chosen. */
function zoneOptions(chosen: ZoneName | null): Html {
  optionTexts ??= allZones().map((zone) => ({ zone, text: html`>${zoneText(zone)}</option>`.text }));
  return new Html(
    optionTexts
      .map(({ zone, text }) => `<option value="${zone}"${zone === chosen ? ' selected' : ''}${text}`)
      .join(''),
  );
}
