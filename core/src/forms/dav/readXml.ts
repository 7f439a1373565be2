import { SaxesParser } from 'saxes';
import type { Name } from './names';

/** An element of a request. */
export interface Element {
  readonly name: Name;
  /** By name without a namespace. */
  readonly attributes: Readonly<Record<string, string>>;
  readonly children: readonly Element[];
  /** The text that stands directly in it, without white space around it. */
  readonly text: string;
}

/** No request of a program needs more elements, or deeper ones. */
const [MOST_ELEMENTS, MOST_DEEP] = [12_000, 16];

class Unreadable extends Error {}

/**
 * Returns the outermost element of an XML document (XML 1.0, with namespaces), or null where it is malformed, larger or
 * deeper than any request is, or has a document type: no entity is ever defined or fetched.
 */
export function readXml(text: string, most = MOST_ELEMENTS): Element | null {
  const parser = new SaxesParser({ xmlns: true });
  interface Open extends Element {
    readonly children: Element[];
    text: string;
  }
  const stack: Open[] = [];
  let root: Element | null = null;
  let count = 0;
  const refuse = () => {
    throw new Unreadable();
  };
  parser.on('error', refuse);
  parser.on('doctype', refuse);
  parser.on('opentag', ({ uri, local, attributes }) => {
    if (++count > most || stack.length >= MOST_DEEP) refuse();
    const own: Record<string, string> = {};
    for (const a of Object.values(attributes)) if (!a.uri) own[a.local] = a.value;
    stack.push({ name: `${uri} ${local}`, attributes: own, children: [], text: '' });
  });
  const put = (piece: string) => {
    const open = stack.at(-1);
    if (open) open.text += piece;
  };
  parser.on('text', put);
  parser.on('cdata', put);
  parser.on('closetag', () => {
    const done = stack.pop()!;
    done.text = done.text.trim();
    const parent = stack.at(-1);
    if (parent) parent.children.push(done);
    else root = done;
  });
  try {
    parser.write(text.replace(/^\ufeff/, '')).close();
  } catch (error) {
    if (error instanceof Unreadable) return null;
    throw error;
  }
  return root;
}

/** Returns the first child with a name. */
export function childOf(element: Element | undefined, name: Name): Element | undefined {
  return element?.children.find((child) => child.name === name);
}
