import { Problem } from '@zonal/core/problems';
import { ACCOUNT_LIMITS } from '@zonal/core/rights';
import type { Sequelize } from 'sequelize';
import type { MakeChange } from '../db/changes';
import { EditRow } from '../db/models';
import { route } from '../http/route';
import { ChangesInput, EditInput } from './editInput';
import { addChanges, editNow, editOf, stageEdit, turnEdit } from './editStore';

export const editRoutes = (sequelize: Sequelize, change: MakeChange) => [
  route('POST /edits', {
    tag: 'Edits',
    summary:
      'Change, write, move or delete entries, all or none; 409 with both versions when one was changed first',
    body: EditInput,
    status: 201,
    handle: async ({ body, user }) => {
      if (!body.staged) return editNow(sequelize, change, user.id, body.label, body.changes);
      const most = ACCOUNT_LIMITS.stagedEdits;
      if ((await EditRow.count({ where: { userId: user.id, state: 'staged' } })) >= most)
        throw new Problem('too-many-staged-edits', { most });
      const edit = await stageEdit(user.id, body.label);
      await addChanges(edit, body.changes);
      return { id: edit.id, label: edit.label, state: edit.state, size: body.changes.length, entries: [] };
    },
  }),
  route('POST /edits/:id/changes', {
    tag: 'Edits',
    summary: 'Add changes to an edit that is not applied yet',
    body: ChangesInput,
    handle: async ({ body, param, user }) => {
      await addChanges(await editOf(param('id'), user.id), body.changes);
    },
  }),
  route('DELETE /edits/:id', {
    tag: 'Edits',
    summary: 'Drop an edit that is not applied yet',
    handle: async ({ param, user }) => {
      const edit = await editOf(param('id'), user.id);
      if (edit.state === 'staged') await edit.destroy();
    },
  }),
  ...(['apply', 'take-back', 'again'] as const).map((way) =>
    route(`POST /edits/:id/${way}` as const, {
      tag: 'Edits',
      summary: {
        apply: 'Apply an edit that was staged, whole or not at all',
        'take-back': 'Put everything back as it was before an edit',
        again: 'Do again what was taken back',
      }[way],
      handle: async ({ param, user }) => turnEdit(sequelize, change, await editOf(param('id'), user.id), way),
    }),
  ),
];
