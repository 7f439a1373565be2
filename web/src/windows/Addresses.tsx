import { Check, Copy } from 'lucide-react';
import { useState } from 'react';
import styled from 'styled-components';
import type { OutwardWindow } from '../api/types';
import { Button } from '../ui/Button';
import { AUDIENCE_WORDS, Rings } from '../ui/GlassMark';
import { Faded, Row, Stack } from '../ui/layout';
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
