import type { HouseRole } from '@zonal/core/rights';
import { CircleQuestionMark, Keyboard, LogOut, Moon, Sun, SunMoon, UserRound } from 'lucide-react';
import { useRef, useState, type ReactNode } from 'react';
import { Link, NavLink, useLocation } from 'react-router';
import styled, { createGlobalStyle } from 'styled-components';
import { useLiveChanges } from '../api/useLiveChanges';
import { useAlertsQuery, useSignOutMutation } from '../api/zonalApi';
import type { Session } from '@zonal/core/api';
import { THEMES, chooseTheme, chosenTheme } from '../theme/themeChoice';
import { unconfirmedWords } from '../api/unconfirmedSlice';
import { useAppDispatch, useAppSelector } from '../store';
import { QuietButton } from '../ui/Button';
import { Row } from '../ui/layout';
import { Notice } from '../ui/Notice';
import { FetchTrouble } from './FetchTrouble';
import { firstDayEnded } from './firstDaySlice';
import { KeysSheet } from './KeysSheet';
import { useHeadingFocus } from './useHeadingFocus';
import { usePageTitle } from './usePageTitle';
import { useRequests } from './useRequests';
import { useShellKeys } from './useShellKeys';
import { t } from '../texts/shell';

/** What holds on every screen behind the page to sign in. */
const ScreenStyle = createGlobalStyle`
  h1[tabindex='-1']:focus:not(:focus-visible) {
    outline: none;
  }
  summary {
    min-height: 24px;
  }
  /* Where colours are forced, backgrounds say nothing: what is chosen has a frame of the system's own. */
  @media (forced-colors: active) {
    [aria-current]:not([aria-current='false']),
    [aria-pressed='true'],
    [aria-selected='true'],
    [data-selected] {
      outline: 3px solid Highlight;
      outline-offset: -3px;
    }
  }
`;

const Band = styled.header`
  display: flex;
  flex-wrap: wrap;
  align-items: stretch;
  gap: 0 1.5rem;
  padding: 0 1.25rem;
  border-bottom: 3px double var(--line);
  background: var(--sheet);
  @media (max-width: 44rem) {
    display: grid;
    grid-template-columns: auto minmax(0, 1fr) auto;
    gap: 0 0.6rem;
    padding: 0 0.75rem;
  }
  @media print {
    display: none;
  }
`;

const Name = styled.div`
  @media (max-width: 44rem) {
    span {
      display: none;
    }
  }
  display: flex;
  align-items: center;
  gap: 0.55rem;
  padding: 0.55rem 0;
  font:
    600 1.1rem 'Literata Variable',
    Georgia,
    serif;
`;

/** The way from inside to outside: each section says where on it it stands. */
const Way = styled.nav`
  display: flex;
  flex: 1;
  gap: 0;
  min-width: 0;
  /* On a phone the sections stay one line, which moves sideways. */
  @media (max-width: 44rem) {
    overflow-x: auto;
    scrollbar-width: none;
  }
  a {
    display: grid;
    align-content: center;
    padding: 0.3rem 0.85rem;
    text-decoration: none;
    border-left: 1px solid var(--hair);
    position: relative;
    @media (max-width: 44rem) {
      padding-inline: 0.5rem;
      min-height: 2.75rem;
      font-size: 0.9rem;
    }
  }
  a:last-child {
    border-right: 1px solid var(--hair);
  }
  span {
    white-space: nowrap;
  }
  small {
    color: var(--faded);
    font-size: 0.75rem;
    white-space: nowrap;
    @media (max-width: 44rem) {
      display: none;
    }
  }
  a[aria-current='page']::after {
    content: '';
    position: absolute;
    inset: auto 0 0 0;
    height: 4px;
    background: var(--ink);
  }
`;

const Person = styled.div`
  display: flex;
  align-items: center;
  gap: 0.3rem;
  font-size: 0.85rem;
  a:has(svg) {
    display: inline-grid;
    place-items: center;
    min-width: 24px;
    min-height: 24px;
  }
  @media (max-width: 44rem) {
    grid-column: 1 / -1;
    flex-wrap: wrap;
    gap: 0.3rem 0.9rem;
    padding-bottom: 0.4rem;
    a {
      padding-block: 0.35rem;
    }
    &:not([data-open]) {
      display: none;
    }
  }
`;

/** Opens what is about the person; only a phone has it. */
const PersonButton = styled(QuietButton)`
  display: none;
  @media (max-width: 44rem) {
    display: inline-flex;
  }
`;

const Main = styled.main`
  padding: 1rem 1.25rem 3rem;
`;

/** What concerns the whole application, above the screen that is open. */
const Above = styled.div`
  &:not(:empty) {
    margin-bottom: 0.8rem;
  }
`;

const Skip = styled.a`
  position: absolute;
  left: -99rem;
  &:focus {
    position: static;
  }
`;

const ICONS = { auto: SunMoon, light: Sun, dark: Moon };
const ROLE_WORDS: Readonly<Record<HouseRole, string>> = {
  steward: t('roleSteward'),
  member: t('roleMember'),
};
const THEME_WORDS = { auto: t('themeAuto'), light: t('themeLight'), dark: t('themeDark') };

