import type { WindowKey } from '@zonal/core/api';
import type { Finding } from '@zonal/core/forms';
import { SHOWINGS, type Showing } from '@zonal/core/glass';
import { AUDIENCES, keyState, type WindowInput } from '@zonal/core/glass';
import { useEffect, useMemo, useState } from 'react';
import styled from 'styled-components';
import type { PreviewAnswer, PreviewForm, PreviewQuestion } from '../workers/questions';
import { PageFrame } from '../rehearsal/PageFrame';
import { useAnswer } from '../workers/useAnswer';
import { ChoiceStrip, SelectOne } from '../ui/Choice';
import { Faded, Pair, Row } from '../ui/layout';
import { Empty, Notice } from '../ui/Notice';
import { TrueSize } from '../ui/TrueSize';
import { useNow } from '../ui/useNow';
import { rulesOfDraft, type DraftSetting } from './draft';
import { t } from '../texts/glass';
import { SHOWING_WORDS } from './showingWords';
import { AUDIENCE_WORDS, GLASS_WORDS } from '../texts/glassWords';

const Panel = styled.div`
  display: flex;
  flex-direction: column;
  gap: 0.7rem;
  > [data-room] {
    flex: 1;
    min-height: 0;
    display: flex;
    flex-direction: column;
    gap: 0.7rem;
  }
`;

/** Pixels at which readers have a page or an embed before them. */
const WIDTHS = {
  page: { desk: 1100, phone: 390 },
  embed: { desk: 680, phone: 390 },
} as const;

const Pane = styled(TrueSize)`
  flex: 1;
  border: 1px solid var(--outside);
  background: var(--paper);
  iframe {
    width: 100%;
    height: 100%;
    border: 0;
  }
`;

const Text = styled.pre`
  margin: 0;
  flex: 1;
  min-height: 0;
  overflow: auto;
  border: 1px solid var(--outside);
  padding: 0.6rem;
  font:
    0.78rem/1.45 'B612 Mono',
    monospace;
  > span {
    display: block;
    content-visibility: auto;
    contain-intrinsic-size: auto 60rem;
  }
`;

const PIECE = 8000;

/** Returns a text in pieces of some hundred lines each: a browser lays out only those that are in sight. */
function piecesOf(text: string): string[] {
  const pieces: string[] = [];
  for (let from = 0; from < text.length;) {
    const end = text.indexOf('\n', from + PIECE) + 1 || text.length;
    pieces.push(text.slice(from, end));
    from = end;
  }
  return pieces;
}

const OUTSIDE_ZONES = [
  'America/Halifax',
  'America/Vancouver',
  'Europe/London',
  'Europe/Berlin',
  'Asia/Kolkata',
  'Pacific/Auckland',
];

interface OutsidePanelProps {
  draft: WindowInput;
  setting: DraftSetting;
  onTold: (answer: PreviewAnswer | null) => void;
}

