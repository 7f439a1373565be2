import { AUDIENCE_WORDS, keyState } from '@zonal/core/glass';
import { DAY, dayFromText, dayToText, instantOf, dayAt } from '@zonal/core/zones';
import { Check, Copy } from 'lucide-react';
import { useState } from 'react';
import styled from 'styled-components';
import { problemOf, useEndKeyMutation } from '../api/zonalApi';
import type { OutwardWindow, WindowKey } from '@zonal/core/api';
import { DateField } from '../ui/DateFields';
import { Button } from '../ui/Button';
import { Rings } from '../ui/GlassMark';
import { Faded, Row, Stack } from '../ui/layout';
import { Notice } from '../ui/Notice';
import { useNow } from '../ui/useNow';
import { embedCode } from './embedCode';

const Box = styled.section`
  border: 1px solid var(--outside);
  background: var(--outside-wash);
  padding: 0.8rem 1rem;
  display: grid;
  gap: 0.6rem;
`;

const Key = styled.div`
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 0.5rem 1rem;
  border-top: 1px solid var(--hair);
  padding-top: 0.5rem;
`;

/** The addresses that can be handed out, key by key. */
export function Addresses({ window }: { window: OutwardWindow }) {
  return (
    <Box aria-labelledby="addresses">
      <h2 id="addresses">Addresses to hand out</h2>
      <Faded>Whoever has an address sees the window; nobody needs an account.</Faded>
      {window.keys.map((key) => (
        <Key key={key.id}>
          <Row>
            <Rings audience={key.audience} />
            <span>
              <strong>{key.madeOutTo}</strong> <Faded>{AUDIENCE_WORDS[key.audience].word}</Faded>
            </span>
            <KeyEnd window={window} keyOf={key} />
          </Row>
          <Row>
            <CopyButton what="page address" text={key.see} />
            <CopyButton what="embed code" text={embedCode(key.embed, window.wording.name)} />
            <CopyButton what="feed address" text={key.feed} />
            <a href={key.see} target="_blank" rel="noopener">
              Look at the page
            </a>
          </Row>
        </Key>
      ))}
    </Box>
  );
}

/** Until when the addresses of a key are open: to the end of a day on the host's clocks. */
function KeyEnd({ window: { hostZone }, keyOf }: { window: OutwardWindow; keyOf: WindowKey }) {
  const [end, ending] = useEndKeyMutation();
  const now = useNow();
  const { id, madeOutTo, expiresAt } = keyOf;
  const over = keyState(keyOf, now) === 'ended';
  const day = expiresAt ? dayToText(dayAt(hostZone, Date.parse(expiresAt) - 1)) : '';
  const [text, setText] = useState(day);
  const set = (next: string) => {
    setText(next);
    const last = next ? instantOf(hostZone, (dayFromText(next) + 1) * DAY) : null;
    void end({ id, expiresAt: last === null ? null : new Date(last).toISOString() });
  };
  return (
    <Row>
      <Row>
        <Faded>
          {over ? 'Ended with' : day ? 'Open to the end of' : 'Open without end, or to the end of'}{' '}
        </Faded>
        <DateField hideLabel label={`Last day of ${madeOutTo}`} value={text} onChange={setText} />
      </Row>
      {text && text !== day && (
        <Button isDisabled={ending.isLoading} onPress={() => set(text)}>
          Let it end then
        </Button>
      )}
      {day && (
        <Button isDisabled={ending.isLoading} onPress={() => set('')}>
          Take the end back
        </Button>
      )}
      {ending.error && <Notice>{problemOf(ending.error)?.message}</Notice>}
    </Row>
  );
}

function CopyButton({ what, text }: { what: string; text: string }) {
  const [state, setState] = useState<'ready' | 'copied' | 'refused'>('ready');
  const copy = async () => {
    try {
      await navigator.clipboard.writeText(text);
      setState('copied');
      setTimeout(() => setState('ready'), 2500);
    } catch {
      setState('refused');
    }
  };
  return (
    <Stack>
      <Button onPress={() => void copy()}>
        {state === 'copied' ? <Check aria-hidden="true" /> : <Copy aria-hidden="true" />}
        <span aria-live="polite">{state === 'copied' ? `Copied the ${what}` : `Copy ${what}`}</span>
      </Button>
      {state === 'refused' && (
        <input readOnly value={text} aria-label={what} onFocus={(e) => e.target.select()} />
      )}
    </Stack>
  );
}
