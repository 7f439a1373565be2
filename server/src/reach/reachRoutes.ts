import type { ReachMail as MailSaid } from '@zonal/core/api';
import { reachLetter } from '@zonal/core/post';
import { firstInsideLanguage } from '@zonal/core/texts';
import { Problem } from '@zonal/core/problems';
import { ArrayMaxSize, ArrayMinSize, IsArray, IsString, IsUUID, MaxLength, isISO8601 } from 'class-validator';
import type { Sequelize } from 'sequelize';
import type { MakeChange } from '../db/changes';
import { houseName } from '../db/houseName';
import { KeyRow, WindowRow } from '../db/models';
import type { Outbox } from '../db/outbox';
import { unsealed } from '../db/sealed';
import { addressesOf } from '../glass/addresses';
import { requestLanguage } from '../http/requestLanguage';
import { route } from '../http/route';
import { windowIdsSeen } from '../people/windowsSeen';
import { MuteInput, UrgentInput, alerts, mute, setUrgent } from './alertStore';
import { lastingAnswer } from './lastingAnswer';
import { knowingOf, mailOf, reachLines, windowReach } from './reachStore';

export class ReachMail implements MailSaid {
  @IsArray() @ArrayMinSize(1) @ArrayMaxSize(500) @IsUUID(undefined, { each: true }) keyIds!: string[];
  /** Told in the mail as they are; they go outside. */
  @IsString() @MaxLength(2000) words!: string;
}

/** Whether subscribers are in sync, and when the rest will be. */
export const reachRoutes = (
  sequelize: Sequelize,
  change: MakeChange,
  outbox: Outbox,
  publicUrl: string,
  /** Says whether there is anything by which mail can go out. */
  mayMail: () => Promise<boolean>,
) => {
  const allLines = lastingAnswer((at) => reachLines(sequelize, undefined, at));

  return [
    route('GET /reach', {
      tag: 'Reach',
      summary: 'How the subscribers of the windows that the asker may see stand, a line for each window',
      handle: async ({ rights }) => {
        const seen = await windowIdsSeen(rights);
        const { at, value: lines } = await allLines();
        return {
          at: new Date(at).toISOString(),
          windows: seen ? lines.filter((l) => seen.includes(l.id)) : lines,
        };
      },
    }),
    route('GET /reach/knowing', {
      tag: 'Reach',
      summary: 'When readers would know of a change that is made now, or of the newest one',
      query: {
        windows: 'Ids of windows, with commas between; all that the asker may see where it is left out',
        by: 'The moment by which they should know (ISO 8601 with a zone)',
        revision: '“newest”: of the newest revision, which some hold already',
      },
      handle: async ({ req, rights }) => {
        const { windows, by, revision } = req.query as Record<string, string | undefined>;
        if (!isISO8601(by ?? '', { strict: true }) || Number.isNaN(Date.parse(by!)))
          throw new Problem('request-malformed', {
            reason: 'by must be a moment such as 2026-05-31T20:00:00Z',
          });
        const seen = await windowIdsSeen(rights);
        const asked = windows?.split(',').filter((id) => /^[0-9a-f-]{36}$/.test(id));
        const ids = asked && seen ? asked.filter((id) => seen.includes(id)) : (asked ?? seen);
        const now = Date.now();
        const told = await knowingOf(sequelize, ids, Date.parse(by!), revision === 'newest', now);
        return { at: new Date(now).toISOString(), by: new Date(by!).toISOString(), windows: told };
      },
    }),
    route('GET /windows/:id/reach', {
      tag: 'Reach',
      summary: 'How the subscribers of a window stand, key by key, and how its newest revisions spread',
      handle: ({ param }) => windowReach(sequelize, param('id'), Date.now()),
    }),
    route('GET /alerts', {
      tag: 'Reach',
      summary: 'What organisers should hear of the windows that the asker may see, the newest first',
      handle: async ({ req, rights, user }) =>
        alerts(sequelize, user.id, await windowIdsSeen(rights), requestLanguage(req)),
    }),
    route('PUT /windows/:id/alerts', {
      tag: 'Reach',
      summary: 'Mute alerts of a kind about a window or one of its keys for oneself, or hear them again',
      body: MuteInput,
      handle: async ({ req, body, param, rights, user }) => {
        await mute(sequelize, user.id, param('id'), body);
        return alerts(sequelize, user.id, await windowIdsSeen(rights), requestLanguage(req));
      },
    }),
    route('PUT /windows/:id/urgent', {
      tag: 'Reach',
      summary: 'Say by when the newest change of a window has to be known, or that it is urgent no more',
      body: UrgentInput,
      handle: async ({ body, param }) => {
        await setUrgent(sequelize, param('id'), body.by);
        return windowReach(sequelize, param('id'), Date.now());
      },
    }),
    route('POST /windows/:id/reach/mail', {
      tag: 'Reach',
      summary:
        'Writes to those to whom keys of a window are made out that it has changed; keys whose contact is no mail address are named',
      body: ReachMail,
      handle: async ({ body, param, user }) => {
        const window = (await WindowRow.findByPk(param('id')))!;
        const keys = await KeyRow.findAll({
          where: { id: body.keyIds, windowId: window.id, withdrawnAt: null },
          order: [['createdAt', 'ASC']],
        });
        const reached = keys.flatMap((key) => {
          const to = mailOf(key.contact);
          return to === null ? [] : [{ key, to }];
        });
        if (reached.length && !(await mayMail())) throw new Problem('mail-server-missing');
        return change(user.id, async (transaction) => {
          const house = await houseName(transaction);
          // Readers outside have no account: they get the language of the window, if the mail exists in it.
          const language = firstInsideLanguage([window.settings.language]) ?? 'en';
          const onlyIf = { effect: 'announcement', authorId: user.id, windowIds: [window.id] } as const;
          for (const { key, to } of reached) {
            const { see, feed } = addressesOf(publicUrl, unsealed(key.token));
            const letter = reachLetter({
              ...{ house, language, window: window.name, words: body.words.trim(), see, feed },
            });
            await outbox.put(to, 'reach-note', letter, transaction, { authorId: user.id, onlyIf });
          }
          const without = keys.filter((k) => mailOf(k.contact) === null).map((k) => k.madeOutTo);
          return { result: { sent: reached.length, without }, touched: [] };
        });
      },
    }),
  ];
};
