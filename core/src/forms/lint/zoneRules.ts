import { all, first, parameter, type Component, type Property } from '../read/components';
import { exactlyOne, momentKind, zonesOf, type Rule } from './finding';

/** What is asked of definitions of time zones, and of what names them. */
export const ZONE_RULES: readonly Rule[] = [
  {
    section: 'RFC 5545 section 3.2.19',
    calendar: (calendar, report) => {
      const defined = new Set(zonesOf(calendar).map((z) => first(z, 'tzid')?.text));
      for (const p of propertiesInZones(calendar)) {
        const zone = parameter(p, 'tzid')!;
        // What begins with a slash is known everywhere.
        if (!zone.startsWith('/') && !defined.has(zone))
          report(p.line, `The time zone ${zone.slice(0, 60)} is not defined.`);
        const kind = momentKind(p);
        if (kind === 'utc') report(p.line, 'A time in UTC has a TZID.');
        if (kind === 'date') report(p.line, 'A date has a TZID.');
      }
    },
  },
  {
    section: 'RFC 5545 section 3.6.5',
    of: ['VTIMEZONE'],
    component: (component, report, { calendar }) => {
      const id = exactlyOne(component, 'tzid', report);
      const parts = component.children.filter(({ name }) => name === 'STANDARD' || name === 'DAYLIGHT');
      if (!parts.length) report(component.line, 'VTIMEZONE has neither STANDARD nor DAYLIGHT.');
      const same = zonesOf(calendar).find((z) => id && first(z, 'tzid')?.text === id.text);
      if (same && same !== component) report(component.line, 'A time zone is defined twice.');
    },
  },
  {
    section: 'RFC 5545 section 3.6.5',
    of: ['STANDARD', 'DAYLIGHT'],
    component: (part, report) => {
      for (const name of ['dtstart', 'tzoffsetfrom', 'tzoffsetto']) exactlyOne(part, name, report);
      const start = first(part, 'dtstart');
      if (start && momentKind(start) !== 'floating')
        report(start.line, `DTSTART of ${part.name} is not a local time.`);
      for (const p of all(part, 'rrule')) {
        const until = /UNTIL=([^;]+)/i.exec(p.text)?.[1];
        if (until && !until.toUpperCase().endsWith('Z'))
          report(p.line, `UNTIL of ${part.name} is not in UTC.`);
      }
    },
  },
  {
    section: 'RFC 5545 section 3.6.5',
    weight: 'should',
    calendar: (calendar, report) => {
      const used = new Set(propertiesInZones(calendar).map((p) => parameter(p, 'tzid')));
      for (const zone of zonesOf(calendar)) {
        const name = first(zone, 'tzid')?.text;
        // An empty calendar has to have some component: a definition of UTC says nothing that could be wrong.
        if (name !== undefined && name !== 'UTC' && !used.has(name))
          report(zone.line, `The time zone ${name.slice(0, 60)} is defined and not used.`);
      }
    },
  },
];

/** Returns all properties below a component that name a time zone. */
function propertiesInZones({ children }: Component): Property[] {
  return children.flatMap((child) => [
    ...child.properties.filter((p) => parameter(p, 'tzid') !== undefined),
    ...propertiesInZones(child),
  ]);
}
