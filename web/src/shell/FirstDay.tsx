import type { Calendar } from '@zonal/core/api';
import { CalendarPlus, FileInput, PanelsTopLeft } from 'lucide-react';
import { useEffect, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import styled from 'styled-components';
import {
  problemOf,
  useCalendarsQuery,
  useHouseQuery,
  useMakeEditMutation,
  useSaveCalendarMutation,
  useWindowsQuery,
} from '../api/zonalApi';
import { Waiting } from '../api/Waiting';
import { CalendarSheet } from '../inside/CalendarSheet';
import { ImportSheet } from '../inside/import/ImportSheet';
import { plateFrom, plateLook } from '../inside/plateFrom';
import { useAppDispatch, useAppSelector } from '../store';
import { Button, MainButton } from '../ui/Button';
import { CopyButton } from '../ui/CopyButton';
import { Faded, OutsideBox, Row, Stack } from '../ui/layout';
import { ProblemNotice } from '../ui/ProblemNotice';
import {
  FIRST_STEPS,
  firstDayBegun,
  firstDayEnded,
  nextStep,
  stepSkipped,
  type FirstStep,
} from './firstDaySlice';
import { READYMADE, readymadeDays, type Readymade } from './readymadeCalendar';
import { t } from '../texts/shell';

const Steps = styled.ol`
  list-style: none;
  margin: 0;
  padding: 0;
  max-width: 48rem;
  border: 1px solid var(--line);
  background: var(--sheet);
  > li {
    display: grid;
    grid-template-columns: 2.2rem minmax(0, 1fr);
    gap: 0.8rem;
    padding: 0.9rem 1rem;
    border-bottom: 1px solid var(--hair);
  }
  > li:last-child {
    border-bottom: 0;
  }
  > li:not([aria-current]) h2 {
    color: var(--faded);
  }
  > li > i {
    font:
      600 1.5rem/1.2 'Literata Variable',
      Georgia,
      serif;
    text-align: center;
    border-right: 1px solid var(--hair);
  }
`;

const TITLES: Readonly<Record<FirstStep, string>> = {
  calendar: t('stepCalendar'),
  window: t('stepWindow'),
  address: t('stepAddress'),
};

/** Leads through a first day with nothing in it: the first calendar, the first window, its address. */
export function FirstDay() {
  const dispatch = useAppDispatch();
  const { skipped } = useAppSelector((state) => state.firstDay);
  const { data: calendars, error: calendarsError } = useCalendarsQuery();
  const { data: windows, error: windowsError } = useWindowsQuery();
  const [isImporting, setImporting] = useState(false);
  useEffect(() => void dispatch(firstDayBegun()), [dispatch]);
  if (!calendars || !windows)
    return <Waiting what={t('fetchingSteps')} error={calendarsError ?? windowsError} />;
  const step = nextStep({ calendars: calendars.length, windows: windows.length }, skipped);
  const there: Readonly<Record<FirstStep, string>> = {
    calendar: calendars.length
      ? t('there', { names: calendars.map((c) => c.name).join(', ') })
      : t('skipped'),
    window: windows.length
      ? t('there', { names: windows.map((w) => w.wording.name).join(', ') })
      : t('skipped'),
    address: t('skippedAddress'),
  };
  return (
    <Stack>
      <h1>{t('firstDay')}</h1>
      <p>{t('firstDayHint')}</p>
      <Steps>
        {FIRST_STEPS.map((one, at) => {
          const passed = step === null || at < FIRST_STEPS.indexOf(step);
          return (
            <li key={one} {...(one === step ? { 'aria-current': 'step' as const } : {})}>
              <i aria-hidden="true">{at + 1}</i>
              <Stack>
                <h2>{TITLES[one]}</h2>
                {passed && <Faded>{there[one]}</Faded>}
                {one === step && (
                  <>
                    {one === 'calendar' && (
                      <FirstCalendar calendars={calendars} onFile={() => setImporting(true)} />
                    )}
                    {one === 'window' && <FirstWindow />}
                    {one === 'address' && <FirstAddress />}
                    <Row>
                      <Button onPress={() => void dispatch(stepSkipped(one))}>
                        {one === 'address' ? t('haveIt') : t('skipStep')}
                      </Button>
                    </Row>
                  </>
                )}
              </Stack>
            </li>
          );
        })}
      </Steps>
      {step === null && <Ended />}
      {isImporting && <ImportSheet calendars={[]} onClose={() => setImporting(false)} />}
    </Stack>
  );
}

function Ended() {
  const dispatch = useAppDispatch();
  const navigate = useNavigate();
  const end = () => {
    dispatch(firstDayEnded());
    void navigate('/calendars');
  };
  return (
    <>
      <p role="status">
        {t.rich('firstDayDone', {
          people: (text) => <Link to="/house/people">{text}</Link>,
          mail: (text) => <Link to="/house/post">{text}</Link>,
        })}
      </p>
      <Row>
        <MainButton onPress={end}>{t('goToCalendars')}</MainButton>
      </Row>
    </>
  );
}

/** The first calendar: an empty one, one from a file, or a ready-made one. */
function FirstCalendar({
  calendars,
  onFile,
}: {
  calendars: readonly Calendar[];
  /** Called to make a calendar from a file. */
  onFile: () => void;
}) {
  const { data: house } = useHouseQuery();
  const [empty, setEmpty] = useState(false);
  const [save, saving] = useSaveCalendarMutation();
  const [makeEdit, making] = useMakeEditMutation();
  const problem = problemOf(saving.error ?? making.error);
  const busy = saving.isLoading || making.isLoading || !house;
  const make = async (name: string, description: string) => {
    if (!house) return;
    const { zone } = house;
    const look = plateLook(calendars);
    const body = { name, description, zone, plate: plateFrom(name), ...look };
    return (await save({ body })).data;
  };
  const readymade = async (kind: Readymade) => {
    const { name, say } = READYMADE[kind];
    const calendar = await make(name, say);
    if (!calendar || !house) return;
    const year = new Date().getFullYear();
    const entries = await readymadeDays(kind, house, year);
    const changes = entries.map((entry) => ({ version: 0, calendarId: calendar.id, entry }));
    await makeEdit({ label: t('madeLabel', { name }), changes });
  };
  return (
    <>
      <p>{t('calendarsHint')}</p>
      {problem && <ProblemNotice problem={problem} />}
      <Row>
        <MainButton isDisabled={busy} onPress={() => setEmpty(true)}>
          <CalendarPlus aria-hidden="true" /> {t('emptyCalendar')}
        </MainButton>
        <Button isDisabled={busy} onPress={onFile}>
          <FileInput aria-hidden="true" /> {t('fromFile')}
        </Button>
        <Button isDisabled={busy || !house?.country} onPress={() => void readymade('holidays')}>
          {t('readymadeHolidays')}
        </Button>
        <Button isDisabled={busy} onPress={() => void readymade('moon')}>
          {t('readymadeMoon')}
        </Button>
      </Row>
      {!house?.country && <Faded>{t('countryHint')}</Faded>}
      {empty && <CalendarSheet calendar={null} calendars={calendars} onClose={() => setEmpty(false)} />}
    </>
  );
}

function FirstWindow() {
  const navigate = useNavigate();
  return (
    <>
      <p>{t('windowHint')}</p>
      <Row>
        <MainButton onPress={() => void navigate('/windows/new')}>
          <PanelsTopLeft aria-hidden="true" /> {t('openFirstWindow')}
        </MainButton>
      </Row>
    </>
  );
}

function FirstAddress() {
  const { data: windows = [] } = useWindowsQuery();
  const window = windows.find((w) => !w.closedAt && w.keys.length > 0);
  const key = window?.keys[0];
  if (!window || !key) return <p>{t('noKeyYet')}</p>;
  return (
    <OutsideBox aria-label={t('addressesOf', { name: window.wording.name })}>
      <span>
        {t.rich('firstKey', {
          name: window.wording.name,
          place: key.madeOutTo,
          strong: (text) => <strong>{text}</strong>,
        })}
      </span>
      <a href={key.see} target="_blank" rel="noreferrer" style={{ overflowWrap: 'anywhere' }}>
        {key.see}
      </a>
      <Row>
        <CopyButton what={t('pageAddress')} text={key.see} />
        <CopyButton what={t('feedAddress')} text={key.feed} />
        <Link to={`/windows/${window.id}`}>{t('allKeys')}</Link>
      </Row>
    </OutsideBox>
  );
}
