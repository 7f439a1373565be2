import { keyState } from '@zonal/core/glass';
import { Problem } from '@zonal/core/problems';
import { IsISO8601, IsOptional } from 'class-validator';
import { windowTold, type Publishing } from '../glass/publishWindow';
import { keyOf, viewIdOf } from '../glass/windowStore';
import { route } from '../http/route';
import { loadView } from './viewStore';

export class KeyInput {
  /** From when on its addresses are no longer open (ISO 8601 with a zone); null for no end. */
  @IsOptional() @IsISO8601({ strict: true }) expiresAt!: string | null;
}

/** Answers wait until the change acts outside. */
export const keyRoutes = (publishing: Publishing) => {
  const { sequelize, change } = publishing;
  const answer = (windowId: string) => windowTold(publishing, windowId);
  return [
    route('GET /keys/:id/revision', {
      tag: 'Windows',
      summary: 'The revision that readers with a key see now; null before the first one',
      handle: async ({ param }) => {
        return (await loadView(sequelize, viewIdOf(await keyOf(param('id')))))?.revision ?? null;
      },
    }),
    route('PUT /keys/:id', {
      tag: 'Windows',
      summary:
        'Set the moment from which on the addresses of a key are no longer open, or take it back with null',
      body: KeyInput,
      again: async ({ param }) => answer((await keyOf(param('id'))).windowId),
      handle: async ({ body, param, user }) => {
        const key = await keyOf(param('id'));
        const expiresAt = body.expiresAt ? new Date(body.expiresAt) : null;
        if (keyState(body, Date.now()) === 'ended') throw new Problem('expiry-past');
        const { windowId } = key;
        await change(user.id, async (transaction) => {
          await key.update({ expiresAt }, { transaction });
          return { result: undefined, touched: [{ windowId }] };
        });
        return answer(windowId);
      },
    }),
  ];
};
