import type { DirectoryCalendar, WishInput } from '@zonal/core/api';
import { useState, type FormEvent } from 'react';
import { problemOf, useAskMutation, useDirectoryQuery, useWishesQuery } from '../api/zonalApi';
import { Button, MainButton } from '../ui/Button';
import { Field } from '../ui/Field';
import { Faded, Row, Stack } from '../ui/layout';
import { Refusal } from '../ui/Refusal';
import { Sheet } from '../ui/Sheet';
import { useChanged } from '../ui/Unsaved';
import { StandingChoice } from './StandingChoice';
import { t } from '../texts/inside';

interface AskSheetProps {
  calendar: Pick<DirectoryCalendar, 'id' | 'name'>;
  onClose: () => void;
}

/** Asks a calendar's publishers to be let see it, or more of it. */
export function AskSheet({ calendar, onClose }: AskSheetProps) {
  const { data: directory } = useDirectoryQuery();
  const { data: wishes } = useWishesQuery();
  const open = wishes?.find((w) => w.calendarId === calendar.id && w.state === 'open' && w.own);
  const [form, setForm] = useState<WishInput>({
    standing: open?.standing ?? 'reader',
    glass: open ? open.glass : 'tinted',
    reason: open?.reason ?? '',
  });
  const isChanged = useChanged(form);
  const [ask, { error, isLoading }] = useAskMutation();
  const publishers = directory?.find((c) => c.id === calendar.id)?.publishers ?? [];
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const { error: refused } = await ask({ id: calendar.id, body: form });
    if (!refused) onClose();
  };
  return (
    <Sheet title={t('askFor', { name: calendar.name })} onClose={onClose} isChanged={isChanged}>
      <form onSubmit={(event) => void submit(event)}>
        <Stack>
          <p>
            {publishers.length
              ? t('publishersGetMail', { publishers: publishers.join(', '), count: publishers.length })
              : t('noPublisher')}{' '}
            {t('answerUnderRequests')}
          </p>
          {open && <Faded>{t('replacesRequest')}</Faded>}
          <StandingChoice
            label={t('wantedRole')}
            value={form}
            onChange={(part) => setForm({ ...form, ...part })}
          />
          <Field
            label={t('why')}
            value={form.reason}
            onChange={(reason) => setForm({ ...form, reason })}
            lines
            maxLength={1000}
            help={t('whyHelp')}
          />
          <Refusal problem={problemOf(error)} />
          <Row>
            <MainButton type="submit" isDisabled={isLoading}>
              {t('ask')}
            </MainButton>
            <Button onPress={onClose}>{t('cancel')}</Button>
          </Row>
        </Stack>
      </form>
    </Sheet>
  );
}
