import type { Calendar, CalendarPeopleInput } from '@zonal/core/api';
import { ceilingsInForce } from '@zonal/core/glass';
import { clearerInside, glassInside } from '@zonal/core/rights';
import { useMemo, useState } from 'react';
import styled from 'styled-components';
import { useCeilingsQuery } from '../api/zonalApi';
import { SelectOne } from '../ui/Choice';
import { Faded, FramedList, Stack } from '../ui/layout';
import { Notice } from '../ui/Notice';
import type { InsideQuestion } from '../workers/questions';
import { useAnswer } from '../workers/useAnswer';
import { t } from '../texts/inside';

const Lines = styled(FramedList)`
  font-variant-numeric: tabular-nums;
`;

interface SightPreviewProps {
  calendar: Calendar;
  /** As it stands in the form. */
  people: Pick<Required<CalendarPeopleInput>, 'people' | 'houseGlass' | 'known' | 'labelHolds'>;
  nameOf: (userId: string) => string;
  /** The one whose sight it is about; else each can be chosen. */
  only?: string;
}

/** What somebody would see of a calendar next, by what stands in the form. */
export function SightPreview({ calendar, people, nameOf, only }: SightPreviewProps) {
  const [who, setWho] = useState(only ?? '');
  const { data } = useCeilingsQuery();
  const [now] = useState(() => Date.now());
  const readers = people.people.filter((p) => p.standing === 'reader');
  const own = readers.find((p) => p.userId === who)?.glass ?? null;
  const { id, zone, lockedAt } = calendar;
  const { houseGlass, labelHolds } = people;
  const ceilings = useMemo(
    () => ceilingsInForce(data?.ceilings ?? [], lockedAt ? [id] : []),
    [data, lockedAt, id],
  );
  const through = clearerInside(id, own, houseGlass, ceilings);
  const shut = glassInside(id, through, ceilings) === 'shut';
  const question: InsideQuestion | null =
    data && !shut ? { kind: 'inside', calendar: { id, zone, labelHolds }, through, ceilings, now } : null;
  const { answer, problem, busy } = useAnswer(question);
  return (
    <Stack>
      {only ? (
        <h3>{t('previewFor', { name: nameOf(only) })}</h3>
      ) : (
        <SelectOne
          label={t('previewAs')}
          value={own === null ? '' : who}
          options={[
            { value: '', text: t('everybodyElseName') },
            ...readers.map((p) => ({ value: p.userId, text: nameOf(p.userId) })),
          ]}
          onChange={setWho}
        />
      )}
      {problem && !shut && <Notice>{problem}</Notice>}
      {shut && <Faded role="status">{people.known ? t('previewKnown') : t('previewUnknown')}</Faded>}
      {!shut && answer && (
        <Lines aria-label={t('preview')} aria-busy={busy}>
          {answer.map(({ when, title, place }, i) => (
            <li key={i}>
              {when} · {title}
              {place && ` · ${place}`}
            </li>
          ))}
          {!answer.length && <li>{t('previewEmpty')}</li>}
        </Lines>
      )}
    </Stack>
  );
}
