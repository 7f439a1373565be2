import { KIND_WORDS, STATUS_WORDS } from '../entries';
import type { Condition, Filter } from './filter';
import { TEST_WORDS } from './words';

/** Returns a condition in words; `nameOf` names a calendar. */
function conditionWords(condition: Condition, nameOf: (calendarId: string) => string): string {
  switch (condition.field) {
    case 'calendar':
      return `from “${nameOf(condition.value)}”`;
    case 'label':
      return `labelled “${condition.value}”`;
    case 'person':
      return `with “${condition.value}”`;
    case 'kind':
      return KIND_WORDS[condition.value].many;
    case 'status':
      return `marked ${STATUS_WORDS[condition.value]}`;
    case 'text':
      return `that say “${condition.value}”`;
    case 'property':
      return `whose ${condition.name} ${TEST_WORDS[condition.test]} “${condition.value}”`;
  }
}

/** Returns a filter as part of a sentence: “entries …”. */
export function filterWords(filter: Filter, nameOf: (calendarId: string) => string): string {
  return words(filter, nameOf, false);
}

function words(filter: Filter, nameOf: (id: string) => string, inside: boolean): string {
  if ('not' in filter) {
    const { not } = filter;
    const grouped = 'all' in not || 'any' in not;
    const inner = words(not, nameOf, false);
    return grouped ? `not (${inner})` : `not ${inner}`;
  }
  if (!('all' in filter) && !('any' in filter)) return conditionWords(filter, nameOf);
  const parts = 'all' in filter ? filter.all : filter.any;
  const text = parts.map((p) => words(p, nameOf, parts.length > 1)).join('all' in filter ? ' and ' : ' or ');
  return inside && parts.length > 1 ? `(${text})` : text;
}