/** What a reader would get by the draft, made by the same core as what is served. */
export function OutsidePanel({ draft, setting, onTold }: OutsidePanelProps) {
  const { window } = setting;
  const [form, setForm] = useState<PreviewForm>('page');
  const [show, setShow] = useState<Showing>('month');
  const [zone, setZone] = useState('');
  const [width, setWidth] = useState<'desk' | 'phone'>('desk');
  /** A key, or an audience that has none. */
  const [readerId, setReaderId] = useState('');
  const now = useNow();
  const keys = window?.keys ?? [];
  const audience = AUDIENCES.find((a) => a === readerId) ?? (window ? null : (draft.audience ?? 'street'));
  const key = audience ? undefined : (keys.find((k) => k.id === readerId) ?? keys[0]);
  const cap = key?.cap ?? null;
  const question = useMemo((): PreviewQuestion | null => {
    if (!draft.sources.length) return null;
    return {
      kind: 'preview',
      rules: rulesOfDraft(draft, setting),
      reader: { audience: key?.audience ?? audience ?? 'street', cap },
      keyId: key?.id ?? null,
      form,
      show,
      zone,
      now,
      addresses: { see: key?.see ?? t('addressFollows'), feed: key?.feed ?? t('addressFollows') },
    };
  }, [draft, setting, key, audience, cap, form, show, zone, now]);
  const { answer, problem, busy } = useAnswer(question);
  useEffect(() => onTold(question ? answer : null), [answer, question, onTold]);
  const pages = form === 'page' || form === 'embed';
  return (
    <Panel>
      <Row style={{ justifyContent: 'space-between' }}>
        <h2 id="outside">{t('outsideTitle')}</h2>
        <Faded role="status">
          {question && busy
            ? t('computing')
            : question && answer
              ? answer.count
                ? t('timesInAll', { count: answer.count })
                : t('nothingShown')
              : ''}
        </Faded>
      </Row>
      <Row style={{ justifyContent: 'space-between' }}>
        <ChoiceStrip
          label={t('form')}
          hideLabel
          value={form}
          options={[
            { value: 'page', text: t('formPage') },
            { value: 'embed', text: t('formEmbed') },
            { value: 'feed', text: t('formFeed') },
            { value: 'freeBusy', text: t('formBusy') },
          ]}
          onChange={setForm}
        />
        {pages && (
          <Row>
            <ChoiceStrip
              label={t('daysAs')}
              hideLabel
              value={show}
              options={SHOWINGS.map((s) => ({ value: s, text: SHOWING_WORDS[s] }))}
              onChange={setShow}
            />
            <ChoiceStrip
              label={t('width')}
              hideLabel
              value={width}
              options={[
                { value: 'desk', text: t('widthDesk') },
                { value: 'phone', text: t('widthPhone') },
              ]}
              onChange={setWidth}
            />
          </Row>
        )}
      </Row>
      <Pair>
        <SelectOne
          label={t('asReader')}
          value={key?.id ?? audience ?? 'street'}
          options={[
            ...keys.map((k) => ({
              value: k.id,
              text: readerWords(k, now),
            })),
            ...AUDIENCES.filter((a) => !keys.some((k) => k.audience === a)).map((a) => ({
              value: a,
              text: t(window ? 'audienceNoKey' : 'audienceSay', {
                audience: AUDIENCE_WORDS[a].word,
                plain: AUDIENCE_WORDS[a].plain,
              }),
            })),
          ]}
          onChange={setReaderId}
        />
        {pages && (
          <SelectOne
            label={t('readersClock')}
            value={zone}
            options={[
              { value: '', text: t('hostsZone') },
              ...OUTSIDE_ZONES.map((z) => ({ value: z, text: z.replace(/_/g, ' ') })),
            ]}
            onChange={setZone}
          />
        )}
      </Pair>
      {!question && <Empty>{t('chooseCalendarFirst')}</Empty>}
      {question && problem && <Notice>{problem}</Notice>}
      <div data-room="">
        {question && answer?.kind === 'page' && pages && (
          <Pane width={WIDTHS[form][width]}>
            <PageFrame title={t('whatReadersSee')} html={answer.text} />
          </Pane>
        )}
        {question && answer?.kind === 'text' && <Checked findings={answer.findings} />}
        {question && answer?.kind === 'text' && (
          <Text tabIndex={0} aria-label={t('documentFetched')}>
            {piecesOf(answer.text).map((piece, i) => (
              <span key={i}>{piece}</span>
            ))}
          </Text>
        )}
      </div>
    </Panel>
  );
}

/** Returns who reads with a key, how clearly at most, and whether the key still works. */
function readerWords(key: WindowKey, now: number): string {
  const { madeOutTo: place, audience, cap } = key;
  const word = AUDIENCE_WORDS[audience].word;
  const reader = cap
    ? t('readerKeyCapped', { place, audience: word, cap: GLASS_WORDS[cap].word })
    : t('readerKey', { place, audience: word });
  return keyState(key, now) === 'ended' ? t('readerKeyEnded', { reader }) : reader;
}

/** What the check of a document against the standards has found. */
function Checked({ findings }: { findings: readonly Finding[] }) {
  if (!findings.length) return <Faded role="status">{t('checkedClean')}</Faded>;
  return (
    <Notice>
      <p>{t('mayStumble')}</p>
      <ul>
        {findings.slice(0, 20).map((f, i) => (
          <li key={i}>
            {t(f.weight === 'should' ? 'findingAdvice' : 'findingLine', {
              line: f.line,
              finding: f.say,
              section: f.section,
            })}
          </li>
        ))}
      </ul>
      {findings.length > 20 && <p>{t('andMoreFindings', { count: findings.length - 20 })}</p>}
    </Notice>
  );
}
