import colourNames from 'color-name';
import { all, first, parameter, type Component, type Property } from '../read/components';
import { momentKind, quoted, valueTypeOf, word, type Report, type Rule } from './finding';
import { VALUE_TYPES, type ValueType } from './valueTypes';

/** What a property holds. */
interface Row {
  readonly section: string;
  /** Types of its value, the usual one first. */
  readonly types: readonly ValueType[];
  /** Whether several values may be in one, between commas. */
  readonly list?: true;
  /** Least and greatest number. */
  readonly from?: number;
  readonly to?: number;
  /** Whether it is always in UTC. */
  readonly utc?: true;
}

const text = (section: string): Row => ({ section, types: ['TEXT'] });
const texts = (section: string): Row => ({ section, types: ['TEXTS'] });
const moment = (section: string): Row => ({ section, types: ['DATE-TIME', 'DATE'] });
const utc = (section: string): Row => ({ section, types: ['DATE-TIME'], utc: true });
const whole = (section: string, from = 0, to = 2 ** 31 - 1): Row => ({
  section,
  types: ['INTEGER'],
  from,
  to,
});
const address = (section: string): Row => ({ section, types: ['CAL-ADDRESS'] });

/** Properties by name, with the sections of RFC 5545 that define them, or of RFC 7986. */
const PROPERTIES: Readonly<Record<string, Row>> = {
  attach: { section: '3.8.1.1', types: ['URI', 'BINARY'] },
  categories: texts('3.8.1.2'),
  comment: text('3.8.1.4'),
  description: text('3.8.1.5'),
  geo: { section: '3.8.1.6', types: ['FLOAT'] },
  location: text('3.8.1.7'),
  'percent-complete': whole('3.8.1.8', 0, 100),
  priority: whole('3.8.1.9', 0, 9),
  resources: texts('3.8.1.10'),
  summary: text('3.8.1.12'),
  completed: utc('3.8.2.1'),
  dtend: moment('3.8.2.2'),
  due: moment('3.8.2.3'),
  dtstart: moment('3.8.2.4'),
  duration: { section: '3.8.2.5', types: ['DURATION'] },
  freebusy: { section: '3.8.2.6', types: ['PERIOD'], list: true },
  tzname: text('3.8.3.2'),
  tzoffsetfrom: { section: '3.8.3.3', types: ['UTC-OFFSET'] },
  tzoffsetto: { section: '3.8.3.4', types: ['UTC-OFFSET'] },
  tzurl: { section: '3.8.3.5', types: ['URI'] },
  attendee: address('3.8.4.1'),
  contact: text('3.8.4.2'),
  organizer: address('3.8.4.3'),
  'recurrence-id': moment('3.8.4.4'),
  'related-to': text('3.8.4.5'),
  url: { section: '3.8.4.6', types: ['URI'] },
  uid: text('3.8.4.7'),
  exdate: { ...moment('3.8.5.1'), list: true },
  rdate: { section: '3.8.5.2', types: ['DATE-TIME', 'DATE', 'PERIOD'], list: true },
  action: text('3.8.6.1'),
  repeat: whole('3.8.6.2'),
  trigger: { section: '3.8.6.3', types: ['DURATION', 'DATE-TIME'] },
  created: utc('3.8.7.1'),
  dtstamp: utc('3.8.7.2'),
  'last-modified': utc('3.8.7.3'),
  sequence: whole('3.8.7.4'),
  'refresh-interval': { section: '5.7', types: ['DURATION'] },
  source: { section: '5.8', types: ['URI'] },
  image: { section: '5.10', types: ['URI', 'BINARY'] },
  conference: { section: '5.11', types: ['URI'] },
};

/** Values of parameters that nothing may be added to, by property and parameter (RFC 5545 section 3.2). */
const PARAMETERS: Readonly<Record<string, { readonly section: string; readonly values: readonly string[] }>> =
  {
    encoding: { section: '3.2.7', values: ['8BIT', 'BASE64'] },
    range: { section: '3.2.13', values: ['THISANDFUTURE'] },
    related: { section: '3.2.14', values: ['START', 'END'] },
    rsvp: { section: '3.2.17', values: ['TRUE', 'FALSE'] },
  };

const standardOf = ({ section }: Row) =>
  `RFC ${section.startsWith('5.') ? '7986' : '5545'} section ${section}`;

/** Returns the type that a property has, or null if it says one that it cannot have. */
function typeOf(p: Property, { types }: Row): ValueType | null {
  const said = valueTypeOf(p);
  // Only some properties are read with their types.
  if (said === 'UNKNOWN' || (said === 'TEXT' && parameter(p, 'value') === undefined)) return types[0]!;
  return types.find((type) => type === said || (type === 'TEXTS' && said === 'TEXT')) ?? null;
}

