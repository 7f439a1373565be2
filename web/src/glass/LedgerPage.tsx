import { SHOWINGS, type Showing } from '@zonal/core/glass';
import { useMemo, useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import styled from 'styled-components';
import {
  problemOf,
  useKeepDraftMutation,
  useLedgerQuery,
  usePastViewQuery,
  useVersionsQuery,
  useWindowsQuery,
} from '../api/zonalApi';
import { isRefused } from '../api/fetchTrouble';
import { Waiting } from '../api/Waiting';
import type { LedgerLine, OutwardWindow, WindowVersion } from '@zonal/core/api';
import type { PastQuestion } from '../workers/questions';
import { View } from '../rehearsal/RehearsalView';
import { PageFrame } from '../rehearsal/PageFrame';
import { useAnswer } from '../workers/useAnswer';
import { Button } from '../ui/Button';
import { ChoiceStrip, SelectOne } from '../ui/Choice';
import { Faded, Row, Stack } from '../ui/layout';
import { Empty, Loading, Notice } from '../ui/Notice';
import { ProblemNotice } from '../ui/ProblemNotice';
import { Term } from '../ui/Term';
import { LOCALE } from '../texts/language';
import { t } from '../texts/glass';
import { SHOWING_WORDS } from './showingWords';
import { AUDIENCE_WORDS } from '../texts/glassWords';

const Halves = styled.div`
  display: grid;
  grid-template-columns: minmax(22rem, 30rem) minmax(0, 1fr);
  gap: 1rem;
  align-items: start;
  @media (max-width: 60rem) {
    grid-template-columns: minmax(0, 1fr);
  }
`;

const List = styled.ol`
  list-style: none;
  margin: 0;
  padding: 0;
  border: 1px solid var(--line);
  background: var(--sheet);
  max-height: calc(100dvh - 16rem);
  overflow: auto;
  li {
    padding: 0.5rem 0.7rem;
    border-bottom: 1px solid var(--hair);
    display: grid;
    gap: 0.2rem;
  }
  li[data-chosen] {
    background: var(--shade);
  }
`;

const Pane = styled(PageFrame)`
  width: 100%;
  height: 34rem;
  border: 1px solid var(--outside);
  background: var(--paper);
`;

/** The numbered history of what the outside could see through a window. */
export function LedgerPage() {
  const { id } = useParams();
  const { data: windows, error } = useWindowsQuery();
  if (!windows) return <Waiting what={t('fetchingLedger')} error={error} />;
  const window = windows.find((w) => w.id === id);
  if (!window) return <Empty>{t('noSuchWindow')}</Empty>;
  return <Ledger key={window.id} window={window} />;
}

function Ledger({ window }: { window: OutwardWindow }) {
  const [keyId, setKeyId] = useState(window.keys[0]?.id ?? '');
  const ledger = useLedgerQuery(keyId, { skip: !keyId });
  const lines = isRefused(ledger.error) ? undefined : ledger.data;
  const { data: versions = [] } = useVersionsQuery(window.id);
  const [chosen, setChosen] = useState<number | null>(null);
  const [against, setAgainst] = useState<number | null>(null);
  const newest = lines?.[0]?.number ?? null;
  const shown = chosen ?? newest;
  const base = against ?? (shown !== null && shown > 1 ? shown - 1 : null);
  const bytes = lines?.reduce((sum, l) => sum + l.bytes, 0) ?? 0;
  return (
    <Stack>
      <div>
        <h1>
          {t.rich('ledgerOf', {
            name: window.wording.name,
            term: (text) => <Term word="ledger">{text}</Term>,
          })}
        </h1>
        <Faded>
          {t.rich('ledgerHint', { link: (text) => <Link to={`/windows/${window.id}`}>{text}</Link> })}
        </Faded>
      </div>
      {window.keys.length > 1 && (
        <div style={{ maxWidth: '28rem' }}>
          <SelectOne
            label={t('asSeenWith')}
            value={keyId}
            options={window.keys.map((k) => ({
              value: k.id,
              text: `${k.madeOutTo} (${AUDIENCE_WORDS[k.audience].word})`,
            }))}
            onChange={(next) => {
              setKeyId(next);
              setChosen(null);
              setAgainst(null);
            }}
          />
        </div>
      )}
      {!lines && <Waiting what={t('fetchingLedger')} error={ledger.error} />}
      {lines && !lines.length && <Empty>{t('nothingShownYet')}</Empty>}
      {lines && lines.length > 0 && shown !== null && (
        <Halves>
          <Stack>
            <Faded role="status">
              {t('ledgerSize', { count: lines.length, size: Math.ceil(bytes / 1024) })}
            </Faded>
            <List aria-label={t('revisionsList')}>
              {lines.map((line) => (
                <Line
                  key={line.number}
                  line={line}
                  window={window}
                  version={versions.find((v) => v.version === line.windowVersion)}
                  isShown={line.number === shown}
                  isBase={line.number === base}
                  onShow={() => {
                    setChosen(line.number);
                    setAgainst(null);
                  }}
                  onCompare={() => setAgainst(line.number)}
                />
              ))}
            </List>
          </Stack>
          <Past keyId={keyId} number={shown} base={base} />
        </Halves>
      )}
    </Stack>
  );
}

interface LineProps {
  line: LedgerLine;
  window: OutwardWindow;
  version: WindowVersion | undefined;
  isShown: boolean;
  isBase: boolean;
  onShow: () => void;
  onCompare: () => void;
}

function Line({ line, window, version, isShown, isBase, onShow, onCompare }: LineProps) {
  const { number, at, by, appeared, vanished, changed, wording, windowVersion } = line;
  const parts = [
    appeared && t('appeared', { count: appeared }),
    vanished && t('vanished', { count: vanished }),
    changed && t('changed', { count: changed }),
    wording && number > 1 && t('describedOtherwise'),
  ].filter(Boolean);
  return (
    <li {...(isShown ? { 'data-chosen': '', 'aria-current': 'true' } : {})}>
      <Row style={{ justifyContent: 'space-between' }}>
        <strong>{t('revisionNumber', { number })}</strong>
        <Faded>{new Date(at).toLocaleString(LOCALE, { dateStyle: 'medium', timeStyle: 'short' })}</Faded>
      </Row>
      <span>{parts.join(', ') || t('technicalChange')}</span>
      <Faded>
        {t('rulesVersion', {
          cause: by.length ? t('byChangeOf', { names: by.join(', ') }) : t('byDay'),
          version: windowVersion,
        })}
      </Faded>
      <Row>
        <Button onPress={onShow} isDisabled={isShown}>
          {t('show')}
        </Button>
        <Button onPress={onCompare} isDisabled={isShown || isBase}>
          {t('compare')}
        </Button>
        {version && windowVersion !== window.version && <Restore window={window} version={version} />}
      </Row>
    </li>
  );
}

/** Takes the rules of an earlier version up as the draft: nothing changes outside until it is shown. */
function Restore({ window, version }: { window: OutwardWindow; version: WindowVersion }) {
  const navigate = useNavigate();
  const [keep, keeping] = useKeepDraftMutation();
  const problem = problemOf(keeping.error);
  const restore = async () => {
    const body = { ...version.body, version: window.version };
    const { data } = await keep({ id: window.id, version: window.draft?.version ?? 0, body });
    if (data) void navigate(`/windows/${window.id}`);
  };
  return (
    <>
      <Button onPress={() => void restore()} isDisabled={keeping.isLoading}>
        {t('restoreRules')}
      </Button>
      {problem && <ProblemNotice problem={problem} />}
    </>
  );
}

function Past({ keyId, number, base }: { keyId: string; number: number; base: number | null }) {
  const [show, setShow] = useState<Showing>('month');
  const after = usePastViewQuery({ keyId, number });
  const before = usePastViewQuery({ keyId, number: base ?? 0 }, { skip: base === null });
  const [now] = useState(() => Date.now());
  const ready = after.data && (base === null || before.data);
  const question = useMemo((): PastQuestion | null => {
    if (!ready) return null;
    return {
      kind: 'past',
      before: base === null ? null : before.data!,
      after: after.data!,
      number,
      show,
      now,
    };
  }, [ready, base, before.data, after.data, number, show, now]);
  const { answer, problem } = useAnswer(question);
  const failed = problemOf(after.error ?? before.error)?.message ?? problem;
  if (failed) return <Notice>{failed}</Notice>;
  if (!answer) return <Loading what={t('fetchingPast')} />;
  return (
    <Stack>
      <h2>
        Revision {number}
        {base === null ? t('firstRevision') : t('comparedWith', { number: base })}
      </h2>
      <View view={answer.lines} plain />
      <ChoiceStrip
        label={t('daysAs')}
        hideLabel
        value={show}
        options={SHOWINGS.map((s) => ({ value: s, text: SHOWING_WORDS[s] }))}
        onChange={setShow}
      />
      <Pane title={t('asOutsidersSaw')} html={answer.page} />
    </Stack>
  );
}
