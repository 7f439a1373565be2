import { canonical, type Content, type KeptProperty } from '../../entries';
import { READERS, contactText, contentLines, personOf } from '../insideFields';
import { FURTHER, plainLineOf } from '../keptProperties';
import { all, first, type Component, type Property } from './components';
import { partsOfLine } from './contentLine';
import type { FileNotes } from './fileNotes';

/** Properties that are read into times and recurrence, or say nothing of the entry itself. */
const READ_ELSEWHERE = new Set([
  'uid',
  'dtstart',
  'dtend',
  'duration',
  'rrule',
  'rdate',
  'exdate',
  'exrule',
  'recurrence-id',
  'dtstamp',
  'due',
  'x-zonal-planned',
]);

/** Properties that a field holds one of: further ones are kept beside it. */
const ONE_ONLY = ['summary', 'location', 'url', 'conference'];
/** Properties that are kept as they stood where they say more than their field: roles, answers, types, languages. */
const DECORATED = new Set([
  ...ONE_ONLY,
  'attendee',
  'attach',
  'status',
  'transp',
  'class',
  'description',
  'contact',
  'categories',
]);
/** Properties that are read together, so that each alone cannot be put back. */
const JOINED = ['description', 'contact', 'categories'];

/** Returns the content of a VEVENT or VTODO. Notes say what was changed or left out. */
export function contentOfFile(event: Component, empty: Content, notes: FileNotes): Content {
  const fields: Record<string, unknown> = { ...empty };
  for (const [name, read] of Object.entries(READERS)) {
    const properties = all(event, name);
    if (properties.length) Object.assign(fields, read(properties, notes));
  }
  const organizer = first(event, 'organizer');
  if (organizer && fields['contact'] === '') fields['contact'] = contactText(personOf(organizer));
  for (const { name } of event.children) {
    if (name === 'VALARM') notes.add('reminders');
    else notes.add('partLeftOut', { name });
  }
  const content = fields as unknown as Content;
  const kept = [
    ...event.properties.filter((p) => !READERS[p.name] && !READ_ELSEWHERE.has(p.name)).map(jCalOf),
    ...saidMore(event, content, notes),
  ];
  return { ...content, kept };
}

function jCalOf({ name, parameters, type, values }: Property): KeptProperty {
  return [name, parameters, type, ...values];
}

/** Returns the properties that say more than the fields that were read from them. */
function saidMore(event: Component, content: Content, notes: FileNotes): KeptProperty[] {
  const task = event.name === 'VTODO';
  const lines = contentLines(content, task);
  const key = ({ name, parameters, values }: Pick<Property, 'name' | 'parameters' | 'values'>) =>
    canonical([name, parameters, values]);
  const written = new Set(lines.map((line) => key(partsOfLine(line))));
  // In the order in which they are written, so that what is read again is the same.
  const decorated: { at: number; jCal: KeptProperty }[] = [];
  const further: KeptProperty[] = [];
  for (const property of event.properties) {
    const { name } = property;
    if (!DECORATED.has(name) || written.has(key(property)) || property.type === 'binary') continue;
    const jCal = jCalOf(property);
    if (JOINED.includes(name) && all(event, name).length > 1) {
      if (Object.keys(property.parameters).length)
        notes.add('parametersLeftOut', { name: name.toUpperCase() });
      continue;
    }
    const at = lines.indexOf(plainLineOf(jCal, task) ?? '');
    if (at >= 0) decorated.push({ at, jCal });
    else if (ONE_ONLY.includes(name) && property !== first(event, name))
      further.push([name, { ...property.parameters, [FURTHER]: '1' }, property.type, ...property.values]);
  }
  return [...decorated.sort((a, b) => a.at - b.at).map((d) => d.jCal), ...further];
}
