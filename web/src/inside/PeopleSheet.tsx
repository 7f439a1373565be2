import type { Calendar, CalendarPeople, CalendarPeopleInput } from '@zonal/core/api';
import { GLASSES, READ_THROUGH } from '@zonal/core/glass';
import { sentence } from '@zonal/core/problems';
import { STANDINGS } from '@zonal/core/rights';
import { X } from 'lucide-react';
import { useState } from 'react';
import styled from 'styled-components';
import {
  problemOf,
  useCalendarPeopleQuery,
  useLabelsQuery,
  usePeopleQuery,
  useSaveCalendarPeopleMutation,
} from '../api/zonalApi';
import { Button, MainButton, QuietButton } from '../ui/Button';
import { SelectOne } from '../ui/Choice';
import { dayOf } from '../ui/dayOf';
import { glassText } from '../ui/glassText';
import { Faded, NotedList, Row, Stack } from '../ui/layout';
import { Term } from '../ui/Term';
import { Loading, Notice } from '../ui/Notice';
import { ProblemNotice } from '../ui/ProblemNotice';
import { Overtaken } from '../ui/Overtaken';
import { Sheet } from '../ui/Sheet';
import { useChanged, useUnsaved } from '../ui/Unsaved';
import { Tick } from '../ui/Tick';
import { LabelHolds } from './LabelHolds';
import { SightPreview } from './SightPreview';
import { t } from '../texts/inside';
import { STANDING_NAMES, standingWords } from '../texts/rightsWords';
import { LANGUAGE } from '../texts/language';

const List = styled(NotedList)`
  > li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 8rem 18.5rem auto;
    gap: 0.5rem;
    align-items: center;
    @media (max-width: 44rem) {
      grid-template-columns: minmax(0, 1fr);
    }
  }
`;

/** Who is what to a calendar, and how clearly everybody else in the house sees it. */
export function PeopleSheet({ calendar, onClose }: { calendar: Calendar; onClose: () => void }) {
  const { data, error } = useCalendarPeopleQuery(calendar.id);
  return (
    <Sheet title={t('peopleOf', { name: calendar.name })} onClose={onClose} wide>
      {error && <ProblemNotice problem={problemOf(error)} />}
      {!data && !error && <Loading what={t('fetchingPeople')} />}
      {data && <Writing calendar={calendar} kept={data} onClose={onClose} />}
    </Sheet>
  );
}

type Draft = Required<CalendarPeopleInput>;

const draftOf = ({ people, houseGlass, known, labelHolds, version }: CalendarPeople): Draft => ({
  people: people.map(({ userId, standing, glass }) => ({ userId, standing, glass })),
  houseGlass,
  known,
  labelHolds,
  version,
});

