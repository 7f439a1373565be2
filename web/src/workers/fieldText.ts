import { ruleWords, type Override, type Recurrence, type When } from '@zonal/core/entries';
import { whenWords } from '@zonal/core/forms';

/** Returns a field of an entry as people read it beside another version of it. */
export function fieldText(value: unknown): string {
  if (value === null || value === undefined) return '';
  if (typeof value === 'string') return value;
  if (isWhen(value)) return whenWords(value) + (value.kind === 'zoned' ? ` ${value.zone}` : '');
  if (isRecurrence(value)) return recurrenceText(value);
  if (Array.isArray(value)) return value.map(partText).join('; ');
  return JSON.stringify(value);
}

function isWhen(value: unknown): value is When {
  return typeof value === 'object' && value !== null && 'kind' in value && ('at' in value || 'date' in value);
}

function isRecurrence(value: unknown): value is Recurrence {
  return typeof value === 'object' && value !== null && 'rule' in value;
}

function recurrenceText({ rule, dates, exceptDates }: Recurrence): string {
  return [
    rule && ruleWords(rule),
    ...dates.map((d) => whenWords(d)),
    exceptDates.length && `not on ${exceptDates.map((d) => whenWords(d)).join(', ')}`,
  ]
    .filter(Boolean)
    .join(', ');
}

/** One of a list: a label, a person, a link, a property, or a date that was changed by itself. */
function partText(part: unknown): string {
  if (typeof part !== 'object' || part === null) return String(part);
  if ('slot' in part) {
    const { slot, start, content } = part as Override;
    return `${whenWords(slot)} → ${whenWords(start)} ${content.title}`;
  }
  const { name, address, href, value } = part as Partial<Record<string, string>>;
  if (name === undefined) return JSON.stringify(part);
  const detail = address ?? href ?? value;
  return detail ? `${name} (${detail})` : name;
}
