import { formAt } from '@zonal/core/forms';
import type { IncomingMessage, ServerResponse } from 'node:http';
import { lacksBrotli, sendDocument } from './document';
import { traceOf } from '../http/trace';
import type { Counting } from './counting';
import type { Publisher } from './publisher';

const PREFIX = '/feed/';

/**
 * Returns a function that answers subscribers asking "anything new?" from memory, before Express sees the request.
 * It returns false for everything that is not such a poll of an open window whose document is ready.
 */
export function pollPath(
  publisher: Publisher,
  counting: Counting,
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
    if (form === 'feed' && req.headers.prefer !== undefined) return false;
    const ready = publisher.ready(door.shown, door.place, form);
    if (!ready || lacksBrotli(req, ready)) return false;
    const { viewId, number } = door.shown;
    counting.note({
      keyId: door.place.keyId,
      viewId,
      number,
      form,
      held: req.headers['if-none-match'] ?? '',
      at: Date.now(),
      trace: traceOf(req),
    });
    sendDocument(req, res, ready);
    return true;
  };
}
