import ICAL from 'ical.js';
import { occurrencesOfItems, type OutwardItem } from '../../glass';
import { DAY, instantOf, wallFromText, type ZoneName } from '../../zones';
import type { Member, Members } from './members';
import { cal } from './names';
import { childOf, type Element } from './readXml';
import { Refused, tooMany } from './refused';
import { byClocksOf, stretchOf, touches, type Stretch } from './when';

type Component = InstanceType<typeof ICAL.Component>;
type Property = InstanceType<typeof ICAL.Property>;
type Test = (member: Member) => boolean;

/** So many members are looked into property by property; of more, a stretch of time has to be named. */
const MOST_READ = 2_000;
/** So many conditions are in one request. */
const MOST_CONDITIONS = 50;

/**
 * Returns whether a member is one that a filter asks for (RFC 4791 section 9.7). Throws Refused for what is no filter, or
 * one that nothing here can answer. Dates and floating times are read by the clocks of `zone`.
 */
export function filterOf(filter: Element | undefined, members: Members, zone: ZoneName): Test {
  const root = childOf(filter, cal('comp-filter'));
  if (!root || nameIn(root) !== 'VCALENDAR') throw new Refused(cal('valid-filter'));
  if (conditionsIn(root) > MOST_CONDITIONS) throw new Refused(cal('supported-filter'));
  if (childOf(root, cal('is-not-defined'))) return () => false;
  let read = 0;
  const parsed = (member: Member): Component => {
    if (++read > MOST_READ) throw tooMany();
    return new ICAL.Component(ICAL.parse(member.text()) as never);
  };
  const kinds = root.children.filter((c) => c.name === cal('comp-filter'));
  const timed = kinds.map((kind) => kindTest(kind, members, zone));
  const rest = root.children.filter((c) => c.name === cal('prop-filter'));
  const tests = rest.map((one) => propTest(one, zone));
  return (member) => {
    // What follows from times alone is asked first.
    if (!timed.every(({ quick }) => quick(member))) return false;
    if (!tests.length && timed.every(({ slow }) => !slow)) return true;
    const calendar = parsed(member);
    return tests.every((test) => test(calendar)) && timed.every(({ slow }) => !slow || slow(calendar));
  };
}

function conditionsIn(element: Element): number {
  return element.children.reduce((sum, child) => sum + conditionsIn(child), 1);
}

function nameIn({ attributes }: Element): string {
  return (attributes['name'] ?? '').toUpperCase();
}

/** What is asked of one kind of component: by its times, and by what it says. */
interface KindTest {
  readonly quick: Test;
  readonly slow: ((calendar: Component) => boolean) | null;
}

function kindTest(filter: Element, { setting }: Members, zone: ZoneName): KindTest {
  const name = nameIn(filter);
  const isTask = (item: OutwardItem | null) =>
    item !== null && item.kind !== 'busy' && item.content.kind === 'due' && setting.dueAs === 'task';
  const isKind = (item: OutwardItem | null) => name === (isTask(item) ? 'VTODO' : 'VEVENT');
  if (childOf(filter, cal('is-not-defined'))) return { quick: ({ item }) => !isKind(item), slow: null };
  const range = childOf(filter, cal('time-range'));
  const stretch = range && stretchOf(range);
  const quick: Test = ({ item }) => {
    if (!isKind(item)) return false;
    if (!stretch) return true;
    // A notice is true as long as it is there.
    if (!item) return true;
    const times = timesAround(item, stretch, zone);
    if (!isTask(item)) return times.some((time) => touches(time, stretch));
    // One that is due at the very end is found too: the other way round than an event (RFC 4791 section 9.9).
    return times.some(({ to }) => stretch.from < to && to <= stretch.to);
  };
  const own = (name: string) => filter.children.filter((c) => c.name === cal(name));
  const tests = own('prop-filter').map((one) => propTest(one, zone));
  const below = own('comp-filter').map((one) => belowTest(one, zone));
  if (!tests.length && !below.length) return { quick, slow: null };
  return {
    quick,
    slow: (calendar) =>
      calendar
        .getAllSubcomponents(name.toLowerCase())
        .some((component) => [...tests, ...below].every((test) => test(component))),
  };
}

