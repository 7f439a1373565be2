import { readEmbed, type EmbedLook, type EmbedRead } from '@zonal/core/forms';
import { useId, useState } from 'react';
import styled from 'styled-components';
import { Button } from '../ui/Button';
import { Field } from '../ui/Field';
import { Faded, Row, Stack } from '../ui/layout';
import { t } from '../texts/glass';

const Part = styled.details`
  border-top: 1px solid var(--hair);
  padding-top: 0.5rem;
  summary {
    cursor: pointer;
    margin-bottom: 0.4rem;
  }
`;

interface PastedEmbedProps {
  /** The embed's own address. */
  embed: string;
  onTake: (look: EmbedLook) => void;
}

/** Reads code that stands on a site already: its options can be taken up, and what is none of them is told. */
export function PastedEmbed({ embed, onTake }: PastedEmbedProps) {
  const [text, setText] = useState('');
  const notes = useId();
  const read = readEmbed(text);
  return (
    <Part>
      <summary>{t('readPasted')}</summary>
      <Stack>
        <Field label={t('codeOrAddress')} lines value={text} onChange={setText} />
        {text && (
          <ul id={notes} role="status">
            {notesOn(read, embed).map((note) => (
              <li key={note}>{note}</li>
            ))}
          </ul>
        )}
        <Row>
          <Button isDisabled={!read} aria-describedby={notes} onPress={() => read && onTake(read.look)}>
            {t('copyOptions')}
          </Button>
          <Faded>{t('copyOptionsHint')}</Faded>
        </Row>
      </Stack>
    </Part>
  );
}

/** Returns what is to be known of pasted code, in sentences. */
function notesOn(read: EmbedRead | null, embed: string): string[] {
  if (!read) return [t('noEmbedAddress')];
  const { address, look, unfit } = read;
  const count = Object.keys(look).length;
  return [
    address === embed ? '' : t('otherKeysAddress'),
    ...unfit.map(({ name, value }) => t('optionInvalid', { name, value })),
    t('optionsFound', { count }),
  ].filter(Boolean);
}
