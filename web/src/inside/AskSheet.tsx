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
    <Sheet title={`Ask for ${calendar.name}`} onClose={onClose} isChanged={isChanged}>
      <form onSubmit={(event) => void submit(event)}>
        <Stack>
          <p>
            {publishers.length
              ? `${publishers.join(', ')} ${publishers.length === 1 ? 'gets' : 'get'} a mail, and can let you with one step.`
              : 'Nobody publishes it just now; a steward answers.'}{' '}
            You find the answer under Requests.
          </p>
          {open && <Faded>You have asked already; this takes its place.</Faded>}
          <StandingChoice
            label="What you would be"
            value={form}
            onChange={(part) => setForm({ ...form, ...part })}
          />
          <Field
            label="Why"
            value={form.reason}
            onChange={(reason) => setForm({ ...form, reason })}
            lines
            maxLength={1000}
            help="What you need it for: it helps them to decide."
          />
          <Refusal problem={problemOf(error)} />
          <Row>
            <MainButton type="submit" isDisabled={isLoading}>
              Ask
            </MainButton>
            <Button onPress={onClose}>Cancel</Button>
          </Row>
        </Stack>
      </form>
    </Sheet>
  );
}
