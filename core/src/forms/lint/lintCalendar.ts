import { componentsOf, type Component } from '../read/components';
import { ALARM_RULES } from './alarmRules';
import { DOCUMENT_RULES } from './documentRules';
import { ENTRY_RULES } from './entryRules';
import type { Finding, Report, Rule } from './finding';
import { METHOD_RULES } from './methodRules';
import { RECURRENCE_RULES } from './recurrenceRules';
import { VALUE_RULES } from './valueRules';
import { ZONE_RULES } from './zoneRules';

/** Every rule with its section; findings of one line keep this order. */
const RULES: readonly Rule[] = [
  ...DOCUMENT_RULES,
  ...ENTRY_RULES,
  ...VALUE_RULES,
  ...RECURRENCE_RULES,
  ...ALARM_RULES,
  ...METHOD_RULES,
  ...ZONE_RULES,
];

/** A document with more findings is bad enough. */
const MAX_FINDINGS = 200;

/**
 * Returns what in an iCalendar document is not as RFC 5545, 5546 and 7986 ask, by line; nothing if all is well. Throws
 * `file-not-calendar` or `file-malformed` if it cannot be read at all.
 */
export function lintCalendar(text: string): Finding[] {
  const found: Finding[] = [];
  const reporterOf = ({
    section,
    weight = 'must' as const,
  }: {
    section: string;
    weight?: Finding['weight'];
  }) => {
    const report: Report = (line, say) => {
      if (found.length < MAX_FINDINGS) found.push({ line, say, section, weight });
    };
    return report;
  };
  const reporters = RULES.map(reporterOf);
  RULES.forEach((rule, i) => rule.text?.(text, reporters[i]!));
  for (const calendar of componentsOf(text)) {
    RULES.forEach((rule, i) => rule.calendar?.(calendar, reporters[i]!));
    const check = (component: Component, parent: Component) => {
      RULES.forEach((rule, i) => {
        if (!rule.of || rule.of.includes(component.name))
          rule.component?.(component, reporters[i]!, { calendar, parent });
      });
      for (const child of component.children) check(child, component);
    };
    for (const child of calendar.children) check(child, calendar);
  }
  return found.sort((a, b) => a.line - b.line);
}
