import type { MailServerTold, Post } from '@zonal/core/api';
import { testLetter } from '@zonal/core/post';
import { Problem } from '@zonal/core/problems';
import {
  IsBoolean,
  IsEmail,
  IsInt,
  IsOptional,
  IsString,
  Matches,
  Max,
  MaxLength,
  Min,
  isUUID,
} from 'class-validator';
import { languageOf } from '../db/accountLanguage';
import type { MakeChange } from '../db/changes';
import { houseName } from '../db/houseName';
import { MailRow, MailSettingsRow } from '../db/models';
import { recipientTold, type Outbox } from '../db/outbox';
import { seal } from '../db/sealed';
import { IsVersion } from '../http/inputs';
import { route } from '../http/route';
import { mailServerNow } from './mailer';
import type { MailServer } from './mailServer';

/** Mails that are told under House. */
const TOLD = 200;

export class MailServerInput {
  @Matches(/^[\w.:-]+$/, { message: 'host must be a name such as mail.house.example' })
  @MaxLength(253)
  host!: string;
  @IsInt() @Min(1) @Max(65535) port!: number;
  /** Whether the connection is encrypted from its beginning. */
  @IsBoolean() secure!: boolean;
  /** Empty where the server asks for none. */
  @IsString() @MaxLength(200) account!: string;
  /** Null keeps the one that there is. */
  @IsOptional() @IsString() @MaxLength(500) password!: string | null;
  /** The address that mail comes from. */
  @IsEmail() @MaxLength(200) sender!: string;
  /** The version that was seen; 0 where the house had set nothing. */
  @IsVersion() version!: number;
}

/** Its password is told to nobody. */
const toldOf = ({ password: _password, ...told }: MailServer): MailServerTold => told;

/** Where mail is sent from, and what became of it. What a mail says is told to nobody but its addressee. */
export const postRoutes = (change: MakeChange, outbox: Outbox, usual: MailServer | null) => {
  const answer = async (): Promise<Post> => {
    const [row, server, mails] = await Promise.all([
      MailSettingsRow.findByPk(1),
      mailServerNow(usual),
      MailRow.findAll({ order: [['createdAt', 'DESC']], limit: TOLD }),
    ]);
    return {
      server: server && toldOf(server),
      setBy: row ? 'house' : usual ? 'start' : null,
      version: row?.version ?? 0,
      mails: mails.map((m) => ({
        id: m.id,
        kind: m.kind,
        to: recipientTold(m),
        state: m.state,
        tries: m.tries,
        trouble: m.trouble,
        at: m.createdAt.toISOString(),
        sentAt: m.sentAt?.toISOString() ?? null,
      })),
    };
  };
  return [
    route('GET /post', {
      tag: 'Post',
      summary: 'The mail server, and the mails that wait, were sent or could not be; for stewards',
      handle: () => answer(),
    }),
    route('PUT /post/server', {
      tag: 'Post',
      summary: 'Set the mail server that mail is handed over to; what was kept for want of one is sent',
      body: MailServerInput,
      again: () => answer(),
      handle: async ({ body, user }) => {
        await change(user.id, async (transaction) => {
          const { version, password, ...columns } = body;
          const old = await MailSettingsRow.findByPk(1, { transaction });
          if ((old?.version ?? 0) !== version)
            throw new Problem('version-conflict', {
              current: await answer(),
              yours: { ...body, password: null },
            });
          // A password is for the server that it was written for.
          const kept = old && old.host === columns.host && old.account === columns.account ? old.secret : '';
          const secret = password === null ? kept : password && seal(password);
          await MailSettingsRow.upsert({ id: 1, ...columns, secret, version: version + 1 }, { transaction });
          for (const { id } of await MailRow.findAll({ where: { state: 'kept' }, transaction }))
            await outbox.again(id, transaction);
          return { result: undefined, touched: [] };
        });
        return answer();
      },
    }),
    route('DELETE /post/server', {
      tag: 'Post',
      summary:
        'Forget the mail server that the house set; the one that the server was started with is used again',
      again: () => answer(),
      handle: async ({ user }) => {
        await change(user.id, async (transaction) => {
          await MailSettingsRow.destroy({ where: { id: 1 }, transaction });
          return { result: undefined, touched: [] };
        });
        return answer();
      },
    }),
    route('POST /post/test', {
      tag: 'Post',
      summary: 'Send a test mail to oneself',
      again: () => answer(),
      handle: async ({ user }) => {
        if (!(await mailServerNow(usual))) throw new Problem('mail-server-missing');
        await change(user.id, async (transaction) => {
          const house = await houseName(transaction);
          await outbox.put(
            user.email,
            'test',
            testLetter({ house, language: languageOf(user), by: user.name }),
            transaction,
            {
              authorId: user.id,
            },
          );
          return { result: undefined, touched: [] };
        });
        return answer();
      },
    }),
    route('POST /post/:id/again', {
      tag: 'Post',
      summary: 'Send a mail again that was not sent, or may not have been',
      again: () => answer(),
      handle: async ({ param, user }) => {
        const row = isUUID(param('id')) ? await MailRow.findByPk(param('id')) : null;
        if (!row) throw new Problem('not-found');
        await change(user.id, async (transaction) => {
          if (!(await outbox.again(row.id, transaction))) throw new Problem('mail-state');
          return { result: undefined, touched: [] };
        });
        return answer();
      },
    }),
  ];
};
