import { Problem } from '@zonal/core/problems';
import { IsEmail, IsString, MaxLength, MinLength } from 'class-validator';
import type { Request } from 'express';
import { UserRow } from '../db/models';
import { route } from '../http/route';
import { passwordFits } from './passwords';
import { csrfToken } from './session';

export class SignIn {
  @IsEmail()
  @MaxLength(200)
  email!: string;

  @IsString()
  @MinLength(1)
  @MaxLength(200)
  password!: string;
}

/** Who is signed in, and the token that changing requests must carry. */
export interface SessionAnswer {
  readonly user: { readonly name: string; readonly email: string; readonly role: string } | null;
  readonly csrf: string;
}

async function answer(req: Request): Promise<SessionAnswer> {
  const row = req.session.userId ? await UserRow.findByPk(req.session.userId) : null;
  return { user: row && { name: row.name, email: row.email, role: row.role }, csrf: csrfToken(req) };
}

const done = (act: (then: (error: unknown) => void) => void) =>
  new Promise<void>((resolve, reject) => act((error) => (error ? reject(error as Error) : resolve())));

export const sessionRoutes = [
  route({
    method: 'get',
    path: '/session',
    tag: 'Signing in',
    summary: 'Who is signed in, and the CSRF token',
    open: true,
    handle: ({ req }) => answer(req),
  }),
  route<SignIn>({
    method: 'post',
    path: '/session',
    tag: 'Signing in',
    summary: 'Sign in',
    body: SignIn,
    open: true,
    handle: async ({ req, body }) => {
      const user = await UserRow.findOne({ where: { email: body.email.toLowerCase() } });
      if (!(await passwordFits(user?.passwordHash, body.password))) throw new Problem('sign-in-failed');
      // A new session at each sign-in: an identifier known before it is worth nothing after.
      await done((then) => req.session.regenerate(then));
      req.session.userId = user!.id;
      return answer(req);
    },
  }),
  route({
    method: 'delete',
    path: '/session',
    tag: 'Signing in',
    summary: 'Sign out',
    open: true,
    handle: async ({ req }) => {
      await done((then) => req.session.destroy(then));
    },
  }),
];
