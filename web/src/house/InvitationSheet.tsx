import type { Invitation } from '@zonal/core/api';
import { useState, type FormEvent } from 'react';
import { problemOf, useChangeInvitationMutation } from '../api/zonalApi';
import { Button, MainButton } from '../ui/Button';
import { Row, Stack } from '../ui/layout';
import { ProblemNotice } from '../ui/ProblemNotice';
import { Overtaken } from '../ui/Overtaken';
import { Sheet } from '../ui/Sheet';
import { Tick } from '../ui/Tick';
import { StandingsFields } from './StandingsFields';
import { t } from '../texts/house';

const formOf = ({ steward, standings, version }: Invitation) => ({ steward, standings, version });

/** Changes what somebody will be who has not answered yet. */
export function InvitationSheet({ invitation, onClose }: { invitation: Invitation; onClose: () => void }) {
  const [form, setForm] = useState(() => formOf(invitation));
  const [save, saving] = useChangeInvitationMutation();
  const problem = problemOf(saving.error);
  const current =
    problem?.code === 'version-conflict' ? (problem.details['current'] as Invitation | null) : null;
  const set = (part: Partial<typeof form>) => setForm((f) => ({ ...f, ...part }));
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const { error } = await save({ id: invitation.id, body: form });
    if (!error) onClose();
  };
  return (
    <Sheet title={t('invitationOf', { email: invitation.email })} onClose={onClose} wide>
      <form onSubmit={(event) => void submit(event)}>
        <Stack>
          <p>{t('invitationHint')}</p>
          <StandingsFields value={form.standings} onChange={(standings) => set({ standings })} />
          <Tick isSelected={form.steward} onChange={(steward) => set({ steward })}>
            {t('stewardOfHouse')}
            <small>{t('stewardHint')}</small>
          </Tick>
          {current && (
            <Overtaken
              what="invitation"
              onMine={() => {
                set({ version: current.version });
                saving.reset();
              }}
              onTheirs={() => {
                setForm(formOf(current));
                saving.reset();
              }}
            />
          )}
          {problem && !current && <ProblemNotice problem={problem} />}
          <Row>
            <MainButton type="submit" isDisabled={saving.isLoading}>
              {t('save')}
            </MainButton>
            <Button onPress={onClose}>{t('discard')}</Button>
          </Row>
        </Stack>
      </form>
    </Sheet>
  );
}
