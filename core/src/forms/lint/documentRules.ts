import { all, first, parameter } from '../read/components';
import { atMostOne, exactlyOne, quoted, word, type Rule } from './finding';

/** Properties that a calendar has at most once (RFC 5545 section 3.6, RFC 7986 section 4). */
const ONCE = ['uid', 'last-modified', 'url', 'refresh-interval', 'source', 'color', 'method', 'calscale'];

/** Where the components of RFC 5545 section 3.6 may be. */
const INSIDE: Readonly<Record<string, readonly string[]>> = {
  VALARM: ['VEVENT', 'VTODO'],
  STANDARD: ['VTIMEZONE'],
  DAYLIGHT: ['VTIMEZONE'],
  VEVENT: ['VCALENDAR'],
  VTODO: ['VCALENDAR'],
  VJOURNAL: ['VCALENDAR'],
  VFREEBUSY: ['VCALENDAR'],
  VTIMEZONE: ['VCALENDAR'],
};

/** What is asked of the document as text, of the calendar itself, and of where components are. */
export const DOCUMENT_RULES: readonly Rule[] = [
  {
    section: 'RFC 5545 section 3.1',
    text: (text, report) => {
      const lines = text.split('\r\n');
      lines.forEach((line, i) => {
        if (/[\r\n]/.test(line)) report(i + 1, 'A line does not end with CR LF.');
        if (new TextEncoder().encode(line).length > 75) report(i + 1, 'A line has more than 75 octets.');
        if (line === '' && i < lines.length - 1) report(i + 1, 'A line is empty.');
      });
      if (text.startsWith('\ufeff')) report(1, 'The document begins with a byte order mark.');
      if (!text.endsWith('\r\n')) report(lines.length, 'The last line does not end with CR LF.');
    },
  },
  {
    section: 'RFC 5545 section 3.3.11',
    text: (text, report) => {
      text.split('\r\n').forEach((line, i) => {
        if (/[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f]/.test(line))
          report(i + 1, 'A line holds a control character.');
      });
    },
  },
  {
    section: 'RFC 5545 section 3.1',
    component: (component, report) => {
      for (const note of component.notes) report(component.line, note);
    },
  },
  {
    section: 'RFC 5545 section 3.6',
    calendar: (calendar, report) => {
      if (!calendar.children.length) report(calendar.line, 'The calendar has no component.');
    },
    component: ({ name, line }, report, { parent }) => {
      const places = INSIDE[name];
      if (places && !places.includes(parent.name)) report(line, `${name} is inside of ${parent.name}.`);
    },
  },
  {
    section: 'RFC 5545 section 3.7.4',
    calendar: (calendar, report) => {
      const version = exactlyOne(calendar, 'version', report);
      if (version && version.text !== '2.0') report(version.line, 'VERSION is not 2.0.');
    },
  },
  {
    section: 'RFC 5545 section 3.7.3',
    calendar: (calendar, report) => void exactlyOne(calendar, 'prodid', report),
  },
  {
    section: 'RFC 5545 section 3.7.1',
    calendar: (calendar, report) => {
      const scale = first(calendar, 'calscale');
      if (scale && word(scale) !== 'GREGORIAN') report(scale.line, 'CALSCALE is not GREGORIAN.');
    },
  },
  {
    section: 'RFC 7986 section 4',
    calendar: (calendar, report) => {
      for (const name of ONCE) atMostOne(calendar, name, report);
    },
  },
  {
    section: 'RFC 7986 section 5.1',
    calendar: (calendar, report) => {
      for (const name of ['name', 'description']) {
        const languages = new Set<string>();
        for (const p of all(calendar, name)) {
          const language = (parameter(p, 'language') ?? '').toLowerCase();
          if (languages.has(language))
            report(p.line, `The calendar has two of ${name.toUpperCase()} in one language.`);
          languages.add(language);
        }
      }
    },
  },
  {
    section: 'RFC 7986 section 5.7',
    calendar: (calendar, report) => {
      const interval = first(calendar, 'refresh-interval');
      if (interval && (interval.text.startsWith('-') || !/[1-9]/.test(interval.text)))
        report(interval.line, `REFRESH-INTERVAL ${quoted(interval.text)} is no positive duration.`);
    },
  },
];