/** Reports each line of a property that does not name the type of its value, which it has to. */
function typeNamed(name: string, type: ValueType): NonNullable<Rule['text']> {
  return (document, report) => {
    const lines = document.split('\r\n');
    lines.forEach((start, i) => {
      if (!start.toUpperCase().startsWith(name) || !/^[;:]/.test(start.slice(name.length))) return;
      let unfolded = start;
      for (let next = i + 1; /^[ \t]/.test(lines[next] ?? ''); next++) unfolded += lines[next]!.slice(1);
      const parameters = unfolded.slice(name.length).split(/:(?=(?:[^"]*"[^"]*")*[^"]*$)/)[0]!;
      if (!new RegExp(`;VALUE=${type}(;|$)`, 'i').test(parameters))
        report(i + 1, `${name} does not say VALUE=${type}.`);
    });
  };
}

function checkValue(p: Property, row: Row, report: Report): void {
  const name = p.name.toUpperCase();
  const type = typeOf(p, row);
  if (type === null) {
    return report(p.line, `${name} cannot be of the type ${valueTypeOf(p).slice(0, 40)}.`);
  }
  for (const value of row.list ? p.text.split(',') : [p.text]) {
    if (!VALUE_TYPES[type](value))
      report(p.line, `${name} ${quoted(value)} is no ${type === 'TEXTS' ? 'text' : type.toLowerCase()}.`);
    else if (row.from !== undefined && (Number(value) < row.from || Number(value) > row.to!))
      report(p.line, `${name} ${quoted(value)} is not from ${row.from} to ${row.to}.`);
    else if (row.utc && !value.endsWith('Z')) report(p.line, `${name} is not in UTC.`);
  }
}

function checkGeo({ line, text: value }: Property, report: Report): void {
  const [latitude, longitude] = value.split(';').map(Number);
  if (longitude === undefined) report(line, 'GEO does not have two numbers.');
  else if (Math.abs(latitude!) > 90 || Math.abs(longitude) > 180)
    report(line, `GEO ${quoted(value)} is nowhere on the Earth.`);
}

/** Returns a rule that checks each property of a name in every component, the calendar included. */
function everywhere(section: string, name: string, check: (p: Property, report: Report) => void): Rule {
  const each = (component: Component, report: Report) => {
    for (const p of all(component, name)) check(p, report);
  };
  return { section, calendar: each, component: each };
}

/** What is asked of the values of properties and parameters, wherever they are. */
export const VALUE_RULES: readonly Rule[] = [
  ...Object.entries(PROPERTIES).map(([name, row]) =>
    everywhere(standardOf(row), name, (p, report) => checkValue(p, row, report)),
  ),
  { section: 'RFC 7986 section 5.7', text: typeNamed('REFRESH-INTERVAL', 'DURATION') },
  { section: 'RFC 7986 section 5.8', text: typeNamed('SOURCE', 'URI') },
  { section: 'RFC 7986 section 5.11', text: typeNamed('CONFERENCE', 'URI') },
  everywhere('RFC 5545 section 3.8.1.6', 'geo', checkGeo),
  everywhere('RFC 7986 section 5.9', 'color', (p, report) => {
    if (!Object.hasOwn(colourNames, p.text.toLowerCase())) report(p.line, 'COLOR is not a name of CSS3.');
  }),
  everywhere('RFC 5545 section 3.8.1.1', 'attach', (p, report) => {
    const isBinary = valueTypeOf(p) === 'BINARY';
    if (isBinary && parameter(p, 'encoding')?.toUpperCase() !== 'BASE64')
      report(p.line, 'A binary ATTACH does not say ENCODING=BASE64.');
  }),
  ...Object.entries(PARAMETERS).map(([name, { section, values }]): Rule => ({
    section: `RFC 5545 section ${section}`,
    component: ({ properties }, report) => {
      for (const p of properties) {
        const value = parameter(p, name);
        if (value !== undefined && !values.includes(value.toUpperCase()))
          report(p.line, `${name.toUpperCase()} of ${p.name.toUpperCase()} is not ${values.join(' or ')}.`);
      }
    },
  })),
  {
    section: 'RFC 5545 section 3.8.2.6',
    of: ['VFREEBUSY'],
    component: (component, report) => {
      for (const p of all(component, 'freebusy'))
        if (p.text.split(',').some((period) => !/^\d{8}T\d{6}Z\//.test(period)))
          report(p.line, 'A period of FREEBUSY is not in UTC.');
    },
  },
  {
    section: 'RFC 5545 section 3.6.4',
    of: ['VFREEBUSY'],
    component: (component, report) => {
      for (const name of ['dtstart', 'dtend']) {
        const p = first(component, name);
        if (p && momentKind(p) !== 'utc') report(p.line, `${name.toUpperCase()} of VFREEBUSY is not in UTC.`);
      }
    },
  },
  everywhere('RFC 5545 section 3.8.1.3', 'class', (p, report) => {
    if (!/^[A-Z0-9-]+$/.test(word(p)!)) report(p.line, 'CLASS is no word.');
  }),
];
