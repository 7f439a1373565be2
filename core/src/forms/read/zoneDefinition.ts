import { expandRule, expansionBudget, ruleFromText } from '../../entries';
import {
  DAY,
  HOUR,
  MINUTE,
  SECOND,
  wallFromText,
  type ClockChange,
  type Clocks,
  type Instant,
  type Wall,
} from '../../zones';
import { all, first, type Component } from './components';

/** One STANDARD or DAYLIGHT part of a VTIMEZONE (RFC 5545 section 3.6.5): when it begins, and what clocks do then. */
interface Observance {
  readonly onset: Wall;
  readonly before: number;
  readonly offset: number;
  readonly dates: readonly Wall[];
  readonly rule: string;
}

/** A VTIMEZONE as far as it was read: it tells its clocks over any stretch of time. */
export interface ZoneDefinition {
  clocks(from: Instant, to: Instant): Clocks;
}

/** Returns the definition of a VTIMEZONE. Throws an Error with the line and the reason when it cannot be read. */
export function zoneDefinition(component: Component): ZoneDefinition {
  const parts = component.children.filter((c) => c.name === 'STANDARD' || c.name === 'DAYLIGHT');
  if (!parts.length) throw new Error(`line ${component.line}: it has neither STANDARD nor DAYLIGHT`);
  const observances = parts.map(observanceOf);
  return { clocks: (from, to) => clocksOf(observances, from, to) };
}

function observanceOf(part: Component): Observance {
  const fail = (reason: string): never => {
    throw new Error(`line ${part.line}: ${reason}`);
  };
  const text = (name: string) => first(part, name)?.text.trim() ?? fail(`it has no ${name.toUpperCase()}`);
  try {
    const rules = all(part, 'rrule');
    if (rules.length > 1) fail('it has two rules');
    const rule = (rules[0]?.text ?? '').replace(/\s+/g, '');
    if (rule) ruleFromText(rule);
    return {
      onset: wallOfText(text('dtstart')),
      before: offsetOfText(text('tzoffsetfrom')),
      offset: offsetOfText(text('tzoffsetto')),
      dates: all(part, 'rdate').flatMap((p) => p.text.split(',').map((t) => wallOfText(t.trim()))),
      rule,
    };
  } catch (error) {
    const { message } = error as Error;
    return fail(message.replace(/^line \d+: /, '').replace(/[.\s]+$/, ''));
  }
}

function wallOfText(text: string): Wall {
  const m = /^(\d{4})(\d{2})(\d{2})(?:T(\d{2})(\d{2})(\d{2})?Z?)?(?:\/.*)?$/i.exec(text);
  if (!m) throw new Error(`“${text}” is not a date and time`);
  return wallFromText(`${m[1]}-${m[2]}-${m[3]}T${m[4] ?? '00'}:${m[5] ?? '00'}:${m[6] ?? '00'}`);
}

/** RFC 5545 section 3.3.14. */
function offsetOfText(text: string): number {
  const m = /^([+-])(\d{2}):?(\d{2})(\d{2})?$/.exec(text);
  if (!m) throw new Error(`“${text}” is not an offset from UTC`);
  const size = Number(m[2]) * HOUR + Number(m[3]) * MINUTE + Number(m[4] ?? 0) * SECOND;
  return m[1] === '-' ? -size : size;
}

/** The clocks from one instant to another: every onset that lies between, and what holds at the beginning. */
function clocksOf(observances: readonly Observance[], from: Instant, to: Instant): Clocks {
  const onsets = observances
    .flatMap((o) => onsetsOf(o, to).map((at) => ({ at: at - o.before, before: o.before, offset: o.offset })))
    .sort((a, b) => a.at - b.at);
  let first = onsets[0]!.before;
  const changes: ClockChange[] = [];
  for (const { at, offset } of onsets) {
    const now = changes.at(-1)?.offset ?? first;
    if (at < from) first = offset;
    else if (at < to && offset !== now) changes.push({ at, before: now, offset });
  }
  return { first, changes };
}

/** An onset is told as the clocks read before it. */
function onsetsOf({ onset, before, dates, rule: text }: Observance, to: Instant): Wall[] {
  if (!text) return [onset, ...dates];
  const rule = ruleFromText(text);
  // UNTIL is in UTC where the rule is that of a time zone.
  const until = rule.until !== null && rule.untilIsUtc ? rule.until + before : rule.until;
  const found = expandRule(
    { ...rule, until, untilIsUtc: false },
    onset,
    onset,
    to + DAY,
    Infinity,
    expansionBudget(),
  );
  return [...new Set([onset, ...dates, ...found])];
}
