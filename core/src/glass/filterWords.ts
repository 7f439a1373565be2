import { KIND_WORDS, STATUS_WORDS } from '../entries';
import type { InsideLanguage } from '../texts/languages';
import { KIND_DE, STATUS_DE, TEST_DE } from '../words/german';
import { inLanguage } from '../words/inLanguage';
import { insideTexts } from '../words/texts';
import type { Condition, Filter } from './filter';
import { TEST_WORDS } from './words';

interface Wording {
  readonly language: InsideLanguage;
  readonly nameOf: (calendarId: string) => string;
}

/** Returns a filter as part of a sentence: “entries …”. `nameOf` names a calendar. */
export function filterWords(
  filter: Filter,
  nameOf: (calendarId: string) => string,
  language: InsideLanguage = 'en',
): string {
  return partWords(filter, { nameOf, language }, false);
}

function conditionWords(condition: Condition, { language, nameOf }: Wording): string {
  const t = insideTexts(language);
  switch (condition.field) {
    case 'calendar':
      return t('fromCalendar', { name: nameOf(condition.value) });
    case 'label':
      return t('withLabel', { label: condition.value });
    case 'person':
      return t('withPerson', { person: condition.value });
    case 'kind':
      return inLanguage(KIND_WORDS, KIND_DE, language)[condition.value].many;
    case 'status':
      return t('withStatus', { status: inLanguage(STATUS_WORDS, STATUS_DE, language)[condition.value] });
    case 'text':
      return t('withText', { text: condition.value });
    case 'property': {
      const test = inLanguage(TEST_WORDS, TEST_DE, language)[condition.test];
      return t('withProperty', { name: condition.name, test, value: condition.value });
    }
  }
}

function partWords(filter: Filter, wording: Wording, isInside: boolean): string {
  const t = insideTexts(wording.language);
  if ('not' in filter) {
    const { not } = filter;
    const inner = partWords(not, wording, false);
    return t('not', { condition: 'all' in not || 'any' in not ? `(${inner})` : inner });
  }
  if (!('all' in filter) && !('any' in filter)) return conditionWords(filter, wording);
  const parts = 'all' in filter ? filter.all : filter.any;
  const text = parts
    .map((part) => partWords(part, wording, parts.length > 1))
    .join(` ${'all' in filter ? t('andWord') : t('orWord')} `);
  return isInside && parts.length > 1 ? `(${text})` : text;
}