/** Returns all times of an item that can touch a stretch, as they lie by the clocks of `zone`: those of two zones differ by about a day. */
function timesAround(item: OutwardItem, { from, to }: Stretch, zone: ZoneName): Stretch[] {
  const around = { from: from - 2 * DAY, to: to + 2 * DAY };
  return occurrencesOfItems([item], around).map((time) => byClocksOf(zone, time));
}

/** Of what stands in a component, such as an alarm, it is asked whether it is there, and what it says. */
function belowTest(filter: Element, zone: ZoneName): (component: Component) => boolean {
  if (childOf(filter, cal('time-range')) || childOf(filter, cal('comp-filter')))
    throw new Refused(cal('supported-filter'));
  const absent = childOf(filter, cal('is-not-defined'));
  const tests = filter.children
    .filter((c) => c.name === cal('prop-filter'))
    .map((one) => propTest(one, zone));
  return (component) => {
    const found = component.getAllSubcomponents(nameIn(filter).toLowerCase());
    return absent ? !found.length : found.some((one) => tests.every((test) => test(one)));
  };
}

function propTest(filter: Element, zone: ZoneName): (component: Component) => boolean {
  const name = nameIn(filter).toLowerCase();
  const absent = childOf(filter, cal('is-not-defined'));
  const match = childOf(filter, cal('text-match'));
  const range = childOf(filter, cal('time-range'));
  const says = match && textTest(match);
  const stretch = range && stretchOf(range);
  const params = filter.children.filter((c) => c.name === cal('param-filter')).map(paramTest);
  return (component) => {
    const all = component.getAllProperties(name);
    if (absent) return !all.length;
    return all.some(
      (property) =>
        (!says || says(textOf(property))) &&
        (!stretch || liesIn(property, stretch, zone)) &&
        params.every((test) => test(property)),
    );
  };
}

function paramTest(filter: Element): (property: Property) => boolean {
  const name = nameIn(filter).toLowerCase();
  const absent = childOf(filter, cal('is-not-defined'));
  const match = childOf(filter, cal('text-match'));
  const says = match && textTest(match);
  return (property) => {
    const value = property.getParameter(name) as string | string[] | undefined;
    if (absent) return value === undefined;
    return value !== undefined && (!says || says([value].flat().join(',')));
  };
}

function textOf(property: Property): string {
  return (property.getValues() as unknown[]).map(String).join(',');
}

function liesIn(property: Property, stretch: Stretch, zone: ZoneName): boolean {
  const value = property.getFirstValue() as unknown;
  if (!(value instanceof ICAL.Time)) return false;
  const isFloating = value.isDate || value.zone === ICAL.Timezone.localTimezone;
  const wall = () => wallFromText(value.isDate ? `${value.toString()}T00:00:00` : value.toString());
  const at = isFloating ? instantOf(zone, wall()) : value.toUnixTime() * 1000;
  return touches({ from: at, to: at }, stretch);
}

/** How texts are compared (RFC 4790): letters of both cases alike, or octet by octet. */
const COLLATIONS: Readonly<Record<string, (text: string) => string>> = {
  'i;ascii-casemap': (text) => text.replace(/[a-z]/g, (c) => c.toUpperCase()),
  'i;unicode-casemap': (text) => text.toLocaleUpperCase('en'),
  'i;octet': (text) => text,
};

/** What collations there are, as a property tells of it. */
export const COLLATION_NAMES = Object.keys(COLLATIONS);

function textTest({ attributes, text }: Element): (text: string) => boolean {
  const fold = COLLATIONS[attributes['collation'] ?? 'i;ascii-casemap'];
  if (!fold) throw new Refused(cal('supported-collation'));
  const wanted = fold(text);
  const negate = attributes['negate-condition'] === 'yes';
  return (other) => fold(other).includes(wanted) !== negate;
}
