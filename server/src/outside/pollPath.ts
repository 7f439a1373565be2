import { formAt } from '@zonal/core/forms';
import type { IncomingMessage, ServerResponse } from 'node:http';
import { lacksBrotli, sendDocument } from './document';
import type { KeyUses } from './keyUses';
import type { Publisher } from './publisher';
import { traceOf } from './readerBook';

const PREFIX = '/feed/';

/**
 * Returns a function that answers subscribers asking "anything new?" from memory, before Express sees the request.
 * It returns false for everything that is not such a poll of an open window whose document is ready.
 */
export function pollPath(
  publisher: Publisher,
  uses: KeyUses,
): (req: IncomingMessage, res: ServerResponse) => boolean {
  return (req, res) => {
    const url = req.url!;
    if (!url.startsWith(PREFIX) || (req.method !== 'GET' && req.method !== 'HEAD')) return false;
    const end = url.indexOf('?');
    const dot = url.lastIndexOf('.', end < 0 ? undefined : end);
    const form = formAt('feed', url.slice(dot + 1, end < 0 ? undefined : end));
    if (!form) return false;
    const token = url.slice(PREFIX.length, dot);
    const door = publisher.door(token);
    if (door?.state !== 'open') return false;
    const ready = publisher.ready(door.shown, door.place, form);
    if (!ready || lacksBrotli(req, ready)) return false;
    uses.note(door.place.keyId, door.shown.number, Date.now(), traceOf(req));
    sendDocument(req, res, ready);
    return true;
  };
}
