import type { ZoneName } from '../../zones';
import { datesLines } from '../icsEvent';
import { itemText } from '../icsCalendar';
import { joinLines } from '../icsText';
import type { Member, Members } from './members';
import { cal, dav } from './names';
import { childOf, type Element } from './readXml';
import { Refused } from './refused';
import { byClocksOf, stretchOf, touches } from './when';

/**
 * Returns a function that gives the iCalendar text of members as a request asks for it (RFC 4791 section 9.6): whole, every
 * date by itself, only some dates of what recurs, or only some components and properties. Which dates lie in a stretch follows
 * from the clocks of `zone` where they name none.
 */
export function calendarData(asked: Element, members: Members, zone: ZoneName): (member: Member) => string {
  const { 'content-type': type = 'text/calendar', version = '2.0' } = asked.attributes;
  if (type.toLowerCase() !== 'text/calendar' || version !== '2.0')
    throw new Refused(cal('supported-calendar-data'));
  const [expand, limit, comp] = ['expand', 'limit-recurrence-set', 'comp'].map((n) => childOf(asked, cal(n)));
  const shape = comp && shapeOf(comp);
  const cut = (text: string) => (shape ? onlyOf(text, shape) : text);
  const dates = expand && stretchOf(expand, true);
  const some = limit && stretchOf(limit, true);
  return (member) => {
    const { item } = member;
    const stamp = item && members.revision.stamps[item.uid]!;
    if (item && stamp && dates) {
      const lines = datesLines(
        item,
        (time) => touches(byClocksOf(zone, time), dates),
        stamp,
        members.setting,
      );
      return cut(members.documentOf(joinLines(lines)));
    }
    if (item?.kind === 'series' && stamp && some) {
      const overrides = item.overrides.filter((o) => touches(byClocksOf(zone, o), some));
      const text = itemText({ ...item, overrides }, stamp, members.setting);
      return cut(members.documentOf(text, members.zonesText(item)));
    }
    return cut(member.text());
  };
}

/** What is asked for of a component: all of it where nothing is named. */
interface Shape {
  readonly name: string;
  readonly props: ReadonlySet<string> | null;
  readonly comps: readonly Shape[] | null;
}

function shapeOf(comp: Element): Shape {
  const own = (name: string) => comp.children.filter((c) => c.name === cal(name));
  const [props, comps] = [own('prop'), own('comp')];
  return {
    name: (comp.attributes['name'] ?? '').toUpperCase(),
    props: own('allprop').length
      ? null
      : new Set(props.map((p) => (p.attributes['name'] ?? '').toUpperCase())),
    comps: own('allcomp').length ? null : comps.map(shapeOf),
  };
}

/** Returns the lines of a document that a shape asks for; folded lines go with the line that they belong to. */
function onlyOf(text: string, shape: Shape): string {
  const lines = text.split(/\r\n(?![ \t])/).filter(Boolean);
  const out: string[] = [];
  /** Of the components that are open: null where nothing of one is asked for, 'all' where everything is. */
  const open: (Shape | null | 'all')[] = [];
  for (const line of lines) {
    const [word = '', rest = ''] = line.split(/[;:]/, 2);
    const inside = open.at(-1);
    if (word === 'BEGIN') {
      const found = open.length ? below(inside!, rest) : rest === shape.name ? shape : null;
      open.push(found);
      if (found) out.push(line);
    } else if (word === 'END') {
      if (open.pop()) out.push(line);
    } else if (inside && (inside === 'all' || !inside.props || inside.props.has(word))) out.push(line);
  }
  return out.map((line) => `${line}\r\n`).join('');
}

function below(inside: Shape | null | 'all', name: string): Shape | null | 'all' {
  if (inside === null || inside === 'all' || inside.comps === null) return inside && 'all';
  return inside.comps.find((comp) => comp.name === name) ?? null;
}

/** The request's element that asks for it, where it does. */
export function dataIn(prop: Element | undefined): Element | undefined {
  return prop?.name === dav('prop') ? childOf(prop, cal('calendar-data')) : undefined;
}
