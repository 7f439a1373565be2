import { Check, Copy } from 'lucide-react';
import { useState } from 'react';
import { Button } from './Button';
import { Stack } from './layout';
import { t } from '../texts/base';

/** Copies a text; where the browser does not let it, the text stands there to be copied by hand. */
export function CopyButton({ what, text }: { what: string; text: string }) {
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
        <span aria-live="polite">{state === 'copied' ? t('copied', { what }) : t('copy', { what })}</span>
      </Button>
      {state === 'refused' && (
        <input readOnly value={text} aria-label={what} onFocus={(e) => e.target.select()} />
      )}
    </Stack>
  );
}
