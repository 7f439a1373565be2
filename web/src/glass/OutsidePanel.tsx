import type { Finding } from '@zonal/core/forms';
import { SHOWINGS, type Showing } from '@zonal/core/glass';
import { AUDIENCE_WORDS, AUDIENCES, keyState, type WindowInput } from '@zonal/core/glass';
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
      addresses: { see: key?.see ?? '(address follows)', feed: key?.feed ?? '(address follows)' },
    };
  }, [draft, setting, key, audience, cap, form, show, zone, now]);
  const { answer, problem, busy } = useAnswer(question);
  useEffect(() => onTold(question ? answer : null), [answer, question, onTold]);
  const pages = form === 'page' || form === 'embed';
  return (
    <Panel>
      <Row style={{ justifyContent: 'space-between' }}>
        <h2 id="outside">Outside: what readers see</h2>
        <Faded role="status">
          {question && busy
            ? 'Working it out …'
            : question && answer
              ? answer.count
                ? `${answer.count} times in all`
                : 'Nothing at all is shown'
              : ''}
        </Faded>
      </Row>
      <Row style={{ justifyContent: 'space-between' }}>
        <ChoiceStrip
          label="Form"
          hideLabel
          value={form}
          options={[
            { value: 'page', text: 'Page' },
            { value: 'embed', text: 'Embed' },
            { value: 'feed', text: 'Feed' },
            { value: 'freeBusy', text: 'Busy times' },
          ]}
          onChange={setForm}
        />
        {pages && (
          <Row>
            <ChoiceStrip
              label="Days as"
              hideLabel
              value={show}
              options={SHOWINGS.map((s) => ({ value: s, text: s }))}
              onChange={setShow}
            />
            <ChoiceStrip
              label="Width"
              hideLabel
              value={width}
              options={[
                { value: 'desk', text: 'Desk' },
                { value: 'phone', text: 'Phone' },
              ]}
              onChange={setWidth}
            />
          </Row>
        )}
      </Row>
      <Pair>
        <SelectOne
          label="As the reader"
          value={key?.id ?? audience ?? 'street'}
          options={[
            ...keys.map((k) => ({
              value: k.id,
              text: `${k.madeOutTo} (${AUDIENCE_WORDS[k.audience].word}${k.cap ? `, at most ${k.cap}` : ''}${keyState(k, now) === 'ended' ? ', ended: its addresses show nothing' : ''})`,
            })),
            ...AUDIENCES.filter((a) => !keys.some((k) => k.audience === a)).map((a) => ({
              value: a,
              text: `${AUDIENCE_WORDS[a].word}: ${AUDIENCE_WORDS[a].plain}${window ? ', who have no key yet' : ''}`,
            })),
          ]}
          onChange={setReaderId}
        />
        {pages && (
          <SelectOne
            label="Reader’s clock"
            value={zone}
            options={[
              { value: '', text: 'the host’s' },
              ...OUTSIDE_ZONES.map((z) => ({ value: z, text: z.replace(/_/g, ' ') })),
            ]}
            onChange={setZone}
          />
        )}
      </Pair>
      {!question && <Empty>Choose a calendar under “Inside”. What readers would see appears here.</Empty>}
      {question && problem && <Notice>{problem}</Notice>}
      <div data-room="">
        {question && answer?.kind === 'page' && pages && (
          <Pane width={WIDTHS[form][width]}>
            <PageFrame title="What readers see" html={answer.text} />
          </Pane>
        )}
        {question && answer?.kind === 'text' && <Checked findings={answer.findings} />}
        {question && answer?.kind === 'text' && (
          <Text tabIndex={0} aria-label="The document that programs fetch">
            {piecesOf(answer.text).map((piece, i) => (
              <span key={i}>{piece}</span>
            ))}
          </Text>
        )}
      </div>
    </Panel>
  );
}

/** What the check of a document against the standards has found. */
function Checked({ findings }: { findings: readonly Finding[] }) {
  if (!findings.length)
    return <Faded role="status">Checked against RFC 5545, 5546 and 7986: nothing found.</Faded>;
  return (
    <Notice>
      <p>Programs may stumble over this document:</p>
      <ul>
        {findings.slice(0, 20).map((f, i) => (
          <li key={i}>
            Line {f.line}: {f.say} ({f.section}
            {f.weight === 'should' ? ', a recommendation' : ''})
          </li>
        ))}
      </ul>
      {findings.length > 20 && <p>And {findings.length - 20} more.</p>}
    </Notice>
  );
}
