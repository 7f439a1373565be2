import { SHOWINGS, type Showing } from '@zonal/core/forms';
import { useMemo, useState } from 'react';
import styled from 'styled-components';
import type { OutwardWindow, WindowInput } from '../api/types';
import { useAppSelector } from '../store';
import { ChoiceStrip, SelectOne } from '../ui/Choice';
import { Faded, Row, Stack } from '../ui/layout';
import { Empty, Notice } from '../ui/Notice';
import { useNow } from '../ui/useNow';
import { rulesOfDraft } from './draft';
import { type PreviewForm } from './previewTypes';
import { usePreview } from './usePreview';

const Pane = styled.iframe<{ $phone: boolean }>`
  width: ${(p) => (p.$phone ? '22.5rem' : '100%')};
  max-width: 100%;
  height: min(44rem, calc(100dvh - 17rem));
  min-height: 26rem;
  border: 1px solid var(--outside);
  background: var(--paper);
`;

const Text = styled.pre`
  margin: 0;
  height: min(44rem, calc(100dvh - 17rem));
  min-height: 26rem;
  overflow: auto;
  border: 1px solid var(--outside);
  padding: 0.6rem;
  font:
    0.78rem/1.45 'B612 Mono',
    monospace;
`;

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
  window: OutwardWindow | null;
}

/** What a reader would get by the draft, made by the same core as what is served. */
export function OutsidePanel({ draft, window }: OutsidePanelProps) {
  const [form, setForm] = useState<PreviewForm>('page');
  const [show, setShow] = useState<Showing>('month');
  const [zone, setZone] = useState('');
  const [width, setWidth] = useState<'desk' | 'phone'>('desk');
  const now = useNow();
  const changes = useAppSelector((state) => state.changes);
  const key = window?.keys[0];
  const question = useMemo(
    () =>
      draft.sources.length
        ? {
            rules: rulesOfDraft(draft, window?.secret ?? 'not opened yet'),
            reader: { audience: key?.audience ?? draft.audience ?? 'street', cap: key?.cap ?? null },
            keyId: key?.id ?? null,
            form,
            show,
            zone,
            stamp: String(changes),
            now,
            addresses: { see: key?.see ?? '(address follows)', feed: key?.feed ?? '(address follows)' },
          }
        : null,
    [draft, window, key, form, show, zone, changes, now],
  );
  const { answer, busy } = usePreview(question);
  const pages = form === 'page' || form === 'embed';
  return (
    <Stack>
      <Row style={{ justifyContent: 'space-between' }}>
        <h2 id="outside">Outside: what readers see</h2>
        <Faded role="status">
          {busy
            ? 'Working it out …'
            : answer && answer.kind !== 'error'
              ? `${answer.count} times in all`
              : ''}
        </Faded>
      </Row>
      <Row>
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
          <>
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
            <SelectOne
              label="Reader’s clock"
              value={zone}
              options={[
                { value: '', text: 'the host’s' },
                ...OUTSIDE_ZONES.map((z) => ({ value: z, text: z.replace(/_/g, ' ') })),
              ]}
              onChange={setZone}
            />
          </>
        )}
      </Row>
      {!question && <Empty>Choose a calendar under “Inside”. What readers would see appears here.</Empty>}
      {question && answer?.kind === 'error' && <Notice>{answer.text}</Notice>}
      {question && answer?.kind === 'page' && (
        <Pane title="What readers see" sandbox="" srcDoc={answer.text} $phone={width === 'phone'} />
      )}
      {question && answer?.kind === 'text' && (
        <Text tabIndex={0} aria-label="The document that programs fetch">
          {answer.text}
        </Text>
      )}
    </Stack>
  );
}
