import type { Session } from '@zonal/core/api';
import { Problem } from '@zonal/core/problems';
import { IsEmail, IsString, MaxLength, MinLength } from 'class-validator';
import type { Request, Response } from 'express';
import type { Sequelize } from 'sequelize';
import type { Config } from '../config';
import { UserRow } from '../db/models';
import { route } from '../http/route';
import { passwordFits } from './passwords';
import type { Doorkeeper } from './session';
import { countSignInTry, rememberDevice } from './signInTries';

export class SignIn {
  @IsEmail()
  @MaxLength(200)
  email!: string;

  @IsString()
  @MinLength(1)
  @MaxLength(200)
  password!: string;
}

export interface SessionSetting extends Pick<Config, 'tryOut' | 'demoAccounts' | 'postbox' | 'publicUrl'> {
  /** Returns whether a mail server is set up. */
  readonly mayMail: () => Promise<boolean>;
}

/** Returns who is signed in, and what pages need to know before anything else. */
export async function sessionAnswer(
  door: Doorkeeper,
  setting: SessionSetting,
  req: Request,
  res: Response,
): Promise<Session> {
  const row = await door.visitor(req);
  return {
    user: row && { name: row.name, email: row.email, role: row.role, language: row.language },
    csrf: door.csrfToken(req, res),
    tryOut: setting.tryOut,
    demo: setting.demoAccounts ?? [],
    postbox: row ? setting.postbox : '',
    begun: row !== null || (await UserRow.count()) > 0,
    sendsMail: await setting.mayMail(),
  };
}

export const sessionRoutes = (sequelize: Sequelize, door: Doorkeeper, setting: SessionSetting) => [
  route('GET /session', {
    tag: 'Signing in',
    summary: 'Who is signed in, and the CSRF token',
    open: true,
    handle: ({ req, res }) => sessionAnswer(door, setting, req, res),
  }),
  route('POST /session', {
    tag: 'Signing in',
    summary: 'Sign in',
    body: SignIn,
    open: true,
    handle: async ({ req, res, body }) => {
      const email = body.email.toLowerCase();
      const user = await UserRow.findOne({ where: { email } });
      const takeBack = await countSignInTry(sequelize, req, { email, userId: user?.id });
      if (!(await passwordFits(user?.passwordHash, body.password))) throw new Problem('sign-in-failed');
      await door.signIn(req, user!);
      await takeBack();
      rememberDevice(res, user!.id, setting.publicUrl.startsWith('https:'));
      return sessionAnswer(door, setting, req, res);
    },
  }),
  route('DELETE /session', {
    tag: 'Signing in',
    summary: 'Sign out',
    open: true,
    handle: ({ req }) => door.signOut(req),
  }),
];
