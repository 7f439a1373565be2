import { plainName } from '@zonal/core/forms';
import type { DemoAccount } from './config';
import { route } from './http/route';
import type { Sequelize } from 'sequelize';
import { windowAnswers } from './glass/windowStore';

/** The accounts and addresses of the demo. Mounted in demo mode only. */
export const demoRoute = (accounts: readonly DemoAccount[], sequelize: Sequelize, publicUrl: string) =>
  route('GET /demo', {
    tag: 'Demo',
    summary: 'Accounts and windows of the demo; exists in demo mode only',
    open: true,
    handle: async () => ({
      accounts,
      windows: (await windowAnswers(sequelize, publicUrl)).flatMap((w) =>
        w.keys.map((k) => ({
          slug: w.slug ?? plainName(w.wording.name, 'window'),
          title: w.wording.name,
          zone: k.audience,
          glass: [...new Set(w.sources.map((s) => s.glass))].join(', '),
          listed: w.listed,
          madeOutTo: k.madeOutTo,
          key: k.token,
          see: k.see,
          embed: k.embed,
          feed: k.feed,
          dav: k.dav,
          freeBusy: k.freeBusy,
          jCal: k.jCal,
          table: k.table,
          changes: k.changes,
          copy: k.copy,
        })),
      ),
    }),
  });
