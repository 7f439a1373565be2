import { imageNamesOf, isImageName } from '@zonal/core/entries';
import { Problem } from '@zonal/core/problems';
import { raw } from 'express';
import type { Sequelize } from 'sequelize';
import { imageBytes } from '../db/imageModel';
import { route } from '../http/route';
import { calendarOf } from './calendarStore';
import { isInCalendar, isUploader, storeImage } from './imageStore';
import type { InsideViews } from './insideViews';

/** What a browser calls the files that can be images of entries. */
const IMAGE_TYPES = ['image/jpeg', 'image/png', 'image/webp', 'image/gif'] as const;
const MAX_FILE_SIZE = '12mb';

/** Reads the body of an upload. */
export const readImage = () => raw({ type: ['image/*'], limit: MAX_FILE_SIZE });

export const imageRoutes = (sequelize: Sequelize, views: InsideViews) => [
  route('POST /calendars/:id/images', {
    tag: 'Entries',
    summary:
      'Upload an image for an entry of a calendar; it is made smaller where it is large, and where it was taken is left out',
    upload: IMAGE_TYPES,
    status: 201,
    handle: async ({ req, param, user }) => {
      await calendarOf(param('id'));
      const file = req.body as unknown;
      if (!Buffer.isBuffer(file)) throw new Problem('image-unreadable');
      return storeImage(file, user.id);
    },
  }),
  route('GET /calendars/:id/images/:name', {
    tag: 'Entries',
    summary: 'The image of an entry that the asker sees, or one that the asker uploaded, as WebP',
    sends: 'image/webp',
    handle: async ({ res, param, user, rights }) => {
      const { id } = await calendarOf(param('id'));
      const name = param('name');
      if (rights.sight(id) === 'shut' || !isImageName(name)) throw new Problem('not-found');
      const isSeen =
        (await isUploader(name, user.id)) ||
        (rights.sight(id) === 'all'
          ? await isInCalendar(sequelize, name, id)
          : (await views.seen(id, rights)).entries.some((entry) => imageNamesOf(entry).includes(name)));
      const bytes = isSeen ? await imageBytes(name) : null;
      if (!bytes) throw new Problem('not-found');
      res.type('image/webp').send(bytes);
    },
  }),
];
