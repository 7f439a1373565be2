import { FORMS, fileNameOf, writePage, type Notice } from '@zonal/core/forms';
import { addressesOf } from '../glass/windowStore';
import type { Moved, Order, Written } from './outside';
import type { State } from './viewState';
import { BodyWriter, noBody, writeHead } from './writing';

/** Pages and feeds that are not listed tell search engines so. */
const UNLISTED = { 'X-Robots-Tag': 'noindex, nofollow' };

interface Place {
  readonly publicUrl: string;
  readonly listed: boolean;
}

function noticeOf({ token, at, until }: Moved, publicUrl: string): Notice {
  const { see, feed } = addressesOf(publicUrl, token);
  return { see, feed, at, until };
}

/** Returns the document that is asked for of a view. */
export function writeOrder(order: Order, state: State, { publicUrl, listed }: Place): Written {
  const { view, revision, bodies } = state;
  const { now } = order;
  const addresses = addressesOf(publicUrl, order.token);
  const notice = order.moved && noticeOf(order.moved, publicUrl);
  const robots = listed ? {} : UNLISTED;
  if ('query' in order) {
    const { form } = order;
    const self = new URL(form === 'page' ? addresses.see : addresses.embed).pathname;
    const html = writePage(view, revision, {
      form,
      query: order.query,
      now,
      addresses: {
        ...addresses,
        self,
        copy: new URL(addresses.copy).pathname,
        oEmbed: `${publicUrl}/oembed?url=${encodeURIComponent(addresses.see)}`,
      },
      assets: '/outside/',
      notice,
    });
    const headers = { 'Content-Type': 'text/html; charset=utf-8', ...robots };
    return { ...writeHead(html, noBody()), body: noBody(), headers, dated: null };
  }
  const { form } = order;
  const { contentType, steady, dated, shared, parts } = FORMS[form];
  const { head, blocks } = parts(view, revision, { addresses, now, notice });
  let writer = bodies.get(form);
  if (!writer) bodies.set(form, (writer = new BodyWriter()));
  const body = blocks.length ? writer.write(blocks) : noBody();
  return {
    ...writeHead(head, body),
    body: body.print === order.body ? null : body,
    headers: {
      'Content-Type': contentType,
      'Content-Disposition': `${form === 'copy' ? 'attachment' : 'inline'}; filename="${fileNameOf(form, view, now)}"`,
      ...(steady ? { 'Last-Modified': new Date(revision.at).toUTCString() } : {}),
      ...(shared ? { 'Access-Control-Allow-Origin': '*' } : {}),
      ...robots,
    },
    dated: dated ? revision.at : null,
  };
}