function Writing({
  calendar,
  kept,
  onClose,
}: {
  calendar: Calendar;
  kept: CalendarPeople;
  onClose: () => void;
}) {
  const [draft, setDraft] = useState(() => draftOf(kept));
  const { data: everybody = [] } = usePeopleQuery();
  const { data: labels = [] } = useLabelsQuery();
  const [save, saving] = useSaveCalendarPeopleMutation();
  const problem = problemOf(saving.error);
  const current =
    problem?.code === 'version-conflict' ? (problem.details['current'] as CalendarPeople) : null;
  const set = (part: Partial<Draft>) => setDraft((d) => ({ ...d, ...part }));
  const change = (userId: string, part: Partial<Draft['people'][number]>) =>
    set({ people: draft.people.map((p) => (p.userId === userId ? { ...p, ...part } : p)) });
  const others = everybody.filter(
    (a) => !a.steward && !a.restedAt && !draft.people.some((p) => p.userId === a.id),
  );
  const nameOf = (id: string) =>
    kept.people.find((p) => p.userId === id)?.name ?? everybody.find((a) => a.id === id)?.name ?? '';
  useUnsaved(useChanged(draft));
  const publishers = draft.people.filter((p) => p.standing === 'publisher').length;
  const submit = async () => {
    const { error } = await save({ id: calendar.id, body: draft });
    if (!error) onClose();
  };
  return (
    <Stack>
      <p>
        {t.rich('peopleHint', {
          publisher: (text) => <Term word="publisher">{text}</Term>,
          editor: (text) => <Term word="editor">{text}</Term>,
          reader: (text) => <Term word="reader">{text}</Term>,
        })}
      </p>
      <List aria-label={t('people')}>
        {draft.people.map(({ userId, standing, glass }) => {
          const name = nameOf(userId);
          const before = kept.people.find((p) => p.userId === userId);
          return (
            <li key={userId}>
              <span>
                {name}
                <small>{before ? sinceWords(before) : t('notSavedYet')}</small>
              </span>
              <SelectOne
                hideLabel
                label={t('roleOf', { name })}
                value={standing}
                options={STANDINGS.map((s) => ({ value: s, text: STANDING_NAMES[s] }))}
                onChange={(next) =>
                  change(userId, { standing: next, glass: next === 'reader' ? (glass ?? 'frosted') : null })
                }
              />
              {standing === 'reader' ? (
                <SelectOne
                  hideLabel
                  label={t('glassOf', { name })}
                  value={glass ?? 'frosted'}
                  options={READ_THROUGH.map((g) => ({ value: g, text: glassText(g) }))}
                  onChange={(next) => change(userId, { glass: next })}
                />
              ) : (
                <Faded>{t('seesEverything')}</Faded>
              )}
              <QuietButton
                aria-label={t('remove', { name })}
                onPress={() => set({ people: draft.people.filter((p) => p.userId !== userId) })}
              >
                <X aria-hidden="true" />
              </QuietButton>
            </li>
          );
        })}
      </List>
      {kept.invited.length > 0 && (
        <Faded>
          {t('invitedWaiting', {
            people: kept.invited
              .map((i) => t('invitedAs', { email: i.email, role: standingWords(i) }))
              .join('; '),
          })}
        </Faded>
      )}
      {!publishers && <Notice>{sentence('publisher-missing', {}, LANGUAGE)}</Notice>}
      {others.length > 0 && (
        <SelectOne
          label={t('addColleague')}
          value=""
          options={[
            { value: '', text: t('choose') },
            ...others.map((a) => ({ value: a.id, text: `${a.name}, ${a.email}` })),
          ]}
          onChange={(userId) =>
            userId && set({ people: [...draft.people, { userId, standing: 'reader', glass: 'frosted' }] })
          }
        />
      )}
      <SelectOne
        label={t('everybodyElse')}
        value={draft.houseGlass}
        options={GLASSES.map((g) => ({ value: g, text: glassText(g) }))}
        onChange={(houseGlass) => set({ houseGlass })}
      />
      <Tick
        isSelected={draft.known || draft.houseGlass !== 'shut'}
        isDisabled={draft.houseGlass !== 'shut'}
        onChange={(known) => set({ known })}
      >
        {t('listInDirectory')}
        <small>{t('listInDirectoryHint')}</small>
      </Tick>
      <details open={draft.labelHolds.length > 0}>
        <summary>{t('labelHolds', { count: draft.labelHolds.length })}</summary>
        <LabelHolds labels={labels} value={draft.labelHolds} onChange={(labelHolds) => set({ labelHolds })} />
      </details>
      <SightPreview calendar={calendar} people={draft} nameOf={nameOf} />
      {current && (
        <Overtaken
          what={t('calendarPeople')}
          onMine={() => {
            set({ version: current.version });
            saving.reset();
          }}
          onTheirs={() => {
            setDraft(draftOf(current));
            saving.reset();
          }}
        />
      )}
      {problem && !current && <ProblemNotice problem={problem} />}
      <Row>
        <MainButton isDisabled={saving.isLoading || !publishers} onPress={() => void submit()}>
          {t('save')}
        </MainButton>
        <Button onPress={onClose}>{t('discardChanges')}</Button>
      </Row>
    </Stack>
  );
}

function sinceWords({ since, by }: CalendarPeople['people'][number]): string {
  return by ? t('sinceDayBy', { day: dayOf(since), by }) : t('sinceDay', { day: dayOf(since) });
}