/** What waits in a section. */
function Count({ children, what }: { children: ReactNode; what: string }) {
  return (
    <Mark>
      {children}
      <span className="unseen"> {what}</span>
    </Mark>
  );
}

const Mark = styled.strong`
  border: 1px solid var(--ink);
  border-radius: 2px;
  padding: 0 0.35rem;
  margin-left: 0.35rem;
  font-size: 0.8rem;
`;

/** So often, in milliseconds, it is looked what waits. */
const LOOK = 30_000;

interface ShellProps {
  user: NonNullable<Session['user']>;
  /** Where a stand-in shows the mails that were sent, or empty. */
  postbox: string;
  children: ReactNode;
}

export function Shell({ user, postbox, children }: ShellProps) {
  useLiveChanges();
  const main = useRef<HTMLElement>(null);
  usePageTitle(main);
  useHeadingFocus(main);
  const keys = useShellKeys();
  const [signOut] = useSignOutMutation();
  const unconfirmed = useAppSelector((state) => state.unconfirmed);
  const waiting = useRequests().requests?.filter((request) => request.toAnswer).length ?? 0;
  const { data: alerts } = useAlertsQuery(undefined, { pollingInterval: LOOK });
  const alerted = alerts?.filter((a) => !a.muted).length ?? 0;
  const dispatch = useAppDispatch();
  const { on } = useAppSelector((state) => state.firstDay);
  const { pathname } = useLocation();
  const leading = pathname !== '/first-day' && on;

  // What was opened for one screen is folded on the next.
  const [personOpenOn, setPersonOpenOn] = useState<string | null>(null);
  const isPersonOpen = personOpenOn === pathname;
  const [theme, setTheme] = useState(chosenTheme);
  const Icon = ICONS[theme];
  const turn = () => {
    const next = THEMES[(THEMES.indexOf(theme) + 1) % THEMES.length]!;
    chooseTheme(next);
    setTheme(next);
  };
  return (
    <>
      <ScreenStyle />
      <Skip href="#main">{t('skipToContent')}</Skip>
      <Band>
        <Name>
          <img src="/mark.svg" width="26" height="26" alt="" />
          <span>Zonal Window</span>
        </Name>
        <Way aria-label={t('sections')}>
          <NavLink to="/calendars">
            {t('calendars')}
            <small>{t('calendarsSay')}</small>
          </NavLink>
          <NavLink to="/windows">
            {t('windows')}
            <small>{t('windowsSay')}</small>
          </NavLink>
          <NavLink to="/sightlines">
            {t('sightlines')}
            <small>{t('sightlinesSay')}</small>
          </NavLink>
          <NavLink to="/reach">
            <span>
              {t('reach')}
              {alerted > 0 && <Count what={t('openAlerts')}> {alerted}</Count>}
            </span>
            <small>{t('reachSay')}</small>
          </NavLink>
          <NavLink to="/house">
            {t('house')}
            <small>{t('houseSay')}</small>
          </NavLink>
        </Way>
        <PersonButton
          aria-expanded={isPersonOpen}
          aria-controls="person"
          onPress={() => setPersonOpenOn(isPersonOpen ? null : pathname)}
        >
          <UserRound aria-hidden="true" />
          <span className="unseen">{t('you')}</span>
          {waiting > 0 && <Count what={t('requestsWaiting')}> {waiting}</Count>}
        </PersonButton>
        <Person id="person" {...(isPersonOpen ? { 'data-open': '' } : {})}>
          <QuietButton onPress={turn} aria-label={t('changeTheme', { theme: THEME_WORDS[theme] })}>
            <Icon aria-hidden="true" />
          </QuietButton>
          {postbox && (
            <a href={postbox} target="_blank" rel="noreferrer">
              {t('postbox')}
            </a>
          )}
          <NavLink to="/requests">
            {t('requests')}
            {waiting > 0 && <Count what={t('requestsWaiting')}> {waiting}</Count>}
          </NavLink>
          <Link to="/account" aria-label={t('accountOf', { name: user.name, role: ROLE_WORDS[user.role] })}>
            {user.name}
          </Link>
          <Link to="/help" aria-label={t('help')} title={t('help')}>
            <CircleQuestionMark size="1.05rem" aria-hidden="true" />
          </Link>
          <QuietButton onPress={keys.list} aria-label={t('keys')}>
            <Keyboard aria-hidden="true" />
          </QuietButton>
          <QuietButton onPress={() => void signOut()}>
            <LogOut aria-hidden="true" /> {t('signOut')}
          </QuietButton>
        </Person>
      </Band>
      <Main id="main" ref={main}>
        {leading && (
          <Above>
            <Row>
              <Link to="/first-day">{t('backToFirstDay')}</Link>
              <QuietButton onPress={() => void dispatch(firstDayEnded())}>{t('endFirstDay')}</QuietButton>
            </Row>
          </Above>
        )}
        {unconfirmed && (
          <Above>
            <Notice>{unconfirmedWords(unconfirmed)}</Notice>
          </Above>
        )}
        <Above>
          <FetchTrouble />
        </Above>
        {children}
      </Main>
      {keys.isListed && <KeysSheet onClose={keys.close} />}
    </>
  );
}
