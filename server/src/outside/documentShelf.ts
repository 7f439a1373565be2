import { FORMS, type FormName } from '@zonal/core/forms';
import { LRUCache } from 'lru-cache';
import { documentOf, type Document } from './document';
import type {
  Compiling,
  DavOrder,
  DifferenceOrder,
  EntryOrder,
  ImageOrder,
  KeyPlace,
  Order,
  PageOrder,
  ShownView,
  ToldOrder,
  WrittenBody,
} from './outside';

interface Kept {
  /** What was shown when it was made: it is never sent when that is another thing. */
  readonly shown: ShownView;
  readonly document: Document;
}

/** Answers to questions that are longer are asked for once, and not kept. */
const SHORT = 2_000;

/** An address, and the one that is to be used in its place where it was turned. */
type Address = Pick<KeyPlace, 'token' | 'moved' | 'farewell'>;

/** Documents that were asked for, as many as there is room for; those of a view share their body. */
export class DocumentShelf {
  private readonly documents: LRUCache<string, Kept>;
  private readonly bodies: LRUCache<string, WrittenBody>;
  /** What is being written just now. */
  private readonly asked = new Map<string, { shown: ShownView; document: Promise<Document | null> }>();

  constructor(
    private readonly compiling: Compiling,
    room: number,
  ) {
    const half = Math.ceil(room / 2);
    this.documents = new LRUCache({
      maxSize: half,
      sizeCalculation: ({ document }) => document.weight,
    });
    this.bodies = new LRUCache({
      maxSize: half,
      sizeCalculation: ({ plain, deflated }) => 1 + plain.length + deflated.length,
    });
  }

  /** Returns a form's document that is ready, or undefined. */
  ready(shown: ShownView, address: Address, form: FormName): Document | undefined {
    return this.kept(shown, nameOf(form, address));
  }

  /** Returns the document of a form, or null where what is shown has changed meanwhile. */
  form(shown: ShownView, address: Address, form: FormName, now: number): Promise<Document | null> {
    // Entries of some forms lead back to pages below the address: then the body is that address's own.
    const bodyKey = `${shown.viewId}|${form}|${FORMS[form].linked ? nameOf(form, address) : ''}`;
    const known = this.bodies.get(bodyKey) ?? null;
    const order = { ...orderOf(shown, address, now), form, body: known?.print ?? null };
    // A copy says when it was taken.
    return this.once(shown, nameOf(form, address), order, form !== 'copy', (body) => {
      if (body?.print) this.bodies.set(bodyKey, body);
      return body ?? known!;
    });
  }

  /** Returns a page of what is shown, or null where that has changed meanwhile. */
  page(shown: ShownView, address: Address, page: PageOrder, now: number): Promise<Document | null> {
    const name = JSON.stringify([address, page, now]);
    return this.once(shown, name, { ...orderOf(shown, address, now), ...page }, true, (body) => body!);
  }

  /** Returns a file with one entry, which says when it was taken; null as above. */
  entry(shown: ShownView, address: Address, entry: EntryOrder, now: number): Promise<Document | null> {
    const name = JSON.stringify([address, entry, now]);
    const order = { ...orderOf(shown, address, now), form: 'entry' as const, ...entry };
    return this.once(shown, name, order, false, (body) => body!);
  }

  /** Returns the image of an entry; null as above. */
  image(shown: ShownView, address: Address, image: ImageOrder, now: number): Promise<Document | null> {
    const name = JSON.stringify(['image', address.token, image]);
    const order = { ...orderOf(shown, address, now), form: 'image' as const, ...image };
    return this.once(shown, name, order, true, (body) => body!);
  }

  /** Returns what changed after a revision, or that it is not known any more; null as above. */
  difference(
    shown: ShownView,
    address: Address,
    difference: DifferenceOrder,
    now: number,
  ): Promise<Document | null> {
    const name = JSON.stringify(['difference', address.token, address.moved, address.farewell, difference]);
    const order = { ...orderOf(shown, address, now), form: 'difference' as const, ...difference };
    return this.once(shown, name, order, true, (body) => body!);
  }

  /** Returns what is answered to a program that asks something of a window as a collection; null as above. */
  dav(shown: ShownView, address: Address, dav: DavOrder, now: number): Promise<Document | null> {
    const name = JSON.stringify(['dav', address.token, address.moved, address.farewell, dav]);
    const order = { ...orderOf(shown, address, now), form: 'dav' as const, ...dav };
    return this.once(shown, name, order, dav.asked.body.length < SHORT, (body) => body!);
  }

  /** Returns what is told to somebody who does not look by themselves; null as above. */
  told(shown: ShownView, address: Address, told: ToldOrder, now: number): Promise<Document | null> {
    const name = JSON.stringify(['told', address, told, now]);
    const order = { ...orderOf(shown, address, now), form: 'told' as const, ...told };
    return this.once(shown, name, order, false, (body) => body!);
  }

  private kept(shown: ShownView, name: string): Document | undefined {
    const kept = this.documents.get(name);
    return kept?.shown === shown ? kept.document : undefined;
  }

  /** Several readers who ask for the same at once wait for one. */
  private once(
    shown: ShownView,
    name: string,
    order: Order,
    keep: boolean,
    bodyOf: (body: WrittenBody | null) => WrittenBody,
  ): Promise<Document | null> {
    const ready = keep && this.kept(shown, name);
    if (ready) return Promise.resolve(ready);
    const asked = this.asked.get(name);
    if (asked?.shown === shown) return asked.document;
    const document = this.write(order, bodyOf).then((made) => {
      // Anybody can ask for any number of things that are not there: they must not push out what is.
      if (made && keep && made.status !== 404) this.documents.set(name, { shown, document: made });
      return made;
    });
    const mine = { shown, document };
    this.asked.set(name, mine);
    const done = () => {
      if (this.asked.get(name) === mine) this.asked.delete(name);
    };
    document.then(done, done);
    return document;
  }

  private async write(
    order: Order,
    bodyOf: (body: WrittenBody | null) => WrittenBody,
  ): Promise<Document | null> {
    const written = await this.compiling.write(order);
    return written && documentOf(written, bodyOf(written.body), `r${order.number}`);
  }
}

/** What readers of one address are told besides makes its documents those of that address and moment alone. */
function nameOf(form: FormName, { token, moved, farewell }: Address): string {
  const told = [
    ...(moved ? [moved.token, moved.until] : []),
    ...(farewell ? ['ends', farewell.ends, farewell.until] : []),
  ];
  return [form, token, ...told].join('|');
}

function orderOf({ viewId, number }: ShownView, { token, moved, farewell }: Address, now: number) {
  return { viewId, number, token, moved, farewell, now };
}
