import type { Session } from '@zonal/core/api';
import { Problem } from '@zonal/core/problems';
import { IsEmail, IsString, MaxLength, MinLength } from 'class-validator';
import type { Request, Response } from 'express';
import { UserRow } from '../db/models';
import { route } from '../http/route';
import { passwordFits } from './passwords';
import type { Doorkeeper } from './session';

export class SignIn {
  @IsEmail()
  @MaxLength(200)
  email!: string;

  @IsString()
  @MinLength(1)
  @MaxLength(200)
  password!: string;
}

async function answer(door: Doorkeeper, tryOut: string, req: Request, res: Response): Promise<Session> {
  const row = await door.visitor(req);
  return {
    user: row && { name: row.name, email: row.email, role: row.role },
    csrf: door.csrfToken(req, res),
    tryOut,
  };
}

export const sessionRoutes = (door: Doorkeeper, tryOut: string) => [
  route('GET /session', {
    tag: 'Signing in',
    summary: 'Who is signed in, and the CSRF token',
    open: true,
    handle: ({ req, res }) => answer(door, tryOut, req, res),
  }),
  route('POST /session', {
    tag: 'Signing in',
    summary: 'Sign in',
    body: SignIn,
    open: true,
    handle: async ({ req, res, body }) => {
      const user = await UserRow.findOne({ where: { email: body.email.toLowerCase() } });
      if (!(await passwordFits(user?.passwordHash, body.password))) throw new Problem('sign-in-failed');
      await door.signIn(req, user!);
      return answer(door, tryOut, req, res);
    },
  }),
  route('DELETE /session', {
    tag: 'Signing in',
    summary: 'Sign out',
    open: true,
    handle: ({ req }) => door.signOut(req),
  }),
];
